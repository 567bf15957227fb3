"""The demo's runs: afternoons on the practice rig from fixed seeds, the same every time."""

from __future__ import annotations

import copy
import json
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from functools import cache
from typing import Any
from uuid import uuid5

from server.accounts.models import User
from server.designs.models import Vehicle
from server.runs.actions import tried
from server.runs.models import Origin, Rig, Run, Tried
from ydrometer.document import design
from ydrometer.instruments.rig import RigBench, RigState, kept
from ydrometer.trials.prediction import Predicted, predicted

BEGINS = datetime(2026, 11, 14, 13, 0, tzinfo=UTC)
BETWEEN = timedelta(minutes=7)
READINGS = 3


@dataclass(frozen=True, slots=True)
class DemoTrial:
    """One trial on the rig: what is done, with how many teeth, and what was different that time.

    `times` multiplies the readings: something went wrong that nobody saw. `mass` is what the vehicle then weighed.
    """

    action: str
    teeth: int
    note: str = ""
    times: float = 1.0
    mass: str = ""


@dataclass(frozen=True, slots=True)
class Afternoon:
    """What was tried with one vehicle: the seed of the rig, the wheel that was changed, and the trials."""

    seed: int
    wheel: tuple[str | int, ...]
    trials: tuple[DemoTrial, ...]


def _rounds(*rounds: tuple[int, ...]) -> tuple[DemoTrial, ...]:
    """Each gearing once a round, in a mixed order."""
    return tuple(DemoTrial("run", teeth) for row in rounds for teeth in row)


def _usual(teeth: int) -> tuple[DemoTrial, ...]:
    return DemoTrial("spin", teeth), DemoTrial("tow", teeth), DemoTrial("push", teeth)


FIRST = ("drive", "branches", 0, "stages", 0, "driver_teeth")
CHAIN = ("drive", "stages", 0, "driver_teeth")
BEHIND_THE_BOX = ("drive", "stages", 1, "driver_teeth")
AFTERNOONS = {
    "1-sandpiper": Afternoon(3, FIRST, (*_usual(15), *_rounds((15, 18, 14), (14, 15, 18), (18, 14, 15)))),
    "2-knot": Afternoon(5, FIRST, (
        DemoTrial("run", 8, "before the tray was on", mass="0.52 kg"),
        DemoTrial("run", 10, "before the tray was on", mass="0.52 kg"),
        *_usual(10), *_rounds((12, 10, 14), (10, 14, 12)), DemoTrial("run", 14),
        DemoTrial("run", 10, "a hair on the axle afterwards", times=1.27), *_rounds((12, 14, 10), (10, 12)),
    )),
    "3-dunlin": Afternoon(8, CHAIN, (*_usual(12), *_rounds((12, 14, 13), (14, 13, 12), (13, 12, 14)))),
    "4-turnstone": Afternoon(2, BEHIND_THE_BOX, (*_usual(13), *_rounds((13, 15), (15, 13), (13, 15), (15, 13)))),
    "5-knot-light": Afternoon(4, FIRST, (*_usual(10), *_rounds((10, 12, 8), (8, 12, 10), (12, 10, 8)))),
}  # fmt: skip


@dataclass(frozen=True, slots=True)
class Logged:
    """A run of the demo: the design it was made with, and its prediction."""

    design: dict[str, Any]
    document: dict[str, Any]
    predicted: Predicted


def log(user: User, vehicle: Vehicle, folder: str, base: dict[str, Any]) -> None:
    """Put an afternoon's runs into the log of a vehicle.

    Args:
        user: who drove.
        vehicle: of the demo.
        folder: its name among the demo's vehicles.
        base: its present design.
    """
    rows: list[Run] = []
    logged, state = _afternoon(folder, json.dumps(base))
    Rig.objects.create(vehicle=vehicle, seed=AFTERNOONS[folder].seed, base=base, state=kept(state))
    known: dict[str, Tried] = {}
    for run in logged:
        prediction, key = run.predicted, json.dumps(run.design)
        known[key] = known.get(key) or tried(vehicle, run.design)
        rows.append(
            Run(
                id=uuid5(vehicle.pk, str(len(rows))),
                vehicle=vehicle,
                tried=known[key],
                document=run.document,
                origin=Origin.RIG,
                author=user,
                made_at=BEGINS + len(rows) * BETWEEN,
                words=prediction.words,
                dimension=prediction.dimension,
                measured=prediction.measured,
                predicted=prediction.predicted,
                off=prediction.off,
            )
        )
    Run.objects.bulk_create(rows)


def untouched(vehicle: Vehicle, folder: str, base: dict[str, Any]) -> bool:
    """Whether a vehicle's log is as it was loaded."""
    wanted = [(run.document, 1) for run in _afternoon(folder, json.dumps(base))[0]]
    return list(vehicle.runs.values_list("document", "version")) == wanted


@cache
def _afternoon(folder: str, base: str) -> tuple[list[Logged], RigState]:
    """All that was logged, in order, and how the rig was left."""
    runs: list[Logged] = []
    raw, state = json.loads(base), RigState()
    wanted = AFTERNOONS[folder]
    for trial in wanted.trials:
        own = _tried(raw, wanted, trial)
        bench = RigBench(design.read(raw), design.read(own), wanted.seed, state)
        performed = bench.perform(trial.action, READINGS)
        state = performed.state
        for run in performed.runs():
            document = _told(run, trial)
            runs.append(Logged(own, document, predicted(document, own)))
    return runs, state


def _tried(raw: dict[str, Any], wanted: Afternoon, trial: DemoTrial) -> dict[str, Any]:
    """The design as it was then."""
    own: dict[str, Any] = copy.deepcopy(raw)
    place: Any = own
    for key in wanted.wheel[:-1]:
        place = place[key]
    place[wanted.wheel[-1]] = trial.teeth
    if trial.mass:
        own["vehicle"]["mass"] = {**own["vehicle"]["mass"], "value": trial.mass}
    return own


def _told(run: dict[str, Any], trial: DemoTrial) -> dict[str, Any]:
    """The run as it was written down."""
    document = dict(run)
    if trial.times != 1.0:
        parts = [str(reading).split(" ") for reading in run["readings"]]
        document["readings"] = [f"{trial.times * float(number):.4g} {unit}" for number, unit in parts]
    if trial.note:
        document["note"] = trial.note
    return document
