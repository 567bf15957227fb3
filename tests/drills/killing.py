"""Processes killed while people save: what was acknowledged is there afterwards, and soon it is served again."""

from __future__ import annotations

import os
import signal
import threading
import time
import uuid
from collections.abc import Callable, Iterator

from ops import serving
from ops.cluster import port_taken
from tests.core.designs import changed
from tests.drills import site
from tests.drills.report import Row, at_most, equal
from tests.drills.visitor import Visitor

SAVERS = 4
ROUNDS = 3
BETWEEN_S = 4.0
SLOW_S = 1.0
"""What takes longer is no answer."""


def drill(port: int) -> Iterator[Row]:
    """Database, all of the application, one of its processes, and the command itself."""
    stop = threading.Event()
    kept: list[tuple[Visitor, str, set[str]]] = []
    for _ in range(SAVERS):
        visitor = Visitor(port, limit=10.0).sign_up(f"saver-{uuid.uuid4().hex[:8]}")
        kept.append((visitor, visitor.add_vehicle(changed()), set()))

    def save(visitor: Visitor, vehicle: str, acknowledged: set[str]) -> None:
        base, n = 1, 0
        while not stop.is_set():
            n += 1
            sent = {"base": base, "document": changed({"notes": str(n)})}
            answer = visitor.send("POST", f"/api/vehicles/{vehicle}/revisions/", sent)
            if answer.status == 201:
                base = answer.json["number"]
                acknowledged.add(str(n))
            elif answer.status == 409:
                base = answer.json["theirs"]["number"]
            else:
                time.sleep(0.05)

    threads = [threading.Thread(target=save, args=entry) for entry in kept]
    for thread in threads:
        thread.start()
    longest: dict[str, float] = {}
    for _ in range(ROUNDS):
        for name, victim in victims().items():
            longest[name] = max(longest.get(name, 0.0), back_after(port, victim))
            time.sleep(BETWEEN_S)
    stop.set()
    for thread in threads:
        thread.join()
    total = missing = 0
    for visitor, vehicle, acknowledged in kept:
        there = notes_of(visitor, vehicle)
        total, missing = total + len(acknowledged), missing + len(acknowledged - there)
    for name, seconds in longest.items():
        yield at_most("kill", f"served again after the death of {name}", seconds, 3.0, " s")
    yield equal("kill", f"of {total} acknowledged saves under {ROUNDS * len(longest)} kills, missing", missing, 0)
    yield from the_command(port)


def victims() -> dict[str, Callable[[], int]]:
    return {
        "the database": site.database,
        "the application": site.master,
        "one of its processes": lambda: site.web()[-1],
        "the worker": lambda: site.processes("manage.py work")[0],
    }


def back_after(port: int, victim: Callable[[], int]) -> float:
    """Seconds after which it answers at once again, from the kill; the dead are given time to be missed."""
    process = victim()
    os.kill(process, signal.SIGKILL)
    begun = time.monotonic()
    last_bad = begun
    while time.monotonic() - last_bad < 1.5:
        asked = time.monotonic()
        if serving.trouble(port) is not None or time.monotonic() - asked > SLOW_S:
            last_bad = time.monotonic()
        time.sleep(0.02)
        if last_bad - begun > 60.0:
            break
    return last_bad - begun


def notes_of(visitor: Visitor, vehicle: str) -> set[str]:
    """What all revisions of a vehicle say, by number; every save made one."""
    newest = visitor.ask(f"/api/vehicles/{vehicle}/newest/")["number"]
    answer = (visitor.ask(f"/api/vehicles/{vehicle}/revisions/{number}/") for number in range(1, newest + 1))
    return {revision["document"].get("notes", "") for revision in answer}


def the_command(port: int) -> Iterator[Row]:
    """The command that looks after all is killed: nothing stays that holds the port."""
    command = site.processes("tests.drills.site")[0]
    os.kill(command, signal.SIGKILL)
    begun = time.monotonic()
    while port_taken(port) and time.monotonic() - begun < 20.0:
        time.sleep(0.02)
    yield at_most("kill", "the port is free after the death of the command", time.monotonic() - begun, 3.0, " s")
    site.DRILL.record.unlink(missing_ok=True)
    site.start()
