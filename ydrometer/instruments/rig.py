"""A simulated bench to practise on: a counter, two light gates, a spring scale and a logger for any design.

It has hidden losses drawn from a seed, scatter, missed pulses, a battery that loses voltage with the charge drawn, and
a motor that warms. What it does is told in the lines of an instrument, and read like any other's.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from dataclasses import asdict, dataclass, replace
from typing import Any

import numpy as np

from ydrometer.document.design import Document
from ydrometer.document.sources import Motor, motor_line
from ydrometer.document.supply import Battery
from ydrometer.instruments.findings import findings
from ydrometer.instruments.lines import Stream, line_of
from ydrometer.motion import trace
from ydrometer.trials.case import Conditions, TrialCase, at_voltage
from ydrometer.trials.kinds import DistanceTime, Push, Spin, SupplyCurrent, Tow
from ydrometer.trials.rows import TrialRows, alone
from ydrometer.trials.trial import Trial
from ydrometer.trials.unknowns import KINDS, Unknown, factors, sure_stages, unknowns

SAG = 0.12
"""Share of its open-circuit voltage that a battery has lost when it is empty."""
HOTTER = 0.00393
"""Relative rise of a copper winding's resistance, 1/K."""
WINDING = 12.0
"""J/K of a winding whose heat capacity nobody has said."""
COOLS_TO = 0.55
"""Share of its warmth that a winding keeps until the next trial."""
MISSED, BOUNCED, BOUNCE_S = 0.01, 0.006, 4e-4
"""Shares of the slots that are not seen, and that are seen twice, and how soon after."""
MOST_PULSES = 180.0
"""A second that the counter is set to."""
SPIN_S, SPEEDS_UP_S, PULL_S, A_SAMPLE_S, REST_S = 3.0, 0.35, 2.0, 0.05, 1.5
SCALE_NOISE = 0.008
ACTIONS = ("spin", "run", "push", "tow")


@dataclass(frozen=True, slots=True)
class RigState:
    """What a bench remembers: charge drawn, A·s, how much warmer the winding is, K, and how many trials there were."""

    charge: float = 0.0
    warmth: float = 0.0
    done: int = 0


@dataclass(frozen=True, slots=True)
class Performed:
    """A few trials of one kind: the lines, what is to be said of the run besides its readings, what is remembered."""

    lines: list[str]
    kind: str
    more: dict[str, Any]
    state: RigState

    def runs(self) -> list[dict[str, Any]]:
        """The runs as they are read from the lines, each as in a runs file but for the design."""
        stream = Stream()
        stream.take(self.lines)
        heard = [
            replace(finding, kind=self.kind) if finding.kind == "push" else finding for finding in findings(stream)
        ]
        return [finding.run(self.more if finding.kind == self.kind else {}) for finding in heard]


