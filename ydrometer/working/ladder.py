"""From the plain estimate to the full value, one effect at a time."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np

from ydrometer.document.design import Design
from ydrometer.evaluation import driveline
from ydrometer.evaluation.evaluate import Evaluation, Group
from ydrometer.motion import measures
from ydrometer.motion.measures import Wanted
from ydrometer.motion.plant import Batch
from ydrometer.working.sheet import InputPart

Effect = tuple[str, Callable[[Batch, int], None]]
NO_END = 1e9
"""Stands for grip without end."""


def _no_sag(batch: Batch, i: int) -> None:
    """A supply that holds its open-circuit voltage whatever is drawn."""
    piece = batch.law[i, 0]
    voltage = piece["s"] / piece["p"] if piece["p"] > 0.0 else piece["low"]
    batch.law[i] = [(1.0, 0.0, voltage, -math.inf)] + [(0.0, 0.0, 0.0, math.nan)] * (batch.law.shape[1] - 1)


def _no_idling(batch: Batch, i: int) -> None:
    batch.sources["no_load_current"][i] = 0.0


def _no_friction(batch: Batch, i: int) -> None:
    batch.sources["efficiency"][i] = 1.0
    batch.vehicle["trunk_efficiency"][i] = 1.0


def _no_rolling(batch: Batch, i: int) -> None:
    batch.vehicle["rolling"][i] = batch.vehicle["rolling_coefficient"][i] = 0.0


def _no_air(batch: Batch, i: int) -> None:
    batch.vehicle["air"][i] = 0.0


def _level(batch: Batch, i: int) -> None:
    row = batch.vehicle[i]
    over = np.hypot(row["weight"], row["grade"]) / row["weight"]
    fixed = row["rolling"] - row["rolling_coefficient"] * row["weight"]
    row["weight"] *= over
    row["rolling"] = row["rolling_coefficient"] * row["weight"] + np.where(row["rolling"] > 0.0, fixed, 0.0)
    row["grade"] = 0.0


def _no_slipping(batch: Batch, i: int) -> None:
    batch.vehicle["grip"][i] = NO_END
    batch.vehicle["lift"][i] = math.inf
    batch.vehicle["transfer"][i] = 0.0


EFFECTS: tuple[Effect, ...] = (
    ("the supply sags under load", _no_sag),
    ("motors take current to turn at all", _no_idling),
    ("rolling resistance", _no_rolling),
    ("drag of the air", _no_air),
    ("the slope", _level),
    ("friction in the stages", _no_friction),
    ("the tyres slip", _no_slipping),
)
SMALL = 1e-9
"""Relative change below which an effect is left out."""


def climb(
    evaluation: Evaluation, index: int, read: Callable[[Evaluation], Any]
) -> tuple[float | None, list[InputPart]]:
    """The plain estimate of a number, and the parts that lie between it and the full value, in turn.

    Args:
        evaluation: of designs.
        index: the place of the design.
        read: takes the number from an evaluation of one design.
    """
    design = evaluation.documents[index].design
    values = [read(_stripped(evaluation, index, design, EFFECTS[done:])) for done in range(len(EFFECTS) + 1)]
    parts = []
    for (words, _), before, after in zip(EFFECTS, values, values[1:], strict=False):
        change = None if before is None or after is None else after - before
        if before != after and (change is None or abs(change) > SMALL * max(abs(before), abs(after))):
            parts.append(InputPart(words, after, change))
    return values[0], parts


def _stripped(evaluation: Evaluation, index: int, design: Design, effects: tuple[Effect, ...]) -> Evaluation:
    """The design alone, without the given effects."""
    batch = driveline.assemble([design])
    for _, remove in effects:
        remove(batch, 0)
    run = (design.run.distance, design.run.speed, design.run.time)
    distance, speed, time = (np.array([[value or math.nan]]) for value in run)
    group = Group(batch, measures.measure(batch, Wanted(distance, speed, time)), {})
    return Evaluation((evaluation.documents[index],), (group,), ((0, 0),))
