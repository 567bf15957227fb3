"""The plates of an adapter between two flanges: their holes and thickness, and what does not go together."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Sequence
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
        spigot: radius at which it stands into its flange, m, 0 where it does not; of a single plate into the first one.
        other_spigot: of a single plate, into the second one.
    """

    name: str
    outside: float
    thickness: float | None
    holes: tuple[Hole, ...]
    spigot: float
    other_spigot: float = 0.0


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
        into = [_spigot(side) for side in adapter.sides]
        return [AdapterPlate(adapter.name or "adapter", 0.5 * adapter.outside, whole, tuple(holes), *into)]
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
    """Holes of each plate leave metal between them and to its edge, heads have room, both flanges are centred; the
    coupling goes through and between.
    """
    for number, adapter in enumerate(setup.mounting.adapters):
        path = f"fit.adapters[{number}]"
        made = plates(adapter)
        for plate in made:
            yield from _holes(adapter, plate, path)
        yield from _heads(adapter, made, path)
        yield from _centred(adapter, path)
        yield from _coupled(adapter, path)


def _holes(adapter: FlangeAdapter, plate: AdapterPlate, path: str) -> Iterator[Clash]:
    pairs = [*_crowded(plate.holes, adapter.wall)]
    sunk = _sunk(adapter) if adapter.plates == 1 else []
    for bolts, heads in sunk:
        others = tuple(hole for hole in plate.holes if hole.what != bolts)
        pairs += [pair for pair in _crowded((*heads, *others), adapter.wall) if pair[0] in heads]
    for names, left in _worst((f"{first.what} and {second.what}", left) for first, second, left in pairs):
        stands = f"run into each other by {mm(-left)}" if left < 0.0 else f"leave {mm(left)} of metal"
        text = f"{plate.name}: {names} {stands}, {mm(adapter.wall)} is wanted"
        yield Clash("clash", text, path, adapter.wall - left, None)
    cut = [*plate.holes, *(head for _, heads in sunk for head in heads)]
    to_edge = [(hole.what, plate.outside - math.hypot(hole.x, hole.y) - hole.radius) for hole in cut]
    for name, left in _worst(entry for entry in to_edge if entry[1] < adapter.wall - NOISE):
        stands = f"breaks the edge by {mm(-left)}" if left < 0.0 else f"leaves {mm(left)} to the edge"
        text = f"{plate.name}: {name} {stands}, {mm(adapter.wall)} is wanted"
        yield Clash("clash", text, path, adapter.wall - left, None)
    if plate.thickness is not None and plate.thickness <= NOISE:
        text = f"{plate.name}: no thickness is left for it between the flanges"
        yield Clash("clash", text, path, -plate.thickness, None)


def _worst(told: Iterable[tuple[str, float]]) -> Iterator[tuple[str, float]]:
    """Of all that would be told in the same words the one with the least left, m."""
    least: dict[str, float] = {}
    for words, left in told:
        least[words] = min(left, least.get(words, left))
    yield from least.items()


def _crowded(holes: Sequence[Hole], wall: float) -> Iterator[tuple[Hole, Hole, float]]:
    """Pairs of holes with less metal between them than the wall, and how much, m."""
    if not holes:
        return
    x, y, radius = np.array([(hole.x, hole.y, hole.radius) for hole in holes]).T
    left = np.hypot(x[:, None] - x, y[:, None] - y) - radius[:, None] - radius
    for i, j in np.argwhere(np.triu(left < wall - NOISE, 1)).tolist():
        yield holes[i], holes[j], float(left[i, j])


def _sunk(adapter: FlangeAdapter) -> list[tuple[str, list[Hole]]]:
    """The heads that are sunk in a single plate, towards the other flange, with the bolts that they belong to."""
    return [
        (f"bolt of {_named(side, i)}", list(_bolted(side.bolts, f"head of {_named(side, i)}", side.head)))
        for i, side in enumerate(adapter.sides)
        if side.head is not None
    ]


def _heads(adapter: FlangeAdapter, made: Sequence[AdapterPlate], path: str) -> Iterator[Clash]:
    """The heads of each side's bolts do not stand out against the other flange.

    They lie in the other plate, or in the single one, which keeps a wall below them. A socket head is as high as its
    thread is wide (ISO 4762, Hexagon socket head cap screws), a little less than the hole.
    """
    for i, side in enumerate(adapter.sides):
        thickness, single = made[(1 - i) % len(made)].thickness, len(made) == 1
        wanted = side.bolts.hole + (adapter.wall if single else 0.0)
        if side.head is not None and thickness is not None and NOISE < thickness < wanted - NOISE:
            other = _named(adapter.sides[1 - i], 1 - i)
            text = (
                f"{adapter.name or 'adapter'}: the heads of {_named(side, i)} stand out against the flange of {other}"
            )
            stands = f"the plate in which they lie is {mm(thickness)} thick, {mm(wanted)} is wanted"
            yield Clash("clash", f"{text}: {stands}", path, wanted - thickness, None)


def _centred(adapter: FlangeAdapter, path: str) -> Iterator[Clash]:
    """A bore as wide as another flange or the coupling needs centres nothing smaller."""
    bores = [_bore(adapter, side) for side in adapter.sides]
    through = max(map(_size, bores))
    for i, side in enumerate(adapter.sides):
        wide = through if adapter.plates == 1 else _size(bores[i])
        if side.centring is not None and not side.spigot and wide > 0.5 * side.centring + NOISE:
            text = f"{adapter.name or 'adapter'}: the centring of {_named(side, i)}, {mm(side.centring)}, is lost"
            other = "two plates" if adapter.plates == 1 else "a smaller coupling"
            lost = f"in a bore of {mm(2.0 * wide)}: turn a step for it, or take {other}"
            yield Clash("mind", f"{text} {lost}", path, wide - 0.5 * side.centring, None)


def _coupled(adapter: FlangeAdapter, path: str) -> Iterator[Clash]:
    whole = between(adapter)
    if whole is not None and adapter.coupling is not None and adapter.coupling > whole + NOISE:
        text = f"{adapter.name or 'adapter'}: a coupling of {mm(adapter.coupling)} does not go between the flanges"
        yield Clash("clash", f"{text}, {mm(whole)} apart", path, adapter.coupling - whole, None)
    bores = [_bore(adapter, side) for side in adapter.sides]
    for number, side in enumerate(adapter.sides):
        inside = _spigot(side)
        bore = max(bores, key=_size) if adapter.plates == 1 else bores[number]
        if inside and bore is not None and bore.radius >= inside - adapter.wall:
            text = f"{adapter.name or 'adapter'}: the {bore.what} leaves the spigot in {_named(side, number)} no wall"
            yield Clash("clash", text, path, bore.radius + adapter.wall - inside, None)
