import base64
import io
from datetime import datetime, timedelta
from typing import Any
from uuid import uuid4

from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from icalendar import Calendar
from openpyxl import load_workbook

from server.builds.models import StepEntry
from server.builds.site import Clock, hours_run, pulse_of
from server.designs.actions import add_vehicle, save_revision
from tests.core.designs import PLAIN, changed
from tests.server.builds_case import GEARS, MOTOR, BuildCase, entry
from tests.server.people import WorkshopCase
from ydrometer.base.errors import DocumentError


class Ticks(BuildCase):
    def test_two_people_tick_and_both_are_kept(self) -> None:
        self.say("owner", entry("fit:mark_out", minutes=30))
        self.say("editor", entry(f"{GEARS}:try", value="8.02", note="a little tight"))
        step_rows = self.steps()
        self.assertEqual(step_rows["fit:mark_out"]["by"], self.people["owner"].username)
        tried = step_rows[f"{GEARS}:try"]
        self.assertEqual(
            (tried["by"], tried["value"], tried["note"]), (self.people["editor"].username, "8.02", "a little tight")
        )

    def test_sent_twice_is_one(self) -> None:
        tick = entry("fit:mark_out")
        self.say("owner", tick)
        self.say("owner", tick)
        self.assertEqual(StepEntry.objects.count(), 1)

    def test_the_last_word_holds_in_whatever_order_it_comes(self) -> None:
        early, late = timezone.now() - timedelta(hours=2), timezone.now() - timedelta(hours=1)
        self.say("owner", entry("fit:mark_out", "undone", reason="drilled off centre") | {"at": late.isoformat()})
        self.say("editor", entry("fit:mark_out") | {"at": early.isoformat()})
        self.assertFalse(self.steps()["fit:mark_out"]["done"])

    def test_a_step_out_of_turn_is_held_back_and_overruled_with_a_reason(self) -> None:
        held = self.say("owner", entry("vehicle:spin"))
        self.assertIn("needs first", held[0]["reasons"][0]["words"])
        self.assertEqual(self.say("owner", entry("vehicle:spin", reason="bench test of one motor")), [])
        self.assertEqual(self.steps()["vehicle:spin"]["reason"], "bench test of one motor")

    def test_what_cures_cannot_be_hurried_and_who_did_is_told_at_the_signature(self) -> None:
        glued = {"fit": {"shafts": [{"shaft": "drive.stages[0]", "mount": "free", "opening": "22 mm"}]}}
        save_revision(self.people["owner"], self.vehicle, 2, changed({**glued, "drive.units": 1}))
        self.do("owner", "drive.stages[0]:bearings")
        stack = entry("drive.stages[0]:stack")
        (reason,) = self.say("owner", stack)[0]["reasons"]
        self.assertIn("not over yet: Glue the bearings", reason["words"])
        self.assertIsNotNone(reason["until"])
        self.assertEqual(self.say("owner", {**stack, "id": str(uuid4()), "reason": "quick glue, 5 min"}), [])
        (look,) = self.steps()["vehicle:sign_off"]["looks"]
        self.assertIn("“quick glue, 5 min” (owner)", look["words"])

    def test_a_note_kept_later_prolongs_no_cure(self) -> None:
        glued = {"fit": {"shafts": [{"shaft": "drive.stages[0]", "mount": "free", "opening": "22 mm"}]}}
        save_revision(self.people["owner"], self.vehicle, 2, changed({**glued, "drive.units": 1}))
        self.do("owner", "drive.stages[0]:bearings")
        bearings = self.steps()["drive.stages[0]:bearings"]
        until = self.steps()["drive.stages[0]:stack"]["held"][0]["until"]
        kept = (datetime.fromisoformat(bearings["at"]) + timedelta(seconds=1)).isoformat()
        self.say("owner", entry("drive.stages[0]:bearings", note="green compound") | {"at": kept})
        self.assertEqual(self.steps()["drive.stages[0]:bearings"]["note"], "green compound")
        now = self.steps()["drive.stages[0]:stack"]["held"][0]["until"]
        self.assertLess(datetime.fromisoformat(now) - datetime.fromisoformat(until), timedelta(minutes=1))

    def test_what_is_loose_is_told_and_keeps_power_off(self) -> None:
        ids = list(self.steps())
        self.say(
            "owner", *(entry(id_, reason="x") for id_ in ids[: ids.index("vehicle:stand") + 1] if ":tighten" not in id_)
        )
        shown = self.get("owner")["shown"]
        self.assertIn("motor mount bolts", [one["words"] for one in shown["loose"]])
        held = self.say("owner", entry(f"{MOTOR}:alone"))
        self.assertIn("loose: motor mount bolts", [reason["words"] for reason in held[0]["reasons"]])

    def test_undone_and_not_now_want_a_reason(self) -> None:
        self.post("owner", "build/entries/", {"entries": [entry("fit:mark_out", "undone")]}, 400)
        self.assertEqual(self.say("owner", entry("fit:mark_out", "later", reason="no drill tonight")), [])
        self.assertEqual(self.steps()["fit:mark_out"]["later"], "no drill tonight")

    def test_a_changed_design_says_what_to_do_once_more(self) -> None:
        self.do("owner", f"{MOTOR}:wheel")
        steps = self.steps()
        again = entry(f"{MOTOR}:wheel", about=steps[f"{MOTOR}:wheel"]["about"], title=steps[f"{MOTOR}:wheel"]["title"])
        self.say("owner", again)
        teeth = {"drive.units": 1, "drive.branches.0.stages.0.driver_teeth": 17}
        save_revision(self.people["owner"], self.vehicle, 2, changed(teeth))
        step_rows = self.steps()[f"{MOTOR}:wheel"]
        self.assertTrue(step_rows["done"])
        self.assertEqual(step_rows["once_more"], "Done for 15-tooth gear; now 17-tooth gear")

    def signed(self) -> tuple[bool, str]:
        """Everything is done and signed; whether the signature stands, and what took it."""
        shown = self.get("owner")["shown"]
        sign = next(step for step in shown["steps"] if step["id"] == "vehicle:sign_off")
        self.assertEqual(sign["done"], shown["signed_at"] is not None)
        return sign["done"], sign["once_more"] or " ".join(reason["words"] for reason in sign["held"])

    def sign(self) -> None:
        steps, long_ago = self.steps(), timezone.now() - timedelta(days=9)
        for number, (id_, step) in enumerate(steps.items()):
            at = (long_ago + timedelta(hours=2 * number)).isoformat()
            made = {"made_from": step["made_from"], "about": step["about"], "title": step["title"], "reason": "x"}
            self.assertEqual(self.say("owner", {**entry(id_, **made), "at": at}), [])

    def test_a_signature_is_of_a_state(self) -> None:
        tighten = f"{GEARS}:tighten"
        self.sign()
        self.assertEqual(self.signed(), (True, ""))
        self.say("owner", entry(tighten, "undone", reason="a bolt was missing"))
        stands, why = self.signed()
        self.assertFalse(stands)
        self.assertIn("Tighten the motor", why)
        # Done again, what stands on it has to be looked at again, and then signed again.
        self.say("owner", entry(tighten, made_from=self.steps()[tighten]["made_from"]))
        self.assertFalse(self.signed()[0])
        self.assertIn("Opened again since: “Tighten the motor", self.steps()["vehicle:look_over"]["once_more"])
        self.assertEqual(self.steps()[f"{GEARS}:mesh"]["once_more"], "")

    def test_a_signature_asks_for_every_step_and_stands_if_it_was_given_all_the_same(self) -> None:
        self.sign()
        guard = "drive.stages[0]:guard"
        self.say("owner", entry(guard, "undone", reason="painted"))
        held = self.say("owner", entry("vehicle:sign_off"))
        self.assertIn(guard, [reason["step"] for reason in held[0]["reasons"]])
        self.assertEqual(self.say("owner", entry("vehicle:sign_off", reason="guard at the painter's")), [])
        self.assertEqual(self.signed(), (True, ""))

    def test_a_change_of_the_design_takes_a_signature(self) -> None:
        self.sign()
        teeth = {"drive.units": 1, "drive.branches.0.stages.0.driver_teeth": 17}
        save_revision(self.people["owner"], self.vehicle, 2, changed(teeth))
        stands, why = self.signed()
        self.assertFalse(stands)
        self.assertIn("The design has changed since", why)
        self.assertIn("The design has changed since", self.steps()["vehicle:first_run"]["once_more"])

    def test_turns_counted_in_the_air_are_a_run(self) -> None:
        self.say("owner", entry("vehicle:spin", value="1400", reason="on the stand"))
        run = self.vehicle.runs.get()
        self.assertEqual((run.document["kind"], run.document["readings"]), ("spin", ["1400 rpm"]))
        self.assertIsNotNone(run.predicted)
        self.say("owner", entry("vehicle:spin", value="many", reason="on the stand"))
        self.assertEqual(self.vehicle.runs.count(), 1)

    def test_an_entry_of_another_vehicle_is_refused(self) -> None:
        tick = entry("fit:mark_out")
        self.say("owner", tick)
        other = add_vehicle(self.people["owner"], self.workshop, PLAIN)
        answer = self.as_("owner").post(f"/api/vehicles/{other.id}/build/entries/", {"entries": [tick]}, format="json")
        self.assertEqual(answer.status_code, 400)

    def test_a_moment_of_another_century_is_told(self) -> None:
        for at in ("0001-01-01T00:00:00Z", "1999-12-31T12:00:00Z", "2101-01-02T00:00:00Z", "9999-12-31T23:59:59Z"):
            for rest, body in (
                ("build/entries/", {"entries": [entry("fit:mark_out") | {"at": at}]}),
                ("build/inspections/", {"id": str(uuid4()), "document": {"hours": 1}, "at": at}),
                ("parts-list/entries/", {"entries": [{"id": str(uuid4()), "key": "x", "state": "here", "at": at}]}),
            ):
                self.post("owner", rest, body, 400)
        far = {"id": str(uuid4()), "key": "x", "state": "ordered", "at": timezone.now().isoformat()}
        self.post("owner", "parts-list/entries/", {"entries": [far | {"expected": "9999-01-01"}]}, 400)
        self.post("owner", "build/entries/?now=9999-01-01T00:00", {"entries": [entry("fit:mark_out")]}, 400)
        answer = self.as_("owner").put(
            f"/api/vehicles/{self.vehicle.id}/build/book/", {"base": 0, "book": {"event": "9999-01-01T09:00"}}, "json"
        )
        self.assertEqual(answer.status_code, 400)

    def test_the_pulse_changes_with_what_is_shown(self) -> None:
        before = self.get("owner", "build/pulse/")["pulse"]
        self.say("owner", entry("fit:mark_out"))
        self.assertNotEqual(before, self.get("owner", "build/pulse/")["pulse"])

    def test_the_pulse_joins_nothing_so_that_rows_do_not_multiply(self) -> None:
        with CaptureQueriesContext(connection) as asked:
            pulse_of(self.vehicle)
        self.assertEqual([query["sql"] for query in asked if "JOIN" in query["sql"]], [])


