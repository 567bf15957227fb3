"""What Loads says of a design in short: the worst use, the hottest winding, and the sentence that matters."""

from __future__ import annotations

from dataclasses import dataclass
from typing import TYPE_CHECKING

from ydrometer.base.tables.measures import OF_LOADS
from ydrometer.evaluation.evaluate import NOTHING, Evaluation, Known
from ydrometer.loads.rows import State
from ydrometer.loads.words import sentence

if TYPE_CHECKING:
    from ydrometer.loads.limits import LoadRows


@dataclass(frozen=True, slots=True)
class InShort:
    """The worst row of a design.

    Attributes:
        state: of it, unknown where nothing is known. use: of it. words: the sentence that matters. known: values of the
        measures of Loads, as far as they are known.
    """

    state: State
    use: float | None
    words: str
    known: Known


def in_short(evaluation: Evaluation, index: int = 0) -> InShort:
    """The loads of one design in short.

    Args:
        evaluation: holds it.
        index: its place there.
    """
    rows = _limits(evaluation, index)
    worst = rows.worst
    state: State = worst.state if worst else "unknown"
    return InShort(state, worst.use if worst else None, sentence(rows.case.design, worst), known(rows))


def known(rows: LoadRows) -> Known:
    """Values of the measures of Loads."""
    hottest = [warmth.day.hottest_winding for warmth in rows.case.warmth.values()]
    return {
        "worst_use": rows.worst.use if rows.worst else None,
        "winding_temperature": max(hottest, default=None),
    }


def told_by_loads(evaluation: Evaluation, index: int = 0) -> Known:
    """The same where a target asks for one of them; nothing is worked out for one that does not."""
    targets = evaluation.documents[index].design.targets
    return known(_limits(evaluation, index)) if any(t.measure in OF_LOADS for t in targets) else NOTHING


def _limits(evaluation: Evaluation, index: int) -> LoadRows:
    from ydrometer.loads.limits import limits  # noqa: PLC0415  # a third of a command's start, and seldom asked for

    return limits(evaluation, index)
