"""Inspections after running: what was looked at, after how many hours, and what was found; and what is due next."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Any

from ydrometer.base import reading
from ydrometer.base.seen import Reading
from ydrometer.base.strict_json import refuse_unsafe
from ydrometer.build.progress import rechecks
from ydrometer.build.step import Step

FOUND = ("rubbed", "cracked", "loosened", "worn", "other")
FIRST_H = (5.0 / 60.0, 1.0)
"""Hours of running after which a new vehicle is looked over: what backs out or settles does so then."""
EACH_H = 5.0
"""Hours between looks from then on."""
MOST_FINDINGS = 60
LONGEST_H = 1e5


@dataclass(frozen=True, slots=True, kw_only=True)
class InspectionFinding:
    """Something found: where (a step's id), what kind of thing, in words, and the id of a photo, empty without one."""

    step: str = reading.text(longest=200)
    found: str = reading.choice(FOUND, default="other")
    words: str = reading.text(longest=1000)
    photo: str = reading.text(longest=40)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Something that is neither rubbed, cracked, loosened nor worn is said in words."""
        if self.found == "other" and not self.words.strip():
            yield "words", "empty", "say what was found"

    @property
    def sentence(self) -> str:
        """In a few words: "loosened: one screw of the motor"."""
        return self.words if self.found == "other" else f"{self.found}: {self.words}" if self.words else self.found


@dataclass(frozen=True, slots=True, kw_only=True)
class Inspection:
    """One inspection.

    Attributes:
        hours: of running so far, h. after: an event or a day, in words. looked: ids of steps whose settings were looked
        at, empty where all were. findings.
    """

    hours: float = reading.quantity("ratio", at_least=0.0, at_most=LONGEST_H, default=0.0)
    after: str = reading.text(longest=200)
    looked: tuple[str, ...] = reading.items(reading.text_reader(longest=200), most=200)
    findings: tuple[InspectionFinding, ...] = reading.items(
        reading.object_reader(InspectionFinding), most=MOST_FINDINGS
    )


def read_inspection(raw: Any) -> Inspection:
    """One inspection as it is kept.

    Raises:
        DocumentError: with every fault at once.
    """
    refuse_unsafe(raw)
    seen = Reading()
    inspection = reading.read_object(Inspection, raw, "", seen)
    return reading.finish(inspection, seen)


@dataclass(frozen=True, slots=True)
class Care:
    """Something that is looked at now and again.

    Attributes:
        step: that set it. words: what it is. last: hours of running at the last look, None where there was none.
        next: hours at which it is due. due: whether that has come.
    """

    step: str
    words: str
    last: float | None
    next: float
    due: bool


def cares(steps: Sequence[Step], hours: float, inspections: Sequence[Inspection]) -> list[Care]:
    """Everything that is looked at again, what is due first.

    Args:
        steps: of the design.
        hours: of running so far, h.
        inspections: in any order.
    """
    overdue = []
    for step, words in dict(rechecks(steps)[::-1]).items():
        looks = [inspection.hours for inspection in inspections if not inspection.looked or step in inspection.looked]
        last = max(looks, default=None)
        due = next_look(0.0 if last is None else last)
        overdue.append(Care(step, words, last, due, hours >= due))
    return sorted(overdue, key=lambda care: (care.next, care.step))


def next_look(last: float) -> float:
    """Hours of running at which something is due that was looked at last at `last` hours.

    Args:
        last: h, at least 0.
    """
    for first in FIRST_H:
        if last < first:
            return first
    return FIRST_H[-1] + EACH_H * (1.0 + int((last - FIRST_H[-1]) / EACH_H + 1e-9))
