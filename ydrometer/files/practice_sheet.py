"""A set of exercises on paper: questions with drawings, and the answers with their working on pages of their own."""

from __future__ import annotations

import html
import re
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from ydrometer.base import units
from ydrometer.files.booklet import faces
from ydrometer.files.sheets.mini_line import mini_line
from ydrometer.files.sheets.mini_plate import mini_plate
from ydrometer.practice import Exercise
from ydrometer.practice.draw import said
from ydrometer.practice.posed import ChoiceAsked, NumberAsked, PicksAsked, WheelAsked
from ydrometer.screens.practised import exercise_shown, solved
from ydrometer.working.sheet import Step

DRAWING = (230.0, 84.0)
"""Room of a drawing, points."""
LETTERS = "abcdefgh"
STYLE = """
@page { size: A4; margin: 15mm 16mm 16mm;
  @bottom-left { content: string(set); font: 8.5pt Bench, sans-serif; color: #55666A }
  @bottom-right { content: "page " counter(page) " of " counter(pages);
    font: 8.5pt Bench, sans-serif; color: #55666A } }
body { font-family: Bench, sans-serif; font-size: 11pt; line-height: 1.35; color: #1B292C; margin: 0 }
.set { string-set: set content(); position: absolute; visibility: hidden }
h1 { font-size: 20pt; margin: 0 0 1mm } .quiet { color: #55666A }
.name { border-bottom: 0.8pt solid #1B292C; width: 70mm; display: inline-block }
.one { border-top: 0.5pt solid #D3DAD4; padding: 3mm 0 2mm; break-inside: avoid }
.one h2 { font-size: 11pt; margin: 0 0 1mm } .room { border-bottom: 0.8pt solid #1B292C; height: 11mm }
ol { margin: 1mm 0; padding-left: 6mm; list-style: lower-alpha } .answers { break-before: page }
.figure { font-family: BenchMono, monospace } table { border-collapse: collapse } td { padding: 0.3mm 4mm 0.3mm 0 }
"""


def practice_sheet(name: str, exercises: Sequence[Exercise], fonts: Path) -> bytes:
    """The set as PDF.

    Args:
        name: of the set.
        exercises: in their order.
        fonts: folder with the faces that ship with the page.
    """
    from weasyprint import CSS, HTML  # noqa: PLC0415  # a second that nothing else needs
    from weasyprint.text.fonts import FontConfiguration  # noqa: PLC0415

    config: FontConfiguration = FontConfiguration()
    style = CSS(string=faces(fonts) + STYLE, font_config=config)
    pdf: Any = HTML(string=f"<body>{sheet_html(name, exercises)}</body>").write_pdf(
        stylesheets=[style], font_config=config
    )
    return bytes(pdf)


def sheet_html(name: str, exercises: Sequence[Exercise]) -> str:
    """The same as it is set: without styles."""
    title = html.escape(name)
    questions = "".join(_question(k, exercise) for k, exercise in enumerate(exercises, 1))
    answers = "".join(_answer(k, exercise) for k, exercise in enumerate(exercises, 1))
    return (
        f'<span class="set">{title}</span><h1>{title}</h1><div>Name <span class="name">&nbsp;</span></div>{questions}'
        f'<div class="answers"><h1>Answers</h1><div class="quiet">{title}</div>{answers}</div>'
    )


def _question(number: int, exercise: Exercise) -> str:
    posed = exercise.posed
    picture = _picture(exercise)
    choices = ""
    if isinstance(posed.ask, ChoiceAsked | WheelAsked):
        choices = "<ol>" + "".join(f"<li>{html.escape(choice.words)}</li>" for choice in posed.ask.choices) + "</ol>"
    elif isinstance(posed.ask, PicksAsked):
        choices = '<div class="quiet">' + ", ".join(f"{place}: ____" for place in posed.ask.places) + "</div>"
    unit = f" ({units.symbol(posed.ask.unit)})" if isinstance(posed.ask, NumberAsked) and posed.ask.unit else ""
    head = f"{number}. {html.escape(exercise.idea)}, level {exercise.level}{unit}"
    room = "" if choices else '<div class="room"></div>'
    return f'<div class="one"><h2>{head}</h2><div>{html.escape(posed.words)}</div>{picture}{choices}{room}</div>'


def _picture(exercise: Exercise) -> str:
    shown = exercise_shown(exercise)
    if shown.plate is None:
        return mini_line(shown.drawing, lambda path, member: False, DRAWING)
    holes = [(choice.hole.x, choice.hole.y) for choice in shown.ask.choices if choice.hole is not None]
    return mini_plate(shown.plate, holes, LETTERS, DRAWING)


def _answer(number: int, exercise: Exercise) -> str:
    solution, posed = solved(exercise), exercise.posed
    letter = ""
    if isinstance(posed.ask, ChoiceAsked | WheelAsked):
        keys = [choice.key for choice in posed.ask.choices]
        letter = f"{LETTERS[keys.index(str(posed.answer))]}: "
    lines = "".join(_line(step, exercise) for step in solution.working.steps)
    return (
        f'<div class="one"><h2>{number}. {letter}{html.escape(solution.words)}</h2><div class="quiet">'
        f"{html.escape(posed.formula)}</div><table>{lines}</table></div>"
    )


def _line(step: Step, exercise: Exercise) -> str:
    sum_ = f"{_signs(step.symbol)} = {_signs(step.expression)}"
    value = said(step.value, step.dimension, exercise.units)
    return f'<tr><td>{html.escape(step.words)}</td><td class="figure">{sum_}</td><td class="figure">{value}</td></tr>'


def _signs(expression: str) -> str:
    """An expression as people write it."""
    plain = expression.replace("3.141592653589793", "π").replace("*", " · ").replace("/", " / ")
    named = re.sub(r"\bmu\b", "μ", re.sub(r"\bsqrt\b", "√", plain))
    return re.sub(r"_(\w+)", r"<sub>\1</sub>", html.escape(named))
