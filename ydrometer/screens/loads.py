"""What Loads shows of a design: the sentence that matters, its parts in the order of the line, its day and heat."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ydrometer.base.errors import Fault
from ydrometer.base.labels import LabelledField, labelled_fields
from ydrometer.base.tables.measures import OF_LOADS
from ydrometer.document.design import Design, Document
from ydrometer.document.loads import Loads
from ydrometer.document.sources import Controller, Engine
from ydrometer.document.walk import stages_with_paths
from ydrometer.evaluation.evaluate import NOTHING, Evaluation, evaluate
from ydrometer.evaluation.targets import Standing
from ydrometer.loads.check_words import CAUTIONS, CHECKS
from ydrometer.loads.helps import helps
from ydrometer.loads.limits import LoadRows, limits
from ydrometer.loads.offers import Offer, offers
from ydrometer.loads.row_working import row_working
from ydrometer.loads.rows import DIMENSIONS, State, UseRow
from ydrometer.loads.summary import known
from ydrometer.loads.turning import Turn
from ydrometer.loads.warnings import Word, warnings
from ydrometer.loads.words import SHAFTS_OWN, part_title, sentence
from ydrometer.screens.day_shown import PhaseShown, phases_shown
from ydrometer.working import Working
from ydrometer.working.recipes import NoWorkingError

NEEDED = {
    "peak_current": ("peak current", "current"),
    "continuous_current": ("continuous current", "current"),
    "cutoff_voltage": ("voltage at which electronics drop out", "voltage"),
    "max_speed": ("fastest speed", "angular speed"),
    "width": ("width", "length"),
    "module": ("module", "length"),
    "pitch": ("pitch", "length"),
    "allowed_force_per_width": ("allowed force per width", "force per width"),
    "breaking_load": ("breaking load", "force"),
    "torque_rating": ("torque rating", "torque"),
    "sight": ("distance to stop in", "distance"),
    "mass": ("mass", "mass"),
}
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
    """A row as it is shown, see `loads.rows.UseRow`; `title` is its check in words, `part` what it is about, `offers`
    usual values, `caution` what to mind where it is near its limit or over it.
    """

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
    offers: list[Offer]
    caution: str


@dataclass(frozen=True, slots=True)
class LoadedPart:
    """Rows of one part, the largest use first; `state` is that of the first one; `mark` the largest use of the marked
    design, None without one.
    """

    title: str
    path: str
    state: State
    rows: list[LoadRow]
    mark: float | None


@dataclass(frozen=True, slots=True)
class JudgedTarget:
    """How a target stands that only Loads can judge: its number among the targets, its value, and that of the mark."""

    number: int
    value: float | None
    margin: float | None
    standing: Standing
    mark: float | None


@dataclass(frozen=True, slots=True)
class LoadsShown:
    """The station.

    Attributes:
        sentence, state: of the worst row. use: of it, None where nothing is known. parts: in the order of the line.
        words: what should not go unsaid about its ratings. day, heats: as described, or as assumed where
        `day_assumed`; `day_shown` draws them. left_out: phases that the design cannot do, and why. turn: on the spot,
        None where it cannot be asked. targets: that only Loads can judge. not_judged: shafts of which nothing can be
        said.
    """

    sentence: str
    state: State
    use: float | None
    parts: list[LoadedPart]
    words: list[Word]
    day: list[PhaseShown]
    heats: int
    day_assumed: bool
    left_out: list[str]
    turn: Turn | None
    targets: list[JudgedTarget]
    not_judged: list[str]


def loads_shown(document: Document, mark: Document | None = None) -> LoadsShown:
    """What Loads shows of one design.

    Args:
        document: as read.
        mark: another one, to compare with.
    """
    evaluation = evaluate([document, mark] if mark else [document])
    rows = limits(evaluation)
    marked = limits(evaluation, 1) if mark else None
    case, worst, design = rows.case, rows.worst, document.design
    said = design.loads or Loads()
    return LoadsShown(
        sentence=sentence(design, worst),
        state=worst.state if worst else "unknown",
        use=worst.use if worst else None,
        parts=_parts(design, rows, _marks(marked) if marked else {}),
        words=warnings(case),
        day=phases_shown(said.day),
        heats=case.heats.count,
        day_assumed=case.heats.assumed,
        left_out=[_left_out(fault) for fault in case.heats.left_out],
        turn=case.moments.turn,
        targets=_judged(evaluation, rows, marked),
        not_judged=[unjudged.path for unjudged in rows.not_judged],
    )


def _judged(evaluation: Evaluation, rows: LoadRows, marked: LoadRows | None) -> list[JudgedTarget]:
    values, before = known(rows), known(marked) if marked else NOTHING
    judged = []
    for number, target in enumerate(rows.case.design.targets):
        if target.measure in OF_LOADS:
            verdict = evaluation.judge(target, 0, values).verdict
            mark = before.get(target.measure)
            judged.append(JudgedTarget(number, verdict.value, verdict.margin, verdict.standing, mark))
    return judged


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
    rows, row = _found(document, wanted)
    if row is None:
        return []
    return [
        HelpShown(help_.text, [ChangeShown(path, json.dumps(value)) for path, value in help_.changes.items()])
        for help_ in helps(rows, row)
    ]


def working_shown(document: Document, wanted: RowWanted) -> Working:
    """The working of one row of a design.

    Args:
        document: as read.
        wanted: the row.

    Raises:
        NoWorkingError: there is no such row any more.
    """
    rows, row = _found(document, wanted)
    if row is None:
        raise NoWorkingError("the design has no such row any more", path=wanted.path)
    return row_working(rows.case, row)


def _found(document: Document, wanted: RowWanted) -> tuple[LoadRows, UseRow | None]:
    """All rows of a design, and the one that is wanted."""
    rows = limits(evaluate([document]))
    named = (wanted.check, wanted.path, wanted.member, wanted.moment)
    return rows, next((row for row in rows.rows if _name(row) == named), None)


def _name(row: UseRow) -> tuple[str, str, str, str]:
    return row.check, row.path, row.member or "", row.moment or ""


def _left_out(fault: Fault) -> str:
    number = int(fault.path.removeprefix("loads.day[").removesuffix("]")) + 1
    return f"block {number}, {fault.problem}"


PartKey = tuple[str, bool]
"""Tells parts apart: a path, and whether it is about the shaft there."""


def _grouped(rows: LoadRows) -> dict[PartKey, list[UseRow]]:
    groups: dict[PartKey, list[UseRow]] = {}
    for row in rows.rows:
        groups.setdefault((row.path, row.check in SHAFTS_OWN), []).append(row)
    return groups


def _marks(marked: LoadRows) -> dict[PartKey, float]:
    """The largest use of each part."""
    uses = {key: [row.use for row in rows if row.use is not None] for key, rows in _grouped(marked).items()}
    return {key: max(part_uses) for key, part_uses in uses.items() if part_uses}


def _parts(design: Design, rows: LoadRows, marks: Mapping[PartKey, float]) -> list[LoadedPart]:
    """Rows together that are about one part, in the order of the line: the source first."""
    groups = _grouped(rows)
    places = [shaft.path for shaft in rows.case.line.shafts]

    def place(key: PartKey) -> tuple[float, bool]:
        path, shaft = key
        if path == "drive.supply":
            return -1.0, shaft
        near = [i for i, other in enumerate(places) if path.startswith(other) or other == f"{path}.source"]
        return (near[0] if near else len(places)), shaft

    ordered = sorted(groups, key=place)
    return [_part(design, groups[key], marks.get(key)) for key in ordered]


def _part(design: Design, rows: Sequence[UseRow], mark: float | None) -> LoadedPart:
    shown = sorted((_row(design, row) for row in rows), key=lambda row: (-ORDER[row.state], -(row.use or 0.0)))
    first = rows[0]
    whole = UseRow(first.check, first.path, None, None, None, None, "", None, "unknown")
    title = part_title(design, whole)
    if first.check.startswith("controller"):
        title = "controller" if len(design.drive.branches) == 1 else f"controller, {first.path}"
    if first.path == "vehicle":
        title = "brakes" if len({row.check for row in rows}) == 1 else "brakes and axles"
    return LoadedPart(title, first.path, shown[0].state, shown, mark)


def _row(design: Design, row: UseRow) -> LoadRow:
    return LoadRow(
        check=row.check,
        title=CHECKS[row.check].title,
        part=part_title(design, row),
        path=row.path,
        member=row.member or "",
        moment=row.moment or "",
        demand=row.demand,
        capacity=row.capacity,
        dimension=DIMENSIONS[row.unit] if row.unit else "",
        use=row.use,
        state=row.state,
        assumed=list(row.assumed),
        needs=[need for path in row.needs for need in _needs(design, path)],
        remarks=list(row.remarks),
        marks=[MomentUse(moment, use) for moment, use in row.marks],
        offers=offers(design, row),
        caution=CAUTIONS.get(row.check, "") if row.state in {"near", "over"} else "",
    )


IN_FIT = {
    "tension": "tension at rest",
    "diameter": "diameter of the shaft",
    "tensile": "tensile strength of the shaft",
    "outside": "outside diameter of the bearing",
    "load_rating": "load rating of the bearing",
}
"""What is said in Fit, by the last key of its path, in words."""


def _needs(design: Design, path: str) -> list[Need]:
    base, _, key = path.rpartition(".")
    if path.startswith("fit."):
        return [Need(path, IN_FIT[key], "")]
    if key == "thermal":
        # The two that a maker's page has; the four of two nodes come from a test.
        return [Need(f"{base}.{name}", *NEEDED[name]) for name in ("mass", "continuous_current")]
    if key in NEEDED:
        return [Need(path, *NEEDED[key])]
    name, _, number = key.partition("[")
    if number:
        return [Need(path, f"{name.removesuffix('s').replace('_', ' ')} of step {int(number[:-1]) + 1}", "")]
    field = fields_of(design).get(path)
    return [Need(path, _lower(field.label), field.dimension) if field else Need(path, key.replace("_", " "), "")]


def _lower(label: str) -> str:
    return label[0].lower() + label[1:]


def fields_of(design: Design) -> dict[str, LabelledField]:
    """The fields that screens show of all parts of a design, by their paths."""
    drive = design.drive
    parts: list[tuple[str, object]] = [("drive.supply", drive.supply), *stages_with_paths(design)]
    for b, branch in enumerate(drive.branches):
        path = f"drive.branches[{b}]"
        controller = [] if isinstance(branch.source, Engine) else [(f"{path}.controller", Controller())]
        parts += [(path, branch), (f"{path}.source", branch.source), *controller]
    shown = ((path, field) for path, part in parts if part is not None for field in labelled_fields(type(part)))
    return {f"{path}.{field.key}": field for path, field in shown}
