"""The sizes that a usual stage begins with, as typed."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ydrometer.document.stages.forms import Form, read_typed


def driven_for(form: Form, start: Mapping[str, Any], ratio: float) -> dict[str, Any]:
    """The driven wheel that makes a ratio with the driver of a usual stage, as typed."""
    driver, key = start[f"driver_{form.measure}"], f"driven_{form.measure}"
    if form.toothed:
        return {key: int(min(max(form.least, round(driver * ratio)), form.most))}
    size = min(max(form.least, (read_typed(driver, "length") or 0.0) * ratio), form.most)
    return {key: f"{1e3 * size:.4g} mm"}


def short_ratio(ratio: float) -> float | int:
    """A ratio as it is typed: in six digits, a whole number where it is one.

    Args:
        ratio: driver turns per driven turn.
    """
    short = float(f"{ratio:.6g}")
    return int(short) if short.is_integer() else short
