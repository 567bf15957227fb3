"""What is written down of requests, whether the application is well, and work that takes too long."""

from __future__ import annotations

import logging
import os
import threading
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import contextmanager
from typing import Any
from unittest import TestCase, mock

from django.db import DatabaseError, OperationalError
from django.test import Client
from django.test import TestCase as DatabaseCase
from psycopg import errors
from rest_framework.test import APIClient
from waitress.task import ThreadedTaskDispatcher

from server.accounts.models import User
from server.api import heavy
from server.config import deadline
from server.config.heartbeat import Heartbeats
from server.config.logs import OnceWhole, Stamped
from server.workshops.actions import create_workshop
from tests.server.heavy_work import slow, wrong
from tests.server.people import beginning


@contextmanager
def limits(*, spare_after: float, limit: float) -> Iterator[None]:
    """Other limits of heavy work."""
    with mock.patch.multiple("server.api.heavy", SPARE_AFTER_S=spare_after, LIMIT_S=limit):
        yield


class Health(DatabaseCase):
    def test_alive_and_ready(self) -> None:
        self.assertEqual(Client().get("/healthz").json(), {"alive": True})
        self.assertEqual(Client().get("/readyz").json(), {"ready": True})

    def test_without_a_database_it_lives_and_is_not_ready(self) -> None:
        with mock.patch("server.config.health.MigrationExecutor", side_effect=DatabaseError):
            answer = Client().get("/readyz")
        self.assertEqual((answer.status_code, answer.json()["ready"]), (503, False))
        with mock.patch("server.config.health.MigrationExecutor") as executor:
            executor.return_value.migration_plan.return_value = [(mock.Mock(app_label="designs"), False)]
            self.assertIn("migration", Client().get("/readyz").json()["detail"])


class Lines(DatabaseCase):
    def test_a_line_a_request_with_the_id_that_the_answer_carries(self) -> None:
        with self.assertLogs("ydrometer.access", "INFO") as logged:
            answer = Client().get("/healthz")
        (line,) = logged.output
        self.assertRegex(line, rf"{answer['X-Request-ID']} - GET /healthz 200 \d+ ms")

    def test_a_failure_is_written_whole_once_and_then_counted(self) -> None:
        filter_, passed = OnceWhole(), []
        for _ in range(3):
            try:
                wrong()
            except ValueError:
                record = logging.makeLogRecord({"msg": "failed", "exc_info": __import__("sys").exc_info()})
                passed.append((filter_.filter(record), record))
        self.assertEqual([through for through, _ in passed], [True, False, False])
        self.assertIsNotNone(passed[0][1].exc_info)
        self.assertIn("again: 3 times so far", passed[2][1].getMessage())

    def test_what_strangers_send_stays_in_one_line(self) -> None:
        record = logging.makeLogRecord({"msg": "GET /a\nFAKE \x1b[2J", "name": "x"})
        self.assertNotIn("\n", Stamped().format(record))


class Trouble(DatabaseCase):
    """What the database cannot do now is said in words, and is no fault of whoever asks."""

    def told(self, error: DatabaseError) -> Any:
        with mock.patch("server.designs.api.actions.add_vehicle", side_effect=error):
            user = User.objects.create_user("owner", password="rivets-and-rope-7")
            client = APIClient()
            client.force_login(user)
            workshop = create_workshop(user, "Shed")
            return client.post(f"/api/workshops/{workshop.pk}/vehicles/", beginning("Dunlin"), format="json")

    def test_a_full_disk(self) -> None:
        error = OperationalError("no room")
        error.__cause__ = errors.DiskFull("no room")
        answer = self.told(error)
        self.assertEqual(answer.status_code, 507)
        self.assertIn("make room", answer.json()["detail"])

    def test_one_that_is_not_there_or_busy(self) -> None:
        answer = self.told(OperationalError("connection refused"))
        self.assertEqual((answer.status_code, answer["Retry-After"]), (503, "3"))

    def test_little_room_is_no_readiness(self) -> None:
        with mock.patch("server.config.health.LEAST_ROOM", 10**18):
            answer = Client().get("/readyz")
        self.assertEqual(answer.status_code, 503)
        self.assertIn("are left", answer.json()["detail"])

    def test_what_goes_wrong_elsewhere_is_said_as_the_api_says_things(self) -> None:
        client = Client(raise_request_exception=False)
        with mock.patch("server.config.health.waiting", side_effect=ValueError):
            answer = client.get("/readyz")
        self.assertEqual((answer.status_code, "try again" in answer.json()["detail"]), (500, True))


