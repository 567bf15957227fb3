"""Stages read once: the options of a search are made of the same few pairs again and again."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from functools import lru_cache
from typing import Any

import orjson

from ydrometer.document import design
from ydrometer.document.stages import Stage

MOST = 4096
"""Stages that a process remembers."""


def read_known(raw: Sequence[Mapping[str, Any]]) -> tuple[Stage, ...]:
    """Stages as typed, as reading them gives them.

    Raises:
        DocumentError: one of them has faults.
    """
    return tuple(_read(orjson.dumps(stage)) for stage in raw)


@lru_cache(maxsize=MOST)
def _read(stage: bytes) -> Stage:
    return design.read_stages([orjson.loads(stage)])[0]
