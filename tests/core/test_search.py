"""The search against brute force: every combination evaluated by itself, ranked by the format's own words."""

from __future__ import annotations

import copy
import itertools
import json
import unittest
from contextlib import ExitStack
from fractions import Fraction
from typing import Any, ClassVar
from unittest import mock

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.designs import PLAIN, changed
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.search import answer, read_request
from ydrometer.search.run import search

SLOW = frozenset({"top_speed", "launch_acceleration", "time_to_distance", "stopping_distance", "peak_bus_current"})
TARGETS = [{"measure": "top_speed", "at_least": "7 m/s"}, {"measure": "pushing_force", "at_least": "110 N"}]
PAIRS = {"gear": "gear", "belt": "pulley", "chain": "sprocket", "v_belt": "v_pulley"}


def request(parts: list[dict[str, Any]], layouts: list[dict[str, Any]], **more: Any) -> dict[str, Any]:
    base = changed({"run": {"distance": "25 m"}, "drive.branches.0.controller": {"current_limit": "60 A"}})
    base["targets"] = more.pop("targets", TARGETS)
    return {"format": "ydrometer-search", "version": 1, "design": base, "parts": parts, "layouts": layouts, **more}


def gear(teeth: int, **more: Any) -> dict[str, Any]:
    return {"id": f"g{teeth}", "kind": "gear", "teeth": teeth, "module": "1 mm", **more}


def motor(name: str, kv: str, **more: Any) -> dict[str, Any]:
    constants = {"kv": kv, "resistance": "40 mohm", "no_load_current": "1.2 A"}
    return {"id": name, "kind": "motor", "source": {"kind": "motor", "constants": constants}, **more}


