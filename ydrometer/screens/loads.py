"""What Loads shows of a design: the sentence that matters, its parts in the order of the line, its day and heat."""

from __future__ import annotations

import json
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from ydrometer.base.errors import DocumentError
from ydrometer.document.design import Design, Document
from ydrometer.document.loads import USUAL_DAY, USUAL_HEATS, Loads, Runs
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.loads.asked import Asked, Warmth
from ydrometer.loads.helps import helps
from ydrometer.loads.limits import Limits, limits
from ydrometer.loads.moments import Turn
from ydrometer.loads.row_working import row_working
from ydrometer.loads.rows import DIMENSIONS, Row, State
from ydrometer.loads.words import CHECKS, part_title, sentence
from ydrometer.working import Working
from ydrometer.working.recipes import NoWorkingError

NEEDED = {
    "peak_current": ("peak current", "current"), "continuous_current": ("continuous current", "current"),
    "cutoff_voltage": ("voltage at which electronics drop out", "voltage"),
    "max_speed": ("fastest speed", "angular speed"), "width": ("width", "length"), "module": ("module", "length"),
    "pitch": ("pitch", "length"), "allowed_force_per_width": ("allowed force per width", "force per width"),
    "breaking_load": ("breaking load", "force"), "torque_rating": ("torque rating", "torque"),
    "sight": ("distance to stop in", "distance"), "mass": ("mass", "mass"),
}  # fmt: skip
"""What would settle a row, by the last key of its path: in words, and its dimension."""
ORDER: dict[State, int] = {"over": 3, "near": 2, "ok": 1, "unknown": 0}


@dataclass(frozen=True, slots=True)
class Need:
    """A value that would settle a row: its path, in words, and its dimension, empty where it is said in Fit."""

    path: str
    words: str
    dimension: str


@dataclass(frozen=True, slots=True)
class MomentUse:
    """The largest use in one moment."""

    moment: str
    use: float


@dataclass(frozen=True, slots=True)
class LoadRow:
    """A row as it is shown, see `loads.rows.Row`; `title` is its check in words, `part` what it is about."""

    check: str
    title: str
    part: str
    path: str
    member: str
    moment: str
    demand: float | None
    capacity: float | None
    dimension: str
    use: float | None
    state: State
    assumed: list[str]
    needs: list[Need]
    remarks: list[str]
    marks: list[MomentUse]


@dataclass(frozen=True, slots=True)
class LoadedPart:
    """Rows of one part, the largest use first; `state` is that of the first one."""

    title: str
    path: str
    state: State
    rows: list[LoadRow]


@dataclass(frozen=True, slots=True)
class PhaseShown:
    """A phase of the day: what is done, how often, and for or every how long, s."""

    do: Literal["runs", "cruise", "shove", "turns", "rest"]
    count: int
    seconds: float


@dataclass(frozen=True, slots=True)
class HeatShown:
    """How warm one motor of a branch gets: K, s. Curves are time, s, and temperature, K, of winding and case.

    Attributes:
        branch, title, nodes. limit: of the winding. hottest, at: of the winding. moving_air: the same in moving air.
        shove_until_limit, rest_needed: see `loads.heat`. winding, case: curves.
    """

    branch: int
    title: str
    nodes: int
    limit: float
    hottest: float
    at: float
    moving_air: float
    shove_until_limit: float | None
    rest_needed: float | None
    winding: list[list[float]]
    case: list[list[float]]


@dataclass(frozen=True, slots=True)
class LoadsShown:
    """The station.

    Attributes:
        sentence, state: of the worst row. use: of it, None where nothing is known. parts: in the order of the line.
        day, heats: as described, or as assumed where `day_assumed`. left_out: phases that the design cannot do, and
        why. heat: of each branch of motors that is known.
        turn: on the spot, None where it cannot be asked. not_judged: shafts of which nothing can be said.
    """

    sentence: str
    state: State
    use: float | None
    parts: list[LoadedPart]
    day: list[PhaseShown]
    heats: int
    day_assumed: bool
    left_out: list[str]
    heat: list[HeatShown]
    turn: Turn | None
    not_judged: list[str]


def loads_shown(document: Document) -> LoadsShown:
    """What Loads shows of one design.

    Args:
        document: as read.

    """
    found, left_out = _as_far_as_it_goes(document)
    asked, worst, design = found.asked, found.worst, document.design
    said = design.loads or Loads()
    phases = said.day or USUAL_DAY
    return LoadsShown(
        sentence=sentence(design, worst),
        state=worst.state if worst else "unknown",
        use=worst.use if worst else None,
        parts=_parts(design, found),
        day=[_phase(phase) for phase in phases],
        heats=said.heats or (1 if said.day else USUAL_HEATS),
        day_assumed=not said.day,
        left_out=left_out,
        heat=[_heat(asked, warmth) for warmth in asked.warmth.values()],
        turn=asked.moments.turn,
        not_judged=[one.path for one in found.not_judged],
    )


@dataclass(frozen=True, slots=True)
class ChangeShown:
    """A value to be put at a path of the document, as JSON."""

    path: str
    value: str


@dataclass(frozen=True, slots=True)
class HelpShown:
    """What would relieve a row: in words with what it leads to, and the changes that do it."""

    text: str
    changes: list[ChangeShown]


@dataclass(frozen=True, slots=True)
class RowWanted:
    """Which row is asked about."""

    check: str
    path: str
    member: str
    moment: str


