"""Gears lying side by side, to be picked from."""

from __future__ import annotations

from collections.abc import Sequence

from ydrometer.document.stages import forms
from ydrometer.drawing import wheels
from ydrometer.drawing.shapes import DrawnRow, LineDrawing
from ydrometer.drawing.wheels import Spot

MODULE = 1e-3
BETWEEN = 4.0 * MODULE
ANGLE = 0.349


def draw_bag(teeth: Sequence[int]) -> LineDrawing:
    """Gears of one module in a row on the bench, each standing on it; the path of each is its place: "bag[0]" …

    Args:
        teeth: of each.
    """
    drawn, x = [], 0.0
    for place, count in enumerate(teeth):
        radius = forms.GEAR.pitch_radius(MODULE, count) + MODULE
        x += radius
        spot = Spot(f"bag[{place}]", "gear", f"bag[{place}]", place, x, radius, 0)
        drawn.append(wheels.wheel(spot, forms.GEAR, MODULE, count, angle=ANGLE))
        x += radius + BETWEEN
    top = max(wheel.y + wheel.outer_radius for wheel in drawn)
    row = DrawnRow([], drawn, [], [], [], None, left=0.0, right=x - BETWEEN, bottom=0.0, top=top)
    return LineDrawing(rows=[row], units=1, sizes_assumed=[])
