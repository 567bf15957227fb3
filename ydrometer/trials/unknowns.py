"""What of a design is only guessed: each unknown a factor on it, near 1 as far as anybody knows beforehand."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.document.design import Document
from ydrometer.document.sources import Engine, Motor, motor_line
from ydrometer.document.stages import stage_efficiency
from ydrometer.document.supply import Battery
from ydrometer.document.walk import stages_with_paths
from ydrometer.trials.case import Factors

MEASURED = 0.01
"""Relative doubt of what was measured by somebody who did not say how well."""
GROUND, BRANCH = "ground", "branch"


@dataclass(frozen=True, slots=True)
class Held:
    """What a design holds of a quantity: paths in it, and values there, SI."""

    paths: tuple[str, ...]
    values: tuple[float, ...]


@dataclass(frozen=True, slots=True)
class UnknownKind:
    """A kind of unknown.

    Attributes:
        name. factor: the field of `Factors` that it multiplies. sigma: standard deviation of ln of the factor where the
        design does not say how sure it is. each: whether there is one a ground or one a branch. dimension: of the value
        that is told of it; empty where it stands for several and only its factor is. held: of a design and a branch,
        None where it has no such thing.
    """

    name: str
    factor: str
    sigma: float
    each: str
    dimension: str
    held: Callable[[Document, int], Held | None]


def _at(path: str) -> Callable[[Document, int], Held | None]:
    def held(document: Document, _: int) -> Held | None:
        value = document.values.get(path)
        return Held((path,), (value.si,)) if value is not None and value.si > 0.0 else None

    return held


def _losses(document: Document, _: int) -> Held | None:
    losses = [
        (f"{path}.efficiency", stage_efficiency(stage))
        for path, stage in stages_with_paths(document.design)
        if path not in sure_stages(document)
    ]
    return Held(tuple(path for path, _ in losses), tuple(value for _, value in losses)) if losses else None


def sure_stages(document: Document) -> frozenset[str]:
    """Paths of stages whose efficiency was measured without a doubt told."""
    return frozenset(
        path
        for path, _ in stages_with_paths(document.design)
        for value in [document.values.get(f"{path}.efficiency")]
        if value is not None and value.origin == "measured" and not value.uncertainty
    )


def _of_motor(constant: str, point: str, of_line: Callable[[Motor], float]) -> Callable[[Document, int], Held | None]:
    """A constant of a motor; of one by bench points the point that tells most of it."""

    def held(document: Document, b: int) -> Held | None:
        source = document.design.drive.branches[b].source
        if not isinstance(source, Motor):
            return None
        path = f"drive.branches[{b}].source."
        path += f"constants.{constant}" if source.constants is not None else f"bench_points.{point}"
        value = of_line(source)
        return Held((path,), (value,)) if value > 0.0 else None

    return held


def _engine(document: Document, b: int) -> Held | None:
    source = document.design.drive.branches[b].source
    if not isinstance(source, Engine):
        return None
    path = f"drive.branches[{b}].source.torque_curve"
    points = range(len(source.torque_curve))
    return Held(tuple(f"{path}[{k}][1]" for k in points), tuple(torque for _, torque in source.torque_curve))


def _supply(document: Document, _: int) -> Held | None:
    supply = document.design.drive.supply
    if not isinstance(supply, Battery) or supply.internal_resistance <= 0.0:
        return None
    keys = ("resistance",) if supply.cells is None else ("cells.cell_resistance", "cells.extra_resistance")
    known = [(f"drive.supply.{key}", document.values.get(f"drive.supply.{key}")) for key in keys]
    known_values = [(path, value.si) for path, value in known if value is not None and value.si > 0.0]
    return Held(tuple(path for path, _ in known_values), tuple(value for _, value in known_values))


KINDS = (
    UnknownKind("rolling_resistance", "rolling", 0.25, GROUND, "ratio", _at("vehicle.rolling_resistance")),
    UnknownKind("grip", "grip", 0.12, GROUND, "ratio", _at("vehicle.grip")),
    UnknownKind("losses", "losses", 0.30, "", "", _losses),
    UnknownKind("drag_area", "air", 0.20, "", "area", _at("vehicle.drag_area")),
    UnknownKind(
        "motor_constant",
        "speed_constant",
        0.05,
        BRANCH,
        "speed constant",
        _of_motor("kv", "free_speed", lambda m: 1.0 / motor_line(m).ke),
    ),
    UnknownKind(
        "winding_resistance",
        "winding",
        0.10,
        BRANCH,
        "resistance",
        _of_motor("resistance", "stall_current", lambda m: motor_line(m).resistance),
    ),
    UnknownKind(
        "no_load_current",
        "no_load",
        0.20,
        BRANCH,
        "current",
        _of_motor("no_load_current", "free_current", lambda m: motor_line(m).no_load_current),
    ),
    UnknownKind("engine_torque", "engine", 0.08, BRANCH, "", _engine),
    UnknownKind("supply_resistance", "supply", 0.20, "", "resistance", _supply),
    UnknownKind("wheel_diameter", "radius", 0.01, "", "length", _at("vehicle.wheel_diameter")),
    UnknownKind("brakes", "brakes", 0.15, "", "force", _at("vehicle.brake_force")),
)
"""All kinds, with what people usually are wrong by."""
NAMES = tuple(kind.name for kind in KINDS)


@dataclass(frozen=True, slots=True)
class Unknown:
    """One unknown: a factor on what some designs hold.

    Attributes:
        kind. designs: names of those that hold the same. ground, branch: where there is one each, else None.
        sigma: standard deviation of ln of the factor beforehand. held: paths and values.
    """

    kind: UnknownKind
    designs: tuple[str, ...]
    ground: str | None
    branch: int | None
    sigma: float
    held: Held

    def concerns(self, design: str, ground: str) -> bool:
        """Whether a run of a design on a ground depends on it at all."""
        return design in self.designs and self.ground in {None, ground}


_Key = tuple[str | None, int | None, float, tuple[float, ...]]
"""Ground, branch, doubt and values: what designs must have alike to share an unknown."""


def unknowns(designs: Mapping[str, Document], grounds: Iterable[tuple[str, str]]) -> list[Unknown]:
    """All unknowns of some designs: one for each value that they hold, with the same doubt.

    Args:
        designs: by name.
        grounds: each design with each ground that it was run on or is asked about.
    """
    pairs = list(dict.fromkeys(grounds))
    every_unknown = []
    for kind in KINDS:
        groups: dict[_Key, list[str]] = {}
        held: dict[_Key, Held] = {}
        for name, ground in pairs:
            document = designs[name]
            every = range(len(document.design.drive.branches))
            branches: Iterable[int | None] = every if kind.each == BRANCH else (None,)
            for b in branches:
                place = kind.held(document, b or 0)
                if place is None:
                    continue
                sigma = _doubt(kind, document, place)
                key = (ground if kind.each == GROUND else None, b, sigma, place.values)
                groups.setdefault(key, []).append(name)
                held[key] = place
        for key, names in groups.items():
            where, b, sigma, _ = key
            every_unknown.append(Unknown(kind, tuple(dict.fromkeys(names)), where, b, sigma, held[key]))
    return every_unknown


def _doubt(kind: UnknownKind, document: Document, held: Held) -> float:
    """How far the factor may be off: as the design says, else as people usually are."""
    values = [document.values.get(path) for path in held.paths]
    if kind.name == "losses":
        doubts = [(v.uncertainty, 1.0 - si) for v, si in zip(values, held.values, strict=True) if v and v.uncertainty]
        return sum(u for u, _ in doubts) / sum(lost for _, lost in doubts) if doubts else kind.sigma
    spreads = [v.uncertainty / abs(v.si) for v in values if v is not None and v.uncertainty and v.si]
    if spreads:
        return float(np.mean(spreads))
    return MEASURED if values[0] is not None and values[0].origin == "measured" else kind.sigma


def factors(chosen: Sequence[Unknown], theta: Floats, places: Sequence[tuple[str, str]], branches: int) -> Factors:
    """What n sets of unknowns make of G designs.

    Args:
        chosen: the unknowns.
        theta: ln of their factors, (n, U).
        places: name of each design, and the ground that it runs on.
        branches: how many each of them has.

    Returns:
        Of G·n rows, those of one design after those of the one before.
    """
    varied, n = Factors.ones(len(places) * len(theta), branches), len(theta)
    for u, unknown in enumerate(chosen):
        concerned = [g for g, place in enumerate(places) if unknown.concerns(*place)]
        column = getattr(varied, unknown.kind.factor)
        whole = column if unknown.branch is None else column[:, min(unknown.branch, branches - 1)]
        if concerned:
            whole.reshape(len(places), n)[concerned] *= np.exp(theta[:, u])
    return varied
