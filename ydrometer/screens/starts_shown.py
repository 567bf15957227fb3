"""What somebody may start from, and what the questions after it offer."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Any, Literal

from ydrometer.base.tables import typical as tables
from ydrometer.base.tables.measures import TARGETABLE
from ydrometer.document import design
from ydrometer.drawing import LineDrawing, draw_line
from ydrometer.starting.pictures import PICTURES, SidePicture
from ydrometer.starting.starts import STARTS, Key, Start, design_of

Bound = Literal["at_least", "at_most", "between"]


@dataclass(frozen=True, slots=True)
class Goal:
    """A target of a start: what is measured, and what is wanted, one bound or the two of a band."""

    measure: str
    dimension: str
    bound: Bound
    values: list[str]


@dataclass(frozen=True, slots=True)
class StartShown:
    """A vehicle to start from.

    Attributes:
        key, title, words. picture: from the side. line: its power path in miniature.
        mass: all of it together, kg. wheel_diameter: m. footing: what it is taken to stand on.
        source: kind of what drives it. size: of a motor, as the table names it.
        supply: kind of what feeds that, empty of an engine. cells: of a battery, likewise.
        goals: what it is to do.
    """

    key: Key
    title: str
    words: str
    picture: SidePicture
    line: LineDrawing
    mass: float
    wheel_diameter: float
    footing: str
    source: str
    size: str
    supply: str
    cells: str
    goals: list[Goal]


@dataclass(frozen=True, slots=True)
class StartsShown:
    """All of them, with what stands in the lists of the questions: footings, sizes of motors, kinds of cells."""

    starts: list[StartShown]
    footings: list[str]
    sizes: list[str]
    cells: list[str]


@cache
def starts_shown() -> StartsShown:
    """The same for everybody."""
    return StartsShown(
        [_shown(start) for start in STARTS],
        [footing.words for footing in tables.FOOTINGS],
        [size.words for size in tables.MOTOR_SIZES],
        [kind.words for kind in tables.CELL_KINDS],
    )


def _shown(start: Start) -> StartShown:
    raw = design_of(start)
    document = design.read(raw)
    its_design = document.design
    source = its_design.drive.branches[0].source
    notes = [value.note for value in document.values.values()]
    return StartShown(
        start.key,
        start.title,
        start.words,
        PICTURES[start.key],
        draw_line(its_design),
        its_design.vehicle.total_mass,
        its_design.vehicle.wheel_diameter,
        _named([footing.words for footing in tables.FOOTINGS], notes),
        source.kind,
        _named([size.words for size in tables.MOTOR_SIZES], notes),
        its_design.drive.supply.kind if its_design.drive.supply else "",
        _named([kind.words for kind in tables.CELL_KINDS], [note.replace(" cells", " cell") for note in notes]),
        [_goal(target) for target in raw["targets"]],
    )


def _named(rows: list[str], notes: list[str]) -> str:
    """The row of a table that a note names, empty where none does."""
    return next((row for row in rows if any(f"typical of {row}:" in note or f" {row}:" in note for note in notes)), "")


def _goal(target: dict[str, Any]) -> Goal:
    bound: Bound = next(key for key in ("at_least", "at_most", "between") if key in target)
    values = target[bound] if bound == "between" else [target[bound]]
    return Goal(target["measure"], TARGETABLE[target["measure"]].dimension, bound, values)
