"""A design's `fit` section as typed, changed: about stages that stand elsewhere now, or with shafts in other places."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from typing import Any

_STAGE = re.compile(r"drive\.(?:branches\[\d+\]\.)?stages\[\d+\]")
_NAMING = ("shaft", "stage", "wheel")
"""Keys whose text begins with the path of a stage, or of a source."""


def renamed(fit: Mapping[str, Any], paths: Mapping[str, str]) -> dict[str, Any]:
    """The section with the paths of stages replaced, in shafts, loops, and wheels of stacks.

    Args:
        fit: as typed.
        paths: the new path of each stage by its old one.
    """

    def moved(value: Any) -> Any:
        if isinstance(value, Mapping):
            return {key: new_name(entry) if key in _NAMING else moved(entry) for key, entry in value.items()}
        return [moved(entry) for entry in value] if isinstance(value, list) else value

    def new_name(name: Any) -> Any:
        return _STAGE.sub(lambda match: paths.get(match[0], match[0]), name, count=1) if isinstance(name, str) else name

    changed: dict[str, Any] = moved(fit)
    return changed


def merged(
    entries: Sequence[Mapping[str, Any]], key: str, changes: Mapping[str, Mapping[str, Any]]
) -> list[dict[str, Any]]:
    """Entries of the section with changes to some of them; those that are not there come behind.

    Args:
        entries: its shafts or loops, as typed.
        key: by which they are told, "shaft" or "stage".
        changes: keys to be set, by what they are told by.
    """
    known = {entry[key] for entry in entries}
    changed = [{**entry, **changes.get(entry[key], {})} for entry in entries]
    return [*changed, *({key: path, **change} for path, change in changes.items() if path not in known)]
