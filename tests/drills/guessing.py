"""Somebody tries passwords; those whose account it is go on working."""

from __future__ import annotations

import threading
import time
import uuid
from collections.abc import Iterator

from tests.drills.report import Row, at_most, equal
from tests.drills.visitor import Visitor
from tests.figures import percentile

LASTING_S = 20.0
ATTACKERS = 16


def drill(port: int) -> Iterator[Row]:
    """Many at once from one address with made-up headers, then many addresses."""
    name = f"owner-{uuid.uuid4().hex[:6]}"
    owner = Visitor(port, "127.0.0.9").sign_up(name)
    looked_at = [0]
    stop = time.monotonic() + LASTING_S

    def attack(number: int) -> None:
        visitor = Visitor(port, "127.0.1.1")
        n = 0
        while time.monotonic() < stop:
            n += 1
            lines = visitor.sign_in(name, f"guess-{n}", **{"X-Forwarded-For": f"198.51.{number}.{n % 250}"})
            looked_at[0] += lines.status == 400
            time.sleep(0.01)

    threads = [threading.Thread(target=attack, args=(n,)) for n in range(ATTACKERS)]
    for thread in threads:
        thread.start()
    waits = []
    while time.monotonic() < stop:
        waits.append(owner.send("GET", "/api/session/").taken)
        time.sleep(0.1)
    for thread in threads:
        thread.join()
    yield at_most(
        "guessing", f"passwords looked at in {LASTING_S:.0f} s of {ATTACKERS} with made-up headers", looked_at[0], 12
    )
    yield at_most("guessing", "p95 of the owner's requests meanwhile", 1e3 * percentile(waits, 0.95), 200, " ms")
    spread = [Visitor(port, f"127.0.2.{n}").sign_in(name, "no").status for n in range(1, 61)]
    yield at_most("guessing", "passwords looked at, 60 addresses a try each", spread.count(400), 25)
    yield equal(
        "guessing", "the owner signs in from their own address", Visitor(port, "127.0.0.9").sign_in(name).status, 200
    )