class BookOfABuild(BuildCase):
    def put(self, base: int, book: dict[str, Any], person: str = "owner") -> Any:
        address = f"/api/vehicles/{self.vehicle.id}/build/book/"
        return self.as_(person).put(address, {"base": base, "book": book}, format="json")

    def test_nobody_overwrites_what_somebody_else_has_said(self) -> None:
        self.assertEqual(self.put(0, {"people": 2}).status_code, 200)
        stale = self.put(0, {"people": 3}, "editor")
        self.assertEqual((stale.status_code, stale.json()["present"]["book"]), (409, {"people": 2}))
        self.assertEqual(self.put(1, {"people": 3}, "editor").status_code, 200)

    def test_faults_have_their_paths(self) -> None:
        faults = self.put(0, {"event": "soon", "hours": [1, 2]}).json()["faults"]
        self.assertEqual([fault["path"] for fault in faults], ["event", "hours"])

    def test_an_event_makes_a_plan_and_a_calendar(self) -> None:
        now = timezone.now().replace(tzinfo=None)
        event = (now + timedelta(days=40)).strftime("%Y-%m-%dT09:00")
        own = {"id": "own-1", "title": "Paint", "wait": "12 h"}
        self.put(0, {"event": event, "people": 2, "steps": [own]})
        shown = self.get("owner", now=now.isoformat())["shown"]
        self.assertRegex(shown["plan"]["sentence"], r"^In time\. Next: order the ")
        self.assertIn("own-1", [step["id"] for step in shown["steps"]])
        first, second = (self.get("viewer", "build/calendar/").content for _ in range(2))
        read = Calendar.from_ical(first)
        words = [str(event["SUMMARY"]) for event in read.walk("VEVENT")]
        self.assertTrue(any("order the" in word or "order " in word for word in words))
        self.assertTrue(any("it cures" in word for word in words))
        uids = [[str(event["UID"]) for event in Calendar.from_ical(one).walk("VEVENT")] for one in (first, second)]
        self.assertEqual(uids[0], uids[1])
        self.assertEqual(len(set(uids[0])), len(uids[0]))

    def test_a_reading_beside_what_is_right_holds_the_step_unless_somebody_says_why(self) -> None:
        limit = "drive.branches[0].controller:set"
        wrong = [one["words"] for one in self.say("editor", entry(limit, value="60 A"))[0]["reasons"]]
        self.assertIn("current limit that it shows: 60 A is not at most 22.4 A", " ".join(wrong))
        self.assertEqual(self.say("editor", entry(limit, value="60 A", reason="set later")), [])


