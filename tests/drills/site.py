"""The server that is drilled: served, looked after and ended by the same commands that serve users."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from ops import serving
from ops.cluster import Cluster, port_taken
from ops.places import PYTHON, ROOT
from ops.serving import Service

CLUSTER = Cluster("drill")
DRILL = Service("drill", "ydrometer_drill", demo=False, cluster=CLUSTER)
PORT = 8767


@contextmanager
def site() -> Iterator[int]:
    """An empty database, served; yields the port."""
    CLUSTER.start()
    for database in CLUSTER.databases():
        # What a drill that broke off has left behind is no figure of this one.
        if database.startswith(DRILL.database):
            CLUSTER.sql(f'drop database "{database}" with (force)')
    # The serving command starts it again: only then it looks after it as it does for users.
    CLUSTER.stop()
    start()
    try:
        yield PORT
    finally:
        stop()
        CLUSTER.stop()


def stop() -> None:
    """End the serving command, whichever runs now: a drill may have killed the first one."""
    for command in processes("tests.drills.site"):
        os.kill(command, signal.SIGTERM)
    limit = time.monotonic() + 30.0
    while port_taken(PORT) and time.monotonic() < limit:
        time.sleep(0.1)


def start() -> subprocess.Popen[bytes]:
    """The serving command, once it serves."""
    # The test server's database, which the environment names here, is another one.
    env = {name: value for name, value in os.environ.items() if name not in ("DATABASE_URL", "PGPASSFILE")}
    DRILL.log.parent.mkdir(exist_ok=True)
    with DRILL.log.open("ab") as log:
        command: list[str | Path] = [PYTHON, "-m", "tests.drills.site"]
        made = subprocess.Popen(command, cwd=ROOT, env=env, stdout=subprocess.DEVNULL, stderr=log)
    limit = time.monotonic() + 90.0
    while serving.trouble(PORT) is not None:
        if made.poll() is not None or time.monotonic() > limit:
            raise SystemExit(f"the server did not start; see {DRILL.log}")
        time.sleep(0.1)
    return made


def processes(words: str) -> list[int]:
    """Processes of the site whose command line has these words, the oldest first."""
    found = []
    for folder in Path("/proc").iterdir():
        if not folder.name.isdigit():
            continue
        try:
            line = (folder / "cmdline").read_bytes().replace(b"\0", b" ").decode(errors="replace")
            begun = int((folder / "stat").read_text().rpartition(")")[2].split()[19])
        except OSError:
            continue
        if words in line:
            found.append((begun, int(folder.name)))
    return [process for _, process in sorted(found)]


def master() -> int:
    return processes(f"server.config.serve {PORT}")[0]


def web() -> list[int]:
    return processes(f"server.config.serve {PORT}")[1:]


def database() -> int:
    return int((CLUSTER.data / "postmaster.pid").read_text().split()[0])


def memory() -> float:
    """Megabytes that all processes of the site hold now; a page of memory that n of them share counts 1/n in each."""
    everything = [*processes(f"server.config.serve {PORT}"), *processes("spawn_main")]
    total = 0
    for process in everything:
        try:
            rollup = Path(f"/proc/{process}/smaps_rollup").read_text().splitlines()
            line = next(s for s in rollup if s.startswith("Pss:"))
        except (OSError, StopIteration):
            continue
        total += int(line.split()[1])
    return total / 1024.0


if __name__ == "__main__":
    sys.exit(serving.serve(DRILL, PORT))
