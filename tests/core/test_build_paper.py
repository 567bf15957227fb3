import io
import unittest
from datetime import date, datetime, timedelta
from itertools import pairwise
from pathlib import Path
from typing import Any

import pypdfium2 as pdfium
from icalendar import Calendar
from PIL import Image

from tests.core.designs import changed
from ydrometer.base.errors import DocumentError
from ydrometer.build.bin import bin_of
from ydrometer.build.book import read_book
from ydrometer.build.inspection import cares, next_look, read_inspection
from ydrometer.build.parts_list import parts_list
from ydrometer.build.purchase import Said, open_orders, spending
from ydrometer.build.savings import swaps
from ydrometer.build.workshop import workshop
from ydrometer.document import design
from ydrometer.drawing import draw_line
from ydrometer.files.booklet import Content, booklet
from ydrometer.files.calendar import calendar
from ydrometer.files.parts_sheet import read_table, table
from ydrometer.screens.build_shown import Site, build_shown, steps_for
from ydrometer.screens.orders import order_list
from ydrometer.screens.parts_shown import BenchKnown, PartsShown, parts_shown, price_working
from ydrometer.screens.step_entries import Entry

NOW = datetime(2027, 5, 3, 12)
PULLEY = {"kind": "pulley", "id": "p36", "teeth": 36, "pitch": "5 mm", "price": 9.0}
DOCUMENT = design.read(changed({"drive.units": 1}))


def bench(**book: object) -> BenchKnown:
    return BenchKnown(bin_of([PULLEY]), book=read_book(book))


class Booklet(unittest.TestCase):
    def test_has_every_step_with_its_numbers_and_tells_how_far_it_is(self) -> None:
        site = Site(bench(event="2027-06-12T09:00"), NOW)
        shown = build_shown(DOCUMENT, site)
        content = Content("Sandpiper & Co", shown, parts_shown(DOCUMENT, site.bench), draw_line(DOCUMENT.design))
        said: list[tuple[int, int]] = []
        data = booklet(content, Path("nowhere"), lambda done, of: said.append((done, of)))
        with pdfium.PdfDocument(data) as read:
            text = " ".join(page.get_textpage().get_text_bounded() for page in read)
        words = " ".join(text.split())
        self.assertIn("Sandpiper & Co", words)
        self.assertIn("36-tooth pulley, pitch 5 mm", words)
        for step in shown.steps:
            self.assertIn(" ".join(step.title.split()[:4]), words)
        self.assertEqual(said[-1][0], said[-1][1])
        self.assertEqual([done for done, _ in said], list(range(1, len(said) + 1)))

    def test_has_tools_what_is_owned_photos_and_pages_counted_through(self) -> None:
        pictures = io.BytesIO()
        Image.new("RGB", (40, 30)).save(pictures, "JPEG")
        site = Site(bench(), NOW, photos={"fit:mark_out": ["a", "b"]})
        there = parts_shown(DOCUMENT, BenchKnown(bin_of([{**PULLEY, "owned": 1}])))
        shown = build_shown(DOCUMENT, site)
        asked: list[str] = []

        def photo(id_: str) -> bytes:
            asked.append(id_)
            return pictures.getvalue() if id_ == "a" else b""

        data = booklet(Content("Knot", shown, there, draw_line(DOCUMENT.design), photo), Path())
        with pdfium.PdfDocument(data) as read:
            pages = [" ".join(page.get_textpage().get_text_bounded().split()) for page in read]
            things = [thing.type for page in read for thing in page.get_objects()]
        for number, words in enumerate(pages, 1):
            self.assertIn(f"page {number}", words)
        self.assertRegex(pages[0], r"Tools: .*caliper.*wrench")
        self.assertRegex(" ".join(pages), r"At hand .*36-tooth pulley, pitch 5 mm")
        self.assertIn("Tools: caliper.", " ".join(pages))
        self.assertEqual((asked, things.count(pdfium.raw.FPDF_PAGEOBJ_IMAGE)), (["a", "b"], 1))

    def test_a_step_that_has_to_be_done_once_more_has_an_empty_box_and_says_why(self) -> None:
        first = build_shown(DOCUMENT, Site(bench(), NOW)).steps
        said = tuple(Entry(step.id, "done", NOW, "ada", made_from=tuple(step.made_from)) for step in first)
        other = design.read(changed({"drive.branches.0.stages.0.driver_teeth": 17}))
        shown = build_shown(other, Site(bench(), NOW, said))
        data = booklet(
            Content("Sandpiper", shown, parts_shown(other, bench()), draw_line(other.design)), Path(), lambda *_: None
        )
        with pdfium.PdfDocument(data) as read:
            text = " ".join(page.get_textpage().get_text_bounded() for page in read)
        self.assertEqual(text.count("✓"), sum(step.done and not step.once_more for step in shown.steps))
        self.assertIn("now 17-tooth gear, module 1 mm: once more", " ".join(text.split()))


