"""The gauges at other sizes of what is selected: a wheel, the number of motors, the bin's motors, cells, the tyre."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.document.walk import stage_at
from ydrometer.evaluation import sweep
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.readout import shown_targets
from ydrometer.evaluation.targets import Standing
from ydrometer.screens import swept
from ydrometer.screens.swept import Tried


@dataclass(frozen=True, slots=True)
class SweepValue:
    """A value of one gauge at one size."""

    value: float | None
    standing: Standing


@dataclass(frozen=True, slots=True)
class SweepColumn:
    """One size of what is selected.

    Attributes:
        size: in teeth, pieces, or SI. words: what it is called where it is a part of the bin, empty of a plain size.
        changes: what makes the design one of this size, by path, as typed; nothing of the present one.
        ratio: overall. values: the gauges in the readout's order; both None where it cannot be.
    """

    size: float
    words: str
    changes: dict[str, Any]
    ratio: float | None
    values: list[SweepValue] | None


@dataclass(frozen=True, slots=True)
class SweepOf:
    """One thing that can be swept where something is selected: its key, and what it is called."""

    key: str
    words: str


@dataclass(frozen=True, slots=True)
class Sweep:
    """What is selected in sizes below and above its own.

    Attributes:
        path, member: what is selected. of: which of its `choices` is swept.
        words: what the sizes are, such as "driver, teeth". dimension: of a size, empty of a plain number.
        place: where the document has the size, empty where a size is more than one value.
        here: the present column's place.
    """

    path: str
    member: str
    of: str
    choices: list[SweepOf]
    words: str
    dimension: str
    place: str
    here: int
    columns: list[SweepColumn]


def sweep_of(
    raw: dict[str, Any], path: str, member: str, of: str = "", parts: Sequence[Mapping[str, Any]] = ()
) -> Sweep:
    """The gauges of a design at other sizes of what is selected.

    Args:
        raw: a design document.
        path: of a stage, of a source, "drive.supply", or "vehicle".
        member: of it: "driver", "driven", "idler 1" …, "motor", "supply", or "wheel".
        of: which of the things to sweep there; the first where it is not said.
        parts: documents of the bin, of which motors, engines and wheels are tried.

    Raises:
        DocumentError: `raw` has faults.
        PathError: there is nothing to sweep there.
    """
    document = design.read(raw)
    kinds = swept.kinds_at(raw, document, path, member, parts)
    if not kinds:
        return _wheel(raw, document, path, member)
    chosen = next((kind for kind in kinds if kind.key == of), kinds[0])
    variants = [_changed(raw, document, tried) for tried in chosen.tried]
    choices = [SweepOf(kind.key, kind.words) for kind in kinds]
    here = next(i for i, tried in enumerate(chosen.tried) if not tried.changes)
    return Sweep(
        path,
        member,
        chosen.key,
        choices,
        chosen.words,
        chosen.dimension,
        chosen.place,
        here,
        _columns(document, chosen.tried, variants),
    )


def _wheel(raw: dict[str, Any], document: Document, path: str, member: str) -> Sweep:
    variants = sweep.variants(document, path, member)
    stage = stage_at(document.design, path)
    wheel = stage.member(member) if stage else None
    assert wheel is not None  # else there was nothing to sweep
    place, toothed = f"{path}.{wheel.key}", wheel.form.toothed
    tried = [
        Tried(size, "", {} if size == wheel.measure else {place: int(size) if toothed else f"{size:.6g} m"})
        for size, _ in variants
    ]
    columns = _columns(document, tried, [document for _, document in variants])
    words, dimension = (f"{member}, teeth", "") if toothed else (member, "length")
    return Sweep(path, member, "wheel", [], words, dimension, place, sweep.SPAN, columns)


def _changed(raw: dict[str, Any], document: Document, tried: Tried) -> Document | None:
    """The design with the changes made; None where it is then none any more."""
    return swept.readable(raw, tried.changes) if tried.changes else document


def _columns(document: Document, tried: Sequence[Tried], variants: Sequence[Document | None]) -> list[SweepColumn]:
    evaluation = evaluate([variant for variant in variants if variant is not None])
    shown = [target for _, target in shown_targets(document.design)]
    columns, index = [], 0
    for value, variant in zip(tried, variants, strict=True):
        if variant is None:
            columns.append(SweepColumn(value.size, value.words, value.changes, None, None))
            continue
        verdicts = [evaluation.judge(target, index).verdict for target in shown]
        values = [SweepValue(v.value, v.standing) for v in verdicts]
        ratio = evaluation.value("overall_ratio", index)[0]
        columns.append(SweepColumn(value.size, value.words, value.changes, ratio, values))
        index += 1
    return columns