class Brute:
    """Every combination, one by one, with nothing but whole designs and fractions."""

    def __init__(self, raw: dict[str, Any]) -> None:
        self.raw, self.parts = raw, {p["id"]: p for p in raw["parts"]}
        self.limits = raw.get("limits", {})
        self.rows = [row for n, layout in enumerate(raw["layouts"]) for row in self.of(n, layout)]
        documents = [design.read(row["design"]) for row in self.rows]
        self.evaluation = evaluate(documents) if documents else None
        for i, row in enumerate(self.rows):
            self.judge(i, row)
        self.rows.sort(key=lambda row: row["key"])

    def chosen(self, layout: dict[str, Any], key: str, kinds: tuple[str, ...]) -> list[Any]:
        known = [p["id"] for p in self.raw["parts"] if p["kind"] in kinds]
        asked = layout.get(key, "*")
        return [name for name in known if asked == "*" or name in asked] or [None]

    def options(self, stage: dict[str, Any]) -> list[tuple[list[str], dict[str, Any]]]:
        if stage["kind"] == "fixed":
            return [([], stage["stage"])]
        if stage["kind"] == "gearbox":
            boxes = [p for p in self.raw["parts"] if p["kind"] == "gearbox"]
            return [([p["id"]], {"kind": "gearbox", "ratio": p["ratio"]}) for p in boxes]
        found = []
        ends = [
            [self.parts[name] for name in self.chosen(stage, end, (PAIRS[stage["kind"]],)) if name]
            for end in ("driver", "driven")
        ]
        size = "module" if stage["kind"] == "gear" else "pitch"
        low, high = stage.get("ratio", [1, 10**9])
        for first, second in itertools.product(*ends):
            ratio = Fraction(second["teeth"], first["teeth"])
            if first[size] == second[size] and Fraction(str(low)) <= ratio <= Fraction(str(high)):
                document = {"kind": stage["kind"], "driver_teeth": first["teeth"], "driven_teeth": second["teeth"]}
                found.append(([first["id"], second["id"]], {**document, size: first[size]}))
        return found

    def of(self, number: int, layout: dict[str, Any]) -> list[dict[str, Any]]:
        rows = []
        heads = itertools.product(
            self.chosen(layout, "sources", ("motor",)),
            self.chosen(layout, "supplies", ("battery",)),
            self.chosen(layout, "wheels", ("wheel",)),
            layout.get("count", [1]),
        )
        for (source, supply, wheel, count), *stages in itertools.product(
            heads, *(self.options(stage) for stage in layout["stages"])
        ):
            row = self.row(number, layout, (source, supply, wheel), count, stages)
            if row is not None:
                rows.append(row)
        return rows

    def row(self, number: int, layout: Any, head: Any, count: int, stages: Any) -> dict[str, Any] | None:
        raw = copy.deepcopy(self.raw["design"])
        branch, units = raw["drive"]["branches"][0], raw["drive"]["units"]
        branch["count"] = count
        needed: dict[str, int] = {}
        for name, uses in zip(head, (units * count, 1, self.raw.get("wheels_needed", 4)), strict=True):
            if name:
                needed[name] = needed.get(name, 0) + uses
        for name in [name for names, _ in stages for name in names]:
            needed[name] = needed.get(name, 0) + units
        source, supply, wheel = (self.parts.get(name) for name in head)
        if source:
            branch["source"] = source["source"]
            branch["controller"] = source.get("controller", branch["controller"])
        if supply:
            raw["drive"]["supply"] = supply["supply"]
        if wheel:
            raw["vehicle"]["wheel_diameter"] = wheel["diameter"]
        rows = [stage for _, stage in stages]
        trunk = next((i for i, stage in enumerate(rows) if stage["kind"] == "speeds"), len(rows))
        branch["stages"], raw["drive"]["stages"] = rows[:trunk], rows[trunk:]
        if self.raw.get("add_part_masses"):
            mass = sum(n * float(self.parts[name].get("mass", "0 kg").split()[0]) for name, n in needed.items())
            raw["vehicle"]["mass"] = 14.0 + mass
        buy = {name: max(0, n - self.parts[name].get("owned", 0)) for name, n in needed.items()}
        price = sum(n * self.parts[name].get("price", 0.0) for name, n in buy.items())
        bought = sum(buy.values())
        limits = self.limits
        if (limits.get("owned_only") and bought) or price > limits.get("price_at_most", 1e9):
            return None
        if bought > limits.get("parts_to_buy_at_most", 10**9):
            return None
        names = [name for name in head if name] + [name for names, _ in stages for name in names]
        return {"layout": number, "count": count, "parts": names, "price": price, "buy": bought, "design": raw}

    def judge(self, i: int, row: dict[str, Any]) -> None:
        assert self.evaluation is not None
        starts = self.evaluation.starts(i)
        first = second = 0.0
        row["met"], row["missed"] = True, []
        weights = self.raw.get("weights", {})
        for target in self.evaluation.documents[i].design.targets:
            verdict = self.evaluation.judge(target, i, {"price": row["price"]}).verdict
            margin = -1.0 if verdict.margin is None else verdict.margin
            if not starts and target.measure in SLOW:
                margin = -1.0
            margin = min(0.25, max(-1.0, margin))
            weight = weights.get(target.measure, 1.0)
            first += weight * max(0.0, -margin) ** 2
            second -= weight * margin
            if not verdict.met:
                row["met"] = False
                row["missed"].append(target.measure)
        if not starts:
            row["missed"].append(f"held by {self.evaluation.held_by(i)}")
        row["key"] = (
            round(first, 9),
            round(second, 9),
            row["price"],
            row["buy"],
            row["layout"],
            row["count"],
            row["parts"],
        )

    def failing(self) -> dict[str, int]:
        found: dict[str, int] = {}
        for row in self.rows:
            if not row["met"]:
                for reason in row["missed"]:
                    found[reason] = found.get(reason, 0) + 1
        return found


GEARS = [gear(t, owned=o, price=p, mass="0.05 kg") for t, o, p in
         ((12, 2, 3.0), (14, 0, 3.5), (15, 4, 3.0), (18, 1, 4.0), (40, 2, 8.0), (48, 0, 9.0),
          (56, 2, 10.0))]  # fmt: skip