def helps_shown(document: Document, wanted: RowWanted) -> list[HelpShown]:
    """What would relieve one row of a design; nothing for one that is not there any more.

    Args:
        document: as read.
        wanted: the row.
    """
    found, row = _found(document, wanted)
    if row is None:
        return []
    return [
        HelpShown(help_.text, [ChangeShown(path, json.dumps(value)) for path, value in help_.changes.items()])
        for help_ in helps(found, row)
    ]


def working_shown(document: Document, wanted: RowWanted) -> Working:
    """The working of one row of a design.

    Args:
        document: as read.
        wanted: the row.

    Raises:
        NoWorkingError: there is no such row any more.
    """
    found, row = _found(document, wanted)
    if row is None:
        raise NoWorkingError("the design has no such row any more", path=wanted.path)
    return row_working(found.asked, row)


def _found(document: Document, wanted: RowWanted) -> tuple[Limits, Row | None]:
    """All rows of a design, and the one that is wanted."""
    found, _ = _as_far_as_it_goes(document)
    named = (wanted.check, wanted.path, wanted.member, wanted.moment)
    return found, next((row for row in found.rows if _name(row) == named), None)


def _name(row: Row) -> tuple[str, str, str, str]:
    return row.check, row.path, row.member or "", row.moment or ""


def _as_far_as_it_goes(document: Document) -> tuple[Limits, list[str]]:
    """The loads of a design without the phases of its day that it cannot do, and those in words."""
    left_out: list[str] = []
    said = document.design.loads or Loads()
    day = list(enumerate(said.day, 1))
    while True:
        loads = replace(said, day=tuple(phase for _, phase in day))
        made = replace(document, design=replace(document.design, loads=loads))
        try:
            return limits(evaluate([made])), left_out
        except DocumentError as error:
            (fault,) = error.faults
            number, _ = day.pop(int(fault.path.removeprefix("loads.day[").removesuffix("]")))
            left_out.append(f"block {number}, {fault.problem}")


def _phase(phase: object) -> PhaseShown:
    if isinstance(phase, Runs):
        return PhaseShown("runs", phase.count, phase.every)
    return PhaseShown(phase.do, 1, phase.lasts)  # type: ignore[attr-defined]  # the other phases last


def _parts(design: Design, found: Limits) -> list[LoadedPart]:
    """Rows together that are about one part, in the order of the line: the source first."""
    groups: dict[tuple[str, bool], list[Row]] = {}
    for row in found.rows:
        groups.setdefault((row.path, row.check == "shaft_stress"), []).append(row)
    places = [shaft.path for shaft in found.asked.line.shafts]

    def place(key: tuple[str, bool]) -> tuple[float, bool]:
        path, shaft = key
        if path == "drive.supply":
            return -1.0, shaft
        near = [i for i, other in enumerate(places) if path.startswith(other) or other == f"{path}.source"]
        return (near[0] if near else len(places)), shaft

    return [_part(design, rows) for _, rows in sorted(groups.items(), key=lambda entry: place(entry[0]))]


def _part(design: Design, rows: Sequence[Row]) -> LoadedPart:
    shown = sorted(
        (_row(design, row) for row in rows), key=lambda row: (-ORDER[row.state], -(row.use or 0.0))
    )  # fmt: skip
    first = rows[0]
    whole = Row(first.check, first.path, None, None, None, None, "", None, "unknown")
    title = part_title(design, whole)
    if first.check.startswith("controller"):
        title = "controller" if len(design.drive.branches) == 1 else f"controller, {first.path}"
    if first.check == "brakes":
        title = "brakes"
    return LoadedPart(title, first.path, shown[0].state, shown)


def _row(design: Design, row: Row) -> LoadRow:
    return LoadRow(
        check=row.check, title=CHECKS[row.check].title, part=part_title(design, row), path=row.path,
        member=row.member or "", moment=row.moment or "", demand=row.demand, capacity=row.capacity,
        dimension=DIMENSIONS[row.unit] if row.unit else "", use=row.use, state=row.state, assumed=list(row.assumed),
        needs=[need for path in row.needs for need in _needs(path)], remarks=list(row.remarks),
        marks=[MomentUse(moment, use) for moment, use in row.marks],
    )  # fmt: skip


def _needs(path: str) -> list[Need]:
    base, _, key = path.rpartition(".")
    if path.startswith("fit."):
        return [Need(path, "tension at rest" if key == "tension" else "diameter of the shaft", "")]
    if key == "thermal":
        # The two that a maker's page has; the four of two nodes come from a test.
        return [Need(f"{base}.{name}", *NEEDED[name]) for name in ("mass", "continuous_current")]
    if key.startswith("torque_ratings"):
        return [Need(path, f"torque rating of step {int(key[15:-1]) + 1}", "")]
    return [Need(path, *NEEDED[key])]


def _heat(asked: Asked, warmth: Warmth) -> HeatShown:
    curve = warmth.day.curve
    source = asked.motors[[b for b, _ in asked.motors].index(warmth.branch)][1]
    return HeatShown(
        branch=warmth.branch,
        title="motor" if len(asked.design.drive.branches) == 1 else f"motor of branch {warmth.branch + 1}",
        nodes=warmth.day.nodes,
        limit=asked.limit(source),
        hottest=warmth.day.hottest_winding,
        at=warmth.day.at,
        moving_air=warmth.winding_in_moving_air,
        shove_until_limit=warmth.shove_until_limit,
        rest_needed=warmth.rest_needed,
        winding=curve[:, [0, 1]].tolist(),
        case=curve[:, [0, 2]].tolist(),
    )
