"""Searches over the API: small ones at once, large ones by pieces, in turn and once each; inverse questions."""

from __future__ import annotations

import random
from typing import Any
from unittest import mock
from uuid import UUID

from procrastinate.contrib.django.models import ProcrastinateJob

from server.parts.models import Part
from server.searches import actions
from server.searches.models import Piece, Search
from server.workshops.models import Workshop
from tests.core.designs import PLAIN
from tests.server.people import WorkshopCase, small_pieces
from ydrometer.parts import bulk
from ydrometer.search import read_request
from ydrometer.search.compose import compose
from ydrometer.search.outcome import Outcome
from ydrometer.search.run import search

ASKED: dict[str, Any] = {
    "format": "ydrometer-search",
    "version": 1,
    "keep": 20,
    "design": {
        **PLAIN,
        "targets": [{"measure": "top_speed", "at_least": "6 m/s"}, {"measure": "pushing_force", "at_least": "90 N"}],
    },
    "layouts": [{"stages": [{"kind": "gear"}, {"kind": "gear"}]}, {"stages": [{"kind": "gear"}]}],
}


class SearchCase(WorkshopCase):
    @classmethod
    def setUpTestData(cls) -> None:
        super().setUpTestData()
        cls.elsewhere = Workshop.objects.get(memberships__user=cls.people["stranger"])
        for workshop in (cls.workshop, cls.elsewhere):
            parts, _ = bulk.read_lines("gear", "module 1: 12 14 16 20 24 30 36 40 48 60")
            Part.objects.bulk_create(
                Part(workshop=workshop, ref=f"g{p['teeth']}", document={**p, "id": f"g{p['teeth']}"}) for p in parts
            )

    elsewhere: Workshop

    def ask(self, who: str = "editor", workshop: Workshop | None = None, **changed: Any) -> Any:
        address = f"/api/workshops/{(workshop or self.workshop).id}/searches/"
        body = {"request": {**ASKED, **changed}, "vehicle": str(self.vehicle.id) if workshop is None else None}
        return self.as_(who).post(address, body, format="json")

    def waiting(self, count: int = 1) -> list[Search]:
        """Searches that are cut into pieces of forty combinations instead of a million."""
        with mock.patch.object(actions, "AT_ONCE", 0), small_pieces(400):
            ids = [self.ask().json()["search"]["id"] for _ in range(count)]
        return [Search.objects.get(pk=pk) for pk in ids]

    def expected(self) -> Outcome:
        return search(read_request(compose(ASKED, [p.document for p in self.workshop.parts.all()])))

    def state(self, search_row: Search) -> str:
        search_row.refresh_from_db()
        return search_row.state


class Small(SearchCase):
    def test_answered_at_once_and_kept_with_its_request(self) -> None:
        made = self.ask()
        self.assertEqual(made.status_code, 201)
        answer = made.json()
        self.assertEqual(answer["search"]["state"], "done")
        self.assertEqual(answer["options"]["combinations"], self.expected().combinations)
        self.assertTrue(answer["options"]["rows"][0]["uses"])
        again = self.as_("viewer").get(f"/api/searches/{answer['search']['id']}/").json()
        # The first rows come with the answer, the others when they are asked for.
        self.assertEqual([answer["options"]["whole"], again["options"]["whole"]], [False, True])
        first = len(answer["options"]["rows"])
        self.assertGreater(len(again["options"]["rows"]), first)
        self.assertEqual(again["options"]["rows"][:first], answer["options"]["rows"])
        self.assertEqual(again["request"], ASKED)
        listed = self.as_("viewer").get(f"/api/workshops/{self.workshop.id}/searches/?vehicle={self.vehicle.id}")
        self.assertEqual([s["words"] for s in listed.json()], ["gears, then gears; gears"])

    def test_exported_as_a_table(self) -> None:
        address = f"/api/searches/{self.ask().json()['search']['id']}/export/"
        lines = self.as_("viewer").get(f"{address}csv/").content.decode("utf-8-sig").splitlines()
        self.assertTrue(lines[0].startswith("rank,stages,overall ratio,price,parts to buy"))
        self.assertEqual(len(lines), 1 + len(self.as_("viewer").get(address[:-7]).json()["options"]["rows"]))
        self.assertTrue(self.as_("viewer").get(f"{address}xlsx/").content.startswith(b"PK"))
        self.assertEqual(self.as_("viewer").get(f"{address}exe/").status_code, 404)

    def test_surveyed_before_it_is_asked(self) -> None:
        address = f"/api/workshops/{self.workshop.id}/searches/survey/"
        answer = self.as_("viewer").post(address, {"request": ASKED}, format="json").json()
        self.assertEqual(answer["combinations"], [55**2, 55])
        self.assertEqual([p["words"] for p in answer["pictures"]], ["gears, then gears", "gears"])
        self.assertTrue(all(p["line"] for p in answer["suggested"]))
        bad = {**ASKED, "keep": 0}
        answer = self.as_("viewer").post(address, {"request": bad}, format="json").json()
        self.assertEqual([f["path"] for f in answer["faults"]], ["keep"])

    def test_what_cannot_be_searched_is_refused_with_its_faults(self) -> None:
        self.assertEqual(self.ask(keep=0).json()["faults"][0]["path"], "keep")
        mixed = [{"stages": [], "sources": "*"}, {"stages": []}]
        self.assertIn("layouts.sources", self.ask(layouts=mixed).json()["faults"][0]["path"])
        with mock.patch.object(actions, "MOST", 100):
            self.assertEqual(self.ask().status_code, 400)
        self.assertEqual(self.ask(layouts=[3]).status_code, 400)
        self.assertEqual(Search.objects.count(), 0)

    def test_only_so_many_are_kept(self) -> None:
        with mock.patch.object(actions, "KEPT", 2):
            for _ in range(4):
                self.ask()
        self.assertEqual(Search.objects.count(), 2)

    def test_a_vehicle_of_another_workshop_is_not_there(self) -> None:
        address = f"/api/workshops/{self.elsewhere.id}/searches/"
        body = {"request": ASKED, "vehicle": str(self.vehicle.id)}
        self.assertEqual(self.as_("stranger").post(address, body, format="json").status_code, 404)


