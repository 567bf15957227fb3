"""What instruments and the practice rig send: taken line by line, and each run lands in the log once."""

from __future__ import annotations

import json
from typing import Any
from unittest import mock
from uuid import uuid4

from rest_framework.test import APIClient

from server.runs.models import Line, Run
from server.runs.rig import Worker
from server.runs.rig_api import events
from server.workshops import tokens
from server.workshops.models import Membership, Role
from tests.server.runs_case import TIMED, RunsCase

GATES = [
    '{"instrument": "gates"}',
    '{"t": 1.0, "gate": 1}',
    '{"t": 3.9, "gate": 2}',
    '{"t": 9.0, "gate": 1}',
    '{"t": 11.95, "gate": 2}',
]


class Instruments(RunsCase):
    def send(self, secret: str, body: dict[str, Any], rest: str = "readings/") -> Any:
        client = APIClient(headers={"Authorization": f"Bearer {secret}"})
        return client.post(self.address(rest), body, format="json")

    def setUp(self) -> None:
        # Owners make tokens; who made this one was an owner then.
        maker = Membership.objects.filter(user=self.people["editor"])
        maker.update(role=Role.OWNER)
        self.token, self.secret = tokens.make(self.people["editor"], self.workshop, "gates by the hall door")
        maker.update(role=Role.EDITOR)

    def test_a_timing_gate_posts_its_lines(self) -> None:
        body = {"id": str(uuid4()), "lines": GATES, "more": {"distance": "10 m"}}
        for _ in range(2):
            answer = self.send(self.secret, body)
            self.assertEqual(answer.status_code, 201)
        (run,) = Run.objects.all()
        self.assertEqual(run.document, {"kind": "distance_time", "distance": "10 m", "readings": ["2.9 s", "2.95 s"]})
        self.assertEqual((run.origin, run.author), ("instrument", self.people["editor"]))
        self.token.refresh_from_db()
        self.assertEqual(self.token.uses, 2)

    def test_what_are_no_lines_or_too_many_is_told_at_once(self) -> None:
        for lines in ("{}", [3], ["x" * 2001], [""] * 100_001):
            answer = self.send(self.secret, {"lines": lines, "more": {}})
            self.assertEqual(answer.status_code, 400)
            self.assertIn("at most 100,000 lines of 2,000 signs", answer.json()["detail"])

    def test_lines_with_faults_are_told_one_by_one(self) -> None:
        answer = self.send(self.secret, {"lines": [*GATES, "what", '{"t": "now", "gate": 1}'], "more": {}})
        self.assertEqual([one["path"] for one in answer.json()["faults"]], ["line 6", "line 7.t"])
        self.assertFalse(Run.objects.exists())

    def test_it_opens_nothing_else_and_dies_with_its_maker_or_when_taken_back(self) -> None:
        self.assertEqual(self.send(self.secret, {}, "learnt/").status_code, 401)
        self.assertEqual(self.send("ydro_guessed", {"document": TIMED}).status_code, 401)
        elsewhere = self.send(
            tokens.make(self.people["stranger"], self.people["stranger"].memberships.get().workshop, "other")[1],
            {"document": TIMED},
        )
        self.assertEqual(elsewhere.status_code, 404)
        Membership.objects.filter(user=self.people["editor"]).update(role=Role.VIEWER)
        self.assertEqual(self.send(self.secret, {"document": TIMED}).status_code, 401)
        Membership.objects.filter(user=self.people["editor"]).update(role=Role.EDITOR)
        gone = self.as_("owner").delete(f"/api/workshops/{self.workshop.id}/tokens/{self.token.id}/")
        self.assertEqual(gone.status_code, 204)
        self.assertEqual(self.send(self.secret, {"document": TIMED}).status_code, 401)

    def test_what_it_has_to_send_is_told_once(self) -> None:
        address = f"/api/workshops/{self.workshop.id}/tokens/"
        answer = self.as_("owner").post(address, {"name": "counter"}, format="json").json()
        self.assertEqual(self.send(answer["secret"], {"document": TIMED}).status_code, 201)
        listed = self.as_("owner").get(address).json()
        self.assertEqual(
            [(row["name"], row["secret"]) for row in listed], [("gates by the hall door", ""), ("counter", "")]
        )


class PracticeRig(RunsCase):
    """The rig with a clock of the test's own."""

    def setUp(self) -> None:
        self.now = 0.0

    def worker(self) -> Worker:
        return Worker(clock=lambda: self.now)

    def order(self, action: str = "run") -> Any:
        return self.as_("editor").post(self.address("rig/"), {"action": action, "repeats": 2}, format="json")

    def change(self, do: str) -> Any:
        return self.as_("editor").patch(self.address("rig/"), {"do": do}, format="json").json()

    def test_lines_come_as_time_goes_by_and_a_run_lands_in_the_log(self) -> None:
        self.assertEqual(self.order().json()["action"], "run")
        self.assertEqual(self.order().status_code, 400)
        worker = self.worker()
        worker.step()
        self.now = 4.0
        worker.step()
        some = Line.objects.count()
        self.assertGreater(some, 2)
        self.now = 60.0
        worker.step()
        self.assertGreater(Line.objects.count(), some)
        (run,) = Run.objects.all()
        self.assertEqual((run.origin, run.words, len(run.document["readings"])), ("rig", "Time over 25 m", 2))
        self.assertIsNone(self.as_("viewer").get(self.address("rig/")).json()["action"])

    def test_another_process_goes_on_where_one_was_killed(self) -> None:
        self.order()
        first, second = self.worker(), self.worker()
        first.step()
        self.now = 4.0
        first.step()
        self.now = 9.0
        second.step()
        self.now = 90.0
        second.step()
        texts = list(Line.objects.values_list("text", flat=True))
        times = [json.loads(text)["t"] for text in texts if '"t"' in text]
        self.assertEqual(times, sorted(times))
        self.assertEqual(sum('"gate": 2' in text for text in texts), 2)
        self.assertEqual(Run.objects.count(), 1)

    def test_who_comes_again_gets_neither_gap_nor_double(self) -> None:
        self.order("push")
        worker = self.worker()
        worker.step()
        self.now = 90.0
        worker.step()
        rig = self.vehicle.rig
        with mock.patch("server.runs.rig_api.connection"):
            whole = [event for event in events(rig, 0) if event.startswith("id")]
            last = int(whole[20].split("\n")[0].removeprefix("id: "))
            again = [event for event in events(rig, last) if event.startswith("id")]
        self.assertEqual(whole[21:], again)
        self.assertEqual(len(whole), Line.objects.count())

    def test_what_is_stopped_is_not_logged_and_what_is_hidden_is_shown_when_asked(self) -> None:
        self.assertEqual(self.order().json()["hidden"], [])
        worker = self.worker()
        worker.step()
        self.assertIsNone(self.change("stop")["action"])
        self.now = 90.0
        worker.step()
        self.assertFalse(Run.objects.exists())
        hidden = {one["name"]: one["factor"] for one in self.change("show")["hidden"]}
        self.assertIn("rolling_resistance", hidden)
        self.assertEqual(self.change("start anew")["hidden"], [])
