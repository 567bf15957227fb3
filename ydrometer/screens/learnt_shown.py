"""What the station Runs paints of all runs of a vehicle, as the core answers it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any


@dataclass(frozen=True, slots=True)
class RunJudged:
    """A run against its prediction, SI.

    Attributes:
        key: of the run. design: what it is called. words: what was measured. dimension: of the readings.
        readings: those that count. mean: of them. before: as designed. after: with what the runs tell.
        low, high: between which one reading lies in 80 of 100. off: (mean − before)/before. z: how far it is off in its
        own doubt. odd: whether that is too far. why: why it takes no part, empty where it does.
        stale: what has changed since and matters to it.
    """

    key: str
    design: str
    words: str
    dimension: str
    readings: list[float]
    mean: float
    before: float | None
    after: float | None
    low: float | None
    high: float | None
    off: float | None
    z: float | None
    odd: bool
    why: str
    stale: list[str]


@dataclass(frozen=True, slots=True)
class UnknownShown:
    """What was guessed of a design, and what is known of it now.

    Attributes:
        name. path: of what it stands for first. dimension: of its value, empty where only the factor tells something.
        before, value: SI. factor: of the most likely value to the guess. prior, sd: standard deviation of ln of the
        factor before and now. told: share of the doubt that is gone. silent: whether the runs say nothing of it.
        words: the same in a sentence.
    """

    name: str
    path: str
    dimension: str
    before: float
    value: float
    factor: float
    prior: float
    sd: float
    told: float
    silent: bool
    words: str


@dataclass(frozen=True, slots=True)
class DifferenceShown:
    """Which of two gearings is better: what was measured, the better one and the other, by how much in words, whether
    that is more than chance, what would settle it, and whether something else of one of them has changed since.
    """

    what: str
    ahead: str
    behind: str
    words: str
    real: bool
    settle: str
    stale: bool


@dataclass(frozen=True, slots=True)
class ProposalShown:
    """A measurement worth making: in words, of which design, the run but for its readings, and the share that it cuts
    of the variance of the most doubtful target.
    """

    words: str
    design: str
    run: dict[str, Any]
    cuts: float


@dataclass(frozen=True, slots=True)
class PointShown:
    """What was measured with one gearing: its reduction, the mean, standard deviation and number of the readings, SI,
    the runs behind it, and whether something else has changed since.
    """

    design: str
    reduction: float
    mean: float
    spread: float
    count: int
    runs: list[str]
    stale: bool


@dataclass(frozen=True, slots=True)
class CurveShown:
    """A measure over the reduction, SI: predicted for the present design before and after, and what was measured.

    `better` is 1 where more of it is better, −1 where less is; `best` the reduction at which it is best.
    """

    words: str
    dimension: str
    better: int
    best: float | None
    reduction: list[float]
    before: list[float | None]
    after: list[float | None]
    low: list[float | None]
    high: list[float | None]
    points: list[PointShown]


@dataclass(frozen=True, slots=True)
class Learnt:
    """All of it.

    Attributes:
        present: what the present design is called. sentence: what the runs say of the gearings; empty where they say
        nothing yet. designs: what each is called, by key. off: of the newest run.
        values: to be put into the present design, by path, as typed; none where nothing is told. together: how they
        vary with each other, for the readout. converged, chi_square, degrees: of the fit.
    """

    present: str
    sentence: str
    designs: dict[str, str]
    runs: list[RunJudged]
    unknowns: list[UnknownShown]
    tied: list[str]
    differences: list[DifferenceShown]
    next: list[ProposalShown]
    curves: list[CurveShown]
    off: float | None
    values: dict[str, dict[str, Any]]
    together: dict[str, Any]
    converged: bool
    chi_square: float
    degrees: int