class RigBench:
    """A design on the bench, with what is hidden of it."""

    def __init__(self, base: Document, document: Document, seed: int, state: RigState) -> None:
        """Put a design on it.

        Args:
            base: the design as it was when the bench was set up: what is hidden was drawn around it.
            document: that is tried now.
            seed: of what is hidden.
            state: what the bench remembers.
        """
        self.document, self.seed, self.state = document, seed, state
        self.unknowns = unknowns({"": document}, [("", "")])
        self.theta = np.array([hidden(base, document, unknown, seed) for unknown in self.unknowns])
        self.random = np.random.default_rng([seed, state.done])
        self.clock = 0.0

    @property
    def voltage(self) -> float | None:
        """Of the battery at rest, V; None where there is none."""
        supply = self.document.design.drive.supply
        if not isinstance(supply, Battery):
            return None
        used = self.state.charge / supply.charge if supply.charge else 0.0
        return supply.voltage * (1.0 - SAG * min(1.0, used))

    def perform(self, action: str, repeats: int) -> Performed:
        """Do a kind of trial a few times.

        Args:
            action: one of `ACTIONS`.
            repeats: how often.

        Raises:
            ValueError: no such action.
        """
        if action not in ACTIONS:
            raise ValueError(f"{action} given, use one of {', '.join(ACTIONS)}")
        act: Callable[[], Iterator[dict[str, Any]]] = getattr(self, f"_{action}")
        events = [self._head()]
        for _ in range(repeats):
            events += self._rest()
            events += sorted(act(), key=lambda event: float(event["t"]))
            self.clock = float(events[-1]["t"]) + REST_S
        done = replace(self.state, warmth=COOLS_TO * self.state.warmth, done=self.state.done + 1)
        more = {"distance": f"{self._distance:g} m"} if action == "run" else {}
        kind = "distance_time" if action == "run" else action
        return Performed([line_of(event) for event in events], kind, more, done)

    def _head(self) -> dict[str, Any]:
        turns = self._value(Spin(design="", readings=(1.0,), of="wheel")) / (2.0 * math.pi)
        self.slots = max(1, min(8, int(MOST_PULSES / turns))) if math.isfinite(turns) and turns > 0.0 else 8
        return {"instrument": "practice rig", "slots": self.slots, "on": "wheel"}

    def _rest(self) -> list[dict[str, Any]]:
        """The logger before anything is drawn."""
        voltage = self.voltage
        return [] if voltage is None else [self._at(0.0, volt=round(voltage, 2), amp=0.0)]

    def _at(self, t: float, **more: Any) -> dict[str, Any]:
        return {"t": round(self.clock + t, 6), **more}

    @property
    def _distance(self) -> float:
        return self.document.design.run.distance or 10.0

    def _rows(self, trial: Trial) -> TrialRows:
        """The design with what is hidden, its battery as empty and its winding as warm as they are."""
        conditions = Conditions(
            supply=at_voltage(self.document.design.drive.supply, self.voltage or 1.0) if self.voltage else None
        )
        case = TrialCase(conditions.applied(self.document.design), sure_stages(self.document))
        laid = factors(self.unknowns, self.theta[None, :], [("", "")], case.branches)
        laid.winding *= 1.0 + HOTTER * self.state.warmth
        return alone(case, laid, trial.refers_to("distance"), moving=trial.moving)

    def _value(self, trial: Trial) -> float:
        """What it would read but for scatter; NaN where it cannot be done."""
        return float(trial.values(self._rows(trial))[0])

    def _off(self, kind: type[Trial]) -> float:
        """The scatter of one reading."""
        return float(np.exp(self.random.normal(0.0, kind.scatter)))

    def _spin(self) -> Iterator[dict[str, Any]]:
        """Slots of a wheel that speeds up in the air and keeps its speed."""
        speed = self._value(Spin(design="", readings=(1.0,), of="wheel")) * self._off(Spin)
        if not math.isfinite(speed):
            return
        t = np.linspace(0.0, SPIN_S, 3000)
        turned = speed * (t - SPEEDS_UP_S * (1.0 - np.exp(-t / SPEEDS_UP_S))) * self.slots / (2.0 * math.pi)
        for at in np.interp(np.arange(1.0, turned[-1]), turned, t):
            if self.random.random() >= MISSED:
                yield self._at(float(at), pulse=1)
            if self.random.random() < BOUNCED:
                yield self._at(float(at) + BOUNCE_S, pulse=1)
        self._draws(1.0, SPIN_S)

    def _run(self) -> Iterator[dict[str, Any]]:
        """Two gates, and the logger between them."""
        trial = DistanceTime(design="", readings=(1.0,), distance=self._distance)
        rows = self._rows(trial)
        time = float(trial.values(rows)[0]) * self._off(DistanceTime)
        if not math.isfinite(time):
            return
        yield self._at(REST_S, gate=1)
        yield self._at(REST_S + time, gate=2)
        points = trace.points(rows.batch, 0)
        supply = self.document.design.drive.supply
        if supply is None or not len(points.time):
            return
        for at in np.arange(0.0, time, A_SAMPLE_S):
            amp = float(np.interp(at, points.time, points.bus_current))
            yield self._at(REST_S + float(at), **self._logged(amp))
        self._draws(float(np.mean(points.bus_current[points.time <= time])), time)

    def _push(self) -> Iterator[dict[str, Any]]:
        """A spring scale at a wall, and the logger."""
        force = self._value(Push(design="", readings=(1.0,)))
        amp = self._value(SupplyCurrent(design="", readings=(1.0,), moment="shove")) if self.voltage else math.nan
        yield from self._pulled(force * self._off(Push), amp * self._off(SupplyCurrent))
        if math.isfinite(amp):
            self._draws(amp, PULL_S)

    def _tow(self) -> Iterator[dict[str, Any]]:
        """A spring scale that pulls it slowly."""
        yield from self._pulled(self._value(Tow(design="", readings=(1.0,))) * self._off(Tow), math.nan)

    def _pulled(self, force: float, amp: float) -> Iterator[dict[str, Any]]:
        if not math.isfinite(force):
            return
        for at in np.arange(A_SAMPLE_S, PULL_S, A_SAMPLE_S):
            share = 1.0 - math.exp(-at / 0.15)
            logged = self._logged(amp * share) if math.isfinite(amp) else {}
            yield self._at(float(at), newton=self._noisy(force * share), **logged)

    def _noisy(self, value: float) -> float:
        return round(value * float(1.0 + self.random.normal(0.0, SCALE_NOISE)), 3)

    def _logged(self, amp: float) -> dict[str, float]:
        """A line of the logger."""
        supply, voltage = self.document.design.drive.supply, self.voltage
        if voltage is None or not isinstance(supply, Battery):
            return {"amp": self._noisy(amp)}
        return {"amp": self._noisy(amp), "volt": round(voltage - supply.internal_resistance * amp, 2)}

    def _draws(self, amp: float, seconds: float) -> None:
        """What a trial takes out of the battery, and how it warms the winding of the first motor."""
        branch = self.document.design.drive.branches[0]
        warmer = 0.0
        if isinstance(branch.source, Motor):
            motors = self.document.design.drive.units * branch.count
            capacity = branch.source.thermal.winding_capacity if branch.source.thermal else WINDING
            warmer = (amp / motors) ** 2 * motor_line(branch.source).resistance * seconds / capacity
        self.state = replace(
            self.state, charge=self.state.charge + amp * seconds, warmth=self.state.warmth + min(warmer, 40.0)
        )


