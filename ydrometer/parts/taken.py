"""Parts of the bin taken into a design, as typed."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any


def with_source(branch: Mapping[str, Any], part: Mapping[str, Any]) -> dict[str, Any]:
    """A branch, as typed, with a motor or an engine of the bin in the place of its source, and what that one brings.

    Args:
        branch: of a design document.
        part: a document of the bin, of kind motor or engine.
    """
    engine = part["kind"] == "engine"
    named = {"name": part["name"]} if part.get("name") and not part["source"].get("name") else {}
    # How warm it gets depends on what it weighs, which the bin knows as it does of any part.
    weighed = {"mass": part["mass"]} if part.get("mass") is not None else {}
    made = {**branch, "source": {**weighed, **part["source"], **named}}
    for key, keeps in (("controller", not engine), ("clutch", engine)):
        if part.get(key) is not None:
            made[key] = part[key]
        elif not keeps:
            made.pop(key, None)
    return made
