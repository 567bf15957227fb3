"""Options that differ in nothing that matters are one: grouped by what they do, the best way of each first."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import chain

from ydrometer.base.tables.measures import ELSEWHERE
from ydrometer.document.target import Target
from ydrometer.evaluation.evaluate import Evaluation
from ydrometer.search.choices import NO_PART, StageSlot
from ydrometer.search.on_plate import OnPlate
from ydrometer.search.option import Entry, Option
from ydrometer.search.outcome import Outcome
from ydrometer.search.ways import Ways

SAME = 5e-3
"""Relative difference within which two options do the same."""
MOST_LEADS = 80
"""Drives that are compared with each other, the best first."""
MOST_OTHERS = 5
"""Other ways that a row can show."""


@dataclass(slots=True)
class Group:
    """Options that do the same.

    Attributes:
        count: how many ways there are; None where a search kept from before has not counted them. from_bin: of those
        how many take owned parts alone. price: the least. options: a few, the one to be shown first.
    """

    count: int | None
    from_bin: int
    price: float
    options: list[Option] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class Lead:
    """The best way to one drive, and all that is known of the ways to it."""

    option: Option
    ways: Ways | None
    entries: tuple[Entry, ...]


def leads(outcome: Outcome) -> list[Lead]:
    """One option for each drive that is compared, the best first."""
    if not outcome.ways:
        return [Lead(entry[1], None, (entry,)) for entry in outcome.best]
    drives = list(outcome.ways.values())[:MOST_LEADS]
    return [Lead(ways.best[0][1], ways, tuple(ways.best)) for ways in drives]


def grouped(
    layouts: Sequence[list[StageSlot]],
    compared: Sequence[Lead],
    evaluation: Evaluation,
    shown: Sequence[Target],
    plate: OnPlate,
) -> list[Group]:
    """Leads whose measures agree, as one group each, in the order of the best of each.

    Args:
        layouts: the options of the stages of each layout.
        compared: the leads.
        evaluation: their designs, in the same order.
        shown: the measures that have to agree; what only Loads or a price list tells is not asked.
        plate: of the design.
    """
    targets = [target for target in shown if target.measure not in ELSEWHERE]
    heads: list[tuple[list[float | None], list[Lead]]] = []
    for place, lead in enumerate(compared):
        values = [evaluation.value_for(target, place) for target in targets]
        alike = next((members for first, members in heads if _agree(first, values)), None)
        if alike is None:
            heads.append((values, [lead]))
        else:
            alike.append(lead)
    return [_group(layouts, members, plate) for _, members in heads]


def _agree(first: Sequence[float | None], second: Sequence[float | None]) -> bool:
    return all(_same(a, b) for a, b in zip(first, second, strict=True))


def _same(first: float | None, second: float | None) -> bool:
    if first is None or second is None:
        return first is second
    return abs(first - second) <= SAME * max(abs(first), abs(second))


def _group(layouts: Sequence[list[StageSlot]], members: Sequence[Lead], plate: OnPlate) -> Group:
    entries = sorted(chain.from_iterable(lead.entries for lead in members), key=lambda e: _preferred(layouts, e, plate))
    options: dict[object, Option] = {}
    for _, option in entries:
        options.setdefault(_places(layouts, option), option)
    known = [lead.ways for lead in members if lead.ways is not None]
    return Group(
        sum(ways.count for ways in known) if known else None,
        sum(ways.from_bin for ways in known),
        min((ways.price for ways in known), default=entries[0][1].price),
        list(options.values())[: MOST_OTHERS + 1],
    )


def _preferred(layouts: Sequence[list[StageSlot]], entry: Entry, plate: OnPlate) -> tuple[object, ...]:
    """Ways to the same in the order in which people would choose: from the bin, cheap, little to buy,
    going on the plate, small."""
    key, option = entry
    size = sum(
        int(slot.driver[chosen]) + int(slot.driven[chosen])
        for slot, chosen in zip(layouts[option.layout], option.chosen, strict=True)
    )
    return option.buy > 0, option.price, option.buy, not plate.goes(option), size, key


def _places(layouts: Sequence[list[StageSlot]], option: Option) -> object:
    """The same for options that only have the same parts in other, equal places."""
    places = sorted(
        (slot.choice.kind, end, int(slot.parts[chosen][end]))
        if slot.parts[chosen][0] != NO_PART
        else (slot.choice.kind, end, place if end == 0 else NO_PART)
        for place, (slot, chosen) in enumerate(zip(layouts[option.layout], option.chosen, strict=True))
        for end in (0, 1)
    )
    return option.head, tuple(places)
