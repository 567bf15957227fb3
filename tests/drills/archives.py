"""A workshop goes out and comes in while the worker is killed: all of it is there, or nothing."""

from __future__ import annotations

import io
import os
import signal
import time
import uuid
from collections.abc import Iterator
from typing import Any

from PIL import Image

from tests.core.designs import changed
from tests.drills import site
from tests.drills.report import Row, at_most, equal
from tests.drills.visitor import Visitor

PHOTOS, RUNS, VEHICLES = 30, 400, 3
LIMIT_S = 90.0


def drill(port: int) -> Iterator[Row]:
    """Out and in, with a kill in the middle of each."""
    owner = Visitor(port).sign_up(f"archive-{uuid.uuid4().hex[:8]}")
    workshop = owner.workshop()
    for number in range(VEHICLES):
        fill(owner, owner.add_vehicle(changed({"name": f"Vehicle {number}"})))
    before = contents(owner, workshop)
    begun = owner.send("POST", f"/api/workshops/{workshop}/archives/", {}).json
    done, lasted = followed(owner, begun["id"])
    yield equal("archive", "written though the worker was killed", done["state"], "done")
    yield at_most("archive", "until it was written", lasted, LIMIT_S, " s")
    data = b"".join(
        owner.send("GET", f"/api/archives/{begun['id']}/pieces/{number}/").text
        for number in range(-(-done["size"] // done["piece"]))
    )
    begun = owner.send("POST", "/api/archives/", {"name": "again.zip", "size": len(data)}).json
    for number in begun["missing"]:
        piece = data[number * begun["piece"] : (number + 1) * begun["piece"]]
        bytes_ = {"Content-Type": "application/octet-stream"}
        owner.send("PUT", f"/api/archives/{begun['id']}/pieces/{number}/", piece, bytes_)
    owner.send("PATCH", f"/api/archives/{begun['id']}/", {"do": "open"})
    done, lasted = followed(owner, begun["id"])
    yield equal("archive", "opened though the worker was killed", done["state"], "done")
    yield at_most("archive", "until it was opened", lasted, LIMIT_S, " s")
    same = contents(owner, done["workshop"]) == before
    yield equal("archive", f"runs, photos and steps of {VEHICLES} vehicles come back", same, True)


def fill(owner: Visitor, vehicle: str) -> None:
    """Runs, photos and ticks of a vehicle."""
    address = f"/api/vehicles/{vehicle}"
    runs = [{"design": "a", "kind": "push", "readings": [f"{90 + k / 100} N"]} for k in range(RUNS)]
    file = {"format": "ydrometer-runs", "version": 1, "designs": {"a": changed()}, "runs": runs}
    assert owner.send("POST", f"{address}/runs/file/", {"file": file}).status == 201
    for number in range(PHOTOS):
        stream = io.BytesIO()
        Image.frombytes("RGB", (300, 200), os.urandom(180_000)).save(stream, "JPEG")
        where = f"{address}/build/photos/?step=own/{number}&id={uuid.uuid4()}"
        kind = {"Content-Type": "application/octet-stream"}
        while owner.send("POST", where, stream.getvalue(), kind).status == 503:
            time.sleep(1.0)


def followed(owner: Visitor, archive: str) -> tuple[Any, float]:
    """How an archive ends whose worker is killed once it has begun; and how long that took, s."""
    begun, killed = time.monotonic(), False
    while time.monotonic() - begun < LIMIT_S:
        state = owner.send("GET", f"/api/archives/{archive}/").json
        if state["state"] == "working" and state["done"] and not killed:
            os.kill(site.processes("manage.py work")[0], signal.SIGKILL)
            killed = True
        if state["state"] not in ("waiting", "working"):
            break
        time.sleep(0.05)
    return state, time.monotonic() - begun


def contents(owner: Visitor, workshop: str) -> list[tuple[Any, ...]]:
    """What the vehicles of a workshop have."""
    rows = []
    for vehicle in owner.ask(f"/api/workshops/{workshop}/vehicles/"):
        page = owner.ask(f"/api/vehicles/{vehicle['id']}/runs/")
        steps = owner.ask(f"/api/vehicles/{vehicle['id']}/build/")["shown"]
        usage = owner.ask(f"/api/workshops/{workshop}/usage/")
        photos = next(row["used"] for row in usage if row["what"] == "photos") > 0
        rows.append((vehicle["name"], page["count"], photos, len(steps["steps"])))
    return rows
