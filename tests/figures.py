"""What benches and drills tell of many measured values."""

from __future__ import annotations

from collections.abc import Sequence


def percentile(values: Sequence[float], share: float) -> float:
    """The value below which this share of them lies, by nearest rank."""
    ranked = sorted(values)
    return ranked[min(len(ranked) - 1, int(share * len(ranked)))]
