"""What a search found, as it is looked at: folded, with the field around it, costs, changes, additions and files."""

from __future__ import annotations

import itertools
import json
import math
from typing import Any
from unittest import TestCase, mock

from tests.core.designs import PLAIN
from tests.core.test_search import Brute, gear, motor, request
from ydrometer.base.tables.measures import ELSEWHERE
from ydrometer.document.design import read
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.targets import unbound
from ydrometer.search import read_request
from ydrometer.search.block import SAME_DRIVE, STEP
from ydrometer.search.compose import compose
from ydrometer.search.groups import SAME
from ydrometer.search.layouts import picture, stages_of, suggested
from ydrometer.search.options import LISTED, Options, options_of
from ydrometer.search.outcome import Outcome
from ydrometer.search.run import search
from ydrometer.search.table import rows_of
from ydrometer.search.ways import MOST_SHOWN

GEARS = [gear(z, owned=z % 2, price=z / 8) for z in (12, 16, 20, 24, 36, 48)]
TWO = [{"stages": [{"kind": "gear"}, {"kind": "gear"}]}]


def found(parts: list[dict[str, Any]], layouts: list[dict[str, Any]], **more: Any) -> Options:
    asked = read_request(request(parts, layouts, **more))
    return options_of(asked, search(asked))


class Rows(TestCase):
    def test_the_same_parts_in_equal_places_are_one_row(self) -> None:
        options = found(GEARS, TWO, keep=1000)
        seen: set[Any] = set()
        for row in options.rows[: options.listed]:
            stages = [*row.design["drive"]["branches"][0]["stages"], *row.design["drive"]["stages"]]
            key = (tuple(sorted(s["driver_teeth"] for s in stages)), tuple(sorted(s["driven_teeth"] for s in stages)))
            self.assertNotIn(key, seen)
            seen.add(key)

    def test_each_says_what_it_takes_and_costs(self) -> None:
        options = found(GEARS, TWO)
        units = PLAIN["drive"]["units"]
        for row in options.rows:
            owned = {part["id"]: part["owned"] for part in GEARS}
            for use in row.uses:
                self.assertEqual(use.needed % units, 0)
                self.assertEqual(use.buy, max(0, use.needed - owned[use.id]))
            self.assertAlmostEqual(sum(use.buy * (use.price or 0.0) for use in row.uses), row.price)
            self.assertEqual(sum(use.buy for use in row.uses), row.buy)

    def test_changes_are_told_in_words_and_not_those_that_a_search_leaves_open(self) -> None:
        own = stages_of(PLAIN)
        pulleys = [{"id": f"p{z}", "kind": "pulley", "teeth": z, "pitch": "5 mm"} for z in (18, 36)]
        options = found([*GEARS, *pulleys], [{"stages": own}])
        lines = " ".join(change for row in options.rows for change in row.changes)
        self.assertIn("driver gear 15 →", lines)
        self.assertNotIn("added", lines)
        self.assertNotIn("belt teeth", lines)

    def test_another_tooth_size_is_told(self) -> None:
        finer = [gear(z, id=f"f{z}", module="0.5 mm") for z in (12, 20)]
        options = found([gear(12), gear(20), *finer], [{"stages": [{"kind": "gear", "ratio": [1.1, 9]}]}])
        row = options.rows[0]
        self.assertEqual({row.words, *(way.words for way in row.others)}, {"gears 12 : 20", "gears 12 : 20, 0.5 mm"})

    def test_what_has_no_price_is_named_and_what_would_help_is_a_part(self) -> None:
        options = found(
            [gear(12), gear(20)],
            [{"stages": [{"kind": "gear"}]}],
            targets=[{"measure": "top_speed", "at_least": "60 m/s"}],
        )
        self.assertEqual(options.meeting_all, 0)
        self.assertEqual(options.unpriced, ["gear 12, module 1 mm", "gear 20, module 1 mm"])
        parts = [addition.part for addition in options.additions if addition.part]
        self.assertTrue(parts)
        self.assertEqual({(part["kind"], part["module"]) for part in parts}, {("gear", "1 mm")})


class Whole(TestCase):
    def test_a_row_has_the_figures_that_its_own_design_gives(self) -> None:
        other = {**motor("m", "300 rpm/V", mass="0.4 kg", owned=1), "name": "another motor"}
        wheel = {"kind": "wheel", "id": "w", "diameter": "150 mm", "mass": "0.2 kg", "owned": 4}
        box = {"kind": "speeds", "ratios": [2, 1], "shift_time": "0.2 s"}
        pairs = [{"kind": "gear"}, {"kind": "fixed", "stage": box}, {"kind": "gear"}]
        layouts = [{"sources": ["m"], "wheels": ["w"], "count": [2], "stages": pairs}]
        options = found([gear(z, mass="30 g") for z in (12, 15, 30)] + [other, wheel], layouts, add_part_masses=True)
        self.assertGreater(len(options.rows), 4)
        for row in options.rows:
            alone = evaluate([read(row.design)])
            for measure, value in zip(options.measures, row.values, strict=True):
                if measure.measure != "price" and value is not None:
                    expected = alone.value_for(unbound(measure.measure), 0)
                    assert expected is not None
                    self.assertAlmostEqual(expected, value, 9)


