"""The parts of a bin, read once, with their sizes as columns: a design is matched with thousands of them at once."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
import orjson
from numpy.typing import NDArray

from ydrometer.parts.names import called
from ydrometer.parts.part import Part
from ydrometer.parts.read import read_part

Floats = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Owned:
    """A part of the bin, as typed and as read."""

    raw: Mapping[str, Any]
    part: Part

    @property
    def name(self) -> str:
        """What it is called."""
        return called(self.raw)


class Bin:
    """The parts of a bin, in their order; those of a kind, and the sizes of a kind, are looked up once.

    Args:
        owned: its parts.
    """

    def __init__(self, owned: Iterable[Owned] = ()) -> None:
        self._all = tuple(owned)
        self._by_id = {owned.part.id: owned for owned in self._all}
        self._by_kind: dict[str, list[Owned]] = {}
        for each in self._all:
            self._by_kind.setdefault(each.part.kind, []).append(each)
        self._columns: dict[tuple[str, str], Floats | None] = {}

    def __iter__(self) -> Iterator[Owned]:
        return iter(self._all)

    def __len__(self) -> int:
        return len(self._all)

    def of(self, kind: str) -> Sequence[Owned]:
        """The parts of a kind; none where there is no such kind."""
        return self._by_kind.get(kind, ())

    def left(self, id: str, taken: Mapping[str, int]) -> int:
        """How many of a part are free.

        Args:
            id: of the part.
            taken: by the ids of parts, how many of them other vehicles have.
        """
        owned = self._by_id.get(id)
        return max(0, owned.part.owned - taken.get(id, 0)) if owned else 0

    def column(self, kind: str, path: str) -> Floats | None:
        """A size of the parts of a kind, SI, (n,), NaN of those that have none; None where it is no number of all.

        Args:
            kind: of parts.
            path: of the size in a part, see `size_of`.
        """
        if (kind, path) not in self._columns:
            sizes = [size_of(owned.part, path) for owned in self.of(kind)]
            numbers = all(size is None or isinstance(size, int | float) for size in sizes)
            self._columns[kind, path] = np.array(sizes, dtype=float) if numbers else None
        return self._columns[kind, path]


def bin_of(bin_: Sequence[Mapping[str, Any]]) -> Bin:
    """The parts of a bin, as typed, with what they are.

    Args:
        bin_: documents of its parts, read before.
    """
    return Bin(Owned(raw, _read(orjson.dumps(raw, option=orjson.OPT_SORT_KEYS))) for raw in bin_)


@lru_cache(maxsize=8192)  # a bin changes part by part, and is looked at with each change of a design
def _read(document: bytes) -> Part:
    return read_part(orjson.loads(document))


def size_of(part: Part, path: str) -> Any:
    """A size of a part by its path; "source" is what tells a source: its curve, its constants or its bench points.

    Args:
        part: of a bin.
        path: names with points between them.

    Returns:
        None where it has none.
    """
    value: Any = part
    if path == "source":
        source: Any = getattr(part, "source", None)
        return getattr(source, "torque_curve", None) or getattr(source, "constants", None) or source.bench_points
    for key in path.split("."):
        value = getattr(value, key, None)
    return value
