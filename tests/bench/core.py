"""./ydro bench core: one design alone, designs a second in a batch, and both against plain stepping through time."""

from __future__ import annotations

import copy
import json
import os
import statistics
import subprocess
import sys
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any

import numpy as np
from scipy.integrate import solve_ivp

from tests.core.designs import PLAIN, SIX_STAGES
from tests.figures import percentile
from ydrometer.base.jit import entry
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.drawing import draw_line
from ydrometer.evaluation import driveline
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.result import result
from ydrometer.motion import measures, trace
from ydrometer.motion.forces import as_driven
from ydrometer.motion.measures import Wanted
from ydrometer.motion.plant import Batch, row

ROOT = Path(__file__).parents[2]
CASES = ROOT / "tests" / "core" / "cases"
COLD = 12
MANY = 20_000
ALONE = 300
STEPPED = 5
RTOL = 1e-8


def designs() -> dict[str, Document]:
    """The plain robot, one kind of motor and one gear, and the reference cases that start."""
    found = {"plain: one motor kind, one gear": design.read(PLAIN)}
    for file in sorted(f for f in CASES.glob("*.json") if "expected" not in f.name):
        document = design.read(json.loads(file.read_text()))
        if evaluate([document]).starts(0):
            found[file.stem] = document
    return found


def batch_of(document: Document, number: int) -> tuple[Batch, Wanted]:
    """Many of a design, each with its own mass and its own ratio."""
    one = driveline.assemble([document.design])
    batch = Batch(*(np.repeat(part, number, axis=0) for part in one))
    spread = np.linspace(0.8, 1.25, number)
    batch.gears["ratio"] *= spread[:, None]
    batch.gears["turning"] *= spread[:, None]
    batch.vehicle["mass"] *= spread[::-1, None]
    run = document.design.run
    distance, speed, time = (np.full((number, 1), value or np.nan) for value in (run.distance, run.speed, run.time))
    return batch, Wanted(distance, speed, time)


def seconds(work: Callable[[], Any]) -> float:
    """How long a piece of work takes."""
    begun = time.perf_counter()
    work()
    return time.perf_counter() - begun


def alone(document: Document) -> list[float]:
    """Reading, evaluating and writing out one design, in ms."""
    raw = copy.deepcopy(PLAIN)
    evaluate([document])
    times = [seconds(lambda: result(evaluate([document]))) for _ in range(ALONE)]
    print(f"  reading the document besides: median {statistics.median(read_times(raw)):.2f} ms")
    return [1e3 * t for t in times]


def read_times(raw: dict[str, Any]) -> list[float]:
    """Reading a document, in ms."""
    return [1e3 * seconds(lambda: design.read(raw)) for _ in range(ALONE)]


@entry
def _motion_at(batch: Batch, gear: int, speed: float) -> tuple[float, float]:
    """Acceleration and power of the supply of the first design at a speed of the run."""
    acceleration, _, bus, drawn, _ = as_driven(row(batch, 0), gear, speed)
    return acceleration, bus * drawn


def stepped(document: Document) -> float:
    """Seconds of a solve_ivp run at 1e-8 to the same distance, with our own formulas on its right-hand side."""
    batch = trace.single(driveline.assemble([document.design]), 0)
    distance = document.design.run.distance or 20.0
    gear = int(evaluate([document]).raw("last_gear", 0))

    def rates(_: float, state: Any) -> list[float]:
        acceleration, power = _motion_at(batch, gear, max(float(state[0]), 0.0))
        return [acceleration, float(state[0]), power]

    def arrived(_: float, state: Any) -> float:
        return float(state[1] - distance)

    arrived.terminal = True  # type: ignore[attr-defined]
    rates(0.0, [0.0, 0.0, 0.0])
    return seconds(lambda: solve_ivp(rates, (0.0, 600.0), [0.0, 0.0, 0.0], events=arrived, rtol=RTOL, atol=1e-9))


def stepped_plainly() -> dict[str, float]:
    """The same with the formulas as plain Python, which takes a process of its own."""
    environment = {**os.environ, "YDROMETER_INTERPRET": "1"}
    command = [sys.executable, "-m", "tests.bench.core", "stepped"]
    done = subprocess.run(command, env=environment, capture_output=True, text=True, check=True)
    answer: dict[str, float] = json.loads(done.stdout)
    return answer


def one_command() -> None:
    """Evaluate a file as from a terminal."""
    file = next(CASES.glob("01-*bench.json"))
    subprocess.run([ROOT / "ydro", "evaluate", file], stdout=subprocess.DEVNULL, check=True)


def main() -> None:
    """Print it all; or, asked for "stepped", the times of stepping alone."""
    known = designs()
    if sys.argv[1:] == ["stepped"]:
        print(json.dumps({name: stepped(document) for name, document in known.items()}))
        return
    print("one design alone, all measures:")
    times = alone(next(iter(known.values())))
    print(
        f"  median {statistics.median(times):.2f}  p90 {percentile(times, 0.9):.2f}  max {max(times):.2f} ms"
        "   (goal: median at most 0.5 ms)"
    )
    six = design.read(SIX_STAGES).design
    drawn = [1e3 * seconds(lambda: draw_line(six, 4.0)) for _ in range(ALONE)]
    print(
        f"the drawing of six stages in two branches: median {statistics.median(drawn):.2f}  "
        f"p95 {percentile(drawn, 0.95):.2f} ms   (goal: at most 2 ms)"
    )
    plain = stepped_plainly()
    print(f"\nin a batch of {MANY} on one core, and how many times as long a solve_ivp run at {RTOL:g} of each takes,")
    print("with the formulas as plain Python, and with them compiled:")
    for name, document in known.items():
        batch, wanted = batch_of(document, MANY)
        measures.measure(*batch_of(document, 10))
        each = seconds(partial(measures.measure, batch, wanted)) / MANY
        step = statistics.median(stepped(document) for _ in range(STEPPED))
        times_as_long = f"{plain[name] / each:7.0f} plain {step / each:6.0f} compiled"
        print(f"  {name:36} {1 / each:8.0f} a second  {times_as_long}")
    print("  (goals: 60000 a second for one motor kind and one gear, 20000 with limits or two speeds; 200 times)")
    cold = [1e3 * seconds(one_command) for _ in range(COLD)]
    print(
        f"\n./ydro evaluate of one file, a process of its own: min {min(cold):.0f}  "
        f"median {statistics.median(cold):.0f}  max {max(cold):.0f} ms   (goal: 500 ms)"
    )


if __name__ == "__main__":
    main()
