"""What the station Parts list shows: lines with what was said of them, money, mass, and what would save some."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import date, datetime

from ydrometer.build.bin import Bin
from ydrometer.build.book import EMPTY, Book
from ydrometer.build.parts_list import EMPTY_BIN, PartsList, PartsListLine, parts_list
from ydrometer.build.purchase import PurchaseState, Said, Spending, spending
from ydrometer.build.savings import Swap, swappable, swaps
from ydrometer.build.words import places_words
from ydrometer.build.workshop import BuildShop, workshop
from ydrometer.document.design import Document
from ydrometer.evaluation import targets
from ydrometer.screens.loads import JudgedTarget
from ydrometer.working.sheet import Sheet, Working

HEAVIER = 0.02
"""By what share the weighed mass may differ from the design's before that is told."""
MOST_NAMED = 3


@dataclass(frozen=True, slots=True)
class BenchKnown:
    """What stands around a vehicle: the parts of its bin; how many of each other vehicles have, by its id and
    the vehicle's name; its book; what was said of its lines, by their keys.
    """

    bin: Bin = EMPTY_BIN
    others: Mapping[str, Mapping[str, int]] = field(default_factory=dict)
    book: Book = EMPTY
    said: Mapping[str, Said] = field(default_factory=dict)

    @property
    def taken(self) -> dict[str, int]:
        """How many of each part other vehicles have."""
        return {id: sum(named.values()) for id, named in self.others.items()}


@dataclass(frozen=True, slots=True)
class TakenBy:
    """A vehicle that has some of a part."""

    vehicle: str
    number: int


@dataclass(frozen=True, slots=True)
class NearPart:
    """A part that is nearly what is needed, and what differs."""

    id: str
    name: str
    differs: str
    owned: int


@dataclass(frozen=True, slots=True)
class MakeShown:
    """What has to be done to a part, and what to mind."""

    words: str
    caution: str


@dataclass(frozen=True, slots=True)
class PartLine:
    """A line as it is shown; masses in kg.

    Attributes:
        key: by which it is found again. kind, words, number, where: of it, in words.
        which: what of its sizes nobody has given, as a question; empty where nothing is missing.
        bin, name: the part that it is matched with; empty where none is. note: of its maker. nearest: where none is.
        owned, to_buy: for this line. taken: by which vehicles. each, price, mass: null where not known.
        lead_days, assumed_lead: of an order. make: what has to be done.
        state, by, at, expected, paid: what was said of it last.
    """

    key: str
    kind: str
    words: str
    number: int
    where: str
    which: str
    bin: str
    name: str
    note: str
    nearest: list[NearPart]
    owned: int
    to_buy: int
    taken: list[TakenBy]
    each: float | None
    price: float | None
    mass: float | None
    lead_days: float
    assumed_lead: bool
    make: list[MakeShown]
    state: PurchaseState
    by: str
    at: datetime | None
    expected: date | None
    paid: float | None


@dataclass(frozen=True, slots=True)
class Saving:
    """What one could swap to buy nothing for the line: in words, and values by their paths."""

    words: str
    changes: dict[str, int]


@dataclass(frozen=True, slots=True)
class MassShown:
    """Masses, kg: of the lines that have one, of the design, and weighed; `unknown` names lines without. `words` says
    how they stand to each other, empty where nothing is to be said.
    """

    known: float
    design: float
    weighed: float | None
    unknown: list[str]
    words: str


@dataclass(frozen=True, slots=True)
class PartsShown:
    """The station.

    Attributes:
        sentence: whether it can be built from the bin. lines. spent, to_spend: money. budget: None where there is none.
        unpriced: words of lines without a price. mass. savings. targets: on the price.
        open: lines that are neither here nor owned.
    """

    sentence: str
    lines: list[PartLine]
    spent: float
    to_spend: float
    budget: float | None
    unpriced: list[str]
    mass: MassShown
    savings: list[Saving]
    targets: list[JudgedTarget]
    open: int


def listed(shop: BuildShop, bench: BenchKnown) -> PartsList:
    """The parts list of a design on its bench."""
    return parts_list(shop, bench.bin, bench.taken, bench.book.lines)


def lines_shown(document: Document, bench: BenchKnown) -> list[PartLine]:
    """The lines of the parts list alone.

    Args:
        document: as read.
        bench: what stands around the vehicle.
    """
    shop = workshop(document)
    return [_line(shop, line, bench) for line in listed(shop, bench).lines]


def parts_shown(document: Document, bench: BenchKnown = BenchKnown(), mark: Document | None = None) -> PartsShown:
    """What the parts list of a design shows.

    Args:
        document: as read.
        bench: what stands around the vehicle.
        mark: another design, to compare with.
    """
    shop = workshop(document)
    parts = listed(shop, bench)
    money = spending(parts.lines, bench.said)
    buying = any(line.to_buy for line in parts.lines if line.need.kind in swappable())
    return PartsShown(
        sentence=_sentence(parts),
        lines=[_line(shop, line, bench) for line in parts.lines],
        spent=money.spent,
        to_spend=money.to_spend,
        budget=_budget(document, bench.book),
        unpriced=money.unpriced,
        mass=_mass(document, parts, bench.book),
        savings=[_saving(swap) for swap in swaps(shop.design, bench.bin, bench.taken)] if buying else [],
        targets=_judged(document, money, price_of(mark, bench) if mark else None),
        open=sum(line.to_buy > 0 and _state(line, bench) in ("needed", "ordered") for line in parts.lines),
    )


