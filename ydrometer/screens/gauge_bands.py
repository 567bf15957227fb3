"""How sure the gauges of a design are, in words."""

from __future__ import annotations

from collections.abc import Sequence
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
class Guess:
    """A value that was only assumed.

    Attributes:
        path, name: which. note: what it is typical of, where that is known.
        measure: the target in whose doubt it has the largest part, in words; share: that part.
    """

    path: str
    name: str
    note: str
    measure: str
    share: float


@dataclass(frozen=True, slots=True)
class Uncertainties:
    """The gauges in their order, the one sentence that matters most, and the assumed values, to be checked in order."""

    gauges: list[Uncertainty]
    first: str
    guesses: list[Guess]


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
        return Uncertainties([Uncertainty(t.measure, number, None, None, "", 0.0, "") for number, t in shown], "", [])
    bands = uncertainty.gauge_bands(sampled, [target for _, target in shown])
    gauges = [_uncertainty(document, number, target, band) for (number, target), band in zip(shown, bands, strict=True)]
    spoken = [gauge for gauge in gauges if gauge.target is not None and gauge.words] or [g for g in gauges if g.words]
    return Uncertainties(gauges, max(spoken, key=_width).words if spoken else "", _guesses(document, shown, bands))


def _uncertainty(document: Document, number: int | None, target: Target, band: Band) -> Uncertainty:
    path, share = max(band.spread_from.items(), key=lambda entry: entry[1], default=("", 0.0))
    words = ""
    if path:
        name = names.input_name(document.design, path)
        measure = names.measure_name(target.measure)
        words = f"Measure {name}: it makes {100.0 * share:.0f} % of the doubt in {measure}."
    return Uncertainty(target.measure, number, band.low, band.high, path, share, words)


def _width(of: Uncertainty | Band) -> float:
    """Width of a band relative to where it lies."""
    low, high = of.low or 0.0, of.high or 0.0
    return (high - low) / max(abs(low + high), 1e-12)


def _guesses(document: Document, shown: Sequence[tuple[int | None, Target]], bands: Sequence[Band]) -> list[Guess]:
    """The assumed values, first the one that moves a target most; without targets all gauges count."""
    targets = [entry for entry in zip(shown, bands, strict=True) if entry[0][0] is not None]
    counted = targets or list(zip(shown, bands, strict=True))
    guesses = []
    for path, value in document.values.items():
        if value.origin != "assumed":
            continue
        moved = [(_width(band) * band.spread_from.get(path, 0.0), target, band) for (_, target), band in counted]
        weight, target, band = max(moved, key=lambda entry: entry[0])
        share = band.spread_from.get(path, 0.0)
        name = names.input_name(document.design, path)
        guesses.append((weight, Guess(path, name, value.note, names.measure_name(target.measure), share)))
    return [guess for _, guess in sorted(guesses, key=lambda entry: -entry[0])]