class PartsLists(BuildCase):
    def shown(self, person: str = "owner", vehicle: Any = None) -> Any:
        address = f"/api/vehicles/{(vehicle or self.vehicle).id}/parts-list/"
        return self.as_(person).post(address, {"document": changed({"drive.units": 1})}, format="json").json()["shown"]

    def line(self, words: str, **more: Any) -> Any:
        return next(line for line in self.shown(**more)["lines"] if line["words"].startswith(words))

    def buy(self, words: str, state: str, **more: Any) -> None:
        key = self.line(words)["key"]
        said = {"id": str(uuid4()), "key": key, "state": state, "at": timezone.now().isoformat(), **more}
        self.post("editor", "parts-list/entries/", {"entries": [said]})

    def test_states_say_who_and_when_and_what_was_paid(self) -> None:
        self.assertEqual((self.shown()["spent"], self.shown()["to_spend"]), (0.0, 9.0))
        self.buy("36-tooth", "ordered", expected="2027-05-20", paid=8.5)
        line = self.line("36-tooth")
        self.assertEqual(
            (line["state"], line["expected"], line["by"]), ("ordered", "2027-05-20", self.people["editor"].username)
        )
        self.assertEqual((self.shown()["spent"], self.shown()["to_spend"]), (8.5, 0.0))

    def test_an_owned_part_is_promised_to_whoever_stands_first(self) -> None:
        second = add_vehicle(self.people["owner"], self.workshop, PLAIN)
        third = add_vehicle(self.people["owner"], self.workshop, PLAIN)
        self.assertEqual(self.line("15-tooth")["taken"], [])
        taken = self.line("15-tooth", vehicle=second)["taken"]
        self.assertEqual([(one["vehicle"], one["number"]) for one in taken], [(self.vehicle.name, 1)])
        self.assertEqual(self.line("15-tooth", vehicle=third)["to_buy"], 1)

    def test_a_price_target_lives(self) -> None:
        document = changed({"targets": [{"measure": "price", "at_most": 5}], "drive.units": 1})
        address = f"/api/vehicles/{self.vehicle.id}/parts-list/"
        shown = self.as_("owner").post(address, {"document": document}, format="json").json()["shown"]
        self.assertEqual((shown["targets"][0]["value"], shown["targets"][0]["standing"]), (9.0, "misses"))
        self.assertEqual(shown["budget"], 5.0)
        working = self.as_("owner").post(f"{address}working/", {"document": document}, format="json").json()
        self.assertEqual((working["value"], working["steps"][-1]["expression"]), (9.0, "n_0*c_0"))

    def test_a_file_comes_back_with_states_and_prices(self) -> None:
        sheet = self.get("owner", "parts-list/export/xlsx/").content
        book = load_workbook(io.BytesIO(sheet))
        rows = book.active
        heads = [cell.value for cell in rows[1]]
        for row in rows.iter_rows(min_row=2):
            if str(row[heads.index("what")].value).startswith("36-tooth"):
                row[heads.index("state")].value, row[heads.index("paid")].value = "here", 8
                row[heads.index("each")].value = 8
        stream = io.BytesIO()
        book.save(stream)
        body = {"name": "parts.xlsx", "data": base64.b64encode(stream.getvalue()).decode()}
        self.assertEqual(self.post("editor", "parts-list/file/", body, 200), {"changed": 2, "faults": []})
        self.assertEqual((self.line("36-tooth")["state"], self.line("36-tooth")["each"]), ("here", 8.0))

    def test_a_faulty_file_changes_nothing(self) -> None:
        body = {"name": "a.csv", "data": base64.b64encode(b"key,state\nno such line,here\n").decode()}
        answer = self.post("editor", "parts-list/file/", body, 200)
        self.assertEqual((answer["changed"], answer["faults"][0]["row"]), (0, 2))

    def test_one_order_list_for_several_vehicles(self) -> None:
        add_vehicle(self.people["owner"], self.workshop, {**PLAIN, "name": "Second"})
        answer = self.as_("viewer").get(f"/api/workshops/{self.workshop.id}/orders/").json()
        pulley = next(line for line in answer["lines"] if line["words"].startswith("36-tooth"))
        self.assertEqual(
            (pulley["number"], pulley["vehicles"], pulley["price"]), (3, [self.vehicle.name, "Second"], 27.0)
        )
        add_vehicle(self.people["owner"], self.workshop, {**PLAIN, "name": "Second"})
        answer = self.as_("viewer").get(f"/api/workshops/{self.workshop.id}/orders/").json()
        pulley = next(line for line in answer["lines"] if line["words"].startswith("36-tooth"))
        self.assertEqual(pulley["number"], 5, "two of one name are two")
        file = self.as_("viewer").get(f"/api/workshops/{self.workshop.id}/orders/export/csv/")
        self.assertIn("36-tooth pulley", file.content.decode())


