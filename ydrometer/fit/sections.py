"""A section along each shaft: what is on it between two faces, and the spacers that fill the gaps."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from ydrometer.document.mounting import Mounting, ShaftMount, Stack
from ydrometer.fit.bores import SAME
from ydrometer.fit.stack import LIMIT_S, Filling, fill
from ydrometer.fit.stock import Stock

EXACT = 5e-6
"""A stack that is off by less than this counts as full, m."""


@dataclass(frozen=True, slots=True)
class Placed:
    """An item with where it begins and ends, m from the first face."""

    name: str
    start: float
    end: float
    spacer: bool
    wheel: str


@dataclass(frozen=True, slots=True)
class Filled:
    """An item of a filled stack: of one that was there its place in the list; of a new spacer its name and width, as
    they would be typed.
    """

    item: int | None
    name: str
    width: str


@dataclass(frozen=True, slots=True)
class Section:
    """Along one shaft.

    Attributes:
        shaft: its path. between: from face to face, m. items: as they lie now. gaps: before each of them and behind the
        last, m; below 0 where they overlap. error: by how much they are too long (+) or leave room (−), m, at the worst
        place. overlap: of items that have places of their own, m, the largest.
        filled: the items with the gaps filled from the spacers at hand; None where nothing is missing or no spacer
        goes on this shaft. filled_error: by how much that is too thick (+) or too thin (−) where it is worst, m.
        filled_best: whether nothing fills them better; else time ran out before that was known.
        protrudes: how far the shaft stands out behind the second face, m; negative where it ends before; None where
        its length is not known.
    """

    shaft: str
    between: float
    items: list[Placed]
    gaps: list[float]
    error: float
    overlap: float
    filled: list[Filled] | None
    filled_error: float
    filled_best: bool
    protrudes: float | None


def sections(mounting: Mounting, stock: Stock) -> list[Section]:
    """A section for each shaft that has a stack.

    Args:
        mounting: of the design.
        stock: whose spacers may be used.
    """
    stacked = [(shaft, shaft.stack) for shaft in mounting.shafts if shaft.stack is not None]
    return [_section(shaft, stack, stock, LIMIT_S / len(stacked)) for shaft, stack in stacked]


def _section(shaft: ShaftMount, stack: Stack, stock: Stock, limit: float) -> Section:
    gaps = _gaps(stack)
    kept = [i for i, item in enumerate(stack.items) if not item.spacer]
    wanted = _gaps(replace(stack, items=tuple(stack.items[i] for i in kept)))
    spacers = _spacers(shaft, stock)
    open_gaps = [gap for gap in wanted if gap > EXACT]
    filled, left, best = None, 0.0, True
    if open_gaps and spacers:
        fillings = fill(open_gaps, spacers, limit)
        left, best = max((filling.error for filling in fillings.fillings), key=abs), fillings.best
        filled = _with_spacers(kept, wanted, fillings.fillings)
    worst = max((-gap for gap in gaps), key=abs)
    return Section(
        shaft=shaft.shaft,
        between=stack.between,
        items=[
            Placed(item.name, *span, item.spacer, item.wheel)
            for item, span in zip(stack.items, stack.spans, strict=True)
        ],
        gaps=[_told(gap) for gap in gaps],
        error=_told(worst),
        overlap=_told(max(0.0, *(-gap for gap in gaps))),
        filled=filled,
        filled_error=_told(left),
        filled_best=best,
        protrudes=None if shaft.length is None else shaft.length - stack.between,
    )


def _told(size: float) -> float:
    """A length, m; 0 if it is smaller than the tolerance."""
    return size if abs(size) > EXACT else 0.0


def _gaps(stack: Stack) -> list[float]:
    """Gaps before each item and behind the last, m; negative where items overlap."""
    starts = [*(start for start, _ in stack.spans), stack.between]
    ends = [0.0, *(end for _, end in stack.spans)]
    return [start - end for start, end in zip(starts, ends, strict=True)]


def _spacers(shaft: ShaftMount, stock: Stock) -> Mapping[float, int]:
    """Spacers that fit a shaft; for a shaft of unknown diameter those of the commonest bore."""
    if shaft.diameter is not None:
        near = [bore for bore in stock.spacers if abs(bore - shaft.diameter) <= SAME]
        return stock.spacers[near[0]] if near else {}
    return max(stock.spacers.values(), key=lambda stock: sum(stock.values()), default={})


def _with_spacers(kept: list[int], gaps: list[float], chosen: Sequence[Filling]) -> list[Filled]:
    fillings = iter(chosen)
    filled: list[Filled] = []
    for place, gap in enumerate(gaps):
        if gap > EXACT:
            widths = [f"{piece * 1e3:.6g} mm" for piece in next(fillings).pieces]
            filled += [Filled(None, f"spacer {width}", width) for width in widths]
        if place < len(kept):
            filled.append(Filled(kept[place], "", ""))
    return filled