def price_of(document: Document, bench: BenchKnown) -> float:
    """The measure `price` of a design: what was paid and what has still to be bought.

    Args:
        document: as read.
        bench: what stands around the vehicle.
    """
    lines = listed(workshop(document), bench).lines
    return spending(lines, bench.said).whole


def price_working(document: Document, bench: BenchKnown = BenchKnown()) -> Working:
    """How the price of a design comes about: line by line what was paid, or how many are bought of one price.

    Args:
        document: as read.
        bench: what stands around the vehicle.
    """
    lines = listed(workshop(document), bench).lines
    sheet, terms = Sheet({}), []
    for number, line in enumerate(line for line in lines if _costs(line, bench)):
        terms.append(_term(sheet, number, line, bench.said.get(line.key)))
    sheet.step("price", "price of what was bought and is still to be bought", " + ".join(terms) or "0", "price")
    value = sheet.steps[-1].value
    unpriced = spending(lines, bench.said).unpriced
    more = f" Without a price, and counted as 0: {'; '.join(unpriced)}." if unpriced else ""
    formula = f"The sum over the lines: what was paid, else how many are bought times the price of one.{more}"
    return Working("price", "price", value, "", formula, "", sheet.inputs, [], sheet.steps, None, [])


def _costs(line: PartsListLine, bench: BenchKnown) -> bool:
    known = bench.said.get(line.key)
    return bool(line.price) or bool(known and known.paid)


def _term(sheet: Sheet, number: int, line: PartsListLine, said: Said | None) -> str:
    """The symbol, or product of symbols, of one line."""
    if said is not None and said.state != "needed" and said.paid is not None:
        sheet.put(f"p_{number}", f"paid for: {line.need.words}", said.paid, "price", "given")
        return f"p_{number}"
    sheet.put(f"n_{number}", f"to buy: {line.need.words}", line.to_buy, "ratio", "given")
    sheet.put(f"c_{number}", "price of one", line.each or 0.0, "price", "part")
    return f"n_{number}*c_{number}"


def _judged(document: Document, money: Spending, mark: float | None) -> list[JudgedTarget]:
    """How the targets on the price stand."""
    judged = []
    for number, target in enumerate(document.design.targets):
        if target.measure == "price":
            verdict = targets.judge(target, money.whole, runs=True)
            judged.append(JudgedTarget(number, verdict.value, verdict.margin, verdict.standing, mark))
    return judged


def _budget(document: Document, book: Book) -> float | None:
    """A target on the price goes before a sum."""
    limits = [target.upper for target in document.design.targets if target.measure == "price"]
    return next((upper for upper in limits if upper is not None), book.budget)


def _sentence(parts: PartsList) -> str:
    """Whether it can be built from the bin, in one sentence."""
    missing = [line.need.words for line in parts.lines if line.to_buy]
    if not missing:
        return "All of it is in the bin."
    named = "; ".join(missing[:MOST_NAMED])
    more = f"; and {len(missing) - MOST_NAMED} more" if len(missing) > MOST_NAMED else ""
    count = len(parts.lines) - len(missing)
    return f"{count} of {len(parts.lines)} things are in the bin. To buy: {named}{more}."


def _state(line: PartsListLine, bench: BenchKnown) -> PurchaseState:
    known = bench.said.get(line.key)
    if known is not None and known.state != "needed":
        return known.state
    return "here" if line.to_buy == 0 else "needed"


def _line(shop: BuildShop, line: PartsListLine, bench: BenchKnown) -> PartLine:
    known = bench.said.get(line.key)
    part = line.part
    taken = bench.others.get(part.part.id, {}) if part else {}
    return PartLine(
        key=line.key,
        kind=line.need.kind,
        words=line.need.words,
        number=line.need.number,
        where=places_words(shop, line.need.where, line.need.kind),
        which=line.need.which,
        bin=part.part.id if part else "",
        name=part.name if part else "",
        note=part.part.note if part else "",
        nearest=[NearPart(near.id, near.name, near.differs, near.owned) for near in line.nearest],
        owned=line.owned,
        to_buy=line.to_buy,
        taken=[TakenBy(name, number) for name, number in taken.items()],
        each=line.each,
        price=line.price,
        mass=line.mass,
        lead_days=line.lead_days,
        assumed_lead=line.assumed_lead,
        make=[MakeShown(making.words, making.caution) for making in line.make],
        state=_state(line, bench),
        by=known.by if known else "",
        at=known.at if known else None,
        expected=known.expected if known else None,
        paid=known.paid if known else None,
    )


def _saving(swap: Swap) -> Saving:
    return Saving(swap.words, swap.changes)


def _mass(document: Document, parts: PartsList, book: Book) -> MassShown:
    vehicle = document.design.vehicle
    weighed, design = book.weighed, vehicle.mass
    words = ""
    if weighed is not None and abs(weighed - design) > HEAVIER * design:
        heavier = "heavier" if weighed > design else "lighter"
        words = f"All-up {abs(weighed - design):.2g} kg {heavier} than the design has."
    elif parts.mass > design * (1.0 + HEAVIER):
        words = f"Its parts alone weigh {parts.mass - design:.2g} kg more than the design has in all."
    return MassShown(parts.mass, design, weighed, parts.unknown_mass, words)
