"""The core's dataclasses as plain data for the JSON renderer."""

from __future__ import annotations

from dataclasses import fields, is_dataclass
from typing import Any


def plain(value: Any) -> Any:
    """Dataclasses as dicts, all the way down. Lists of bare numbers, the bulk of it, are passed on as they are."""
    if isinstance(value, list | tuple):
        return [plain(entry) for entry in value] if value and not isinstance(value[0], float | int) else value
    if is_dataclass(value) and not isinstance(value, type):
        return {field.name: plain(getattr(value, field.name)) for field in fields(value)}
    return value
