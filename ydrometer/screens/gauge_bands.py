"""How sure the gauges of a design are, in words."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ydrometer.document import design, names
from ydrometer.document.design import Document
from ydrometer.document.target import Target
from ydrometer.evaluation import uncertainty
from ydrometer.evaluation.readout import shown_targets
from ydrometer.evaluation.uncertainty import Band, Together


@dataclass(frozen=True, slots=True)
class Uncertainty:
    """How sure the value of one gauge is: where it probably lies, and what would be worth measuring first.

    `path` and `share` are the input that makes most of the doubt; `words` say so. Empty where nothing has a spread.
    """

    measure: str
    target: int | None
    low: float | None
    high: float | None
    path: str
    share: float
    words: str


@dataclass(frozen=True, slots=True)
class Uncertainties:
    """The gauges in their order, and the one sentence that matters most."""

    gauges: list[Uncertainty]
    first: str


def uncertainties(raw: dict[str, Any], *, assumed: bool, together: Together | None = None) -> Uncertainties:
    """How sure the gauges of a design are.

    Args:
        raw: a design document.
        assumed: whether assumed values are sampled with their usual spreads.
        together: values that were fitted to the same runs.

    Raises:
        DocumentError: `raw` has faults.
    """
    document = design.read(raw)
    shown = shown_targets(document.design)
    sampled = uncertainty.sample(document, assumed=assumed, together=together)
    if sampled is None:
        return Uncertainties([Uncertainty(t.measure, number, None, None, "", 0.0, "") for number, t in shown], "")
    bands = uncertainty.gauge_bands(sampled, [target for _, target in shown])
    gauges = [_uncertainty(document, number, target, band) for (number, target), band in zip(shown, bands, strict=True)]
    told = [gauge for gauge in gauges if gauge.target is not None and gauge.words] or [g for g in gauges if g.words]
    return Uncertainties(gauges, max(told, key=_width).words if told else "")


def _uncertainty(document: Document, number: int | None, target: Target, band: Band) -> Uncertainty:
    path, share = max(band.spread_from.items(), key=lambda entry: entry[1], default=("", 0.0))
    words = ""
    if path:
        name = names.input_name(document.design, path)
        measure = names.measure_name(target.measure)
        words = f"Measure {name}: it makes {100.0 * share:.0f} % of the doubt in {measure}."
    return Uncertainty(target.measure, number, band.low, band.high, path, share, words)


def _width(of: Uncertainty) -> float:
    """Width of a band relative to where it lies."""
    low, high = of.low or 0.0, of.high or 0.0
    return (high - low) / max(abs(low + high), 1e-12)
