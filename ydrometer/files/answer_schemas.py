"""The JSON Schemas of what `./ydro parts` and `./ydro build` print."""

from __future__ import annotations

from typing import Any

from ydrometer.base.quantities import Schema

_TEXT = {"type": "string"}
_TEXTS = {"type": "array", "items": _TEXT}
_SIZE = {"type": "number", "minimum": 0}
_MAYBE = {"type": ["number", "null"], "minimum": 0}
_COUNT = {"type": "integer", "minimum": 0}


def _object(**properties: Any) -> Schema:
    """An object with all of these keys and no other."""
    return {
        "type": "object",
        "properties": properties,
        "required": list(properties),
        "additionalProperties": False,
    }


def _document(title: str, format_: str, **properties: Any) -> Schema:
    body = _object(format={"const": format_}, version={"const": 1}, **properties)
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": title, **body}


def parts_list() -> Schema:
    """Of a parts list; lengths in m, masses in kg."""
    make = _object(what=_TEXT, **{"from": _MAYBE, "to": _MAYBE})
    line = _object(
        kind=_TEXT,
        words=_TEXT,
        which=_TEXT,
        number={"type": "integer", "minimum": 1},
        where=_TEXTS,
        bin={"type": ["string", "null"]},
        owned=_COUNT,
        to_buy=_COUNT,
        price=_MAYBE,
        mass=_MAYBE,
        lead_days=_SIZE,
        make={"type": "array", "items": make},
    )
    return _document(
        "Ydrometer parts list",
        "ydrometer-parts-list",
        lines={"type": "array", "items": line},
        price=_SIZE,
        mass=_SIZE,
        unknown_mass=_TEXTS,
        from_the_bin={"type": "boolean"},
    )


def build() -> Schema:
    """Of the steps of a build with their plan; waits in s, work in minutes."""
    step = _object(
        id=_TEXT,
        title=_TEXT,
        why=_TEXT,
        needs=_TEXTS,
        opens={"type": "array", "items": _object(id=_TEXT, words=_TEXT)},
        closes=_TEXTS,
        buries=_TEXTS,
        wait=_SIZE,
        parts=_TEXTS,
        tools=_TEXTS,
        minutes={"type": "number", "exclusiveMinimum": 0},
        record={"anyOf": [{"type": "null"}, _object(what=_TEXT, unit=_TEXT)]},
        cautions=_TEXTS,
        kind=_TEXT,
    )
    day = _object(date={"type": "string", "format": "date"}, minutes=_SIZE, steps=_TEXTS)
    due = _object(part=_TEXT, latest={"type": "string", "format": "date"})
    plan = _object(
        event=_TEXT,
        days={"type": "array", "items": day},
        orders={"type": "array", "items": due},
        late_by_days=_COUNT,
        critical=_TEXTS,
    )
    return _document(
        "Ydrometer build",
        "ydrometer-build",
        steps={"type": "array", "items": step},
        plan={"anyOf": [{"type": "null"}, plan]},
    )
