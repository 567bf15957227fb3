"""A database of an older version is brought up to this one, and that is killed in the middle, again and again."""

from __future__ import annotations

import subprocess
import tempfile
import time
import uuid
from collections.abc import Iterator
from pathlib import Path

from ops import safekeeping
from ops.places import PYTHON, ROOT
from tests.core.designs import changed
from tests.drills.keeping import contents
from tests.drills.report import Row, equal
from tests.drills.site import CLUSTER, DRILL
from tests.drills.visitor import Visitor

OLD = f"{DRILL.database}_old"
BACK = (("archive", "zero"), ("runs", "0001"), ("pieces", "zero"), ("builds", "0001"), ("accounts", "0003"))
"""Migrations that are taken back, in this order."""
KILLED_AFTER_S = (0.6, 0.9, 1.1, 1.3, 1.5, 1.8)


def drill(port: int) -> Iterator[Row]:
    """On a copy of the drilled database, which nobody uses."""
    Visitor(port).sign_up(f"old-{uuid.uuid4().hex[:6]}").add_vehicle(changed({"name": "Old"}))
    for name in (OLD, *safekeeping.kept_of(CLUSTER, OLD)):
        CLUSTER.sql(f'drop database if exists "{name}"')
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "now"
        safekeeping.dump(CLUSTER, DRILL.database, file)
        safekeeping.bring_back(CLUSTER, OLD, file)
    before = contents(OLD)
    for app, to in BACK:
        manage("migrate", app, to, "--verbosity", "0").wait()
    killed = 0
    for after in KILLED_AFTER_S:
        upgrade = manage("prepare_database")
        time.sleep(after)
        killed += upgrade.poll() is None
        upgrade.kill()
        upgrade.wait()
    yield equal("upgrade", "of the upgrades killed in the middle, at least one was", killed > 0, True)
    yield equal("upgrade", f"the next one after {killed} kills ends well", manage("prepare_database").wait(), 0)
    yield equal("upgrade", "nothing is left to do", manage("migrate", "--check", "--verbosity", "0").wait(), 0)
    yield equal("upgrade", "designs as before", contents(OLD) == before, True)
    CLUSTER.sql(f'drop database "{OLD}"')


def manage(*words: str) -> subprocess.Popen[bytes]:
    """A command on the old database."""
    quiet = subprocess.DEVNULL
    return subprocess.Popen([PYTHON, "manage.py", *words], cwd=ROOT, env=CLUSTER.env(OLD), stdout=quiet, stderr=quiet)