class Pace(unittest.TestCase):
    def test_is_judged_by_steps_that_there_are_and_whose_minutes_were_told(self) -> None:
        ids = [step.id for step in steps_for(DOCUMENT, bench())][:7]
        said = tuple(
            Entry(id_, "done", NOW, "ada", minutes=minutes)
            for id_, minutes in zip([*ids, "gone:now"], [30.0] * 5 + [None, None, 30.0], strict=True)
        )
        self.assertEqual(build_shown(DOCUMENT, Site(bench(), NOW, said)).judged, 5)


class ICalendar(unittest.TestCase):
    def test_is_read_back_with_the_same_uids_when_it_is_written_anew(self) -> None:
        def made(people: int) -> dict[str, tuple[str, object]]:
            shown = build_shown(DOCUMENT, Site(bench(event="2027-06-12T09:00", people=people), NOW))
            events = Calendar.from_ical(calendar("Knot", "key", shown)).walk("VEVENT")
            return {str(event["UID"]): (str(event["SUMMARY"]), event.decoded("DTSTART")) for event in events}

        single, two = made(1), made(2)
        orders = {uid for uid, (words, _) in single.items() if ": order " in words}
        self.assertTrue(orders)
        self.assertLessEqual(orders, set(two))
        self.assertIn(("Knot: event", datetime(2027, 6, 12, 9)), single.values())
        self.assertTrue(any("it cures" in words for words, _ in single.values()))

    def entries(self, **book: object) -> list[Any]:
        shown = build_shown(DOCUMENT, Site(bench(event="2027-06-12T09:00", **book), NOW))
        return list(Calendar.from_ical(calendar("Knot; 2,\nsecond", "key", shown)).walk("VEVENT"))

    def test_people_have_entries_beside_each_other_as_long_as_their_work(self) -> None:
        work = [event for event in self.entries(people=2) if ": build" in event["SUMMARY"]]
        spans = [(str(event["SUMMARY"]), event.decoded("DTSTART"), event.decoded("DTEND")) for event in work]
        self.assertTrue(any("person 2" in words for words, _, _ in spans))
        for words, start, end in spans:
            self.assertEqual(
                int(words.rpartition(", ")[2].split()[0]), round((end - start).total_seconds() / 60), words
            )
        firsts = [(start, end) for words, start, end in spans if "person 1" in words]
        self.assertTrue(all(end <= start for (_, end), (start, _) in pairwise(sorted(firsts))))
        self.assertFalse(any("person" in str(event["SUMMARY"]) for event in self.entries(people=1)))

    def test_what_is_left_alone_ends_when_it_is_over(self) -> None:
        shown = build_shown(DOCUMENT, Site(bench(event="2027-06-12T09:00"), NOW))
        waits = [event for event in self.entries() if "leave it" in event["SUMMARY"]]
        ends = {step.end + timedelta(seconds=step.wait) for step in shown.steps if step.end and step.wait >= 3600}
        self.assertTrue(waits)
        self.assertLessEqual({event.decoded("DTEND") for event in waits}, ends)
        self.assertTrue(any("it charges" in event["SUMMARY"] for event in waits))

    def test_a_name_is_one_line_whatever_is_in_it(self) -> None:
        self.assertEqual(str(self.entries()[0]["SUMMARY"]), "Knot; 2, second: event")

    def test_without_an_event_is_empty(self) -> None:
        shown = build_shown(DOCUMENT, Site(bench(), NOW))
        self.assertEqual(Calendar.from_ical(calendar("Knot", "key", shown)).walk("VEVENT"), [])


