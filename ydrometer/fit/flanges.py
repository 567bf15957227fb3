"""The plates of an adapter between two flanges: their holes and thickness, and what does not go together."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np

from ydrometer.document.flanges import Bolts, Flange, FlangeAdapter
from ydrometer.document.mounting import Mounting
from ydrometer.fit.along import NOISE
from ydrometer.fit.clash import Clash, mm
from ydrometer.fit.setup import Setup


@dataclass(frozen=True, slots=True)
class Hole:
    """A hole of a plate: what it is for, its middle, m from the plate's own, and its radius, m."""

    what: str
    x: float
    y: float
    radius: float


@dataclass(frozen=True, slots=True)
class AdapterPlate:
    """One plate of an adapter.

    Attributes:
        name. outside: its radius, m. thickness: m, None where shaft ends or plates are not said. holes: through it.
        spigot: radius at which it stands into its flange, m, 0 where it does not.
    """

    name: str
    outside: float
    thickness: float | None
    holes: tuple[Hole, ...]
    spigot: float


@dataclass(frozen=True, slots=True)
class MadeAdapter:
    """An adapter as it is to be made: from flange to flange, m, None where that is not known, and its plates."""

    name: str
    between: float | None
    plates: list[AdapterPlate]


def made_adapters(mounting: Mounting) -> list[MadeAdapter]:
    """The adapters of a design."""
    return [MadeAdapter(adapter.name, between(adapter), plates(adapter)) for adapter in mounting.adapters]


def between(adapter: FlangeAdapter) -> float | None:
    """From flange to flange, m: both shaft ends and the gap between them; None where one of the ends is not known."""
    first, second = (side.stands_out for side in adapter.sides)
    return None if first is None or second is None else first + second + adapter.shaft_gap


def plates(adapter: FlangeAdapter) -> list[AdapterPlate]:
    """The plates of an adapter, the first side's first.

    With two plates each is screwed to its flange before they are joined: the heads of its bolts are sunk in larger
    holes of the other one.
    """
    sides = [list(_bolted(side.bolts, f"bolt of {_named(side, i)}")) for i, side in enumerate(adapter.sides)]
    bores = [_bore(adapter, side) for side in adapter.sides]
    whole = between(adapter)
    if adapter.plates == 1:
        holes = (*sides[0], *sides[1], *(bore for bore in (max(bores, key=_size),) if bore))
        spigot = max(_spigot(side) for side in adapter.sides)
        return [AdapterPlate(adapter.name or "adapter", 0.5 * adapter.outside, whole, tuple(holes), spigot)]
    common = [*_bolted(adapter.dowels, "dowel"), *_bolted(adapter.joint, "joint bolt")]
    first = adapter.first_plate
    thick = (first, None if whole is None or first is None else whole - first)
    drilled = []
    for i, side in enumerate(adapter.sides):
        other = adapter.sides[1 - i]
        sunk = [] if other.head is None else _bolted(other.bolts, f"head of {_named(other, 1 - i)}", other.head)
        bore = bores[i]
        holes = (*sides[i], *sunk, *common, *((bore,) if bore else ()))
        name = f"{adapter.name or 'adapter'}, plate of {_named(side, i)}"
        drilled.append(AdapterPlate(name, 0.5 * adapter.outside, thick[i], tuple(holes), _spigot(side)))
    return drilled


def _named(side: Flange, number: int) -> str:
    return side.name or f"side {number + 1}"


def _bolted(bolts: Bolts | None, what: str, across: float | None = None) -> Iterator[Hole]:
    """The holes of a circle of bolts, or around it for what is `across`, m, wide."""
    if bolts is not None:
        yield from (Hole(what, x, y, 0.5 * (across or bolts.hole)) for x, y in bolts.around)


def _bore(adapter: FlangeAdapter, side: Flange) -> Hole | None:
    """The central bore of a plate, as wide as a flange's spigot or a coupling of shafts needs; None without either."""
    centred = 0.0 if side.spigot else side.centring or 0.0
    across = max(centred, adapter.coupling_diameter or 0.0)
    return Hole("centring" if centred >= across else "coupling", 0.0, 0.0, 0.5 * across) if across else None


def _size(bore: Hole | None) -> float:
    return bore.radius if bore else 0.0


def _spigot(side: Flange) -> float:
    return 0.5 * (side.centring or 0.0) if side.spigot else 0.0


def flanges(setup: Setup) -> Iterator[Clash]:
    """Holes of each plate leave metal between them and to its edge; the coupling goes through and between."""
    for number, adapter in enumerate(setup.mounting.adapters):
        path = f"fit.adapters[{number}]"
        for plate in plates(adapter):
            yield from _holes(adapter, plate, path)
        yield from _coupled(adapter, path)


def _holes(adapter: FlangeAdapter, plate: AdapterPlate, path: str) -> Iterator[Clash]:
    named: set[str] = set()
    for first, second, left in _crowded(plate.holes, adapter.wall):
        names = f"{first.what} and {second.what}"
        if names not in named:
            named.add(names)
            stands = f"run into each other by {mm(-left)}" if left < 0.0 else f"leave {mm(left)} of metal"
            text = f"{plate.name}: {names} {stands}, {mm(adapter.wall)} is wanted"
            yield Clash("clash", text, path, adapter.wall - left, None)
    for hole in plate.holes:
        left = plate.outside - math.hypot(hole.x, hole.y) - hole.radius
        if left < adapter.wall - NOISE and hole.what not in named:
            named.add(hole.what)
            text = f"{plate.name}: {hole.what} leaves {mm(left)} to the edge, {mm(adapter.wall)} is wanted"
            yield Clash("clash", text, path, adapter.wall - left, None)
    if plate.thickness is not None and plate.thickness <= NOISE:
        text = f"{plate.name}: no thickness is left for it between the flanges"
        yield Clash("clash", text, path, -plate.thickness, None)


def _crowded(holes: Sequence[Hole], wall: float) -> Iterator[tuple[Hole, Hole, float]]:
    """Pairs of holes with less metal between them than the wall, and how much, m."""
    if not holes:
        return
    x, y, radius = np.array([(hole.x, hole.y, hole.radius) for hole in holes]).T
    left = np.hypot(x[:, None] - x, y[:, None] - y) - radius[:, None] - radius
    for i, j in np.argwhere(np.triu(left < wall - NOISE, 1)).tolist():
        yield holes[i], holes[j], float(left[i, j])


def _coupled(adapter: FlangeAdapter, path: str) -> Iterator[Clash]:
    whole, across = between(adapter), adapter.coupling_diameter
    if whole is not None and adapter.coupling is not None and adapter.coupling > whole + NOISE:
        text = f"{adapter.name or 'adapter'}: a coupling of {mm(adapter.coupling)} does not go between the flanges"
        yield Clash("clash", f"{text}, {mm(whole)} apart", path, adapter.coupling - whole, None)
    for number, side in enumerate(adapter.sides):
        inside = _spigot(side)
        if inside and across is not None and across >= 2.0 * inside - 2.0 * adapter.wall:
            text = f"{adapter.name or 'adapter'}: the coupling leaves the spigot in {_named(side, number)} no wall"
            yield Clash("clash", text, path, 0.5 * across + adapter.wall - inside, None)