class Large(SearchCase):
    def finish(self, search_row: Search) -> None:
        numbers = list(search_row.pieces.values_list("number", flat=True))
        random.Random(1).shuffle(numbers)
        for number in numbers:
            actions.go_through_piece(search_row.pk, number)

    def test_pieces_in_any_order_and_twice_give_what_one_pass_gives(self) -> None:
        (one,) = self.waiting()
        self.assertGreater(one.pieces.count(), 5)
        for number in (3, 3, 1):
            actions.go_through_piece(one.pk, number)
        state = self.as_("viewer").get(f"/api/searches/{one.pk}/").json()["search"]
        self.assertAlmostEqual(state["done"], 2 / one.pieces.count())
        self.assertGreater(state["remaining"], 0.0)
        self.finish(one)
        self.assertEqual(self.state(one), "done")
        self.assertEqual(Outcome.from_json(one.found or {}), self.expected())
        self.assertEqual(Piece.objects.count(), 0)
        actions.go_through_piece(one.pk, 1)

    def test_one_runs_and_the_next_waits_for_it(self) -> None:
        first, second = self.waiting(2)
        self.assertEqual((self.state(first), self.state(second)), ("running", "waiting"))
        answer = self.as_("viewer").get(f"/api/searches/{second.pk}/").json()["search"]
        self.assertEqual(answer["before"], 1)
        self.finish(first)
        self.assertEqual(self.state(second), "running")

    def test_cancelled_it_does_no_more_and_lets_the_next_one_go(self) -> None:
        first, second = self.waiting(2)
        address = f"/api/searches/{first.pk}/"
        answer = self.as_("editor").patch(address, {"state": "cancelled"}, format="json")
        self.assertEqual(answer.json()["state"], "cancelled")
        self.assertEqual(self.state(second), "running")
        actions.go_through_piece(first.pk, 0)
        self.assertIsNone(first.found)
        self.assertEqual(self.as_("viewer").get(f"{address}export/csv/").status_code, 404)

    def test_workers_take_turns_between_workshops(self) -> None:
        (ours,) = self.waiting()
        with mock.patch.object(actions, "AT_ONCE", 0), small_pieces(400):
            theirs = self.ask("stranger", self.elsewhere).json()["search"]["id"]
        jobs = ProcrastinateJob.objects.order_by("-priority", "id").values_list("args__search", flat=True)
        self.assertEqual(list(jobs[:4]), [str(ours.pk), theirs, str(ours.pk), theirs])

    def test_what_fails_says_why(self) -> None:
        (one,) = self.waiting()
        actions.fail(UUID(str(one.pk)), "out of memory")
        answer = self.as_("viewer").get(f"/api/searches/{one.pk}/").json()["search"]
        self.assertEqual((answer["state"], answer["trouble"]), ("failed", "out of memory"))


class TurnedRound(SearchCase):
    def ask_back(self, **changed: Any) -> Any:
        body = {
            "document": PLAIN,
            "unknown": "reduction",
            "path": "drive.branches[0].stages[0]",
            "target": {"measure": "top_speed", "at_least": "5 m/s"},
            **changed,
        }
        return self.as_("viewer").post(f"/api/workshops/{self.workshop.id}/inverse/", body, format="json")

    def test_solved_with_the_nearest_parts_of_the_bin(self) -> None:
        answer = self.ask_back().json()
        self.assertEqual(len(answer["ranges"]), 1)
        self.assertEqual({real["part"] for real in answer["real"]}, {"bin"})

    def test_what_is_not_asked_well_is_refused(self) -> None:
        self.assertEqual(self.ask_back(unknown="colour").status_code, 400)
        self.assertEqual(self.ask_back(target={"measure": "top_speed"}).status_code, 400)
