"""The parts list: one line a thing needed, with what the bin has of it, what has to be bought, and what to be made."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass

from ydrometer.build.bin import Bin, Owned
from ydrometer.build.book import OwnLine
from ydrometer.build.making import Making, of_part
from ydrometer.build.matching import Near, kind_in_bin, match, nearest, seated
from ydrometer.build.needs import SHARED, Need, needs
from ydrometer.build.plan import PartOrder
from ydrometer.build.workshop import BuildShop
from ydrometer.document.stages.assembly import mm
from ydrometer.document.walk import branch_path
from ydrometer.parts.part import Part

USUAL_LEAD_DAYS = 7.0
"""Days that an order takes where nothing is said."""
DAY_S = 86_400.0
EMPTY_BIN = Bin()


@dataclass(frozen=True, slots=True)
class PartsListLine:
    """One line.

    Attributes:
        need: what is needed. part: of the bin that it is matched with. nearest: where none is.
        owned: how many of it are there for this line, after other lines and vehicles. taken: how many others have.
        to_buy: how many are missing. each: price of one. price: of all that has to be bought. mass: of all, kg.
        lead_days: of an order; assumed_lead: whether nobody has said so. make: what has to be done to it.
    """

    need: Need
    part: Owned | None
    nearest: list[Near]
    owned: int
    taken: int
    to_buy: int
    each: float | None
    price: float | None
    mass: float | None
    lead_days: float
    assumed_lead: bool
    make: list[Making]

    @property
    def key(self) -> str:
        """By which what was said of a line is found again when the design changes: what it is."""
        return f"{self.need.kind}: {self.need.words}"


@dataclass(frozen=True, slots=True)
class PartsList:
    """All lines of a design, and what they come to.

    Attributes:
        lines. price: of what has to be bought, as far as prices are known. mass: of what has one, kg.
        unpriced, unknown_mass: words of lines of which that is not known.
    """

    lines: list[PartsListLine]
    price: float
    mass: float
    unpriced: list[str]
    unknown_mass: list[str]

    @property
    def from_the_bin(self) -> bool:
        """Whether nothing has to be bought."""
        return not any(line.to_buy for line in self.lines)


def parts_list(
    shop: BuildShop, bin_: Bin = EMPTY_BIN, taken: Mapping[str, int] | None = None, own: Sequence[OwnLine] = ()
) -> PartsList:
    """What a design needs, matched with a bin.

    Args:
        shop: of the design.
        bin_: its parts.
        taken: by the ids of parts, how many of them other vehicles have.
        own: lines of the builder's own.
    """
    left: dict[str, int] = {}
    matched = list(_matched(needs(shop), bin_))
    matched += [(extra, match(extra, bin_)) for extra in _adapters(matched)]
    lines = [_line(shop, need, owned, bin_, left, taken or {}) for need, owned in matched]
    lines += [_own(line) for line in own]
    return PartsList(
        lines=lines,
        price=sum(line.price or 0.0 for line in lines),
        mass=sum(line.mass or 0.0 for line in lines),
        unpriced=[line.need.words for line in lines if line.price is None],
        unknown_mass=[line.need.words for line in lines if line.mass is None],
    )


def _matched(wanted: Sequence[Need], bin_: Bin) -> Iterator[tuple[Need, Owned | None]]:
    """Needs with their parts; what a motor or engine brings along is that of its own branch."""
    sources: dict[str, Owned | None] = {}
    for need in wanted:
        branch = branch_path(need.where[0]) if need.where else ""
        owned = match(need, bin_, sources.get(branch) if need.comes_with else None)
        if need.kind in ("motor", "engine"):
            sources |= {branch_path(path): owned for path in need.where}
        yield need, owned


def makings(lines: Sequence[PartsListLine]) -> list[tuple[Need, Making]]:
    """All that has to be made, with what it is made for."""
    return [(line.need, making) for line in lines for making in line.make]


def _adapters(matched: Sequence[tuple[Need, Owned | None]]) -> Iterator[Need]:
    """Sleeves and adapters between the bores of what was matched and its shafts."""
    for need, owned in matched:
        answer = None if owned is None else seated(need, owned.part)
        if answer is None or need.shaft is None or answer.answer not in ("sleeve", "adapter"):
            continue
        sizes = {"shaft": need.shaft[0], "outside": answer.size}
        words = f"{answer.answer} {mm(need.shaft[0])} to {mm(answer.size)}, for the {need.words}"
        yield Need(answer.answer, words, need.number, need.where, sizes)


def _line(
    shop: BuildShop,
    need: Need,
    owned: Owned | None,
    bin_: Bin,
    left: dict[str, int],
    taken: Mapping[str, int],
) -> PartsListLine:
    """A line; what it takes of a part is gone for the lines after it."""
    make = of_part(shop, need, owned)
    if owned is None:
        near = nearest(need, bin_) if kind_in_bin(need) else []
        mass = None if need.mass is None else need.number * need.mass
        return PartsListLine(need, None, near, 0, 0, need.number, None, None, mass, USUAL_LEAD_DAYS, True, make)
    part = owned.part
    brought = part.kind == need.comes_with
    free = left.setdefault(part.id, bin_.left(part.id, taken))
    has = need.number if brought else free
    to_buy = max(0, need.number - has)
    left[part.id] = free if brought else max(0, has - need.number)
    each = 0.0 if brought else part.price
    return PartsListLine(
        need=need,
        part=owned,
        nearest=[],
        owned=has,
        taken=0 if brought else min(part.owned, taken.get(part.id, 0)),
        to_buy=to_buy,
        each=each,
        price=0.0 if to_buy == 0 else None if each is None else to_buy * each,
        mass=0.0 if brought else _mass(part, need),
        lead_days=USUAL_LEAD_DAYS if part.lead_time is None else part.lead_time / DAY_S,
        assumed_lead=part.lead_time is None,
        make=make,
    )


def _own(own: OwnLine) -> PartsListLine:
    """A line of the builder's own: all of it has to be bought."""
    need = Need("own", own.words, own.number, ())
    price = None if own.price is None else own.number * own.price
    mass = None if own.mass is None else own.number * own.mass
    lead = USUAL_LEAD_DAYS if own.lead_time is None else own.lead_time / DAY_S
    return PartsListLine(need, None, [], 0, 0, own.number, own.price, price, mass, lead, own.lead_time is None, [])