class Aside(TestCase):
    def test_what_it_returns_and_raises_comes_back(self) -> None:
        self.assertEqual(heavy.aside(slow, 0.0), 0.0)
        with self.assertRaisesRegex(ValueError, "as expected"):
            heavy.aside(wrong)

    def test_what_takes_too_long_is_ended_and_the_next_one_served(self) -> None:
        heavy.aside(slow, 0.0)
        with limits(spare_after=0.1, limit=0.2), self.assertRaises(heavy.TooLong):
            heavy.aside(slow, 60.0)
        self.assertEqual(heavy.aside(slow, 0.0), 0.0)

    def test_another_process_is_warmed_while_a_work_may_have_to_be_ended(self) -> None:
        heavy.aside(slow, 0.0)
        with limits(spare_after=0.1, limit=60.0), ThreadPoolExecutor(1) as pool:
            working = pool.submit(heavy.aside, slow, 1.0)
            while heavy._processes.spare is None:
                time.sleep(0.01)
            self.assertEqual(working.result(), 1.0)
        self.assertIsNone(heavy._processes.spare)

    def test_what_waits_too_long_behind_others_ends_nothing(self) -> None:
        heavy.aside(slow, 0.0)
        present = heavy._processes.present
        with ThreadPoolExecutor(1) as pool:
            first = pool.submit(heavy.aside, slow, 1.5)
            time.sleep(0.3)
            with limits(spare_after=0.1, limit=0.2), self.assertRaises(heavy.Busy):
                heavy.aside(slow, 0.0)
            self.assertEqual(first.result(), 1.5)
        self.assertIs(heavy._processes.present, present)

    def test_one_that_is_not_warm_yet_takes_no_work(self) -> None:
        heavy.aside(slow, 0.0)
        with mock.patch.object(heavy._Process, "is_warm", return_value=False), self.assertRaises(heavy.Busy):
            heavy.aside(slow, 0.0)

    def test_one_that_has_died_is_begun_anew(self) -> None:
        heavy.aside(slow, 0.0)
        with self.assertRaises(heavy.Busy):
            heavy.aside(os._exit, 3)
        self.assertEqual(heavy.aside(slow, 0.0), 0.0)

    def test_more_than_may_wait_are_told_to_come_again(self) -> None:
        with mock.patch("server.api.heavy._places", threading.BoundedSemaphore(1)) as places:
            places.acquire()
            with self.assertRaises(heavy.Busy):
                heavy.aside(slow, 0.0)


class Answering(TestCase):
    """A process answers as long as one of its threads does."""

    def setUp(self) -> None:
        self.dispatcher = ThreadedTaskDispatcher()
        self.heartbeat = Heartbeats(2).of(1)
        self.question = deadline._Question(self.heartbeat)
        self.addCleanup(self.dispatcher.shutdown)

    def hang(self, over: threading.Event) -> None:
        task = Hangs(over)
        self.dispatcher.add_task(task)
        task.began.wait(5.0)

    def ask(self) -> bool:
        self.question.answered = False
        deadline.ask(self.dispatcher, self.question)
        time.sleep(0.2)
        return self.question.answered

    def test_one_thread_that_hangs_is_not_the_process(self) -> None:
        self.dispatcher.set_thread_count(2)
        over = threading.Event()
        self.hang(over)
        self.assertTrue(self.ask())
        self.assertLess(self.heartbeat.silent_for(), 10.0)
        self.hang(over)
        self.assertFalse(self.ask())
        over.set()

    def test_the_question_goes_before_what_waits(self) -> None:
        self.dispatcher.set_thread_count(1)
        over, answered = threading.Event(), []
        self.dispatcher.add_task(Hangs(over))
        for _ in range(3):
            self.dispatcher.add_task(Hangs(threading.Event(), lambda: answered.append(self.question.answered)))
        self.question.answered = False
        deadline.ask(self.dispatcher, self.question)
        over.set()
        while not answered:
            time.sleep(0.01)
        self.assertTrue(answered[0])


class Hangs:
    """A task that lasts until it is told to end; or does something at once."""

    def __init__(self, over: threading.Event, does: Callable[[], object] | None = None) -> None:
        self.over, self.does, self.began = over, does, threading.Event()

    def service(self) -> None:
        self.began.set()
        if self.does is not None:
            self.does()
        else:
            self.over.wait(20.0)

    def cancel(self) -> None:
        self.over.set()


class Deadline(TestCase):
    def test_a_thread_that_takes_too_long_is_interrupted(self) -> None:
        ended: list[str] = []

        def work() -> None:
            try:
                while True:
                    time.sleep(0.005)
            except heavy.TooLong:
                ended.append("interrupted")

        thread = threading.Thread(target=work)
        thread.start()
        deadline.interrupt(thread.ident or 0)
        thread.join(5.0)
        self.assertEqual(ended, ["interrupted"])
