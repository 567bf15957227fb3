"""Paths of a document, such as "drive.stages[1].driver_teeth": the keys along one, and what stands there."""

from __future__ import annotations

import re
from typing import Any

Keys = tuple[str | int, ...]
_KEY = re.compile(r"[^.\[\]]+")


def keys_of(path: str) -> Keys:
    """A path as the keys along it."""
    return tuple(int(key) if key.isdigit() else key for key in _KEY.findall(path))


def value_at(raw: Any, path: str) -> Any:
    """What stands at a path of a document as typed; None where nothing does."""
    for key in keys_of(path):
        try:
            raw = raw[key]
        except (KeyError, IndexError, TypeError):
            return None
    return raw


def put(raw: Any, path: str, value: Any) -> None:
    """Put a value at a path of a document; objects on the way are made."""
    *way, last = keys_of(path)
    for key in way:
        raw = raw[key] if isinstance(key, int) else raw.setdefault(key, {})
    raw[last] = value


def take_out(raw: Any, path: str) -> None:
    """Take out what stands at a path of a document, where something does."""
    *way, last = keys_of(path)
    for key in way:
        try:
            raw = raw[key]
        except (KeyError, IndexError, TypeError):
            return
    if isinstance(raw, dict):
        raw.pop(last, None)
