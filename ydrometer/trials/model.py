"""What the model says of all runs, and of all that is asked, for many sets of unknowns at once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any, Protocol

import numpy as np

from ydrometer.base.reckoning import Floats
from ydrometer.document.design import Document
from ydrometer.document.target import RUN_KEYS
from ydrometer.evaluation import driveline
from ydrometer.trials.case import Conditions, Stack, TrialCase
from ydrometer.trials.rows import AskedOf, TrialBlock, TrialRows
from ydrometer.trials.unknowns import Unknown, factors, sure_stages

STEP = 1e-3
"""Of a difference quotient, in standard deviations."""


class Question(Protocol):
    """Something that can be asked of a design with other losses."""

    @property
    def moving(self) -> bool:
        """Whether it is about the run."""

    def refers_to(self, key: str) -> tuple[float, ...]:
        """Distances, speeds or times of the run, SI."""

    def values(self, rows: TrialRows) -> Floats:
        """What the model says, SI, (n,)."""

    def zero(self, ambient: float) -> float:
        """What is taken off it before it is compared."""


@dataclass(frozen=True, slots=True)
class PosedQuestion:
    """A question with the design, the ground and the conditions that it is about."""

    question: Question
    design: str
    ground: str
    conditions: Conditions = field(default_factory=Conditions)


@dataclass(frozen=True, slots=True)
class _Group:
    """Questions, by their places, about one design on one ground under the same conditions."""

    design: str
    ground: str
    case: TrialCase
    places: list[int]


class _Stacked:
    """Groups that are worked out together."""

    def __init__(self, groups: list[_Group], posed: Sequence[PosedQuestion], *, moving: bool) -> None:
        self.groups, self.moving = groups, moving
        self.stack = Stack([group.case for group in groups])
        self.grounds = [(group.design, group.ground) for group in groups]
        self.asked = [_asked_of([posed[k].question for k in group.places]) for group in groups]

    def block(self, chosen: Sequence[Unknown], theta: Floats) -> TrialBlock:
        """The designs with n sets of unknowns."""
        laid = factors(chosen, theta, self.grounds, self.groups[0].case.branches)
        return TrialBlock(self.stack, laid, self.asked, moving=self.moving)


def as_designed(document: Document, asked: Sequence[tuple[Question, Conditions]]) -> tuple[Floats, Floats]:
    """What the model says of questions by themselves, and what is taken off that before it is compared.

    Args:
        document: the design.
        asked: q questions about it, each with the conditions under which it is asked.

    Returns:
        Values, SI, (q,), NaN where there is none; and what is taken off, (q,).
    """
    model = Model({"": document}, [PosedQuestion(question, "", "", conditions) for question, conditions in asked])
    return model.values([], np.zeros((1, 0)))[0], model.zeros


def _asked_of(questions: Sequence[Question]) -> AskedOf:
    """All distances, speeds and times that questions are about."""
    return AskedOf(
        *(tuple(sorted({at for question in questions for at in question.refers_to(key)})) for key in RUN_KEYS)
    )


class Model:
    """Values of posed questions; those of the same design under the same conditions are worked out together."""

    def __init__(self, designs: dict[str, Document], posed: Sequence[PosedQuestion]) -> None:
        """Group the questions.

        Args:
            designs: by name.
            posed: the questions, q of them.
        """
        self.posed = list(posed)
        groups: dict[tuple[str, str, Conditions], list[int]] = {}
        for k, question in enumerate(posed):
            groups.setdefault((question.design, question.ground, question.conditions), []).append(k)
        self.groups = [
            _Group(
                name, ground, TrialCase(conditions.applied(designs[name].design), sure_stages(designs[name])), places
            )
            for (name, ground, conditions), places in groups.items()
        ]
        alike: dict[Any, list[_Group]] = {}
        for group in self.groups:
            moving = any(self.posed[k].question.moving for k in group.places)
            alike.setdefault((moving, driveline.shape(group.case.design)), []).append(group)
        self.stacks = [_Stacked(groups, self.posed, moving=moving) for (moving, _), groups in alike.items()]
        self.zeros = np.zeros(len(self.posed))
        for group in self.groups:
            for k in group.places:
                self.zeros[k] = self.posed[k].question.zero(group.case.design.conditions.ambient)

    def values(self, chosen: Sequence[Unknown], theta: Floats) -> Floats:
        """SI, (n, q); NaN where one has no value, or none above what is taken off.

        Args:
            chosen: unknowns.
            theta: ln of their factors, (n, U).
        """
        answers = np.full((len(theta), len(self.posed)), np.nan)
        for stack in self.stacks:
            block = stack.block(chosen, theta)
            for g, group in enumerate(stack.groups):
                rows = block.rows(g)
                for k in group.places:
                    answers[:, k] = self.posed[k].question.values(rows)
        return np.where(answers - self.zeros > 0.0, answers, np.nan)

    def logs(self, chosen: Sequence[Unknown], theta: Floats) -> Floats:
        """ln of the values above what is taken off, (n, q)."""
        answers: Floats = np.log(self.values(chosen, theta) - self.zeros)
        return answers

    def slopes(self, chosen: Sequence[Unknown], theta: Floats, *, roughly: bool = False) -> tuple[Floats, Floats]:
        """ln of the values at one set of unknowns, (q,), and their slopes, (q, U), by difference quotients.

        Where one side has no value the other one serves; 0 where neither has.

        Args:
            chosen: unknowns.
            theta: (U,).
            roughly: to one side alone, as good as the way down needs it.
        """
        steps = STEP * np.array([unknown.sigma for unknown in chosen])
        sides = [theta + np.diag(steps)] if roughly else [theta + np.diag(steps), theta - np.diag(steps)]
        logs = self.logs(chosen, np.concatenate([[theta], *sides]))
        here, moved = logs[0], np.split(logs[1:], len(sides))
        quotients = [(side - here) / (sign * steps[:, None]) for side, sign in zip(moved, (1.0, -1.0), strict=False)]
        known = [np.isfinite(quotient) for quotient in quotients]
        total = sum(np.where(k, q, 0.0) for k, q in zip(known, quotients, strict=True))
        count = np.maximum(sum(k.astype(float) for k in known), 1.0)
        mean: Floats = total / count
        return here, mean.T
