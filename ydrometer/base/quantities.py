"""Reading one quantity: a text with its unit, a bare number in SI, or an object that says how it was come by."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from ydrometer.base import units
from ydrometer.base.errors import QuantityError
from ydrometer.base.seen import UNBOUNDED, UNREADABLE, Bounds, Reading, Value, printable, shown

ORIGINS = ("given", "measured", "part", "assumed")


LONGEST_TEXT = 2000


Schema = dict[str, Any]
"""A JSON Schema, or a part of one."""


QUANTITY_FORMS = [{"$ref": "#/$defs/quantity"}]
"""What besides a bare number a quantity may be: a text with its unit, or an object that says more."""


def quantity_definition() -> Schema:
    """The part of the schema that all quantities share."""
    text = {"type": "string", "pattern": r"\d", "maxLength": units.LONGEST_TEXT}
    kept = {
        "value": {"anyOf": [text, {"type": "number"}]},
        "origin": {"enum": list(ORIGINS)},
        "note": {"type": "string", "maxLength": LONGEST_TEXT},
    }
    return {
        "anyOf": [text, {"type": "object", "properties": kept, "required": ["value"], "additionalProperties": False}]
    }


def read_quantity(raw: Any, path: str, reading: Reading, dimension: str, bounds: Bounds = UNBOUNDED) -> Any:
    """Read one quantity: a text, a bare SI number, or an object of value, origin and note."""
    origin, note = "given", ""
    if isinstance(raw, Mapping):
        raw, origin, note = _unwrap(raw, path, reading)
        if raw is UNREADABLE:
            return UNREADABLE
    try:
        value, uncertainty = units.parse_uncertain(raw, dimension)
    except QuantityError as error:
        return reading.fault(path, str(error), f"give {error.remedy}")
    wrong = _out_of_bounds(value, bounds)
    if wrong:
        return reading.fault(path, f"{shown(raw)} is out of range", f"give a value {wrong}")
    reading.values[path] = Value(value, dimension, origin, uncertainty, bounds, note)
    return value


def _unwrap(raw: Mapping[str, Any], path: str, reading: Reading) -> tuple[Any, str, str]:
    origin, note = raw.get("origin", "given"), raw.get("note", "")
    unreadable = (UNREADABLE, "given", "")
    before = reading.found
    for key in raw:
        if key not in ("value", "origin", "note"):
            reading.fault(f"{path}.{printable(key)}", "unknown key", "a quantity object has value, origin and note")
    if origin not in ORIGINS:
        reading.fault(f"{path}.origin", f"{shown(origin)} is no origin", "use one of " + ", ".join(ORIGINS))
    if not isinstance(note, str) or len(note) > LONGEST_TEXT:
        reading.fault(f"{path}.note", "not such a text", f"give a text of at most {LONGEST_TEXT} characters")
    if "value" not in raw:
        reading.fault(f"{path}.value", "missing", "give the quantity")
    elif isinstance(raw["value"], Mapping):
        reading.fault(f"{path}.value", "not a quantity", "give a text or a number")
    return unreadable if reading.found > before else (raw["value"], str(origin), note)


def _out_of_bounds(value: float, bounds: Bounds) -> str:
    above, least, most = bounds
    if value <= above:
        return f"above {above:g}"
    if value < least:
        return f"of at least {least:g}"
    if value > most:
        return f"of at most {most:g}"
    return ""
