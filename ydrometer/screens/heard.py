"""What has been heard of an instrument so far: the runs in it, what could not be read, and curves to look at."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np

from ydrometer.base.errors import Fault
from ydrometer.instruments.findings import runs_in, trials, without_bounces
from ydrometer.instruments.lines import MOST_FAULTS, VALUES, Sample, Stream
from ydrometer.instruments.thinning import thinned

MOST_POINTS = 400
"""Of a curve."""


@dataclass(frozen=True, slots=True)
class Heard:
    """A curve of what an instrument tells: words, kind of quantity, points of time, s, and value, SI, and the last."""

    words: str
    dimension: str
    points: list[list[float]]
    last: float


@dataclass(frozen=True, slots=True)
class Listened:
    """What lines hold.

    Attributes:
        read: how many there were. faults: of those that could not be read, the first few; more: how many besides.
        runs: as in a runs file but for their design. curves: what to look at. gates: times at which gates were passed.
    """

    read: int
    faults: list[Fault]
    more: int
    runs: list[dict[str, Any]]
    curves: list[Heard]
    gates: list[list[float]]


def listened(lines: Sequence[str], more: Mapping[str, Any]) -> Listened:
    """Read the lines of an instrument as far as they have come.

    Args:
        lines: from its first one on.
        more: keys of the runs that it cannot know, such as the distance between its gates.

    Raises:
        DocumentError: more lines than anybody needs.
    """
    stream = Stream()
    stream.take(lines)
    return Listened(
        read=stream.read,
        faults=stream.faults[:MOST_FAULTS],
        more=max(0, len(stream.faults) - MOST_FAULTS),
        runs=runs_in(stream, more),
        curves=list(_curves(stream)),
        gates=[[sample.t, sample.value] for sample in stream.samples if sample.key == "gate"],
    )


def _curves(stream: Stream) -> Iterator[Heard]:
    turning = [point for trial in trials(stream, "pulse") for point in _turning(trial, stream.slots)]
    if turning:
        yield _heard(f"turns of the {stream.on}", "angular speed", turning)
    for key, dimension in VALUES.items():
        points = [(sample.t, sample.value) for sample in stream.samples if sample.key == key]
        if points:
            yield _heard(WORDS[key], dimension, points)


WORDS = {"volt": "voltage", "amp": "current", "degC": "temperature", "newton": "pull"}


def _turning(pulses: Sequence[Sample], slots: int) -> Iterator[tuple[float, float]]:
    """How fast it turned between slots; it stands before and after."""
    times = without_bounces(np.array([sample.t for sample in pulses]))
    for at, gap in zip(times[1:], np.diff(times), strict=True):
        yield float(at), 2.0 * math.pi / slots / float(gap)


def _heard(words: str, dimension: str, points: Sequence[tuple[float, float]]) -> Heard:
    kept_points = thinned(np.array(points), MOST_POINTS)
    return Heard(words, dimension, kept_points.tolist(), float(points[-1][1]))
