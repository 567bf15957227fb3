"""Parsing JSON from strangers: of a limited size and depth, no key twice, no number that is none."""

from __future__ import annotations

import json
import math
import re
from collections.abc import Mapping
from typing import Any

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.seen import shown

LARGEST = 1_000_000
"""Bytes of a document, at most."""
DEEPEST = 32
"""Levels of nesting, at most."""


def load(data: bytes, *, largest: int = LARGEST, deepest: int = DEEPEST) -> Any:
    """Parse JSON from strangers: UTF-8, at most `largest` bytes and `deepest` levels, no key twice.

    Raises:
        DocumentError: not such a document.
    """
    if len(data) > largest:
        raise _refusal(f"{len(data)} bytes given", f"at most {largest} bytes are read")
    try:
        raw = json.loads(data.decode("utf-8"), **_HOOKS)
    except UnicodeDecodeError:
        raise _refusal("not UTF-8", "save the file as UTF-8") from None
    except RecursionError:
        raise _refusal("nested too deep", f"at most {deepest} levels are read") from None
    except ValueError as error:
        raise _refusal(f"not JSON ({error})", "give one JSON document") from None
    refuse_unsafe(raw, deepest)
    return raw


def _pairs(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    members = dict(pairs)
    if len(members) < len(pairs):
        raise ValueError("a key is given twice in one object")
    return members


def _constant(name: str) -> Any:
    raise ValueError(f"{name} is not a number")


def _float(text: str) -> float:
    number = float(text)
    if math.isinf(number):
        raise ValueError(f"{text[:20]} is too large a number")
    return number


def _whole(text: str) -> int | float:
    """A whole number; one that takes more than 64 bits is kept as what it is nearest to."""
    return int(text) if len(text) < _DIGITS_OF_64_BITS else _float(text)


_HOOKS: dict[str, Any] = {
    "object_pairs_hook": _pairs,
    "parse_constant": _constant,
    "parse_float": _float,
    "parse_int": _whole,
}


def refuse_unsafe(raw: Any, deepest: int = DEEPEST) -> None:
    """Refuse what is nested too deep, and what no file or database can keep.

    Raises:
        DocumentError: there is such.
    """
    level = [raw]
    for _ in range(deepest + 1):
        below: list[Any] = []
        for node in level:
            # Kinds of nodes in the order in which there are most of them: every key press comes through here.
            if isinstance(node, str | int | float):
                if wrong := _unsafe(node):
                    raise DocumentError([Fault(_path_to(node, raw, deepest) or "$", *wrong)])
            elif isinstance(node, dict | Mapping):
                below += node
                below += node.values()
            elif isinstance(node, list):
                below += node
        if not below:
            return
        level = below
    raise _refusal("nested too deep", f"at most {deepest} levels are read")


_DIGITS_OF_64_BITS = 19
_LARGEST = 1e308
_UNKEEPABLE = re.compile("[\0-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\ud800-\udfff\ufffe\uffff]")
"""What XML, PostgreSQL or a line on a screen cannot hold; tabs and ends of lines are kept."""


def _unsafe(node: str | float) -> tuple[str, str] | None:
    """What is wrong with one text or number and what would be right, or None."""
    if isinstance(node, str):
        return (f"{shown(node)} holds control characters", "leave them out") if _UNKEEPABLE.search(node) else None
    return None if -_LARGEST < node < _LARGEST else ("the number is too large", "give one below 1e308")


def _path_to(bad: Any, node: Any, deepest: int) -> str | None:
    """Where in a document something stands; a bad key is told by the object that has it."""
    if node is bad or (isinstance(node, Mapping) and bad in node):
        return ""
    steps = node.items() if isinstance(node, Mapping) else enumerate(node) if isinstance(node, list) else ()
    for step, child in steps if deepest >= 0 else ():
        below = _path_to(bad, child, deepest - 1)
        if below is not None:
            here = f"[{step}]" if isinstance(step, int) else step
            return f"{here}.{below}" if below and not below.startswith("[") else f"{here}{below}"
    return None


def _refusal(problem: str, remedy: str) -> DocumentError:
    return DocumentError([Fault("$", problem, remedy)])