class AgainstBrute(unittest.TestCase):
    def check(self, raw: dict[str, Any]) -> dict[str, Any]:
        brute = Brute(raw)
        answered = answer(read_request(raw))
        self.assertEqual(answered["combinations"], len(brute.rows))
        self.assertEqual(answered["meeting_all"], sum(row["met"] for row in brute.rows))
        self.assertEqual(answered["failing"], brute.failing())
        wanted = [(row["parts"], row["count"]) for row in brute.rows][: raw.get("keep", 50)]
        self.assertEqual([(o["parts"], o["count"]) for o in answered["options"]], wanted)
        for option, row in zip(answered["options"], brute.rows, strict=False):
            self.assertAlmostEqual(option["price"], row["price"])
            self.assertEqual(option["parts_to_buy"], row["buy"])
            alone = evaluate([design.read(option["design"])])
            self.assertEqual(alone.value("top_speed", 0), option["measures"]["top_speed"]["value"])
        return answered

    def test_one_pair(self) -> None:
        self.check(request(GEARS, [{"stages": [{"kind": "gear"}]}]))

    def test_two_pairs_share_a_bin(self) -> None:
        found = self.check(request(GEARS, [{"stages": [{"kind": "gear"}, {"kind": "gear"}]}], keep=40))
        self.assertGreater(found["combinations"], 500)

    def test_motors_wheels_counts_and_a_box(self) -> None:
        parts = [
            *GEARS[2:6],
            motor("m1", "420 rpm/V", owned=1, price=30.0),
            motor("m2", "700 rpm/V", price=20.0),
            {"id": "w1", "kind": "wheel", "diameter": "100 mm", "owned": 4},
            {"id": "w2", "kind": "wheel", "diameter": "150 mm", "price": 5.0},
            {"id": "x3", "kind": "gearbox", "ratio": 3, "price": 40.0, "owned": 2},
        ]
        boxed = [{"kind": "gearbox"}, {"kind": "gear"}]
        layouts = [
            {"count": [1, 2], "stages": [{"kind": "gear"}]},
            {"sources": ["m2"], "wheels": ["w1"], "stages": boxed},
        ]
        found = self.check(request(parts, layouts, keep=30))
        self.assertEqual(found["unpriced"], ["w1"])

    def test_several_speeds_and_ratio_bounds(self) -> None:
        box = {"kind": "fixed", "stage": {"kind": "speeds", "ratios": [2, 1], "shift_time": "0.2 s"}}
        stage = {"kind": "gear", "ratio": [2.5, 4]}
        self.check(request(GEARS, [{"stages": [stage, box]}, {"stages": [box, stage]}]))

    def test_limits_masses_weights_and_a_price_target(self) -> None:
        targets = [
            {"measure": "top_speed", "between": ["5 m/s", "8 m/s"]},
            {"measure": "price", "at_most": 20},
            {"measure": "time_to_distance", "at_most": "4 s"},
        ]
        for limits in ({"owned_only": True}, {"price_at_most": 15}, {"parts_to_buy_at_most": 2}):
            with self.subTest(limits):
                self.check(
                    request(
                        GEARS,
                        [{"stages": [{"kind": "gear"}, {"kind": "gear"}]}],
                        limits=limits,
                        targets=targets,
                        add_part_masses=True,
                        weights={"top_speed": 3.0},
                        keep=25,
                    )
                )

    def test_what_does_not_start_is_counted(self) -> None:
        raw = request(GEARS, [{"stages": [{"kind": "gear"}]}])
        raw["design"]["conditions"] = {"grade": 0.85}
        raw["design"]["vehicle"]["mass"] = "60 kg"
        found = self.check(raw)
        self.assertTrue(any(reason.startswith("held by") for reason in found["failing"]))

    @settings(max_examples=12, deadline=None)
    @given(
        teeth=st.lists(
            st.tuples(st.integers(8, 80), st.integers(0, 4), st.integers(0, 9)),
            min_size=2,
            max_size=6,
            unique_by=lambda row: row[0],
        ),
        low=st.sampled_from([1, 1.4, 2]),
        keep=st.integers(1, 30),
        count=st.sampled_from([[1], [2, 1]]),
        stages=st.integers(1, 2),
    )
    def test_drawn_requests(self, teeth: Any, low: float, keep: int, count: list[int], stages: int) -> None:
        parts = [gear(t, owned=o, price=float(p)) for t, o, p in teeth]
        layout = {"count": count, "stages": [{"kind": "gear", "ratio": [low, 8]}] * stages}
        self.check(request(parts, [layout], keep=keep))


