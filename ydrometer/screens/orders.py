"""What several vehicles on a bench still need to buy: the bin is read once, and what each has taken looked at once."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from ydrometer.build.bin import Bin, bin_of
from ydrometer.build.book import read_book
from ydrometer.build.needs import SHARED
from ydrometer.build.parts_list import used
from ydrometer.build.purchase import Said
from ydrometer.build.workshop import workshop
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.screens.parts_shown import BenchKnown, PartLine, lines_shown

MOST_BEFORE = 40
"""Vehicles whose parts are looked at for what they have taken."""


@dataclass(frozen=True, slots=True)
class OrderLine:
    """A thing to be bought for one or several vehicles: how many, for which, and what all of them cost."""

    key: str
    words: str
    number: int
    vehicles: list[str]
    each: float | None
    price: float | None
    lead_days: float


@dataclass(frozen=True, slots=True)
class OrderList:
    """All that is still to be bought, the slowest to come first; `price` as far as prices are known."""

    lines: list[OrderLine]
    price: float
    unpriced: list[str]


@dataclass(frozen=True, slots=True)
class Taken:
    """How many of each part vehicles have that stand before others on the bench, by name: a part is promised once."""

    named: Mapping[str, Mapping[str, int]] = field(default_factory=dict)

    def after(self, name: str, document: Document, bin_: Bin) -> Taken:
        """The same after one vehicle more.

        Args:
            name: of the vehicle.
            document: its design.
            bin_: of the bench.
        """
        free = {id: sum(by_name.values()) for id, by_name in self.named.items()}
        own: dict[str, Mapping[str, int]] = {}
        for id, number in used(workshop(document), bin_, free).items():
            by_name = self.named.get(id, {})
            own[id] = {**by_name, name: by_name.get(name, 0) + number}
        return Taken({**self.named, **own})


@dataclass(frozen=True, slots=True)
class OnBench:
    """A vehicle on a bench: its name, design and book as typed, what was said of its lines, and whether it orders."""

    name: str
    document: Mapping[str, Any]
    book: Mapping[str, Any]
    said: Mapping[str, Said]
    orders: bool


def orders(bin_: Sequence[Mapping[str, Any]], vehicles: Sequence[OnBench]) -> OrderList:
    """One order list for those vehicles of a bench that order.

    Args:
        bin_: documents of its parts, read before.
        vehicles: in the order in which they stand there.
    """
    return order_list(_lines(bin_of(bin_), vehicles))


def _lines(bin_: Bin, vehicles: Sequence[OnBench]) -> Iterator[tuple[str, list[PartLine]]]:
    taken = Taken()
    for place, vehicle in enumerate(vehicles):
        document = design.read(vehicle.document)
        if vehicle.orders:
            known = BenchKnown(bin_, taken.named, read_book(vehicle.book), vehicle.said)
            yield vehicle.name, lines_shown(document, known)
        if place < MOST_BEFORE:
            taken = taken.after(vehicle.name, document, bin_)


def order_list(lists: Iterable[tuple[str, Sequence[PartLine]]]) -> OrderList:
    """What several vehicles still need to buy, each thing once.

    Args:
        lists: names of vehicles, two of which may be the same, each with the lines of its parts list.
    """
    by_key: dict[str, OrderLine] = {}
    for vehicle, of_it in lists:
        for line in of_it:
            if line.to_buy and line.state == "needed":
                by_key[line.key] = _with(by_key.get(line.key), line, vehicle)
    lines = sorted(by_key.values(), key=lambda line: (-line.lead_days, line.key))
    return OrderList(
        lines, sum(line.price or 0.0 for line in lines), [line.words for line in lines if line.price is None]
    )


def _with(known: OrderLine | None, line: PartLine, vehicle: str) -> OrderLine:
    if known is None:
        return OrderLine(line.key, line.words, line.to_buy, [vehicle], line.each, line.price, line.lead_days)
    if line.kind in SHARED:
        return replace(known, vehicles=[*known.vehicles, vehicle])
    price = None if known.price is None or line.price is None else known.price + line.price
    return replace(known, number=known.number + line.to_buy, vehicles=[*known.vehicles, vehicle], price=price)
