"""Find the mistake: a sum that somebody worked out, with one usual mistake in it."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.practice.draw import Again, Draw
from ydrometer.practice.kinds import electrics, fits, measured, pushes, ratios, speeds, trains
from ydrometer.practice.posed import Choice, ChoiceAsked, Mistake, NumberAsked, Posed, known, number_of

WORKED: tuple[Callable[[Draw], Posed], ...] = (
    ratios.ratio,
    ratios.turns,
    trains.compound,
    trains.idler_changes,
    trains.idler_or_compound,
    measured.counted_held,
    measured.v_pulley,
    speeds.road_speed,
    speeds.roll_per_turn,
    pushes.wheel_torque,
    pushes.rim_force,
    electrics.sag,
    fits.centres,
)
OTHERS = 2
"""Mistakes that were not made, among the choices at level 1."""


def find_mistake(d: Draw) -> Posed:
    """Which mistake is in a worked sum, or what it should have come to."""
    posed = d.choice(WORKED)(d)
    assert isinstance(posed.ask, NumberAsked)
    mistake = d.choice(posed.mistakes)
    wrong = number_of(mistake.answer)
    words = f'{posed.words} Somebody worked it out and says: "{d.say(wrong, posed.ask.dimension)}."'
    said = {**posed.said, "worked": {"value": wrong, "unit": DIMENSIONS[posed.ask.dimension].si}, "made": mistake.name}
    if d.level > 1:
        mistakes = [Mistake(wrong, "mistake left in")]
        mistakes += [other for other in posed.mistakes if other is not mistake]
        return replace(
            posed,
            words=f"{words} There is a mistake in it. What should it be?",
            mistakes=known(tuple(mistakes)),
            said=said,
        )
    others = [other.name for other in posed.mistakes if other is not mistake]
    if not others:
        raise Again
    offered = d.some(others, min(OTHERS, len(others)))
    choices = tuple(Choice(name, name) for name in sorted([mistake.name, *offered]))
    mistakes = [Mistake(name, "another mistake seen") for name in offered]
    hints = (
        "Work it out yourself first.",
        "What would each of these mistakes have led to?",
        f"Right would be {d.say(number_of(posed.answer), posed.ask.dimension)}.",
    )
    return replace(
        posed,
        words=f"{words} Which mistake was made?",
        ask=ChoiceAsked(choices),
        answer=mistake.name,
        mistakes=known(tuple(mistakes)),
        hints=hints,
        said=said,
    )
