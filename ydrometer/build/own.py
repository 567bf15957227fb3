"""Steps of the builder's own between those made from the design."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from ydrometer.base import reading
from ydrometer.base.quantities import LONGEST_TEXT
from ydrometer.base.seen import Reading
from ydrometer.base.strict_json import refuse_unsafe
from ydrometer.build.order import in_order
from ydrometer.build.step import Step
from ydrometer.document.stages.assembly import DAY_S, Record

MOST_OWN = 60
KIND = "own"


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnStep:
    """A step somebody has written: what to do, after which step, how long it takes and what it waits for.

    Attributes:
        id: of its own. title. after: id of the step behind which it stands; the steps that need that one need it too.
        minutes. wait: s after it. record, unit: of what is measured, empty where nothing is.
    """

    id: str = reading.text(longest=80)
    title: str = reading.line(longest=LONGEST_TEXT)
    after: str = reading.text(longest=200)
    minutes: float = reading.quantity("time", above=0.0, at_most=10 * DAY_S, default=900.0)
    wait: float = reading.quantity("time", at_least=0.0, at_most=60 * DAY_S, default=0.0)
    record: str = reading.text(longest=200)
    unit: str = reading.text(longest=20)

    def faults(self) -> Any:
        """It says something, and has an id."""
        for key in ("id", "title"):
            if not getattr(self, key).strip():
                yield key, "empty", "give it some words"


@dataclass(frozen=True, slots=True, kw_only=True)
class OwnSteps:
    """All of a build's own steps."""

    steps: tuple[OwnStep, ...] = reading.items(reading.object_reader(OwnStep), most=MOST_OWN)


def read_own(raw: Any) -> tuple[OwnStep, ...]:
    """Own steps as they are kept and as templates hold them: {"steps": [...]}.

    Raises:
        DocumentError: with every fault at once.
    """
    refuse_unsafe(raw)
    seen = Reading()
    own_steps = reading.read_object(OwnSteps, raw, "", seen)
    return reading.finish(own_steps, seen).steps


def with_own(steps: Sequence[Step], own: Sequence[OwnStep]) -> list[Step]:
    """Steps with those of the builder between them.

    Args:
        steps: made from the design, in their order.
        own: one whose place the design does not have any more stands at the end.

    Returns:
        All in an order that can be followed; ids of the made ones stay.
    """
    woven = list(steps)
    for own_step in own:
        index = next((number for number, step in enumerate(woven) if step.id == own_step.after), len(woven) - 1)
        needs = (own_step.after,) if any(step.id == own_step.after for step in woven) else ()
        woven.insert(index + 1, _step(own_step, needs))
        behind = _behind(woven, own_step)
        woven = [replace(s, needs=(*s.needs, own_step.id)) if s.id in behind else s for s in woven]
    return in_order(woven)


def _behind(steps: Sequence[Step], own: OwnStep) -> set[str]:
    """Steps that need the one behind which an own step stands."""
    return {step.id for step in steps if own.after in step.needs and step.id != own.id}


def _step(own: OwnStep, needs: tuple[str, ...]) -> Step:
    record = Record(own.record, own.unit) if own.record else None
    return Step(
        id=own.id,
        title=own.title,
        kind=KIND,
        place="own",
        minutes=own.minutes / 60.0,
        needs=needs,
        wait=own.wait,
        record=record,
    )
