"""Reading one part, or all of a bin, with every fault."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.reading import kind_reader
from ydrometer.base.seen import Reading
from ydrometer.base.strict_json import refuse_unsafe
from ydrometer.parts.kinds import KINDS
from ydrometer.parts.part import Part

_READ = kind_reader(KINDS)
MOST_IN_BIN = 5000


def read_part(raw: Any) -> Part:
    """One part as it stands in a bin or a search request.

    Raises:
        DocumentError: with every fault; paths begin at the part.
    """
    refuse_unsafe(raw)
    seen = Reading()
    part = _READ(raw, "", seen)
    if seen.faults:
        seen.faults = [replace(fault, path=fault.path.removeprefix(".")) for fault in seen.faults]
        seen.refuse()
    assert isinstance(part, Part)
    return part


def read_parts(raw: Sequence[Mapping[str, Any]]) -> list[Part]:
    """Parts that were read before, as they are kept."""
    return [read_part(part) for part in raw]


def read_bin(raw: Any) -> list[dict[str, Any]]:
    """The parts of a bin file: a list of them, or an object that has them under `parts`.

    Returns:
        The parts as they came, each of which can be read.

    Raises:
        DocumentError: with every fault at once; also where an id stands twice.
    """
    entries, place = (raw.get("parts"), "parts") if isinstance(raw, Mapping) else (raw, "")
    if not isinstance(entries, list):
        raise DocumentError([Fault("$", "no parts", 'give a list of parts, or {"parts": [...]}')])
    if len(entries) > MOST_IN_BIN:
        raise DocumentError([Fault("$", f"{len(entries):,} parts", f"give at most {MOST_IN_BIN:,}")])
    refuse_unsafe(raw)
    seen = Reading()
    ids: set[str] = set()
    for number, entry in enumerate(entries):
        path = f"{place}[{number}]"
        part = _READ(entry, path, seen)
        if isinstance(part, Part) and part.id in ids:
            seen.fault(f"{path}.id", f'"{part.id}" a second time', "give each part an id of its own")
        ids.add(getattr(part, "id", ""))
    seen.refuse()
    return entries