def _mass(part: Part, need: Need) -> float | None:
    """Of all of them: what the bin weighs, else what the design says."""
    each = need.mass if part.mass is None else part.mass
    return None if each is None else need.number * each


def orders(parts: PartsList) -> list[PartOrder]:
    """What has to be bought, with where it goes and how long that takes.

    Args:
        parts: of a design.
    """
    return [order_of(line) for line in parts.lines if line.to_buy]


def order_of(line: PartsListLine, days: float | None = None, *, placed: bool = False) -> PartOrder:
    """A line as an order.

    Args:
        line: of which something has to be bought.
        days: until it is here; None for those that an order takes.
        placed: whether it has been ordered.
    """
    need = line.need
    return PartOrder(need.words, need.kind, need.where, line.lead_days if days is None else days, placed)


def used(shop: BuildShop, bin_: Bin, taken: Mapping[str, int]) -> dict[str, int]:
    """How many of each part of a bin a design takes, by its id.

    Args:
        shop: of the design.
        bin_: its parts.
        taken: by the ids of parts, how many of them other vehicles have.
    """
    uses: dict[str, int] = {}
    for line in parts_list(shop, bin_, taken).lines:
        if line.part is not None and line.need.kind not in SHARED and line.part.part.kind != line.need.comes_with:
            id = line.part.part.id
            uses[id] = uses.get(id, 0) + min(line.owned, line.need.number)
    return {id: number for id, number in uses.items() if number}
