"""./ydro bench grown: what open pages ask again and again, of a workshop that has grown, beside what it costs bare."""

from __future__ import annotations

import statistics
import time
from datetime import timedelta
from typing import Any
from uuid import UUID, uuid4

from tests.bench.serving import in_this_process

TICKS, PARTS, PHOTOS, INSPECTIONS, RUNS, REVISIONS = 200, 60, 20, 10, 300, 200
PUPILS, ANSWERS = 40, 60
TIMES = 20
GOAL_RATIO = 3.0
"""An address of a grown vehicle against the same of a bare one."""


def main() -> None:
    """Fill two vehicles, one of them with a season's rows, and print what each address takes."""
    in_this_process()
    _measure()


def _measure() -> None:
    from rest_framework.test import APIClient  # noqa: PLC0415

    from server.accounts.models import User  # noqa: PLC0415
    from server.designs.actions import add_vehicle  # noqa: PLC0415
    from server.workshops.actions import create_workshop  # noqa: PLC0415
    from tests.core.designs import PLAIN  # noqa: PLC0415

    user = User.objects.create_user(f"grown-{uuid4().hex[:8]}")
    workshop = create_workshop(user, "Grown")
    bare, grown = (add_vehicle(user, workshop, PLAIN) for _ in range(2))
    _grow(user, grown)
    client = APIClient(SERVER_NAME="127.0.0.1")
    client.force_login(user)
    print(
        f"{TICKS} ticks, {PARTS} parts, {PHOTOS} photos, {INSPECTIONS} inspections, {RUNS} runs, "
        f"{REVISIONS} revisions; ms by median of {TIMES}, statements in brackets (goal: {GOAL_RATIO:g} times a bare "
        "vehicle's, where the address is asked again by itself)"
    )
    for name, rest in (
        ("build, pulse (each 1.5 s)", "build/pulse/"),
        ("vehicle", ""),
        ("runs", "runs/"),
        ("build", "build/"),
    ):
        took = [_took(client, f"/api/vehicles/{vehicle.pk}/{rest}") for vehicle in (bare, grown)]
        lines = "   ".join(
            f"{which} {ms:7.2f} ({count})" for which, (ms, count) in zip(("bare", "grown"), took, strict=True)
        )
        print(f"  {name:26} {lines}   ratio {took[1][0] / took[0][0]:.1f}")
    print(f"a set of {PUPILS} pupils with {PUPILS * ANSWERS} answers:")
    for name, address in _sets(user, workshop):
        ms, count = _took(client, address)
        print(f"  {name:26} {ms:7.2f} ({count})")


def _took(client: Any, address: str) -> tuple[float, int]:
    """Median time of an answer, ms, and how many statements it needs."""
    from django.db import connection  # noqa: PLC0415

    statements = []

    def count(execute: Any, sql: str, params: Any, many: bool, context: Any) -> Any:
        statements.append(sql)
        return execute(sql, params, many, context)

    with connection.execute_wrapper(count):
        answer = client.get(address)
    assert answer.status_code == 200, answer.content[:200]
    times = []
    for _ in range(TIMES):
        begun = time.perf_counter()
        client.get(address)
        times.append(1e3 * (time.perf_counter() - begun))
    return statistics.median(times), len(statements)


def _grow(user: Any, vehicle: Any) -> None:
    """A season's rows of one vehicle."""
    from django.utils import timezone  # noqa: PLC0415

    from server.builds.models import InspectionEntry, PartEntry, Photo, StepEntry  # noqa: PLC0415
    from server.designs.models import Revision  # noqa: PLC0415
    from server.runs.actions import NewRun, log_run, present_design  # noqa: PLC0415

    now = timezone.now()
    at = [now - timedelta(minutes=minutes) for minutes in range(max(TICKS, RUNS))]
    StepEntry.objects.bulk_create(
        StepEntry(vehicle=vehicle, step=f"own:step-{k}", doing="done", at=at[k], author=user) for k in range(TICKS)
    )
    PartEntry.objects.bulk_create(
        PartEntry(vehicle=vehicle, key=f"part-{k}", state="ordered", at=at[k], author=user) for k in range(PARTS)
    )
    Photo.objects.bulk_create(
        Photo(vehicle=vehicle, step=f"own:step-{k}", data=b"\xff", author=user) for k in range(PHOTOS)
    )
    document = {"hours": 2.0, "findings": []}
    InspectionEntry.objects.bulk_create(
        InspectionEntry(vehicle=vehicle, document=document, at=at[k], author=user) for k in range(INSPECTIONS)
    )
    newest = vehicle.revisions.first()
    Revision.objects.bulk_create(
        Revision(vehicle=vehicle, number=newest.number + k, document=newest.document, author=user)
        for k in range(1, REVISIONS + 1)
    )
    of = present_design(vehicle)
    for _ in range(RUNS):
        run = {"kind": "distance_time", "distance": "10 m", "readings": ["4.2 s", "4.3 s"]}
        log_run(user, vehicle, NewRun(id=uuid4(), document=run, made_at=now), of)


def _sets(user: Any, workshop: Any) -> list[tuple[str, str]]:
    from server.practice.actions import make_set  # noqa: PLC0415
    from server.practice.models import Pupil, PupilAnswer  # noqa: PLC0415
    from ydrometer.practice import IDEAS  # noqa: PLC0415

    body = {"ideas": list(IDEAS)[:5], "levels": [1], "count": 10, "own_numbers": False, "units": "metric"}
    found = make_set(user, workshop, {"name": "Grown", **body})
    pupils = Pupil.objects.bulk_create(Pupil(set=found, number=k + 1, nickname=f"pupil-{k}") for k in range(PUPILS))
    PupilAnswer.objects.bulk_create(
        PupilAnswer(pupil=pupil, place=k % 10, verdict="wrong", mistake="", given="1")
        for pupil in pupils
        for k in range(ANSWERS)
    )
    return [("the teacher's page (each 2 s)", f"/api/sets/{UUID(str(found.pk))}/")]


if __name__ == "__main__":
    main()
