"""From samples to readings: turns a minute out of pulses, times between gates, what a scale and a logger held."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from itertools import groupby, pairwise
from typing import Any

import numpy as np

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.reckoning import Floats
from ydrometer.instruments.lines import MOST_FAULTS, Sample, Stream
from ydrometer.trials.kinds import KINDS
from ydrometer.trials.written import typed

BOUNCE = 0.1
"""Share of a period below which a further pulse is the same slot seen twice."""
PAUSE_S = 1.0
"""Silence after which the next sample belongs to another trial."""
STEADY = 0.97
"""Share of the largest value from which on a value counts as held."""
LEAST_PULSES = 6
FROM_GATES = {"distance_time"}
"""Kinds that need to be told more than an instrument knows."""
AT_REST = 0.2
"""A, below which a battery counts as resting."""


@dataclass(frozen=True, slots=True)
class Turning:
    """How fast something turned, rad/s: the steady speed and the scatter of single periods around it.

    Attributes:
        speed, scatter. missed: slots that were not seen. bounces: slots that were seen twice.
    """

    speed: float
    scatter: float
    missed: int
    bounces: int


@dataclass(frozen=True, slots=True)
class HeardRun:
    """What a stream holds of one kind of run.

    Attributes:
        kind: of the run. readings: SI. more: further keys of the run. remarks: what was noticed on the way.
    """

    kind: str
    readings: tuple[float, ...]
    more: dict[str, Any] = field(default_factory=dict)
    remarks: tuple[str, ...] = ()

    def run(self, more: Mapping[str, Any]) -> dict[str, Any]:
        """As a run of a runs file but for the design.

        Args:
            more: keys that the instrument cannot know, such as the distance between its gates.
        """
        dimension = KINDS[self.kind].dimension
        document: dict[str, Any] = {"kind": self.kind, **more, **self.more}
        if "supply_voltage" in document:
            document["supply_voltage"] = typed(document["supply_voltage"], "voltage", places=4)
        document["readings"] = [typed(value, dimension, places=4) for value in self.readings]
        if self.remarks:
            document["note"] = "; ".join(self.remarks)
        return document


def turning(times: Floats, slots: int) -> Turning | None:
    """The steady speed behind pulses; None where there are too few.

    Args:
        times: of the pulses, s, rising, (n,).
        slots: pulses a turn.
    """
    kept = without_bounces(times)
    if len(kept) < LEAST_PULSES:
        return None
    gaps = np.diff(kept)
    # The fastest quarter is where it turned steadily: a missed slot can only make a gap longer.
    period = float(np.median(np.sort(gaps)[: max(LEAST_PULSES - 1, len(gaps) // 4)]))
    slotted = np.maximum(1.0, np.round(gaps / period))
    rates = slotted / gaps
    # While it speeds up, gaps are long without a slot being missed: those are far from any whole number of periods.
    steady = np.abs(rates * period - 1.0) <= 1.0 - STEADY
    if steady.sum() < LEAST_PULSES - 1:
        return None
    turn = 2.0 * math.pi / slots
    return Turning(
        speed=turn * float(slotted[steady].sum() / gaps[steady].sum()),
        scatter=turn * float(np.std(rates[steady], ddof=1)),
        missed=int((slotted[steady] - 1.0).sum()),
        bounces=len(times) - len(kept),
    )


def without_bounces(times: Floats) -> Floats:
    """Times of pulses without those that are the same slot seen twice."""
    if len(times) < LEAST_PULSES:
        return times
    usual = float(np.median(np.diff(times)))
    kept = [float(times[0])]
    for t in times[1:]:
        if t - kept[-1] >= BOUNCE * usual:
            kept.append(float(t))
    return np.array(kept)


def held(values: Floats) -> float:
    """What was held longest of a value that rises, stays and falls: the mean of what is near the largest."""
    return float(np.mean(values[values >= STEADY * np.median(np.sort(values)[-max(3, len(values) // 5) :])]))


def findings(stream: Stream) -> list[HeardRun]:
    """All readings of a stream, by kind of run.

    Args:
        stream: as far as it has been read.
    """
    every_finding = [*_spins(stream), *_gates(stream), *_pulls(stream)]
    resting = _resting(stream)
    if resting is None:
        return every_finding
    return [
        HeardRun(finding.kind, finding.readings, {**finding.more, "supply_voltage": resting}, finding.remarks)
        for finding in every_finding
    ]


def read_lines(lines: Iterable[str], more: Mapping[str, Any]) -> list[dict[str, Any]]:
    """The runs that an instrument's lines hold, each as in a runs file but for the design.

    Args:
        lines: all of them.
        more: keys of the runs that the instrument cannot know.

    Raises:
        DocumentError: lines that cannot be read, or that hold no run.
    """
    stream = Stream()
    stream.take(lines)
    if stream.faults:
        raise DocumentError(stream.faults[:MOST_FAULTS], max(0, len(stream.faults) - MOST_FAULTS))
    runs = runs_in(stream, more)
    if not runs:
        raise DocumentError([Fault("lines", f"no run in {stream.read} lines", "give pulses, gates or pulls of a run")])
    return runs


def runs_in(stream: Stream, more: Mapping[str, Any]) -> list[dict[str, Any]]:
    """The runs of a stream so far, each as in a runs file but for the design.

    Args:
        stream: as far as it has been read.
        more: keys of the runs that the instrument cannot know.
    """
    return [finding.run(more if finding.kind in FROM_GATES else {}) for finding in findings(stream)]


def trials(stream: Stream, key: str) -> Iterator[list[Sample]]:
    """Samples of one kind, cut where there was a pause or a start."""
    own = [sample for sample in stream.samples if sample.key == key]
    cuts = [k for k, (a, b) in enumerate(pairwise(own)) if a.part != b.part or b.t - a.t > PAUSE_S]
    numbers = np.searchsorted(cuts, range(len(own)))
    for _, group in groupby(range(len(own)), key=lambda k: int(numbers[k])):
        yield [own[k] for k in group]


def _spins(stream: Stream) -> Iterator[HeardRun]:
    turned = [turning(np.array([s.t for s in trial]), stream.slots) for trial in trials(stream, "pulse")]
    known = [spin for spin in turned if spin is not None]
    if known:
        missed, bounces = sum(spin.missed for spin in known), sum(spin.bounces for spin in known)
        said = ((missed, "missed pulses counted in"), (bounces, "bounces dropped"))
        remarks = tuple(f"{count} {what}" for count, what in said if count)
        readings = tuple(spin.speed for spin in known)
        yield HeardRun("spin", readings, {"of": stream.on}, remarks)


def _gates(stream: Stream) -> Iterator[HeardRun]:
    """Times from the first gate to the second."""
    times, begun, alone = [], None, 0
    for sample in stream.samples:
        if sample.key != "gate":
            continue
        if sample.value == 1.0:
            alone += begun is not None
            begun = sample
        elif begun is not None and begun.part == sample.part:
            times.append(sample.t - begun.t)
            begun = None
    if times:
        lost = alone + (begun is not None)
        remarks = (f"{lost} starts without an arrival",) if lost else ()
        yield HeardRun("distance_time", tuple(times), {}, remarks)


def _pulls(stream: Stream) -> Iterator[HeardRun]:
    """What a spring scale held, and what the supply gave meanwhile."""
    pulls = list(trials(stream, "newton"))
    if not pulls:
        return
    yield HeardRun("push", tuple(held(np.array([s.value for s in trial])) for trial in pulls))
    currents = [[s.value for s in trial if s.value > AT_REST] for trial in trials(stream, "amp")]
    drawn = tuple(held(np.array(pulse)) for pulse in currents if len(pulse) >= LEAST_PULSES)
    if drawn:
        yield HeardRun("supply_current", drawn, {"moment": "shove"})


def _resting(stream: Stream) -> float | None:
    """The voltage before anything was drawn, V."""
    for a, b in pairwise(stream.samples):
        if {a.key, b.key} == {"volt", "amp"} and a.t == b.t:
            volt, amp = (a, b) if a.key == "volt" else (b, a)
            return volt.value if amp.value < AT_REST else None
    return None
