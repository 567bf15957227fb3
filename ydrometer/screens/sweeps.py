"""The gauges at other sizes of the selected wheel."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ydrometer.document import design
from ydrometer.evaluation import sweep
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.readout import shown_targets
from ydrometer.evaluation.targets import Standing


@dataclass(frozen=True, slots=True)
class SweepValue:
    """A value of one gauge at one size."""

    value: float | None
    standing: Standing


@dataclass(frozen=True, slots=True)
class SweepColumn:
    """One size of the selected wheel: overall ratio, and the gauges in the readout's order; None where it cannot be."""

    size: float
    ratio: float | None
    values: list[SweepValue] | None


@dataclass(frozen=True, slots=True)
class Sweep:
    """The selected wheel in sizes below and above its own: in teeth, or as its diameter, m, where it has none.

    `place` is where the document has that.
    """

    path: str
    member: str
    place: str
    toothed: bool
    columns: list[SweepColumn]


def sweep_of(raw: dict[str, Any], path: str, member: str) -> Sweep:
    """The gauges of a design at other sizes of one wheel.

    Args:
        raw: a design document.
        path: of a stage.
        member: of it: "driver", "driven", "idler 1" ….

    Raises:
        DocumentError: `raw` has faults.
        PathError: there is no such wheel.
    """
    document = design.read(raw)
    tried = sweep.variants(document, path, member)
    evaluation = evaluate([made for _, made in tried if made is not None])
    shown = [target for _, target in shown_targets(document.design)]
    columns, index = [], 0
    for size, made in tried:
        if made is None:
            columns.append(SweepColumn(size, None, None))
            continue
        verdicts = [evaluation.judge(target, index).verdict for target in shown]
        values = [SweepValue(v.value, v.standing) for v in verdicts]
        columns.append(SweepColumn(size, evaluation.value("overall_ratio", index)[0], values))
        index += 1
    stage = sweep.stage_at(document.design, path)
    wheel = stage.member(member) if stage else None
    assert wheel is not None  # else there was nothing to sweep
    return Sweep(path, member, f"{path}.{wheel.key}", wheel.form.toothed, columns)
