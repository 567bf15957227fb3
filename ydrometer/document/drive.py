"""The drive of a design: sources with their own stages, the stages they share, and what feeds them."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ydrometer.base import reading
from ydrometer.base.labels import parts
from ydrometer.document import sources, stages, supply
from ydrometer.document.stages import Stage
from ydrometer.document.wire import Wire

STAGE = reading.kind_reader(stages.KINDS)
"""Reads one stage of any kind."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Branch:
    """One kind of motor or engine, how many of it, and the stages that are its own; `wire` goes to one motor."""

    count: int = reading.whole(1, 64, default=1)
    source: sources.Source = reading.one_of(sources.KINDS)
    controller: sources.Controller | None = reading.nested(sources.Controller, default=None)
    clutch: sources.Clutch | None = reading.nested(sources.Clutch, default=None)
    wire: Wire | None = parts(Wire, reading.nested(Wire, default=None), group="Its wire")
    stages: tuple[Stage, ...] = reading.items(STAGE)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A controller belongs to a motor, a clutch to an engine."""
        engine = isinstance(self.source, sources.Engine)
        if engine and self.clutch is None:
            yield (
                "clutch",
                "missing",
                "without a clutch an engine cannot start a vehicle from rest: give its engagement_speed "
                "(of a hand clutch, the chosen launch speed)",
            )
        if not engine and self.clutch is not None:
            yield "clutch", "given for a motor", "leave it out: a motor starts from rest by itself"
        if engine and self.controller is not None:
            yield "controller", "given for an engine", "leave it out: it belongs to a motor"
        if engine and self.wire is not None:
            yield "wire", "given for an engine", "leave it out: it goes from a controller to its motor"
        for index, stage in enumerate(self.stages):
            if stage.several_speeds:
                yield f"stages[{index}]", f"a {stage.noun} in a branch", "put it among drive.stages"


@dataclass(frozen=True, slots=True, kw_only=True)
class Drive:
    """`units` identical drive units, each of branches and the trunk stages they share."""

    units: int = reading.whole(1, 64, default=1)
    supply: supply.Supply | None = reading.one_of(supply.KINDS, default=None)
    branches: tuple[Branch, ...] = reading.items(reading.object_reader(Branch), least=1, required=True)
    stages: tuple[Stage, ...] = reading.items(STAGE)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Motors need a supply, engines have none; one box of several speeds is enough."""
        electric = any(isinstance(branch.source, sources.Motor) for branch in self.branches)
        if electric and self.supply is None:
            yield "supply", "missing", "motors need a battery, panel or bench supply"
        if not electric and self.supply is not None:
            yield "supply", "given for engines alone", "leave it out: an engine draws nothing from it"
        for index in [i for i, stage in enumerate(self.stages) if stage.several_speeds][1:]:
            yield f"stages[{index}]", f"a second {self.stages[index].noun}", "one is computed at most"

    @property
    def box(self) -> Stage | None:
        """The box of several speeds, where there is one."""
        return next((stage for stage in self.stages if stage.several_speeds), None)
