"""Everything a screen shows of a design while it is being changed, from one batch of evaluations."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from ydrometer.base.errors import DocumentError
from ydrometer.base.tables.measures import TARGETABLE
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.document.target import Target
from ydrometer.drawing import UNFOLDED, LineDrawing, draw_line
from ydrometer.evaluation import curves, flow, ratios
from ydrometer.evaluation.curves import Characteristic, ForceCurve, RunCurve
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.evaluation.flow import Flow
from ydrometer.evaluation.messages import Message, messages
from ydrometer.evaluation.ratios import RatioView
from ydrometer.evaluation.readout import shown_targets
from ydrometer.evaluation.rotation import Rotation, rotation
from ydrometer.evaluation.targets import Standing
from ydrometer.fit.clash import Clash
from ydrometer.fit.clashes import all_clashes
from ydrometer.fit.setting_up import set_ups
from ydrometer.loads.turning import turn_remark


@dataclass(frozen=True, slots=True)
class Gauge:
    """One value of the readout, in SI.

    Attributes:
        measure: its name. dimension: its kind of quantity.
        at: the distance, speed or time it refers to, where it has one of its own.
        target: its number among the design's targets, None for a measure without one.
        lower, upper: bounds of the target. wanted: the bounds in words as typed.
        mark: the value of the marked design.
    """

    measure: str
    dimension: str
    at: float | None
    target: int | None
    value: float | None
    lower: float | None
    upper: float | None
    wanted: str
    margin: float | None
    standing: Standing
    mark: float | None


@dataclass(frozen=True, slots=True)
class Quantity:
    """A quantity of the document: its SI value, its kind, how it was come by, and its uncertainty (0 where none)."""

    path: str
    si: float
    dimension: str
    origin: str
    uncertainty: float


@dataclass(frozen=True, slots=True)
class View:
    """What is drawn of one design: its line and its curves."""

    name: str
    ratio: float
    line: LineDrawing
    force: ForceCurve
    run: RunCurve | None


@dataclass(frozen=True, slots=True)
class Live:
    """A design as the page shows it. `mark` is there where a marked design was given; `sources` are one a branch.

    `told` is what to ask about a ratio that somebody was told, empty where none was. `clashes` is what does not go
    together on the plate, None where nothing is said of mounting.
    """

    state: Literal["ok", "will not start"]
    held_by: str
    top_speed: float
    no_load_speed: float
    limited_by: str
    view: View
    mark: View | None
    gauges: list[Gauge]
    flows: list[Flow]
    ratios: list[RatioView]
    told: str
    rotation: Rotation
    sources: list[Characteristic]
    supply: Characteristic | None
    quantities: list[Quantity]
    assumed: list[str]
    messages: list[Message]
    clashes: list[Clash] | None


@dataclass(frozen=True, slots=True)
class Wish:
    """What of a design is being looked at.

    Attributes:
        selected: path of a stage and member of it ("driver", "driven", "idler 1" …).
        picked: a speed of the run at which the line is to be shown, m/s.
        longest: how many times as long as high a row of the drawing may be.
        told: a ratio that somebody was told for the selected stage.
    """

    selected: tuple[str, str] | None = None
    picked: float | None = None
    longest: float = UNFOLDED
    told: float | None = None


def look(raw: dict[str, Any], mark: dict[str, Any] | None = None, wish: Wish = Wish()) -> Live:
    """Evaluate a design and the marked one together.

    Args:
        raw: a design document.
        mark: another, to compare with.
        wish: what is selected and picked, and the room there is.

    Raises:
        DocumentError: `raw` has faults. A mark with faults is left out: it may be older than the design.
    """
    document = design.read(raw)
    marked = readable(mark)
    evaluation = evaluate([document, marked] if marked else [document])
    shown = shown_targets(document.design)
    gauges = [gauge(evaluation, number, target, 1 if marked else None) for number, target in shown]
    return Live(
        state="ok" if evaluation.starts(0) else "will not start",
        held_by=evaluation.held_by(0),
        top_speed=evaluation.value("top_speed", 0) or 0.0,
        no_load_speed=evaluation.value("no_load_speed", 0),
        limited_by=evaluation.value("limited_by", 0) or "",
        view=_view(evaluation, 0, wish.longest),
        mark=_view(evaluation, 1, wish.longest) if marked else None,
        gauges=gauges,
        flows=flow.flows(evaluation, picked=wish.picked),
        ratios=ratios.ratio_views(document.design),
        told=ratios.question(document.design, wish.selected[0], wish.told) if wish.told and wish.selected else "",
        rotation=rotation(document.design),
        sources=[curves.source_curve(document.design, b) for b in range(len(document.design.drive.branches))],
        supply=curves.supply_curve(document.design),
        quantities=[Quantity(path, v.si, v.dimension, v.origin, v.uncertainty) for path, v in document.values.items()],
        assumed=list(document.assumed),
        messages=[*messages(evaluation), *_turning(evaluation)],
        clashes=None if document.design.fit is None else all_clashes(set_ups(document.design)),
    )


def _turning(evaluation: Evaluation) -> Iterator[Message]:
    remark = turn_remark(evaluation)
    if remark:
        yield Message("note", "vehicle.track", remark)


def readable(mark: dict[str, Any] | None) -> Document | None:
    """A marked design; None without one, or of one with faults: it may be older than the design."""
    try:
        return design.read(mark) if mark is not None else None
    except DocumentError:
        return None


def _view(evaluation: Evaluation, index: int, longest: float) -> View:
    its_design = evaluation.documents[index].design
    return View(
        its_design.name,
        evaluation.value("overall_ratio", index)[0],
        draw_line(its_design, longest),
        curves.force_curve(evaluation, index),
        curves.run_curve(evaluation, index),
    )


def gauge(evaluation: Evaluation, number: int | None, target: Target, mark: int | None = None) -> Gauge:
    """How the first design stands to a target.

    Args:
        evaluation: of the design.
        number: of the target among the design's, None for a measure without one.
        target: what is wanted.
        mark: which design of the evaluation is the marked one.
    """
    verdict = evaluation.judge(target, 0).verdict
    return Gauge(
        measure=target.measure,
        dimension=TARGETABLE[target.measure].dimension,
        at=target.about(evaluation.documents[0].design.run),
        target=number,
        value=verdict.value,
        lower=target.lower,
        upper=target.upper,
        wanted=target.wanted,
        margin=verdict.margin,
        standing=verdict.standing,
        mark=evaluation.judge(target, mark).verdict.value if mark is not None else None,
    )
