"""./ydro bench calibrate: how good predictions get over drawn vehicles, and how long a calibration takes."""

from __future__ import annotations

import copy
import json
import os
import sys
import time
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.document import design
from ydrometer.motion import measures
from ydrometer.trials import runs_file
from ydrometer.trials.calibrate import Calibration
from ydrometer.trials.kinds import KINDS
from ydrometer.trials.measure import ALWAYS, Measure
from ydrometer.trials.model import Model, PosedQuestion
from ydrometer.trials.unknowns import unknowns

CASES = Path(__file__).parents[1] / "core" / "cases" / "runs"
VEHICLES, SEED, READINGS = 200, 7, 3
MANY_RUNS, TIMES = 50, 5
GOAL_WITHIN, GOAL_MEDIAN, GOAL_S = 0.02, 0.007, 1.5
VARIED = ("mass", "rolling_resistance", "drag_area", "wheel_diameter")


def vehicle(random: np.random.Generator) -> dict[str, Any]:
    """Designs of one vehicle with four gearings: one of the cases, heavier or lighter, larger or smaller."""
    files = [file for file in sorted(CASES.glob("*.json")) if "truth" not in file.name]
    raw = json.loads(files[random.integers(len(files))].read_text())["designs"]
    factors = dict(zip(VARIED, np.exp(random.normal(0.0, 0.15, len(VARIED))), strict=True))
    copied: dict[str, Any] = copy.deepcopy(raw)
    for name, one in copied.items():
        values = design.read(one).values
        for key, factor in factors.items():
            if f"vehicle.{key}" in values:
                one["vehicle"][key] = values[f"vehicle.{key}"].si * factor
        assert design.read(one), name
    return copied


@dataclass(frozen=True)
class Afternoon:
    """Runs with hidden losses: the runs file, ln of the hidden factors by name, and the truth of what is asked."""

    file: dict[str, Any]
    hidden: dict[str, float]
    truth: Floats


def driven(designs: dict[str, Any], random: np.random.Generator, count: int = 8) -> Afternoon:
    """Runs of the first gearings; what is asked are the measures of the last one."""
    read = {name: design.read(one) for name, one in designs.items()}
    *tried, asked = read
    hidden = unknowns(read, [(name, "") for name in read])
    theta = random.normal(size=len(hidden)) * np.array([one.sigma for one in hidden])
    runs = [_posed(read, tried[k % len(tried)], k) for k in range(count)]
    file = {"format": runs_file.FORMAT, "version": 1, "designs": designs, "runs": runs, "ask": [asked]}
    trials = runs_file.read(file).runs
    model = Model(read, [PosedQuestion(run, run.design, "", run.conditions) for run in trials])
    values = model.values(hidden, theta[None, :])[0]
    for run, trial, value in zip(runs, trials, values, strict=True):
        drawn = value * np.exp(random.normal(0.0, trial.scatter, READINGS))
        run["readings"] = [float(one) for one in drawn] if np.isfinite(value) else [1.0]
    distance = read[asked].design.run.distance
    asking = [PosedQuestion(Measure(name, distance if name != "top_speed" else None), asked, "") for name in ALWAYS]
    truth = Model(read, asking).values(hidden, theta[None, :])[0]
    kept = [run for run, value in zip(runs, values, strict=True) if np.isfinite(value)]
    names = [one.kind.name for one in hidden]
    return Afternoon({**file, "runs": kept}, dict(zip(names, theta.tolist(), strict=True)), truth)


def _posed(read: dict[str, Any], name: str, k: int) -> dict[str, Any]:
    """The k-th run: what people do on an afternoon."""
    kind = ("spin", "tow", "push", "distance_time", "top_speed", "distance_time", "distance_time", "top_speed")[k % 8]
    document: dict[str, Any] = {"design": name, "kind": kind, "readings": [1.0]}
    if kind == "spin":
        document["of"] = "wheel"
    if kind == "distance_time":
        document["distance"] = read[name].design.run.distance
    supply = read[name].design.drive.supply
    if supply is not None and hasattr(supply, "voltage"):
        document["supply_voltage"] = supply.voltage
    return document


def tried(seed: int) -> list[tuple[float, float, bool]]:
    """Of one vehicle: relative error before and after, and whether the band holds the truth, by measure."""
    random = np.random.default_rng([SEED, seed])
    designs = vehicle(random)
    made_up = driven(designs, random)
    truth, read = made_up.truth, runs_file.read(made_up.file)
    calibration = Calibration(read)
    plain = calibration.asked_model.values(calibration.chosen, np.zeros((1, len(calibration.chosen))))[0]
    found = []
    for question, answer, before in zip(calibration.questions, calibration.answers, plain, strict=True):
        measure = question.question
        assert isinstance(measure, Measure)
        true = float(truth[ALWAYS.index(measure.name)])
        if np.isfinite(true) and np.isfinite(answer.value):
            found.append((abs(before / true - 1.0), abs(answer.value / true - 1.0), answer.low <= true <= answer.high))
    return found


def seconds() -> list[float]:
    """Of a calibration of fifty runs on five designs, each with a voltage of its own."""
    random = np.random.default_rng(SEED)
    designs = json.loads((CASES / "02-coasting-stopping-currents.json").read_text())["designs"]
    name, one = next(iter(designs.items()))
    designs = {f"another {name}": copy.deepcopy(one), **designs}
    file = driven(designs, random, MANY_RUNS).file
    for run in file["runs"]:
        run["supply_voltage"] = float(run["supply_voltage"] * (1.0 + 0.02 * random.uniform(-1.0, 1.0)))
    took = []
    for _ in range(TIMES):
        begun = time.perf_counter()
        made = Calibration(runs_file.read(file))
        assert made.fit.converged
        assert len(made.bands[0]) == len(made.runs)
        assert len(made.answers) > 0
        took.append(time.perf_counter() - begun)
    return took


def main() -> int:
    """Print both."""
    measures.THREADS = os.cpu_count() or 1  # as the command line has it
    took = seconds()
    print(
        f"{MANY_RUNS} runs on 5 designs, s: " + ", ".join(f"{one:.2f}" for one in sorted(took)) + f"   (goal {GOAL_S})"
    )
    with ProcessPoolExecutor() as pool:
        rows = [row for found in pool.map(tried, range(VEHICLES)) for row in found]
    before, after, held = (np.array(column) for column in zip(*rows, strict=True))
    for title, errors in (("as designed", before), ("calibrated", after)):
        within = 100.0 * (errors <= GOAL_WITHIN).mean()
        print(f"{title}: median error {100.0 * np.median(errors):.2f} %, within 2 % in {within:.0f} of 100")
    print(f"(goal: median {100.0 * GOAL_MEDIAN:.1f} %, 95 of 100)")
    print(f"the band of 80 holds the truth in {100.0 * held.mean():.0f} of 100   (goal 70 to 90)")
    return 0


if __name__ == "__main__":
    assert KINDS
    sys.exit(main())