class LookingAfter(BuildCase):
    def test_what_was_found_is_shown_at_its_step(self) -> None:
        found = {"step": f"{GEARS}:tighten", "found": "loosened", "words": "one screw"}
        document = {"hours": 0.5, "after": "first evening", "findings": [found]}
        for _ in range(2):
            body = {"id": str(uuid4()), "at": timezone.now().isoformat(), "document": document}
            self.post("editor", "build/inspections/", body)
        self.assertEqual(self.steps()[f"{GEARS}:tighten"]["found"], ["loosened: one screw (2 times)"])
        care = {one["step"]: one for one in self.get("owner")["cares"]}
        self.assertEqual((care[f"{GEARS}:tighten"]["last"], care[f"{GEARS}:tighten"]["next"]), (0.5, 1.0))
        self.assertEqual(hours_run(self.vehicle), 0.5)

    def test_other_things_are_said_in_words(self) -> None:
        body = {"id": str(uuid4()), "at": timezone.now().isoformat(), "document": {"findings": [{"found": "other"}]}}
        faults = self.post("owner", "build/inspections/", body, 400)["faults"]
        self.assertEqual(faults[0]["path"], "findings[0].words")


class Templates(BuildCase):
    def test_own_steps_are_kept_for_other_builds(self) -> None:
        address = f"/api/workshops/{self.workshop.id}/step-templates/"
        steps = [{"id": "a", "title": "Engrave the number", "minutes": "10 min"}]
        for name in ("event", "event"):
            self.as_("editor").post(address, {"name": name, "steps": steps}, format="json")
        kept = self.as_("viewer").get(address).json()
        self.assertEqual([(one["name"], one["steps"]) for one in kept], [("event", steps)])


class Clocks(WorkshopCase):
    def test_of_another_zone_are_taken_as_they_are_and_nonsense_is_not(self) -> None:
        there = (timezone.now() + timedelta(hours=9, minutes=1)).replace(tzinfo=None)
        self.assertEqual(Clock(there.isoformat()).offset, timedelta(hours=9))
        for said in ("soon", "1999-01-01T00:00"):
            with self.assertRaises(DocumentError):
                Clock(said)
