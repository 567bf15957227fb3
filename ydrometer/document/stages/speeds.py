"""A box of several speeds, changed up while driving."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import ClassVar

from ydrometer.base import reading
from ydrometer.base.tables import efficiencies
from ydrometer.document.stages import common


@dataclass(frozen=True, slots=True, kw_only=True)
class Speeds(common.Positive):
    """`ratios` from the lowest gear up, so falling; a change takes `shift_time` without drive."""

    kind: ClassVar[str] = "speeds"
    ratios: tuple[float, ...] = reading.items(
        reading.quantity_reader("ratio", above=0.0, at_most=1e6), least=1, most=12, required=True
    )
    shift_time: float = reading.quantity("time", at_least=0.0, at_most=60.0, default=0.3)
    efficiency: float | None = common.efficiency()

    @property
    def ratio(self) -> float:
        """Of the lowest gear."""
        return self.ratios[0]

    @property
    def default_efficiency(self) -> float:
        """Of the pair engaged."""
        return efficiencies.SPEEDS

    @property
    def sense(self) -> int:
        """Taken to keep the sense; the maker's drawing says."""
        return 1

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """The lowest gear, the largest ratio, comes first."""
        if any(not higher < lower for lower, higher in pairwise(self.ratios)):
            yield "ratios", "not falling", "give the lowest gear, the largest ratio, first"
