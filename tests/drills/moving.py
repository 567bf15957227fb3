"""A database is moved to another host while people save: the application is ended, its data dumped and brought back on
another server, and the application is started there.
"""

from __future__ import annotations

import tempfile
import threading
import time
import uuid
from collections.abc import Iterator
from itertools import pairwise
from pathlib import Path

from ops import safekeeping, serving
from ops.cluster import Cluster
from ops.watching import end
from tests.core.designs import changed
from tests.drills.killing import notes_of
from tests.drills.report import Row, at_most, equal
from tests.drills.site import CLUSTER, DRILL
from tests.drills.visitor import Visitor

OTHER = Cluster("drill-other")
"""The other host's server."""
HERE = f"{DRILL.database}_here"
MOVED = 8772
SAVERS, BEFORE_S, AFTER_S = 4, 5.0, 5.0
AWAY_S = 60.0
"""Most that people wait for it, on a database of a few vehicles; the page keeps what they do meanwhile."""


class Savers:
    """People who save all the time, each at a vehicle of their own, and try again while nobody answers.

    Args:
        owner: of the vehicles.
    """

    def __init__(self, owner: Visitor) -> None:
        self.owner, self.over = owner, False
        self.vehicles = [owner.add_vehicle(changed()) for _ in range(SAVERS)]
        self.kept: list[list[tuple[str, float]]] = [[] for _ in self.vehicles]
        self.threads = [threading.Thread(target=self.save, args=(number,)) for number in range(SAVERS)]

    def save(self, number: int) -> None:
        """Save, and note what was acknowledged and when."""
        visitor = Visitor(MOVED, limit=5.0)
        visitor.cookies = dict(self.owner.cookies)
        base, n = 1, 0
        while not self.over:
            n += 1
            body = {"base": base, "document": changed({"notes": f"{number} {n}"})}
            answer = visitor.send("POST", f"/api/vehicles/{self.vehicles[number]}/revisions/", body)
            if answer.status == 201:
                base = answer.json["number"]
                self.kept[number].append((f"{number} {n}", time.monotonic()))
            elif answer.status == 409:
                base = answer.json["theirs"]["number"]
            else:
                time.sleep(0.1)


def drill(port: int) -> Iterator[Row]:
    """On a database of its own."""
    OTHER.start()
    listening = serving.listen(MOVED)
    for server in (CLUSTER, OTHER):
        server.sql(f'drop database if exists "{HERE}" with (force)')
    here = serving.Service("drill-here", HERE, demo=False, cluster=CLUSTER)
    application = serving.launch(serving.prepare(here, CLUSTER), listening, DRILL.log)
    serving.await_answer(application, MOVED)
    savers = Savers(Visitor(MOVED, limit=10.0).sign_up(f"mover-{uuid.uuid4().hex[:8]}"))
    for thread in savers.threads:
        thread.start()
    time.sleep(BEFORE_S)
    end(application)
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "moved"
        safekeeping.dump(CLUSTER, HERE, file)
        safekeeping.bring_back(OTHER, HERE, file)
    there = serving.Service("drill-here", HERE, demo=False, cluster=OTHER)
    application = serving.launch(serving.prepare(there, OTHER), listening, DRILL.log)
    serving.await_answer(application, MOVED)
    back = time.monotonic()
    time.sleep(AFTER_S)
    savers.over = True
    for thread in savers.threads:
        thread.join()
    yield from _told(savers, back)
    end(application)
    listening.close()
    CLUSTER.sql(f'drop database if exists "{HERE}" with (force)')
    OTHER.sql(f'drop database if exists "{HERE}" with (force)')
    OTHER.stop()


def _told(savers: Savers, back: float) -> Iterator[Row]:
    """What of the acknowledged is missing where it was moved to, and how long nobody was answered."""
    moments = sorted(at for kept in savers.kept for _, at in kept)
    away = max(later - earlier for earlier, later in pairwise(moments))
    missing = sum(
        len({note for note, _ in kept} - notes_of(savers.owner, vehicle))
        for kept, vehicle in zip(savers.kept, savers.vehicles, strict=True)
    )
    yield equal("moved", f"of {len(moments)} acknowledged saves before and after the move, missing", missing, 0)
    yield equal("moved", "saves are acknowledged on the other host", moments[-1] > back, True)
    yield at_most("moved", "longest time without an acknowledged save", away, AWAY_S, " s")
