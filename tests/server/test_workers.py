"""Real workers on a real database: one killed in the middle loses nothing and doubles nothing."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time

from django.db import connection
from django.db.models import QuerySet
from django.test import TransactionTestCase
from procrastinate.contrib.django.models import ProcrastinateJob

from ops.places import ROOT
from server.accounts.models import User
from server.parts.models import Part
from server.searches import actions
from server.searches.models import Piece, Search, State
from server.workshops.actions import create_workshop
from tests.bench.search import request
from tests.server.people import small_pieces
from ydrometer.search import read_request
from ydrometer.search.outcome import Outcome
from ydrometer.search.run import search

PATIENCE_S = 120.0
RAW = request(9, 7, 9, masses=True)


class Killed(TransactionTestCase):
    def worker(self) -> subprocess.Popen[bytes]:
        where = connection.settings_dict
        url = f"postgresql://{where['USER']}@{where['HOST']}:{where['PORT']}/{where['NAME']}"
        env = {**os.environ, "DATABASE_URL": url, "DJANGO_SETTINGS_MODULE": "server.config.testing"}
        made = subprocess.Popen([sys.executable, "manage.py", "work"], cwd=ROOT, env=env, stderr=subprocess.DEVNULL)
        self.addCleanup(made.wait)
        self.addCleanup(made.kill)
        return made

    def until(self, what: str, condition: object) -> None:
        limit = time.monotonic() + PATIENCE_S
        while not condition():  # type: ignore[operator]
            self.assertLess(time.monotonic(), limit, f"waited in vain for {what}")
            time.sleep(0.02)

    def under_way(self, left: QuerySet[Piece]) -> int:
        """How many jobs are marked as being done whose pieces are not."""
        doing = ProcrastinateJob.objects.filter(status="doing", task_name__endswith="go_through")
        return left.filter(number__in=[job.args["number"] for job in doing]).count()

    def kill_one_at_work(self, left: QuerySet[Piece]) -> None:
        before, worker = left.count(), self.worker()
        self.until("a piece done and another under way", lambda: left.count() < before and self.under_way(left))
        worker.send_signal(signal.SIGKILL)
        worker.wait()

    def test_a_killed_workers_piece_is_done_again_and_nothing_is_doubled(self) -> None:
        user = User.objects.create_user("owner", password="x")
        workshop = create_workshop(user, "Saltmarsh Workshop")
        Part.objects.bulk_create(Part(workshop=workshop, ref=p["id"], document=p) for p in RAW["parts"])
        with small_pieces(10_000):
            answer = actions.ask(
                user, workshop, None, {key: value for key, value in RAW.items() if key != "parts"}
            ).search
        left = answer.pieces.filter(found__isnull=True)
        pieces = left.count()
        broken = 0
        while not broken:
            self.kill_one_at_work(left)
            broken = self.under_way(left)
        self.assertLess(left.count(), pieces)
        self.worker()
        self.worker()
        self.until("the end", lambda: Search.objects.get(pk=answer.pk).state != State.RUNNING)
        done = Search.objects.get(pk=answer.pk)
        self.assertEqual((done.state, done.trouble), (State.DONE, ""))
        self.assertEqual(Outcome.from_json(done.found or {}), search(read_request(RAW)))
