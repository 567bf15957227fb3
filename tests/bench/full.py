"""./ydro bench full: the first answer of each page of a workshop that is full: processor time, and how long it took."""

from __future__ import annotations

import random
import tempfile
import time
from collections.abc import Iterator
from datetime import timedelta
from pathlib import Path
from typing import Any
from uuid import uuid4

from ops import safekeeping
from ops.checks import TEST
from tests.bench.serving import BENCH, in_this_process

VEHICLES, PARTS, RUNS, PHOTOS, REVISIONS = 300, 5000, 5000, 500, 2000
PHOTO = 300_000
"""Bytes."""
GOAL_S = 1.0
SEED = 20_261_201


def main() -> None:
    """Fill a workshop and print what each address takes."""
    in_this_process()
    _measure()


def _measure() -> None:
    from rest_framework.test import APIClient  # noqa: PLC0415

    from server.accounts.models import User  # noqa: PLC0415
    from server.api import heavy  # noqa: PLC0415
    from server.workshops.actions import create_workshop  # noqa: PLC0415

    heavy.warm()
    user = User.objects.create_user(f"full-{uuid4().hex[:8]}")
    workshop = create_workshop(user, "Full")
    vehicle = _fill(user, workshop)
    client = APIClient(SERVER_NAME="127.0.0.1")
    client.force_login(user)
    print(
        f"{VEHICLES} vehicles, {PARTS} parts; of one vehicle {RUNS} runs, {PHOTOS} photos, {REVISIONS} revisions. "
        f"First answers (goal: {GOAL_S:g} s of processor)"
    )
    for name, address in _addresses(workshop.pk, vehicle.pk):
        begun, used = time.perf_counter(), time.process_time()
        answer = client.get(address)
        took, used = time.perf_counter() - begun, time.process_time() - used
        size = len(answer.content) / 1000.0
        mark = "" if used <= GOAL_S else "  OVER"
        print(f"  {name:30} {answer.status_code}  {used:6.2f} s here, {took:6.2f} s in all, {size:8.0f} kB{mark}")
    _keep()


def _keep() -> None:
    """A backup of all that, and what it takes to bring it back."""
    copy = f"{BENCH.database}_copy"
    for name in (copy, *safekeeping.kept_of(TEST, copy)):
        TEST.sql(f'drop database if exists "{name}"')
    with tempfile.TemporaryDirectory() as folder:
        file, begun = Path(folder) / "full", time.perf_counter()
        safekeeping.dump(TEST, BENCH.database, file)
        saved = time.perf_counter()
        safekeeping.bring_back(TEST, copy, file)
        back = time.perf_counter() - saved
        print(f"  backup {saved - begun:.1f} s, {file.stat().st_size / 1e6:.0f} MB; restored in {back:.1f} s")
    TEST.sql(f'drop database if exists "{copy}"')


def _addresses(workshop: Any, vehicle: Any) -> Iterator[tuple[str, str]]:
    """Pages and what they ask for."""
    of_workshop = {
        "bench: vehicles": "vehicles/",
        "bench: cards": "cards/",
        "bench: last runs": "runs/",
        "who works here: room": "usage/",
        "bin": "parts/",
        "bin as XLSX": "parts/export/xlsx/",
        "bin as CSV": "parts/export/csv/",
        "orders": "orders/",
        "options: searches": "searches/",
    }
    of_vehicle = {
        "vehicle": "",
        "line: newest": "newest/",
        "line: history": "history/",
        "line: revisions": "revisions/",
        "runs: log": "runs/",
        "runs: learnt": "learnt/",
        "runs: as a file": "runs/file/",
        "runs: plan": "plan/choices/",
        "parts list": "parts-list/export/csv/",
        "build": "build/",
        "build: pulse": "build/pulse/",
        "sheet": "sheet/",
    }
    yield from ((name, f"/api/workshops/{workshop}/{rest}") for name, rest in of_workshop.items())
    yield from ((name, f"/api/vehicles/{vehicle}/{rest}") for name, rest in of_vehicle.items())


def _fill(user: Any, workshop: Any) -> Any:
    """A workshop of this size; the vehicle that most was done with."""
    from django.utils import timezone  # noqa: PLC0415

    from server.builds.models import Photo  # noqa: PLC0415
    from server.designs.actions import KeptRevision, take_revisions  # noqa: PLC0415
    from server.parts.actions import Change, change_parts  # noqa: PLC0415
    from server.runs.actions import NewRun, log_runs, tried  # noqa: PLC0415
    from tests.core.designs import PLAIN, changed  # noqa: PLC0415

    dice, now = random.Random(SEED), timezone.now()
    for at in range(0, PARTS, 500):
        change_parts(user, workshop, [Change(part["id"], 0, part) for part in _parts(dice, at, 500)])
    for number in range(VEHICLES - 1):
        take_revisions(user, workshop, None, [KeptRevision(changed({"name": f"Vehicle {number}"}))])
    history = [
        KeptRevision(changed({"vehicle.mass": f"{3 + k / 1000:.3f} kg"}), "kept" * (k % 50 == 0), k + 1)
        for k in range(REVISIONS)
    ]
    vehicle = take_revisions(user, workshop, None, history)
    designs = [tried(vehicle, changed({"vehicle.mass": f"{3 + k} kg"}, PLAIN)) for k in range(40)]
    moments = [now - timedelta(hours=RUNS - k) for k in range(RUNS)]
    runs = [
        NewRun(uuid4(), {"kind": "push", "readings": [f"{90 + dice.random():.2f} N"] * 3}, made_at=moment)
        for moment in moments
    ]
    log_runs(user, vehicle, [(run, designs[40 * k // RUNS]) for k, run in enumerate(runs)])
    for at in range(0, PHOTOS, 50):
        shots = [Photo(vehicle=vehicle, step=f"own/{k}", data=dice.randbytes(PHOTO)) for k in range(at, at + 50)]
        Photo.objects.bulk_create(shots)
    return vehicle


def _parts(dice: random.Random, at: int, count: int) -> Iterator[dict[str, Any]]:
    """Wheels with teeth, screws and bearings as a workshop has them."""
    for k in range(at, at + count):
        yield {
            "kind": "gear",
            "id": f"g{k}",
            "teeth": dice.randint(10, 90),
            "module": f"{dice.choice((0.5, 0.8, 1, 1.5, 2))} mm",
            "owned": dice.randint(0, 3),
            "price": round(dice.uniform(1, 30), 2),
        }


if __name__ == "__main__":
    main()
