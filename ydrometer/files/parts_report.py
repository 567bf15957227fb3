"""What `./ydro parts` prints: what a design needs, what of it the bin has, what has to be bought and made."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from ydrometer.build.bin import bin_of
from ydrometer.build.parts_list import PartsListLine, parts_list
from ydrometer.build.workshop import workshop
from ydrometer.document.design import Document

FORMAT = "ydrometer-parts-list"


def report(document: Document, bin_: Sequence[Mapping[str, Any]] = ()) -> dict[str, Any]:
    """The answer as JSON; lengths in m, masses in kg.

    Args:
        document: a design as read.
        bin_: documents of the parts of a bin, read before.
    """
    parts = parts_list(workshop(document), bin_of(bin_))
    return {
        "format": FORMAT,
        "version": 1,
        "lines": [_line(line) for line in parts.lines],
        "price": parts.price,
        "mass": parts.mass,
        "unknown_mass": parts.unknown_mass,
        "from_the_bin": parts.from_the_bin,
    }


def _line(line: PartsListLine) -> dict[str, Any]:
    return {
        "kind": line.need.kind,
        "words": line.need.words,
        "which": line.need.which,
        "number": line.need.number,
        "where": list(line.need.where),
        "bin": line.part.part.id if line.part else None,
        "owned": line.owned,
        "to_buy": line.to_buy,
        "price": line.price,
        "mass": line.mass,
        "lead_days": line.lead_days,
        "make": [{"what": making.what, "from": making.start, "to": making.end} for making in line.make],
    }
