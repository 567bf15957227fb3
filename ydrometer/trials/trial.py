"""What all runs have in common: their readings, and how they were made."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, fields
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.base.labels import labelled
from ydrometer.base.reckoning import Floats
from ydrometer.document import supply
from ydrometer.document.vehicle import STEEPEST
from ydrometer.trials.case import Conditions
from ydrometer.trials.rows import TrialRows

MOST_READINGS = 200
CONDITIONS = "conditions"
"""Group of the fields that say how a run was made."""


@dataclass(frozen=True, slots=True, kw_only=True)
class LeftOut:
    """A reading that does not count, and why."""

    place: int = reading.called("reading", reading.whole(0, MOST_READINGS))
    why: str = reading.text(longest=500)


def readings_of(dimension: str) -> Any:
    """A field holding the readings of a run, above 0."""
    return reading.items(reading.quantity_reader(dimension, above=0.0), least=1, most=MOST_READINGS, required=True)


def sd_of(dimension: str) -> Any:
    """A field holding the scatter of one reading."""
    return reading.quantity(dimension, above=0.0, default=None)


def condition(label: str, declared: Any) -> Any:
    """A field that says how a run was made."""
    return labelled(label, declared, group=CONDITIONS)


@dataclass(frozen=True, slots=True, kw_only=True)
class Trial:
    """One run: of which design, what was read, under which conditions.

    A kind says its `title`, its `dimension`, the `unit` in which answers tell it with how many of them are one SI unit,
    the usual `scatter` of one reading relative to it, which of its keys (`about`) tell what exactly was measured,
    which `measure` of a design that is, if any, whether gearings are told apart by it, `geared`, whether it `draws` on
    the supply, whether more of it is `better`, 1 or −1, whether it is about the run, `moving`, and what the practice
    rig does to measure it, `rig`, empty where it cannot.
    """

    kind: ClassVar[str]
    title: ClassVar[str]
    dimension: ClassVar[str]
    unit: ClassVar[str]
    per_si: ClassVar[float] = 1.0
    scatter: ClassVar[float]
    about: ClassVar[tuple[str, ...]] = ()
    measure: ClassVar[str] = ""
    geared: ClassVar[bool] = True
    draws: ClassVar[bool] = True
    better: ClassVar[int] = 1
    moving: ClassVar[bool] = True
    rig: ClassVar[str] = ""

    design: str = reading.text(longest=200)
    left_out: tuple[LeftOut, ...] = reading.items(reading.object_reader(LeftOut), most=MOST_READINGS)
    keep: bool = reading.flag()
    at: str = reading.text(longest=40)
    note: str = reading.text(longest=2000)
    ground: str = condition("Ground", reading.text(longest=200))
    grade: float | None = condition(
        "Slope", reading.quantity("grade", at_least=-STEEPEST, at_most=STEEPEST, default=None)
    )
    supply_voltage: float | None = condition(
        "Voltage at rest just before", reading.quantity("voltage", above=0.0, default=None)
    )
    payload: float | None = condition("Payload", reading.quantity("mass", at_least=0.0, default=None))
    mass: float | None = condition("Mass", reading.quantity("mass", above=0.0, default=None))
    air_density: float | None = condition("Density of the air", reading.quantity("density", at_least=0.0, default=None))
    ambient: float | None = condition("Ambient temperature", reading.quantity("temperature", above=0.0, default=None))
    supply: supply.Supply | None = reading.one_of(supply.KINDS, default=None)

    readings: tuple[float, ...]
    sd: float | None

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Readings that are left out are there."""
        places = [left.place for left in self.left_out]
        for k, place in enumerate(places):
            if place >= len(self.readings):
                yield (
                    f"left_out[{k}].reading",
                    f"{place} given for {len(self.readings)} readings",
                    f"give 0 to {len(self.readings) - 1}",
                )

    @property
    def counted(self) -> tuple[float, ...]:
        """Readings that are not left out, SI."""
        places = {left.place for left in self.left_out}
        return tuple(value for k, value in enumerate(self.readings) if k not in places)

    @property
    def conditions(self) -> Conditions:
        """How it was made."""
        return Conditions(
            self.grade, self.supply_voltage, self.payload, self.mass, self.air_density, self.ambient, self.supply
        )

    @property
    def told_about(self) -> dict[str, Any]:
        """What exactly was measured, SI, by the keys of the runs file."""
        return {reading.key_of(field): getattr(self, field.name) for field in fields(self) if field.name in self.about}

    @property
    def words(self) -> str:
        """What was measured: "Time over 12 m"."""
        return self.title

    def refers_to(self, key: str) -> tuple[float, ...]:
        """Distances, speeds or times of the run that its model is asked about, SI."""
        return ()

    def values(self, rows: TrialRows) -> Floats:
        """What the model says, SI, (n,); NaN where it has no value.

        Args:
            rows: the design under the run's conditions with n sets of factors.
        """
        raise NotImplementedError

    def zero(self, ambient: float) -> float:
        """What is taken off value and readings before they are compared: ambient of a temperature, K."""
        return 0.0