class Money(unittest.TestCase):
    def lines(self) -> PartsShown:
        return parts_shown(DOCUMENT, bench())

    def test_what_was_paid_goes_before_the_price(self) -> None:
        shown = self.lines()
        self.assertEqual((shown.spent, shown.to_spend), (0.0, 9.0))
        key = next(line.key for line in shown.lines if line.words.startswith("36-tooth"))
        said = {key: Said("ordered", NOW, "me", date(2027, 5, 10), 8.0)}
        paid = parts_shown(DOCUMENT, BenchKnown(bin_of([PULLEY]), said=said))
        self.assertEqual((paid.spent, paid.to_spend), (8.0, 0.0))
        working = price_working(DOCUMENT, BenchKnown(bin_of([PULLEY]), said=said))
        self.assertEqual((working.value, working.steps[-1].expression), (8.0, "p_0"))

    def test_an_order_is_awaited_and_what_is_here_is_not(self) -> None:
        listing = parts_list(workshop(DOCUMENT), bin_of([PULLEY]))
        line = next(line for line in listing.lines if line.need.words.startswith("36-tooth"))
        ordered = {line.key: Said("ordered", NOW, "me", date(2027, 5, 10))}
        order = next(one for one in open_orders(listing.lines, ordered, NOW) if one.part == line.need.words)
        self.assertEqual((order.days, order.placed), (7, True))
        here = {line.key: Said("here", NOW, "me")}
        self.assertNotIn(line.need.words, [one.part for one in open_orders(listing.lines, here, NOW)])
        self.assertEqual(spending(listing.lines, here).spent, 9.0)

    def test_a_table_is_read_back(self) -> None:
        shown = self.lines()
        rows = table(shown)
        rows[1][rows[0].index("state")] = "Fitted"
        rows[2][rows[0].index("paid")] = "a lot"
        said, faults = read_table(rows, [line.key for line in shown.lines])
        self.assertEqual(said[0].state, "fitted")
        self.assertEqual([(fault.row, fault.column) for fault in faults], [(3, "paid")])

    def test_vehicles_share_what_comes_out_of_a_tube(self) -> None:
        orders = order_list([("one", self.lines().lines), ("two", self.lines().lines)])
        number = {line.words: line.number for line in orders.lines}
        self.assertEqual((number["grease"], number["36-tooth pulley, pitch 5 mm"]), (1, 2))


class Savings(unittest.TestCase):
    def test_name_owned_wheels_of_the_same_reduction(self) -> None:
        owned = [
            {"kind": kind, "id": f"{kind}{teeth}", "teeth": teeth, **size, "owned": 1}
            for kind, size, counts in (
                ("gear", {"module": "1 mm"}, (15, 30, 56)),
                ("pulley", {"pitch": "5 mm"}, (16, 32)),
            )
            for teeth in counts
        ]
        rows = swaps(DOCUMENT.design, bin_of(owned), {})
        self.assertEqual(rows[0].changes, {"drive.stages[0].driver_teeth": 16, "drive.stages[0].driven_teeth": 32})
        self.assertIn("the same reduction", rows[0].words)

    def test_are_none_where_nothing_is_owned(self) -> None:
        self.assertEqual(swaps(DOCUMENT.design, bin_of([PULLEY]), {"p36": 1}), [])


class LookingAfter(unittest.TestCase):
    def test_first_after_five_minutes_then_an_hour_then_each_five(self) -> None:
        looks = [next_look(hours) for hours in (0.0, 0.1, 1.0, 5.9, 6.0)]
        self.assertEqual([round(look, 3) for look in looks], [0.083, 1.0, 6.0, 6.0, 11.0])

    def test_what_was_looked_at_is_not_due(self) -> None:
        steps = steps_for(DOCUMENT, bench())
        self.assertTrue(all(care.due for care in cares(steps, 0.5, [])))
        whole = read_inspection({"hours": 0.5})
        self.assertFalse(any(care.due for care in cares(steps, 0.5, [whole])))
        one = read_inspection({"hours": 0.5, "looked": [steps[0].id]})
        self.assertTrue(any(care.due for care in cares(steps, 0.5, [one])))

    def test_what_is_called_other_is_said_in_words(self) -> None:
        for found, words, wrong in (("other", " ", 1), ("other", "a smell", 0), ("worn", "", 0)):
            finding = {"step": "drive.supply:leads", "found": found, "words": words}
            try:
                faults = []
                read_inspection({"hours": 0.5, "findings": [finding]})
            except DocumentError as error:
                faults = [fault.path for fault in error.faults]
            self.assertEqual(faults, ["findings[0].words"] * wrong, (found, words))

    def test_the_looks_after_the_first_runs_are_listed(self) -> None:
        shown = build_shown(DOCUMENT, Site(bench(), NOW, [Entry("fit:mark_out", "done", NOW, "me")]))
        looks = {step.id: [look.words for look in step.looks] for step in shown.steps}
        self.assertIn("motor mount bolts", looks["vehicle:recheck_5_min"])
        self.assertEqual(looks["fit:mark_out"], [])
        self.assertEqual(shown.done, 1)