class InPieces(unittest.TestCase):
    """However a search is cut, and whether its drives are known beforehand or told from each other afterwards."""

    box: ClassVar[Any] = {"kind": "fixed", "stage": {"kind": "speeds", "ratios": [2, 1], "shift_time": "0.2 s"}}
    pairs: ClassVar[Any] = [{"kind": "gear"}, {"kind": "gear", "ratio": [0.5, 9]}]

    def found(self, raw: dict[str, Any], **small: int) -> dict[str, Any]:
        with ExitStack() as stack:
            for name, size in small.items():
                stack.enter_context(mock.patch(f"ydrometer.search.{name.replace('__', '.')}", size))
            return search(read_request(raw)).as_json()

    def check(self, limits: Any, targets: list[Any], **more: Any) -> None:
        layouts = [{"stages": self.pairs}, {"count": [1, 2], "stages": [*self.pairs[:1], self.box]}, {"stages": []}]
        raw = request(GEARS, layouts, limits=limits, targets=[*TARGETS, *targets], keep=20, **more)
        whole = self.found(raw)
        self.assertGreater(whole["combinations"], 5)
        self.assertEqual(self.found(raw, run__CHUNK=97, run__CHUNK_APART=31), whole)
        self.assertEqual(self.found(raw, walk__FASTEST=1, walk__AT_ONCE=50), whole)
        self.assertEqual(self.found(raw, drives__MOST=20), whole)
        self.assertEqual(self.found(raw, classes__MOST_REMEMBERED=0, run__CHUNK=200), whole)

    def test_limits(self) -> None:
        self.check({}, [])
        self.check({"price_at_most": 25, "overall_ratio": [2, 12]}, [])
        self.check({"parts_to_buy_at_most": 1}, [])

    def test_prices_and_masses(self) -> None:
        self.check({"price_at_most": 25}, [{"measure": "price", "at_most": 12}])
        self.check({"parts_to_buy_at_most": 3}, [], add_part_masses=True)

    def test_the_same_parts_cost_the_same_in_whatever_order(self) -> None:
        parts = [gear(t, price=p) for t, p in ((12, 0.1), (15, 0.2), (40, 0.3), (48, 0.7))]
        layouts = [{"stages": [{"kind": "gear"}, {"kind": "gear"}]}]
        outcome = search(read_request(request(parts, layouts, limits={"price_at_most": 2.6}, keep=99)))
        prices = {(tuple(sorted(key[-1])), option.price) for key, option in outcome.best}
        self.assertEqual(len(prices), len({names for names, _ in prices}))
        self.assertIn(2.6, {price for _, price in prices})


class Requests(unittest.TestCase):
    def faults(self, raw: Any) -> list[str]:
        with self.assertRaises(DocumentError) as caught:
            read_request(raw)
        return [fault.path for fault in caught.exception.faults]

    def test_every_fault_at_once_with_its_path(self) -> None:
        raw = request(
            [gear(12), {"id": "x", "kind": "gear", "teeth": 2}, {"id": "q", "kind": "lid"}],
            [{"stages": [{"kind": "gear", "ratio": [3, 2]}], "lid": 1}],
            keep=0,
        )
        raw["design"]["vehicle"]["mass"] = "-1 kg"
        fault_list = self.faults(raw)
        for path in (
            "design.vehicle.mass",
            "parts[1].teeth",
            "parts[2].kind",
            "layouts[0].stages[0].ratio",
            "layouts[0].lid",
            "keep",
        ):
            self.assertIn(path, fault_list)

    def test_what_only_shows_together(self) -> None:
        stages = [{"kind": "gear"}]
        for raw, path in (
            (request([gear(12), gear(12)], [{"stages": stages}]), "parts[1].id"),
            (request([gear(12)], [{"stages": [{"kind": "gear", "driver": ["g99"]}]}]), "layouts[0].stages[0].driver"),
            (request([gear(12)], [{"sources": ["g12"], "stages": stages}]), "layouts[0].sources"),
            (request([], [{"stages": []}], targets=[{"measure": "top_speed", "at_least": 0}]), "design.targets[0]"),
            (
                {
                    **request([], [{"stages": []}]),
                    "design": changed({"drive.branches": PLAIN["drive"]["branches"] * 2}),
                },
                "design.drive.branches",
            ),
            ([], "$"),
        ):
            with self.subTest(path):
                self.assertEqual(self.faults(raw), [path])

    def test_nothing_to_choose_from_is_an_empty_answer(self) -> None:
        answered = answer(read_request(request([gear(40)], [{"stages": [{"kind": "gear", "ratio": [2, 3]}]}])))
        self.assertEqual((answered["combinations"], answered["options"], answered["nearest_change"]), (0, [], []))

    def test_the_nearest_change_is_an_addition_that_helps(self) -> None:
        targets = [{"measure": "top_speed", "between": ["9.1 m/s", "9.3 m/s"]}]
        raw = request(
            [gear(12), gear(40)],
            [{"stages": [{"kind": "gear", "driver": ["g12"], "driven": ["g40"]}]}],
            targets=targets,
        )
        answered = answer(read_request(raw))
        self.assertEqual(answered["meeting_all"], 0)
        self.assertTrue(answered["nearest_change"])
        first = answered["nearest_change"][0]
        self.assertLess(first["shortfall"], 1.0)
        json.dumps(answered, allow_nan=False)


if __name__ == "__main__":
    unittest.main()