class TheField(TestCase):
    def test_the_best_of_each_stretch_of_ratios_is_kept(self) -> None:
        raw = request(GEARS, TWO)
        seen = search(read_request(raw))
        brute = Brute({**raw, "keep": 10_000})
        best: dict[int, Any] = {}
        for row in brute.rows:
            stages = row["design"]["drive"]["branches"][0]["stages"]
            ratio = math.prod(s["driven_teeth"] / s["driver_teeth"] for s in stages)
            best.setdefault(round(math.log(ratio) / math.log(STEP)), row)
        self.assertEqual(set(seen.field), set(best))
        for stretch, (key, _) in seen.field.items():
            self.assertEqual(list(key[-1]), best[stretch]["parts"])

    def test_it_stands_behind_the_list(self) -> None:
        options = found(GEARS, TWO)
        self.assertLessEqual(options.listed, LISTED)
        ratios = {round(row.ratio, 9) for row in options.rows[options.listed :]}
        self.assertGreater(len(ratios), 3)


class WaysToADrive(TestCase):
    def test_each_is_counted_and_the_best_few_are_kept(self) -> None:
        raw = request(GEARS, TWO)
        seen = search(read_request(raw))
        by_ratio: dict[int, list[Any]] = {}
        for row in Brute({**raw, "keep": 10_000}).rows:
            stages = row["design"]["drive"]["branches"][0]["stages"]
            ratio = math.prod(s["driven_teeth"] / s["driver_teeth"] for s in stages)
            by_ratio.setdefault(round(math.log(ratio) / SAME_DRIVE), []).append(row)
        self.assertEqual(len(seen.ways), len(by_ratio))
        for drive, ways in seen.ways.items():
            rows = by_ratio[drive[2]]
            self.assertEqual(ways.count, len(rows))
            self.assertEqual(ways.from_bin, sum(row["price"] == 0.0 for row in rows))
            self.assertEqual(ways.price, min(row["price"] for row in rows))
            self.assertEqual([list(key[-1]) for key, _ in ways.best], [row["parts"] for row in rows[:MOST_SHOWN]])

    def test_in_pieces_they_are_the_same(self) -> None:
        asked = read_request(request(GEARS, TWO))
        whole = search(asked)
        with mock.patch("ydrometer.search.run.CHUNK", 7):
            pieces = search(asked)
        self.assertEqual(pieces.ways, whole.ways)
        self.assertEqual(Outcome.from_json(json.loads(json.dumps(whole.as_json()))), whole)

    def test_rows_of_the_list_differ_in_what_they_do(self) -> None:
        options = found(GEARS, TWO)
        asked = [i for i, measure in enumerate(options.measures) if measure.measure not in ELSEWHERE]
        for first, second in itertools.combinations(options.rows[: options.listed], 2):
            pairs = [(first.values[i], second.values[i]) for i in asked]
            far = [a is None or b is None or abs(a - b) > 0.9 * SAME * max(abs(a), abs(b)) for a, b in pairs if a != b]
            self.assertTrue(any(far), (first.words, second.words))

    def test_of_ways_to_the_same_the_row_shows_what_people_would_choose(self) -> None:
        dear = [gear(z, owned=0, price=9.0) for z in (12, 24)]
        owned = [gear(z, owned=9, price=9.0) for z in (18, 36)]
        options = found([*dear, *owned], [{"stages": [{"kind": "gear", "ratio": [1.1, 9]}]}])
        row = next(row for row in options.rows if abs(row.ratio - 2.0) < 1e-9)
        self.assertEqual((row.words, row.ways, row.from_bin, row.from_price), ("gears 18 : 36", 2, 1, 0.0))
        self.assertEqual([way.words for way in row.others], ["gears 12 : 24"])


class Files(TestCase):
    def test_a_row_an_option_in_metric_units(self) -> None:
        options = found(GEARS, TWO)
        head, *rows = rows_of(options)
        self.assertEqual(len(rows), len(options.rows))
        self.assertTrue(any("[m/s]" in str(cell) for cell in head))
        self.assertTrue(all(len(row) == len(head) for row in rows))


class Layouts(TestCase):
    def test_the_designs_own_comes_first_and_each_can_be_drawn(self) -> None:
        first, *others = suggested(PLAIN)
        self.assertEqual([s["kind"] for s in first.layout["stages"]], ["gear", "belt"])
        for one in (first, *others):
            self.assertIsNotNone(one.line, one.words)
        pairs = itertools.combinations([first, *others], 2)
        self.assertTrue(all(a.layout != b.layout for a, b in pairs))

    def test_what_is_no_pair_is_taken_as_it_stands(self) -> None:
        stack = {"kind": "planetary", "reductions": [4]}
        design = {**PLAIN, "drive": {**PLAIN["drive"], "stages": [stack]}}
        self.assertEqual(stages_of(design)[-1], {"kind": "fixed", "stage": stack})

    def test_nonsense_has_no_picture_and_breaks_nothing(self) -> None:
        self.assertIsNone(picture({}, {"stages": 3}).line)
        self.assertIsNone(picture(PLAIN, {"stages": [{"kind": "rope"}]}).line)
        self.assertEqual(stages_of({"drive": {"branches": 3}}), [])


class Composed(TestCase):
    def test_only_what_layouts_choose_comes_in(self) -> None:
        parts = [*GEARS, {"id": "m", "kind": "motor"}, {"id": "w", "kind": "wheel"}, {"id": "s", "kind": "spacer"}]
        bare = compose({"layouts": TWO}, parts)
        self.assertEqual([p["kind"] for p in bare["parts"]], ["gear"] * len(GEARS))
        named = compose({"layouts": [{**TWO[0], "sources": ["m"], "wheels": "*"}]}, parts)
        self.assertEqual([p["id"] for p in named["parts"][-2:]], ["m", "w"])
