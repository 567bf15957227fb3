"""An exercise drawn from its kind, level and seed, with its drawing and its working."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document import design
from ydrometer.drawing import LineDrawing, draw_line
from ydrometer.drawing.bag import draw_bag
from ydrometer.drawing.plan import PlanDrawing, draw_plan
from ydrometer.fit.setting_up import set_up
from ydrometer.practice.draw import LEVELS, Again, Draw, Level, Units
from ydrometer.practice.kinds import KINDS
from ydrometer.practice.posed import ChoiceAsked, NumberAsked, PicksAsked, Posed, number_of
from ydrometer.working.sheet import Working

MOST_DRAWN = 2000
"""How often numbers are drawn until they make a good exercise; seldom more than a few dozen times."""
SYSTEMS: tuple[Units, ...] = ("metric", "inch")


@dataclass(frozen=True, slots=True)
class Exercise:
    """A question, and what it was drawn from: the same four give the same one."""

    kind: str
    level: Level
    seed: int
    units: Units
    posed: Posed

    @property
    def idea(self) -> str:
        """What it practises."""
        return KINDS[self.kind].idea

    def drawing(self, longest: float = 1e9) -> LineDrawing:
        """Its line to scale; where the turning sense is asked for, without any; of what is picked from a bag, the bag.

        Args:
            longest: how many times as long as high a row may be before the line is folded.
        """
        if isinstance(self.posed.ask, PicksAsked):
            return draw_bag(self.posed.ask.bag)
        line = draw_line(design.read(self.posed.design).design, longest)
        line = _closed(line) if self.posed.closed else line
        return _still(line, self.posed.first) if self.posed.still else line

    def plate(self, *, whole: bool = False) -> PlanDrawing | None:
        """Where holes are asked for, the plate with the driver on it; `whole` with what it drives in its place too."""
        if not (isinstance(self.posed.ask, ChoiceAsked) and self.posed.ask.holes):
            return None
        plan = draw_plan(set_up(design.read(self.posed.design).design), [])
        return plan if whole else replace(plan, shafts=plan.shafts[:1], wheels=plan.wheels[:1])

    def working(self) -> Working:
        """How the answer comes about, a line at a time."""
        posed, sheet = self.posed, self.posed.sheet
        number = isinstance(posed.ask, NumberAsked)
        dimension = posed.ask.dimension if isinstance(posed.ask, NumberAsked) else "ratio"
        value = number_of(posed.answer) if number else None
        return Working(
            self.kind, dimension, value, "", posed.formula, "", sheet.inputs, sheet.table, sheet.steps, None, []
        )


@lru_cache(maxsize=1024)
def exercise(kind: str, level: int, seed: int, units: str = "metric") -> Exercise:
    """Draw an exercise; the last ones are kept, for a whole class has the same.

    Args:
        kind: a key of `KINDS`.
        level: 1 to 3.
        seed: a whole number.
        units: "metric" or "inch", in which it is said.

    Raises:
        DocumentError: there is no such kind, level or system of units.
    """
    faults = []
    if kind not in KINDS:
        faults.append(Fault("kind", f'"{kind[:40]}" given', f"use one of {', '.join(KINDS)}"))
    if level not in LEVELS:
        faults.append(Fault("level", f"{level} given", "use 1, 2 or 3"))
    if units not in SYSTEMS:
        faults.append(Fault("units", f'"{units[:40]}" given', "use metric or inch"))
    if faults:
        raise DocumentError(faults)
    known: Level = LEVELS[level - 1]
    system: Units = SYSTEMS[SYSTEMS.index(units)]
    return Exercise(kind, known, seed, system, _posed(kind, Draw(kind, known, seed, system)))


def _posed(kind: str, draw: Draw) -> Posed:
    for _ in range(MOST_DRAWN):
        try:
            return KINDS[kind].pose(draw)
        except Again:
            continue
    raise AssertionError(f"{kind} finds no numbers that suit it")


def _closed(line: LineDrawing) -> LineDrawing:
    """A drawing that does not say what its cases reduce."""
    return replace(line, rows=[replace(row, boxes=[replace(box, ratio=0.0) for box in row.boxes]) for row in line.rows])


def _still(line: LineDrawing, first: int) -> LineDrawing:
    """A drawing that does not say which way anything turns but the first wheel, where that is told."""
    rows = [
        replace(
            row,
            shafts=[replace(shaft, rotation=0, rotation_known=False) for shaft in row.shafts],
            wheels=[replace(wheel, rotation=0 if place else first) for place, wheel in enumerate(row.wheels)],
            sources=[replace(source, rotation=0) for source in row.sources],
            road_wheel=row.road_wheel and replace(row.road_wheel, rotation=0),
        )
        for row in line.rows
    ]
    return replace(line, rows=rows)
