"""Reading one part, or all of a bin, with every fault."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from ydrometer.base.reading import kind_reader
from ydrometer.base.seen import Reading
from ydrometer.base.strict_json import refuse_unsafe
from ydrometer.parts.kinds import KINDS
from ydrometer.parts.part import Part

_READ = kind_reader(KINDS)


def read_part(raw: Any) -> Part:
    """One part as it stands in a bin or a search request.

    Raises:
        DocumentError: with every fault; paths begin at the part.
    """
    refuse_unsafe(raw)
    seen = Reading()
    made = _READ(raw, "", seen)
    if seen.faults:
        seen.faults = [replace(fault, path=fault.path.removeprefix(".")) for fault in seen.faults]
        seen.refuse()
    assert isinstance(made, Part)
    return made


def read_parts(raw: Sequence[Mapping[str, Any]]) -> list[Part]:
    """Parts that were read before, as they are kept."""
    return [read_part(part) for part in raw]
