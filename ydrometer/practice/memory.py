"""What a learner has of each idea, and what comes next: what is shaky, and what has not been seen for long."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any, Literal

from fsrs import Card, Rating, Scheduler

from ydrometer.practice.draw import LEVELS
from ydrometer.practice.kinds import IDEAS

Went = Literal["missed", "with help", "well"]
"""How an exercise went: given up or several times wrong, right after a mistake or a hint, or right at once."""
Grasp = Literal["new", "shaky", "sure"]
RATINGS: dict[Went, Rating] = {"missed": Rating.Again, "with help": Rating.Hard, "well": Rating.Good}
UP = 2
"""Times well in a row after which the next level comes."""
SURE = 0.9
"""Chance of still having an idea at or above which it is sure."""
# Without chance in it: the same answers lead to the same days. One repeat on the same day, then days.
_SCHEDULER = Scheduler(learning_steps=(timedelta(minutes=10),), enable_fuzzing=False)


@dataclass(frozen=True, slots=True)
class Memory:
    """What somebody has of one idea.

    Attributes:
        card: the scheduler's own record, as JSON has it. level: that comes next. well: times well in a row at it.
        right, wrong: counts of exercises. last: how the last one went.
    """

    card: dict[str, Any]
    level: int = LEVELS[0]
    well: int = 0
    right: int = 0
    wrong: int = 0
    last: Went = "missed"


def after(memory: Memory | None, went: Went, now: datetime) -> Memory:
    """What somebody has of an idea after one more exercise.

    Args:
        memory: before it, None of an idea that is new.
        went: how it went.
        now: with its zone.
    """
    old = memory or Memory(card=dict(Card(card_id=1, due=now).to_dict()))
    card, _ = _SCHEDULER.review_card(Card.from_dict(old.card), RATINGS[went], now)
    well = old.well + 1 if went == "well" else 0
    level = old.level
    if well == UP:
        level, well = min(level + 1, LEVELS[-1]), 0
    elif went == old.last == "missed" and memory is not None:
        level = max(level - 1, LEVELS[0])
    missed = went == "missed"
    counts = {"right": old.right + (not missed), "wrong": old.wrong + missed}
    return replace(old, card=dict(card.to_dict()), level=level, well=well, last=went, **counts)


def recalled(memory: Memory, now: datetime) -> float:
    """Chance of still having it, 0 to 1, by the scheduler's forgetting curve."""
    return float(_SCHEDULER.get_card_retrievability(Card.from_dict(memory.card), now))


def grasp(memory: Memory | None, now: datetime) -> Grasp:
    """In a word: new, shaky or sure."""
    if memory is None:
        return "new"
    return "sure" if memory.last == "well" and recalled(memory, now) >= SURE else "shaky"


def next_idea(known: Mapping[str, Memory], now: datetime) -> str:
    """The idea that comes next: what was missed and is due, then what is new in its order, then what is shakiest.

    Args:
        known: what is had of ideas, by name; those that are new are left out.
        now: with its zone.
    """
    due = [idea for idea in IDEAS if idea in known and Card.from_dict(known[idea].card).due <= now]
    if due:
        return min(due, key=lambda idea: recalled(known[idea], now))
    return next((idea for idea in IDEAS if idea not in known), min(IDEAS, key=lambda idea: _chance(known, idea, now)))


def _chance(known: Mapping[str, Memory], idea: str, now: datetime) -> float:
    return recalled(known[idea], now) if idea in known else 0.0
