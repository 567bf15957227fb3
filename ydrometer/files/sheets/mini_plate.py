"""A plate in small as SVG for paper: its holes, the wheels on it as circles, and some of the holes lettered."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ydrometer.drawing.plan import PlanDrawing, PlateShape
from ydrometer.files.sheets.mini_line import EDGE, INK, THICK, circle

GRID = "#9AA8A6"
LETTER = 3.6
"""Radius of the ring around a letter, points."""


def mini_plate(plan: PlanDrawing, holes: Sequence[tuple[float, float]], letters: str, room: tuple[float, float]) -> str:
    """A plate as one SVG element.

    Args:
        plan: with a plate.
        holes: those that are lettered, x and y in m.
        letters: one for each.
        room: width and height that it may take, points.
    """
    wide, high = room
    scale = min((wide - 2 * EDGE) / (plan.right - plan.left), (high - 2 * EDGE) / (plan.top - plan.bottom))

    def at(x: float, y: float) -> tuple[float, float]:
        return EDGE + scale * (x - plan.left), high - EDGE - scale * (y - plan.bottom)

    grid = [] if plan.plate is None else [_dot(*at(*hole)) for hole in _grid(plan.plate)]
    wheels = [circle(*at(wheel.x, wheel.y), scale * wheel.pitch_radius, 1.0, INK, THICK) for wheel in plan.wheels]
    marks = [_lettered(*at(*hole), letter) for hole, letter in zip(holes, letters, strict=False)]
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:.0f}pt" height="{high:.0f}pt" '
        f'viewBox="0 0 {wide:.0f} {high:.0f}"><g fill="none">{"".join([*grid, *wheels, *marks])}</g></svg>'
    )


def _grid(plate: PlateShape) -> Iterator[tuple[float, float]]:
    for row in range(plate.up):
        for column in range(plate.across):
            yield column * plate.hole_pitch, row * plate.hole_pitch


def _dot(x: float, y: float) -> str:
    return circle(x, y, 0.8, 1.0, GRID, 0.5)


def _lettered(x: float, y: float, letter: str) -> str:
    text = f'<text x="{x:.2f}" y="{y + 1.9:.2f}" font-size="5.5" text-anchor="middle" fill="{INK}">{letter}</text>'
    return circle(x, y, LETTER, 1.0, INK, 0.6, "#FFFFFF") + text
