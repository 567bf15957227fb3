"""Filling the gaps along a shaft from the spacers at hand: exactly and with fewest pieces, else as nearly as can be."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

GRAIN = 1e-5
"""Thicknesses are computed in steps of a hundredth of a millimetre, m."""
MOST_PIECES = 12
"""Largest number of spacers in one gap; more would better be a tube."""


@dataclass(frozen=True, slots=True)
class Filling:
    """Spacers for one gap, the thickest first, m, and by how much they are too thick (+) or too thin (−), m."""

    pieces: tuple[float, ...]
    error: float


def fill(gaps: Sequence[float], spacers: Mapping[float, int]) -> list[Filling]:
    """Fill all gaps from one lot of spacers.

    Least is, in this order: the sum of the errors, and the number of pieces. For one gap that is exact; where several
    share the spacers, the nearest ways to fill each are tried against each other.

    Args:
        gaps: lengths to fill, m, at least 0.
        spacers: how many there are of each thickness, m.

    Returns:
        A filling for each gap, in their order.
    """
    sizes = sorted({round(thickness / GRAIN) for thickness in spacers if thickness > 0.0}, reverse=True)
    stock = tuple(sum(n for t, n in spacers.items() if round(t / GRAIN) == size) for size in sizes)
    order = sorted(range(len(gaps)), key=lambda i: -gaps[i])
    wanted = [round(gaps[i] / GRAIN) for i in order]
    chosen = _best(tuple(wanted), tuple(sizes), stock)
    made: dict[int, Filling] = {}
    for place, counts in zip(order, chosen, strict=True):
        pieces = tuple(size * GRAIN for size, n in zip(sizes, counts, strict=True) for _ in range(n))
        made[place] = Filling(tuple(round(p, 8) for p in pieces), round(sum(pieces) - gaps[place], 9))
    return [made[i] for i in range(len(gaps))]


Counts = tuple[int, ...]


@lru_cache(maxsize=256)  # stacks stay the same while shafts are moved
def _best(wanted: tuple[int, ...], sizes: tuple[int, ...], stock: Counts) -> list[Counts]:
    """Branch and bound over the gaps: each is filled in every way, the nearest first."""
    best: tuple[int, int, list[Counts]] | None = None

    def follow(place: int, left: Counts, error: int, pieces: int, made: list[Counts]) -> None:
        nonlocal best
        if best is not None and (error, pieces) >= best[:2]:
            return
        if place == len(wanted):
            best = (error, pieces, made)
            return
        for off, number, counts in _ways(wanted[place], sizes, left):
            after = tuple(n - used for n, used in zip(left, counts, strict=True))
            follow(place + 1, after, error + off, pieces + number, [*made, counts])

    follow(0, stock, 0, 0, [])
    assert best is not None  # filling nothing is a way
    return best[2]


WAYS = 24
"""Ways to fill one gap that are followed further if several gaps share the spacers."""


def _ways(wanted: int, sizes: tuple[int, ...], stock: Counts) -> list[tuple[int, int, Counts]]:
    """The nearest ways to fill a gap, as (error, pieces, counts)."""
    reached: dict[int, list[Counts]] = {0: [tuple(0 for _ in sizes)]}
    largest = max(sizes, default=0)
    for kind, size in enumerate(sizes):
        # As it was before this size: no way takes it twice.
        for total, ways in [(total, list(ways)) for total, ways in reached.items()]:
            for way in ways:
                for extra in range(1, min(stock[kind], MOST_PIECES - sum(way)) + 1):
                    thickness = total + extra * size
                    if thickness > wanted + largest:
                        break
                    known = reached.setdefault(thickness, [])
                    known.append((*way[:kind], extra, *way[kind + 1 :]))
                    known.sort(key=sum)
                    del known[WAYS:]
    found = [(abs(total - wanted), sum(way), way) for total, ways in reached.items() for way in ways]
    return sorted(found)[:WAYS]