def hidden(base: Document, document: Document, unknown: Unknown, seed: int) -> float:
    """ln of the factor between what a design holds and what is true of it.

    What has only become better known since the bench was set up changes nothing of what is true: then the factor is the
    one that leads from the new value to the same truth.

    Args:
        base: the design around which it was drawn.
        document: the design that is tried.
        unknown: of that design.
        seed: of the bench.
    """
    number = next(k for k, kind in enumerate(KINDS) if kind.name == unknown.kind.name)
    branch = unknown.branch or 0
    around = next(
        (
            candidate
            for candidate in unknowns({"": base}, [("", "")])
            if candidate.kind.name == unknown.kind.name and candidate.branch == unknown.branch
        ),
        None,
    )
    sigma = around.sigma if around is not None else unknown.sigma
    theta = sigma * float(np.random.default_rng([seed, number, branch]).normal())
    if around is None or not around.held.values or not _only_better_known(base, document, unknown.held.paths[0]):
        return theta
    was, now = around.held.values[0], unknown.held.values[0]
    if unknown.kind.name == "losses":
        was, now = 1.0 - was, 1.0 - now
    return theta + math.log(was / now) if was > 0.0 and now > 0.0 else theta


def _only_better_known(base: Document, document: Document, path: str) -> bool:
    was, now = base.values.get(path), document.values.get(path)
    return was is not None and now is not None and now.origin == "measured" != was.origin


def truth(base: Document, document: Document, seed: int) -> list[tuple[str, float]]:
    """What is hidden, for "show me": each unknown by name with its factor on what the design holds."""
    bench = RigBench(base, document, seed, RigState())
    return [
        (unknown.kind.name, float(np.exp(theta))) for unknown, theta in zip(bench.unknowns, bench.theta, strict=True)
    ]


def remembered(raw: Mapping[str, Any]) -> RigState:
    """A state as it was kept."""
    return RigState(float(raw.get("charge", 0.0)), float(raw.get("warmth", 0.0)), int(raw.get("done", 0)))


def kept(state: RigState) -> dict[str, Any]:
    """A state to be kept."""
    return asdict(state)
