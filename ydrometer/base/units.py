"""Quantities as people type them, and as SI numbers: the only place where units are converted.

A quantity is a number and a unit in one text ("12.5 kg", "3 1/4 in", "14.8V", "35 oz·in", "8 %")
or a bare number, which is SI. The names and factors of units come from pint; this module keeps
the grammar small (factors joined by * and /, one-digit exponents), so that text from strangers
costs microseconds and never reaches a general expression parser.
"""

from __future__ import annotations

import math
import re
from functools import cache, lru_cache
from typing import TYPE_CHECKING

import numpy as np

from ydrometer.base.errors import QuantityError
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.base.tables.usual_units import USUAL

if TYPE_CHECKING:
    import pint

STANDARD_GRAVITY = 9.80665
"""m/s², by definition (ISO 80000-3)."""
RPM = 60.0 / (2.0 * math.pi)
"""Revolutions per minute in one rad/s."""

LONGEST_TEXT = 200
"""Characters of a quantity, at most; looked at before anything else, since the text comes from strangers."""
SMALLEST, LARGEST = 1e-300, 1e300
"""What a number may be in SI: what is nearer to 0 is 0, since a computer no longer divides by it; what is larger is
refused."""
# Every run is possessive ("++"): what it has taken it never gives back, so a text is gone through once.
_NUMBER = re.compile(
    r"""\s*+(?P<sign>[-+−]?)\s*+
    (?: (?P<whole>\d++)[\s-]++(?P<over>\d++)/(?P<under>\d++)   # 3 1/4
      | (?P<top>\d++)/(?P<bottom>\d++)                         # 7/8
      | (?P<decimal>(?:\d++(?:\.\d*+|,(?!\d{3}(?!\d))\d++)?|[.,]\d++)(?:[eE][-+−]?\d++)?)   # 1,200 is ambiguous
    )(?P<unit>.*)""",
    re.VERBOSE | re.DOTALL,
)
_FACTOR = re.compile(r"([^\W\d_]++|1)(?:\^?(-?\d))?")
_PIECE = re.compile(r"[*/]|[^\s*/]++")

# Names people write that pint reads as something else, or not at all.
_SPELLINGS = {
    "Nm": "N*m",
    "Ncm": "N*cm",
    "ozin": "ozf*in",
    "inlb": "lbf*in",
    "ftlb": "lbf*ft",
    '"': "in",
    "″": "in",
    "Ω": "ohm",
    "mΩ": "mohm",
    "°": "deg",
    "°C": "degC",
    "°F": "degF",
    "sec": "s",
    "l/in": "1/in",
}


@cache
def _registry() -> pint.UnitRegistry[float]:
    """The units library's own tables; read from its cache, a command starts half a second sooner."""
    import pint  # noqa: PLC0415  # a quarter of a second, and seldom needed

    try:
        return pint.UnitRegistry(cache_folder=":auto:")
    except OSError:  # nowhere to keep a cache
        return pint.UnitRegistry()


def parse(text: str | float, dimension: str) -> float:
    """SI value of a quantity.

    Args:
        text: a number with its unit, or a bare number, which is taken as SI. A text without a
            unit is taken only for dimensionless kinds. In force and torque, units of mass stand
            for their weight under standard gravity, as spring scales are marked ("12 kg" of pull).
        dimension: a key of `tables.dimensions.DIMENSIONS`.

    Raises:
        QuantityError: not a quantity, not of this dimension, or not finite.
    """
    if isinstance(text, bool) or not isinstance(text, str | int | float):
        raise QuantityError(f"{_shown(text)} is not a quantity", _wanted(dimension))
    if isinstance(text, str):
        return _parse_text(_of_bounded_length(text, dimension), dimension)
    try:
        value = float(text)
    except OverflowError:
        value = math.inf
    return _of_a_size(value, text, dimension)


def parse_uncertain(text: str | float, dimension: str) -> tuple[float, float]:
    """SI value and spread (one standard deviation, 0 where none is given) of a quantity.

    Args:
        text: as for `parse`; the spread after "+/-" or "±", in a unit of its own, in the unit of the value
            ("14.2 +/- 0.2 kg"), or as a share of it ("14.2 kg +/- 2 %").
        dimension: as for `parse`.

    Raises:
        QuantityError: not a quantity, or a spread that is negative or not of this dimension.
    """
    if not isinstance(text, str) or ("±" not in text and "+/-" not in text):
        return parse(text, dimension), 0.0
    value_text, _, spread_text = _of_bounded_length(text, dimension).replace("+/-", "±").partition("±")
    unit = _unit_of(spread_text)
    if unit and not _unit_of(value_text):
        value_text = f"{value_text} {unit}"
    value = parse(value_text, dimension)
    if unit == "%" and DIMENSIONS[dimension].si:
        return value, abs(value) * _spread(parse(spread_text, "ratio"), text)
    if not unit:
        spread_text = f"{spread_text} {_unit_of(value_text)}"
    zero = parse(f"0 {_unit_of(spread_text)}", dimension) if dimension == "temperature" else 0.0
    return value, _spread(parse(spread_text, dimension) - zero, text)


def _of_bounded_length(text: str, dimension: str) -> str:
    if len(text) > LONGEST_TEXT:
        raise QuantityError(f"{_shown(text)} is too long: {len(text)} characters", _wanted(dimension))
    return text


def _unit_of(text: str) -> str:
    match = _NUMBER.fullmatch(text)
    return match["unit"].strip() if match else ""


