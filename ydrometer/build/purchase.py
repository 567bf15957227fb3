"""How far the buying is: what was ordered, is here, is fitted, what it cost, and what is still to be spent."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal

from ydrometer.build.parts_list import PartsListLine, order_of
from ydrometer.build.plan import PartOrder

PurchaseState = Literal["needed", "ordered", "here", "fitted"]
PURCHASE_STATES: tuple[PurchaseState, ...] = ("needed", "ordered", "here", "fitted")
DAY_S = 86_400.0


@dataclass(frozen=True, slots=True)
class Said:
    """What was said last of a line: its state, by whom and when; of an order also when it is expected, and the price
    that was paid for all of it, None where nobody has said so.
    """

    state: PurchaseState
    at: datetime
    by: str
    expected: date | None = None
    paid: float | None = None


@dataclass(frozen=True, slots=True)
class Spending:
    """What lines cost: spent already, still to be spent as far as prices are known, and words of lines without one."""

    spent: float
    to_spend: float
    unpriced: list[str]

    @property
    def whole(self) -> float:
        """Both together: the measure `price`."""
        return self.spent + self.to_spend


def spending(lines: Sequence[PartsListLine], said: Mapping[str, Said]) -> Spending:
    """What is spent and what is still to be spent.

    Args:
        lines: of a design.
        said: of them, by their keys.
    """
    spent = to_spend = 0.0
    unpriced: list[str] = []
    for line in lines:
        known = said.get(line.key)
        bought = known is not None and known.state != "needed"
        if bought and known is not None and known.paid is not None:
            spent += known.paid
        elif line.price is None:
            unpriced.append(line.need.words)
        elif bought:
            spent += line.price
        else:
            to_spend += line.price
    return Spending(spent, to_spend, unpriced)


def open_orders(lines: Sequence[PartsListLine], said: Mapping[str, Said], now: datetime) -> list[PartOrder]:
    """What has still to come: not ordered yet, or ordered and expected.

    Args:
        lines: of a design.
        said: of them, by their keys.
        now: from which days are counted.
    """
    return [order for line in lines for order in _order(line, said.get(line.key), now)]


def _order(line: PartsListLine, said: Said | None, now: datetime) -> list[PartOrder]:
    if line.to_buy == 0 or (said is not None and said.state in ("here", "fitted")):
        return []
    if said is None or said.state == "needed":
        return [order_of(line)]
    days = line.lead_days - (now - said.at).total_seconds() / DAY_S
    if said.expected is not None:
        days = (said.expected - now.date()).days
    return [order_of(line, max(0.0, days), placed=True)]
