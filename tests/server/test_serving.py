"""What is written down of requests, whether the application is well, and work that takes too long."""

from __future__ import annotations

import logging
import threading
import time
from unittest import TestCase, mock

from django.db import DatabaseError
from django.test import Client
from django.test import TestCase as DatabaseCase

from server.api import heavy
from server.config import deadline
from server.config.logs import OnceWhole, Stamped


def slow(seconds: float) -> float:
    time.sleep(seconds)
    return seconds


def wrong() -> None:
    raise ValueError("as expected")


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


class Aside(TestCase):
    def test_what_it_returns_and_raises_comes_back(self) -> None:
        self.assertEqual(heavy.aside(slow, 0.0), 0.0)
        with self.assertRaisesRegex(ValueError, "as expected"):
            heavy.aside(wrong)

    def test_what_takes_too_long_is_ended_and_the_next_one_served(self) -> None:
        with mock.patch("server.api.heavy.LIMIT_S", 0.2), self.assertRaises(heavy.TooLong):
            heavy.aside(slow, 60.0)
        self.assertEqual(heavy.aside(slow, 0.0), 0.0)

    def test_more_than_may_wait_are_told_to_come_again(self) -> None:
        with mock.patch("server.api.heavy._places", threading.BoundedSemaphore(1)) as places:
            places.acquire()
            with self.assertRaises(heavy.Busy):
                heavy.aside(slow, 0.0)


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
