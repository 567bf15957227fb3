"""The database's disk fills up while people save, and has room again: words meanwhile, and nothing lost."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
import time
import uuid
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from ops import serving
from ops.cluster import Cluster, port_taken
from ops.places import PYTHON, ROOT
from ops.serving import Service
from tests.core.designs import changed
from tests.drills.killing import notes_of
from tests.drills.report import Row, at_most, equal
from tests.drills.visitor import Visitor

CLUSTER = Cluster("full")
FULL = Service("full", "ydrometer_full", demo=False, cluster=CLUSTER)
PORT = 8769
SIZE_MB = 700
"""What a server of databases asks for before it is made, and a little."""
SAVES, BACK_S = 40, 30.0
NO_ROOM, BUSY = 507, 503


def drill(port: int) -> Iterator[Row]:
    """With a server of its own, whose database is on a small disk."""
    if os.geteuid() != 0:
        yield Row("disk", "a small disk is mounted by root alone", "not tried", "-", True)
        return
    with small_disk(), served():
        visitor = Visitor(PORT, limit=20.0).sign_up(f"disk-{uuid.uuid4().hex[:6]}")
        vehicle = visitor.add_vehicle(changed())
        kept: set[str] = set()
        base, _ = save(visitor, vehicle, 1, kept, 5)
        ballast = fill()
        base, statuses = save(visitor, vehicle, base, kept, SAVES)
        told = visitor.send("GET", "/readyz")
        yield equal(
            "disk", f"of {SAVES} saves on a full disk, answered besides {_known(statuses)}", _others(statuses), {}
        )
        yield equal("disk", "readiness says so", told.status == BUSY and b"full" in told.text, True)
        ballast.unlink()
        begun = time.monotonic()
        while visitor.send("GET", "/readyz").status != 200 and time.monotonic() - begun < BACK_S:
            time.sleep(0.2)
        base = visitor.ask(f"/api/vehicles/{vehicle}/newest/")["number"]
        _, after = save(visitor, vehicle, base, kept, 5)
        yield at_most("disk", "until it saves again once there is room", time.monotonic() - begun, BACK_S, " s")
        yield equal("disk", "saves after that", dict(after), {201: 5})
        yield equal("disk", f"of {len(kept)} acknowledged saves, missing", len(kept - notes_of(visitor, vehicle)), 0)


def _known(statuses: Counter[int]) -> str:
    return ", ".join(f"{status} ({statuses[status]})" for status in sorted(statuses))


def _others(statuses: Counter[int]) -> dict[int, int]:
    return {status: count for status, count in statuses.items() if status not in (0, 201, NO_ROOM, BUSY)}


def save(visitor: Visitor, vehicle: str, base: int, kept: set[str], count: int) -> tuple[int, Counter[int]]:
    """Save a few times; the newest revision, and how it was answered."""
    statuses: Counter[int] = Counter()
    for _ in range(count):
        note = uuid.uuid4().hex * 200
        body = {"base": base, "document": changed({"notes": note})}
        answer = visitor.send("POST", f"/api/vehicles/{vehicle}/revisions/", body)
        statuses[answer.status] += 1
        if answer.status == 201:
            base = answer.json["number"]
            kept.add(note)
    return base, statuses


def fill() -> Path:
    """Take all that is left of the disk."""
    file = CLUSTER.home / "ballast"
    with file.open("wb") as stream, suppress(OSError):
        while True:
            stream.write(bytes(1 << 20))
            stream.flush()
    return file


@contextmanager
def small_disk() -> Iterator[None]:
    """A disk of its own for the database."""
    shutil.rmtree(CLUSTER.home, ignore_errors=True)
    CLUSTER.home.mkdir(parents=True)
    subprocess.run(["mount", "-t", "tmpfs", "-o", f"size={SIZE_MB}m", "tmpfs", CLUSTER.home], check=True)
    try:
        yield
    finally:
        CLUSTER.stop()
        subprocess.run(["umount", "-l", CLUSTER.home], check=True)


@contextmanager
def served() -> Iterator[None]:
    """The serving command, once it serves, until it has ended."""
    env = {name: value for name, value in os.environ.items() if name not in ("DATABASE_URL", "PGPASSFILE")}
    FULL.log.parent.mkdir(exist_ok=True)
    with FULL.log.open("ab") as log:
        words: list[str | Path] = [PYTHON, "-m", "tests.drills.full_disk"]
        command = subprocess.Popen(words, cwd=ROOT, env=env, stdout=log, stderr=log)
    try:
        limit = time.monotonic() + 90.0
        while serving.trouble(PORT) is not None and time.monotonic() < limit:
            time.sleep(0.1)
        yield
    finally:
        command.send_signal(signal.SIGTERM)
        command.wait(60.0)
        while port_taken(PORT):
            time.sleep(0.1)


if __name__ == "__main__":
    sys.exit(serving.serve(FULL, PORT))
