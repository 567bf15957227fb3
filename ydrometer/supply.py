"""Where the current comes from: a battery that sags, or a bench supply that does not."""

from __future__ import annotations

from dataclasses import dataclass
from typing import ClassVar

from ydrometer import reading


@dataclass(frozen=True, slots=True, kw_only=True)
class Battery:
    """Open-circuit voltage behind a resistance, with an optional current limit and capacity (A·s)."""

    kind: ClassVar[str] = "battery"
    open_circuit_voltage: float = reading.quantity("voltage", above=0.0)
    resistance: float = reading.quantity("resistance", at_least=0.0, default=0.0)
    current_limit: float | None = reading.quantity("current", above=0.0, default=None)
    capacity: float | None = reading.quantity("charge", above=0.0, default=None)
    cells: None = reading.not_yet("give open_circuit_voltage, resistance and capacity")


@dataclass(frozen=True, slots=True, kw_only=True)
class Bench:
    """An ideal source of fixed voltage."""

    kind: ClassVar[str] = "bench"
    voltage: float = reading.quantity("voltage", above=0.0)

    @property
    def open_circuit_voltage(self) -> float:
        """The voltage, whatever is drawn."""
        return self.voltage

    @property
    def resistance(self) -> float:
        """None at all."""
        return 0.0

    @property
    def current_limit(self) -> None:
        """None given: it delivers what is asked."""

    @property
    def capacity(self) -> None:
        """Not a thing that empties."""


Supply = Battery | Bench
KINDS: dict[str, type] = {"battery": Battery, "bench": Bench}
LATER = ("panel",)
