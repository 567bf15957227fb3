"""Two hosts with one database, of which one dies under load; and a clock that is put back."""

from __future__ import annotations

import threading
import time
import uuid
from collections.abc import Iterator

from ops import serving
from ops.watching import end
from tests.core.designs import changed
from tests.drills.killing import notes_of
from tests.drills.report import Row, at_most, equal
from tests.drills.site import CLUSTER, DRILL
from tests.drills.visitor import Visitor

SECOND = 8771
SAVERS, LASTING_S = 4, 12.0
BACK_S = 3600.0
"""By how much the clock is put back."""


def drill(port: int) -> Iterator[Row]:
    """People save on both hosts; after a while the second one is killed."""
    listening = serving.listen(SECOND)
    env = {**CLUSTER.env(DRILL.database), "YDROMETER_DEMO": "0"}
    second = serving.launch(env, listening, DRILL.log)
    serving.await_answer(second, SECOND)
    owner = Visitor(port, limit=10.0).sign_up(f"host-{uuid.uuid4().hex[:8]}")
    vehicles = [owner.add_vehicle(changed()) for _ in range(SAVERS)]
    kept: list[set[str]] = [set() for _ in vehicles]
    stop = time.monotonic() + LASTING_S

    def save(number: int) -> None:
        visitor = Visitor(SECOND if number % 2 else port, limit=5.0)
        visitor.cookies = dict(owner.cookies)
        base, n = 1, 0
        while time.monotonic() < stop:
            n += 1
            body = {"base": base, "document": changed({"notes": f"{number} {n}"})}
            answer = visitor.send("POST", f"/api/vehicles/{vehicles[number]}/revisions/", body)
            if answer.status == 201:
                base = answer.json["number"]
                kept[number].add(f"{number} {n}")
            elif answer.status == 409:
                base = answer.json["theirs"]["number"]
            else:
                time.sleep(0.1)

    yield at_most("hosts", "until one host shows what was saved on the other", _shown_after(owner, port), 2.0, " s")
    threads = [threading.Thread(target=save, args=(number,)) for number in range(SAVERS)]
    for thread in threads:
        thread.start()
    time.sleep(LASTING_S / 2)
    second.kill()
    end(second)
    listening.close()
    for thread in threads:
        thread.join()
    total = sum(map(len, kept))
    missing = sum(len(known - notes_of(owner, vehicle)) for vehicle, known in zip(vehicles, kept, strict=True))
    yield equal("hosts", f"of {total} acknowledged saves on two hosts, one killed, missing", missing, 0)


def _shown_after(owner: Visitor, port: int) -> float:
    """Seconds from a save on the second host until the first one shows it."""
    vehicle = owner.add_vehicle(changed())
    there = Visitor(SECOND)
    there.cookies = dict(owner.cookies)
    there.send("POST", f"/api/vehicles/{vehicle}/revisions/", {"base": 1, "document": changed({"notes": "there"})})
    begun = time.monotonic()
    while owner.ask(f"/api/vehicles/{vehicle}/newest/")["number"] < 2 and time.monotonic() - begun < 10.0:
        time.sleep(0.05)
    return time.monotonic() - begun


def clock(port: int) -> Iterator[Row]:
    """What was counted an hour ahead, as after a clock that was put back by an hour, makes nobody wait for it."""
    name = f"clock-{uuid.uuid4().hex[:8]}"
    Visitor(port).sign_up(name)
    visitor = Visitor(port, address="127.0.0.93")
    tries = [visitor.sign_in(name, "wrong").status for _ in range(6)]
    yield equal("clock", "wrong passwords, then a wait", tries, [400] * 5 + [429])
    CLUSTER.sql(f"update accounts_attempts set last_at = last_at + interval '{BACK_S} s'", DRILL.database)
    begun = time.monotonic()
    while visitor.sign_in(name).status != 200 and time.monotonic() - begun < 60.0:
        time.sleep(0.5)
    yield at_most("clock", "until the right one is let in", time.monotonic() - begun, 10.0, " s")
