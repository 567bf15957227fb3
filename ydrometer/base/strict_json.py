"""Parsing JSON from strangers: of a limited size and depth, no key twice, no number that is none."""

from __future__ import annotations

import json
import re
from collections.abc import Mapping
from typing import Any

from ydrometer.base.errors import DocumentError, Fault

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
        raise _whole(f"{len(data)} bytes given", f"at most {largest} bytes are read")
    try:
        raw = json.loads(data.decode("utf-8"), object_pairs_hook=_pairs, parse_constant=_constant)
    except UnicodeDecodeError:
        raise _whole("not UTF-8", "save the file as UTF-8") from None
    except RecursionError:
        raise _whole("nested too deep", f"at most {deepest} levels are read") from None
    except ValueError as error:
        raise _whole(f"not JSON ({error})", "give one JSON document") from None
    refuse_unsafe(raw, deepest)
    return raw


def _pairs(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    made = dict(pairs)
    if len(made) < len(pairs):
        raise ValueError("a key is given twice in one object")
    return made


def _constant(name: str) -> Any:
    raise ValueError(f"{name} is not a number")


def refuse_unsafe(raw: Any, deepest: int = DEEPEST) -> None:
    """Refuse what is nested too deep, and texts that no file or database can keep.

    Raises:
        DocumentError: there is such.
    """
    level = [raw]
    for _ in range(deepest + 1):
        if any(isinstance(node, str) and not _keepable(node) for node in level):
            raise _whole("a text holds characters that are none", "leave out NUL and lone surrogates")
        level = [child for node in level for child in _children(node)]
        if not level:
            return
    raise _whole("nested too deep", f"at most {deepest} levels are read")


_UNKEEPABLE = re.compile("[\0\ud800-\udfff]")


def _keepable(text: str) -> bool:
    return _UNKEEPABLE.search(text) is None


def _children(node: Any) -> list[Any]:
    if isinstance(node, Mapping):
        return [*node.keys(), *node.values()]
    return node if isinstance(node, list) else []


def _whole(problem: str, remedy: str) -> DocumentError:
    return DocumentError([Fault("$", problem, remedy)])
