"""An exercise as the command line prints it."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.practice.draw import LEVELS, VERSION
from ydrometer.practice.exercise import Exercise
from ydrometer.practice.kinds import KINDS
from ydrometer.practice.posed import Answer, Ask, NumberAsked, PicksAsked, WheelAsked

FORMAT = "ydrometer-exercise"


def report(exercise: Exercise) -> dict[str, Any]:
    """The whole exercise with its answer, as JSON has it."""
    posed, plate = exercise.posed, exercise.plate()
    return {
        "format": FORMAT,
        "version": VERSION,
        "kind": exercise.kind,
        "idea": exercise.idea,
        "level": exercise.level,
        "seed": exercise.seed,
        "units": exercise.units,
        "words": posed.words,
        "given": given(exercise),
        "drawing": asdict(exercise.drawing()),
        **({} if plate is None else {"plate": asdict(plate)}),
        "ask": ask_json(posed.ask),
        "answer": answered(posed.ask, posed.answer),
        "mistakes": [
            {"answer": answered(posed.ask, mistake.answer), "name": mistake.name} for mistake in posed.mistakes
        ],
        "hints": list(posed.hints),
        "working": asdict(exercise.working()),
    }


def kinds() -> dict[str, Any]:
    """All kinds there are, in the order in which they are taught."""
    return {"kinds": [{"kind": kind.name, "idea": kind.idea, "levels": list(LEVELS)} for kind in KINDS.values()]}


def given(exercise: Exercise) -> dict[str, Any]:
    """What the question tells: numbers by symbol, and the rest as it is."""
    numbers = {
        given_input.symbol: {
            "words": given_input.words,
            "value": given_input.value,
            "unit": DIMENSIONS[given_input.dimension].si,
        }
        for given_input in exercise.posed.sheet.inputs
        if given_input.origin == "given"
    }
    return {**numbers, **exercise.posed.said}


def ask_json(ask: Ask) -> dict[str, Any]:
    """What kind of answer is asked for."""
    if isinstance(ask, NumberAsked):
        return {"kind": "number", "dimension": ask.dimension, "unit": ask.unit}
    if isinstance(ask, PicksAsked):
        return {"kind": "picks", "places": list(ask.places), "bag": list(ask.bag)}
    choices = [asdict(choice) for choice in ask.choices]
    if isinstance(ask, WheelAsked):
        return {"kind": "wheel", "choices": choices}
    if ask.around:
        return {"kind": "arrow", "choices": choices, "around": ask.around}
    return {"kind": "choice", "choices": choices}


def answered(ask: Ask, answer: Answer) -> dict[str, Any]:
    """An answer, or what a mistake leads to."""
    if isinstance(answer, tuple):
        return {"wheels": list(answer)}
    if isinstance(ask, NumberAsked):
        return {"value": answer, "unit": DIMENSIONS[ask.dimension].si}
    return {"wheel" if isinstance(ask, WheelAsked) else "choice": answer}
