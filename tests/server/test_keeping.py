"""What is kept and what is not: revisions thinned, room said to be full, searches in fair turns."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from unittest import TestCase, mock

from server.builds.booklets import ask
from server.designs.models import Revision
from server.designs.thinning import Saved, superfluous
from server.searches import actions
from server.searches.models import Search, State
from server.workshops.actions import create_workshop
from tests.bench.search import request
from tests.core.designs import changed
from tests.server.people import WorkshopCase, beginning

NOW = datetime(2026, 11, 28, 12, 0, tzinfo=UTC)


class Thinning(TestCase):
    def gone(self, *hours: float) -> list[int]:
        """Which of the revisions saved so many hours ago go, by their place."""
        saved = [Saved(n, NOW - timedelta(hours=h)) for n, h in enumerate(hours)]
        return superfluous(saved, NOW)

    def test_all_of_the_last_day_stay(self) -> None:
        self.assertEqual(self.gone(23.9, 23.8, 0.2, 0.1), [])

    def test_one_an_hour_of_the_last_week_and_one_a_day_before(self) -> None:
        self.assertEqual(self.gone(30.9, 30.5, 30.1, 28.5), [0, 1])
        self.assertEqual(self.gone(20 * 24 + 3, 20 * 24 + 2, 19 * 24), [0])


class Keeping(WorkshopCase):
    def test_names_and_the_newest_stay_when_a_vehicle_is_gone_through(self) -> None:
        for n in range(1, 19):
            self.save("editor", n, changed({"notes": str(n)}))
        old = datetime.now(UTC) - timedelta(days=30)
        Revision.objects.update(saved_at=old)
        Revision.objects.filter(number=5).update(name="Before the race")
        self.save("editor", 19, changed({"notes": "last"}))
        left = sorted(Revision.objects.filter(vehicle=self.vehicle).values_list("number", flat=True))
        self.assertEqual(left, [5, 19, 20], "the named one, the last of that day, and the newest")

    def test_a_full_workshop_says_so(self) -> None:
        with mock.patch("server.designs.actions.MOST_REVISION_BYTES", 100):
            answer = self.save("editor", 1, changed({"notes": "more"}))
        self.assertEqual(answer.status_code, 400)
        self.assertIn("There is room for 100 bytes of designs", answer.json()["detail"])
        with mock.patch("server.designs.actions.MOST_VEHICLES", 1):
            address = f"/api/workshops/{self.workshop.id}/vehicles/"
            answer = self.as_("editor").post(address, beginning("Dunlin"), format="json")
        self.assertIn("start another workshop", answer.json()["detail"])

    def test_booklets_of_one_do_not_drop_those_of_others(self) -> None:
        mine = ask(self.people["owner"], self.vehicle)
        for _ in range(5):
            ask(self.people["viewer"], self.vehicle)
        self.assertEqual(self.vehicle.booklets.count(), 4)
        self.assertTrue(self.vehicle.booklets.filter(pk=mine.pk).exists())

    def test_it_is_told_before(self) -> None:
        address = f"/api/workshops/{self.workshop.id}/usage/"
        self.assertEqual([row["near"] for row in self.as_("viewer").get(address).json()], [False] * 4)
        with mock.patch("server.builds.usage.MOST_VEHICLES", 1):
            answer = {row["what"]: row for row in self.as_("viewer").get(address).json()}
        self.assertEqual((answer["vehicles"]["used"], answer["vehicles"]["near"]), (1, True))


class Fairness(WorkshopCase):
    def ask(self, person: str, workshop: Any) -> Search:
        raw = {key: value for key, value in request(9, 7, 9, masses=False).items() if key != "parts"}
        return actions.ask(self.people[person], workshop, None, raw).search

    def setUp(self) -> None:
        super().setUp()
        parts = mock.patch("server.searches.actions.documents", return_value=request(9, 7, 9, masses=False)["parts"])
        parts.start()
        self.addCleanup(parts.stop)

    def test_one_accounts_searches_take_turns_in_all_its_workshops(self) -> None:
        another = create_workshop(self.people["owner"], "Second")
        first, second = self.ask("owner", self.workshop), self.ask("owner", another)
        self.assertEqual((first.state, second.state), (State.RUNNING, State.WAITING))
        theirs = self.ask("editor", create_workshop(self.people["editor"], "Third"))
        self.assertEqual(theirs.state, State.RUNNING, "nobody else waits for them")
        actions.cancel(self.people["owner"], first)
        second.refresh_from_db()
        self.assertEqual(second.state, State.RUNNING)

    def test_only_so_many_at_once(self) -> None:
        with mock.patch("server.searches.actions.MOST_OPEN_SEARCHES", 1):
            self.ask("owner", self.workshop)
            with self.assertRaisesRegex(Exception, "room for 1 searches under way"):
                self.ask("owner", self.workshop)
