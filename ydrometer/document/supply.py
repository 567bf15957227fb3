"""Where the current comes from: a battery that sags, a light panel, or a bench supply that does not.

Every supply is described by up to three straight pieces of its law, p·V + q·I = s, from the highest
voltages down; so motion needs to know nothing of its kind.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, ClassVar, NamedTuple

import numpy as np

from ydrometer.base import reading
from ydrometer.base.labels import parts, strength
from ydrometer.base.quantities import Schema
from ydrometer.base.seen import Reading
from ydrometer.document.wire import Wire


class LinePiece(NamedTuple):
    """A straight piece of a supply's law, p·V + q·I = s, from `low` volts up to the piece before it."""

    p: float
    q: float
    s: float
    low: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Fuse:
    """A blade fuse in the lead."""

    rating: float = strength("Blade fuse, its rating", reading.quantity("current", above=0.0))


@dataclass(frozen=True, slots=True, kw_only=True)
class Cells:
    """A pack by its cells: `series` in a row, `parallel` rows; `extra_resistance` of leads and connectors."""

    series: int = reading.whole(1, 1000)
    parallel: int = reading.whole(1, 1000, default=1)
    cell_voltage: float = reading.quantity("voltage", above=0.0)
    cell_resistance: float = reading.quantity("resistance", at_least=0.0, default=0.0)
    cell_capacity: float | None = reading.quantity("charge", above=0.0, default=None)
    extra_resistance: float = reading.quantity("resistance", at_least=0.0, default=0.0)


MOST_POINTS = 1000
"""Points of a discharge curve, at most."""
_SHARE = reading.quantity_reader("ratio", at_least=0.0, at_most=1.0)
_VOLTAGE = reading.quantity_reader("voltage", above=0.0)


def _point_schema() -> Schema:
    return {"type": "array", "prefixItems": [_SHARE.schema(), _VOLTAGE.schema()], "minItems": 2, "maxItems": 2}


def _read_point(raw: Any, path: str, seen: Reading) -> Any:
    if not isinstance(raw, list | tuple) or len(raw) != 2:
        return seen.fault(path, "not a pair", 'give the share gone and the voltage left, such as [0.5, "22.9 V"]')
    return _SHARE.read(raw[0], f"{path}[0]", seen), _VOLTAGE.read(raw[1], f"{path}[1]", seen)


DISCHARGE_POINT = reading.Reader(_read_point, _point_schema)


def _discharge_faults(points: Sequence[tuple[float, float]]) -> Iterator[tuple[str, str, str]]:
    """The points of a discharge go from full to empty, and the voltage never rises."""
    if not points:
        return
    if len(points) == 1 or points[0][0] != 0.0 or points[-1][0] != 1.0:
        yield "discharge", "not from full to empty", "begin with a share of 0 and end with one of 1"
    for place, (before, after) in enumerate(pairwise(points), start=1):
        if after[0] <= before[0]:
            yield f"discharge[{place}][0]", "not above the share before it", "give the points with rising shares"
        if after[1] > before[1]:
            yield f"discharge[{place}][1]", "above the voltage before it", "a battery's voltage falls as it empties"


_OF_THE_PACK = ("open_circuit_voltage", "resistance", "capacity")


