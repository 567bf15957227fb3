"""./ydro bench logger: how long a logger's file of 2,000,000 rows takes to readings, and the memory that takes."""

from __future__ import annotations

import json
import resource
import sys
import tempfile
import time
from pathlib import Path

import numpy as np

from ydrometer.document.design import read
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.instruments.columns import guess
from ydrometer.screens.logged_file import file_shown

DESIGN = Path(__file__).parents[2] / "server" / "demo" / "vehicles" / "1-sandpiper" / "2.json"
ROWS, RATE, BLOCK = 2_000_000, 100, 50_000
GOAL_S, GOAL_MB = 20.0, 300.0
TIMES = 3
FAULTY = 97_003
"""A row that cannot be read comes every so many."""


def write(path: Path, rows: int) -> None:
    """A file of runs with standstills between them, and a faulty row now and then."""
    random = np.random.default_rng(7)
    with path.open("w") as file:
        file.write("time [ms],speed [km/h],batt amps,voltage\n")
        for first in range(0, rows, BLOCK):
            k = np.arange(first, min(rows, first + BLOCK))
            phase = k / RATE % 14.0
            speed = np.clip(np.where(phase < 10.0, 6.0 * (phase - 4.0), 9.0 - 4.0 * (phase - 10.0)), 0.0, 9.0)
            speed += random.normal(0.0, 0.01, len(k)) * (speed > 0.0)
            amp = np.where((phase >= 4.0) & (phase < 10.0), 44.0 - 4.0 * speed, 0.0)
            table = np.column_stack([1000.0 * k / RATE, 3.6 * np.maximum(speed, 0.0), amp, 25.2 - 0.024 * amp])
            for number, (at, fast, drawn, volt) in zip(k, table, strict=True):
                lost = number % FAULTY == FAULTY - 1
                file.write("lost,,,\n" if lost else f"{at:.1f},{fast:.3f},{drawn:.2f},{volt:.2f}\n")


def memory() -> float:
    """The most that this process has used so far, MB."""
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1e3


def main() -> int:
    """Measure, and print."""
    design = json.loads(DESIGN.read_text())
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "log.csv"
        write(path, ROWS)
        with path.open() as file:
            layout = guess("".join(file.readline() for _ in range(100)))
        evaluate([read(design)])
        before, taken = memory(), []
        for _ in range(TIMES):
            begun = time.perf_counter()
            with path.open() as file:
                found = file_shown(file, layout, design, lambda rows: None)
            taken.append(time.perf_counter() - begun)
    print(f"{found.rows:,} rows, {found.faulty} of them faulty, {found.count} runs found")
    print(f"to readings: {', '.join(f'{entry:.1f} s' for entry in taken)} (goal {GOAL_S:.0f} s)")
    print(f"memory: {memory():.0f} MB at most, {before:.0f} MB of it before the first row (goal {GOAL_MB:.0f} MB)")
    return 0


if __name__ == "__main__":
    sys.exit(main())