def _spread(size: float, text: str) -> float:
    if size < 0.0:
        raise QuantityError(f"the spread of {_shown(text)} is negative", "a spread of 0 or more after +/-")
    return size


@lru_cache(maxsize=4096)
def _parse_text(text: str, dimension: str) -> float:
    match = _NUMBER.fullmatch(text)
    if match is None:
        raise QuantityError(f"{_shown(text)} is not a number with a unit", _wanted(dimension))
    unit = match["unit"].strip()
    if not unit and DIMENSIONS[dimension].si:
        raise QuantityError(f"{_shown(text)} has no unit", _wanted(dimension))
    number = _number(match, text, dimension)
    factor, offset = scale(unit, dimension)
    value = number * factor + offset
    return _of_a_size(value, text, dimension)


def _of_a_size(value: float, text: str | float, dimension: str) -> float:
    if not math.isfinite(value):
        raise QuantityError(f"{_shown(text)} is not a finite number", _wanted(dimension))
    if abs(value) > LARGEST:
        raise QuantityError(f"{_shown(text)} is beyond all sizes", _wanted(dimension))
    return value if abs(value) >= SMALLEST else 0.0


def _number(match: re.Match[str], text: str, dimension: str) -> float:
    try:
        if match["decimal"]:
            size = float(match["decimal"].replace(",", ".").replace("−", "-"))
        elif match["whole"]:
            size = int(match["whole"]) + int(match["over"]) / int(match["under"])
        else:
            size = int(match["top"]) / int(match["bottom"])
    except (ZeroDivisionError, OverflowError):
        raise QuantityError(f"{_shown(text)} is not a finite number", _wanted(dimension)) from None
    return -size if match["sign"] in ("-", "−") else size


def symbol(unit: str) -> str:
    """A unit as people write it: "N·m", "m²", "mΩ"."""
    plain = unit.replace("*", "·").replace("^2", "²").replace("^3", "³")
    return (
        plain.replace("mohm", "mΩ").replace("ohm", "Ω").replace("degC", "°C").replace("degF", "°F").replace("deg", "°")
    )


def digits(value: float, count: int = 3) -> str:
    """A number with so many significant digits, never with an exponent."""
    return np.format_float_positional(value, precision=count, fractional=False, trim="-")


@lru_cache(maxsize=1024)
def scale(unit: str, dimension: str) -> tuple[float, float]:
    """Factor and offset that turn a number in `unit` into SI: si = number·factor + offset.

    Raises:
        QuantityError: no such unit, or one of another dimension.
    """
    if unit == DIMENSIONS[dimension].si:
        return 1.0, 0.0
    return USUAL.get(dimension, {}).get(unit) or library_scale(unit, dimension)


def library_scale(unit: str, dimension: str) -> tuple[float, float]:
    """The same for any unit that the units library knows.

    Raises:
        QuantityError: as for `scale`.
    """
    import pint  # noqa: PLC0415

    try:
        given = _pint_unit(unit)
        target = _pint_unit(DIMENSIONS[dimension].si)
        if dimension == "temperature":
            zero, at_one = (_registry().Quantity(n, given).to(target).magnitude for n in (0.0, 1.0))
            return float(at_one - zero), float(zero)
        return _factor(given, target, dimension), 0.0
    except (pint.PintError, ArithmeticError, ValueError, IndexError):
        raise QuantityError(f"{_shown(unit)} is not a unit of {dimension}", _wanted(dimension)) from None


def _factor(given: pint.Unit, target: pint.Unit, dimension: str) -> float:
    if dimension in ("force", "torque") and given.dimensionality != target.dimensionality:
        weight = _registry().Unit("kg") * target / _registry().Unit("N")
        return _factor(given, weight, "mass") * STANDARD_GRAVITY
    return float(_registry().Quantity(1.0, given).to(target).magnitude)


def _pint_unit(text: str) -> pint.Unit:
    """The unit written as factors joined by * (or ·, or a space) and /."""
    registry = _registry()
    result = registry.Unit("")
    for divide, name in _factors(text):
        match = _FACTOR.fullmatch(name)
        if match is None:
            raise ValueError(name)
        power = int(match[2] or 1)
        result = result * _named(match[1]) ** (-power if divide else power)
    return result


def _named(name: str) -> pint.Unit:
    """One unit by its name or symbol, with or without a prefix."""
    import pint  # noqa: PLC0415

    registry = _registry()
    if name == "1":
        return registry.Unit("")
    prefix, unit, _ = registry.parse_unit_name(name)[0]
    return registry.Unit(pint.util.UnitsContainer({prefix + unit: 1}))


def _factors(text: str) -> list[tuple[bool, str]]:
    plain = text.replace("²", "^2").replace("³", "^3").replace("**", "^").replace("·", "*").replace("⋅", "*")
    plain = plain.replace("%", "percent")
    for spelling, meaning in _SPELLINGS.items():
        if plain == spelling:
            plain = meaning
    pieces = _PIECE.findall(plain)
    factors: list[tuple[bool, str]] = []
    divide = False
    for piece in pieces:
        if piece in ("*", "/"):
            divide = piece == "/"
        else:
            factors.append((divide, _SPELLINGS.get(piece, piece)))
            divide = False
    return factors


def _shown(value: object) -> str:
    text = value if isinstance(value, str) else repr(value)
    return f'"{text[:37]}..."' if len(text) > 40 else f'"{text}"'


def _wanted(dimension: str) -> str:
    article = "an" if dimension[0] in "aei" else "a"
    return f"{article} {dimension} such as {DIMENSIONS[dimension].example}"