@dataclass(frozen=True, slots=True, kw_only=True)
class Battery:
    """A voltage behind a resistance, with an optional current limit and capacity (A·s); or its cells."""

    kind: ClassVar[str] = "battery"
    open_circuit_voltage: float | None = reading.quantity("voltage", above=0.0, default=None)
    resistance: float | None = reading.quantity("resistance", at_least=0.0, default=None)
    current_limit: float | None = reading.quantity("current", above=0.0, default=None)
    capacity: float | None = reading.quantity("charge", above=0.0, default=None)
    continuous_current: float | None = strength(
        "Continuous current", reading.quantity("current", above=0.0, default=None)
    )
    peak_current: float | None = strength("Peak current", reading.quantity("current", above=0.0, default=None))
    cutoff_voltage: float | None = strength(
        "Electronics drop out below", reading.quantity("voltage", above=0.0, default=None)
    )
    max_voltage: float | None = strength("Highest voltage", reading.quantity("voltage", above=0.0, default=None))
    discharge: tuple[tuple[float, float], ...] = reading.items(DISCHARGE_POINT, most=MOST_POINTS)
    fuse: Fuse | None = parts(Fuse, reading.nested(Fuse, default=None))
    wire: Wire | None = parts(Wire, reading.nested(Wire, default=None), group="Its wire")
    cells: Cells | None = reading.nested(Cells, default=None)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A pack is given as a whole or by its cells."""
        if self.cells is None and self.open_circuit_voltage is None:
            yield "open_circuit_voltage", "missing", "give it, or cells"
        for key in _OF_THE_PACK:
            if self.cells is not None and getattr(self, key) is not None:
                yield key, "given beside cells", "give the pack as a whole or its cells, not both"
        yield from _discharge_faults(self.discharge)

    @property
    def voltage(self) -> float:
        """Open-circuit voltage of the pack, V."""
        if self.cells is not None:
            return self.cells.series * self.cells.cell_voltage
        assert self.open_circuit_voltage is not None  # the reader refuses a battery without either
        return self.open_circuit_voltage

    @property
    def internal_resistance(self) -> float:
        """Of the whole pack, ohm: cells in a row add up, rows side by side share."""
        if self.cells is not None:
            return self.cells.cell_resistance * self.cells.series / self.cells.parallel + self.cells.extra_resistance
        return self.resistance or 0.0

    @property
    def charge(self) -> float | None:
        """Capacity of the whole pack, A·s, where known."""
        if self.cells is not None:
            each = self.cells.cell_capacity
            return None if each is None else each * self.cells.parallel
        return self.capacity

    def emptied(self, share: float) -> float:
        """Open-circuit voltage when a share of its charge is gone, V; linear between the points of its discharge.

        Args:
            share: from 0 to 1, of one with a discharge curve.
        """
        shares, voltages = zip(*self.discharge, strict=True)
        return float(np.interp(share, shares, voltages))

    @property
    def pieces(self) -> tuple[LinePiece, ...]:
        """V + Rb·I = Voc throughout."""
        return (LinePiece(1.0, self.internal_resistance, self.voltage, -math.inf),)

    def capped(self, duty: float) -> Battery:
        """As a drive sees it whose duty is capped: d·Voc behind d²·Rb."""
        limit = None if self.current_limit is None else self.current_limit / duty
        return Battery(
            open_circuit_voltage=duty * self.voltage, resistance=duty**2 * self.internal_resistance, current_limit=limit
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class Panel:
    """A light panel by three points: (0 V, Isc), (Vmp, Imp), (Voc, 0 A); straight between them."""

    kind: ClassVar[str] = "panel"
    wire: Wire | None = parts(Wire, reading.nested(Wire, default=None), group="Its wire")
    short_circuit_current: float = reading.quantity("current", above=0.0)
    open_circuit_voltage: float = reading.quantity("voltage", above=0.0)
    max_power_voltage: float = reading.quantity("voltage", above=0.0)
    max_power_current: float = reading.quantity("current", above=0.0)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """The three points fall from one end to the other."""
        if self.max_power_voltage >= self.open_circuit_voltage:
            yield "max_power_voltage", "not below open_circuit_voltage", "the point of most power lies below it"
        if self.max_power_current > self.short_circuit_current:
            yield "max_power_current", "above short_circuit_current", "a panel gives most current when shorted"

    @property
    def voltage(self) -> float:
        """Open-circuit voltage, V."""
        return self.open_circuit_voltage

    @property
    def current_limit(self) -> None:
        """A panel limits itself."""

    @property
    def fuse(self) -> None:
        """A panel blows none."""

    @property
    def charge(self) -> None:
        """Not a thing that empties."""

    def capped(self, duty: float) -> Panel:
        """As a drive sees it whose duty is capped: its voltages times d, its currents over d."""
        return Panel(
            short_circuit_current=self.short_circuit_current / duty,
            open_circuit_voltage=duty * self.open_circuit_voltage,
            max_power_voltage=duty * self.max_power_voltage,
            max_power_current=self.max_power_current / duty,
        )

    @property
    def pieces(self) -> tuple[LinePiece, ...]:
        """Above Voc nothing flows, not even back; below it two straight pieces that meet at the point of most power."""
        upper = (self.open_circuit_voltage - self.max_power_voltage) / self.max_power_current
        fall = (self.short_circuit_current - self.max_power_current) / self.max_power_voltage
        return (
            LinePiece(0.0, 1.0, 0.0, self.open_circuit_voltage),
            LinePiece(1.0, upper, self.open_circuit_voltage, self.max_power_voltage),
            LinePiece(fall, 1.0, self.short_circuit_current, -math.inf),
        )


@dataclass(frozen=True, slots=True, kw_only=True)
class BenchSupply:
    """An ideal source of fixed voltage."""

    kind: ClassVar[str] = "bench"
    voltage: float = reading.quantity("voltage", above=0.0)
    fuse: Fuse | None = parts(Fuse, reading.nested(Fuse, default=None))
    wire: Wire | None = parts(Wire, reading.nested(Wire, default=None), group="Its wire")

    @property
    def current_limit(self) -> None:
        """None given: it delivers what is asked."""

    @property
    def charge(self) -> None:
        """Not a thing that empties."""

    def capped(self, duty: float) -> BenchSupply:
        """As a drive sees it whose duty is capped."""
        return BenchSupply(voltage=duty * self.voltage)

    @property
    def pieces(self) -> tuple[LinePiece, ...]:
        """V whatever flows."""
        return (LinePiece(1.0, 0.0, self.voltage, -math.inf),)


Supply = Battery | Panel | BenchSupply
KINDS: dict[str, type] = {"battery": Battery, "panel": Panel, "bench": BenchSupply}
