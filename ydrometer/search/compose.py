"""A search request from a bin: what the layouts may choose comes in, what they leave to the design stays out."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document.stages import KINDS
from ydrometer.search.layout import EVERY, PAIRS
from ydrometer.search.plate import required

STAGE_PARTS = frozenset({pair.form.part for pair in PAIRS.values()} | {kind.whole_part for kind in KINDS.values()})
"""Kinds of parts that stages are made of."""
HEADS = {"sources": ("motor", "engine"), "supplies": ("battery", "panel"), "wheels": ("wheel",)}
"""What besides stages a layout may choose, and of which kinds of parts."""


def compose(raw: Mapping[str, Any], bin_parts: Sequence[Mapping[str, Any]]) -> dict[str, Any]:
    """The whole request.

    Args:
        raw: a request without parts. Its layouts name motors, supplies and wheels to choose from, or "*" for all
            of the bin; where they name none, the design keeps its own. `requires` asks for pairs that go on the
            design's plate, and for lengths at hand.
        bin_parts: documents of the bin's parts.

    Raises:
        DocumentError: some layouts choose what others leave to the design, which a request cannot say.
    """
    layouts = raw.get("layouts")
    chosen = [layout for layout in layouts if isinstance(layout, Mapping)] if isinstance(layouts, list) else []
    wanted = [part for part in bin_parts if part["kind"] in STAGE_PARTS]
    for key, kinds in HEADS.items():
        choices = [layout[key] for layout in chosen if key in layout]
        if choices and len(choices) != len(chosen):
            fault = Fault(f"layouts.{key}", "given in some layouts alone", "give it in all of them, or in none")
            raise DocumentError([fault])
        every = EVERY in choices
        ids = {entry for choice in choices if isinstance(choice, list) for entry in choice if isinstance(entry, str)}
        wanted += [part for part in bin_parts if part["kind"] in kinds and (every or part["id"] in ids)]
    return {**required(raw, bin_parts), "parts": wanted}
