"""Tooth counts of parts that are owned and give the same reduction: what one could swap to buy nothing for the line."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import Any

from ydrometer.build.matching import Owned
from ydrometer.document.design import Design
from ydrometer.document.stages import Stage
from ydrometer.document.walk import stages_with_paths

SAME = 0.01
"""By how much a reduction may differ and still count as the same."""
BAND = 0.35
"""By how much the ratio of one stage may differ: what is further off wants the others just as far off."""
MOST_PAIRS = 60
"""Pairs of one stage that are tried with those of the others, those nearest its ratio."""
MOST_STAGES = 3
KEPT = 3


@dataclass(frozen=True, slots=True)
class Swap:
    """Wheels of parts that are owned, in place of some that would be bought.

    Attributes:
        words: in a sentence. changes: values by their paths. off: by what share the overall reduction differs.
    """

    words: str
    changes: dict[str, int]
    off: float


def swaps(design: Design, bin_: Sequence[Owned], left: Mapping[str, int]) -> list[Swap]:
    """Ways to make the same reduction from what is owned, those nearest to it first.

    Args:
        design: whose toothed stages are looked at; one of another kind stays as it is.
        bin_: parts.
        left: how many of each are free, by its id.
    """
    stages = [(path, stage) for path, stage in stages_with_paths(design) if _pairs_of(stage)][:MOST_STAGES]
    choices = [_choices(path, stage, bin_, left, design.drive.units) for path, stage in stages]
    if not stages or not all(choices):
        return []
    wanted = math.prod(stage.ratio for _, stage in stages)
    found = [swap for chosen in product(*choices) for swap in _swap(chosen, wanted, left)]
    changed = [swap for swap in found if swap.changes]
    return sorted(changed, key=lambda swap: (round(swap.off, 4), len(swap.changes)))[:KEPT]


@dataclass(frozen=True, slots=True)
class _Pair:
    """A driver and a driven part for a stage; `need` says how many of each are needed."""

    path: str
    stage: Any
    driver: int
    driven: int
    need: Mapping[str, int]

    @property
    def changes(self) -> dict[str, int]:
        """Teeth that differ from the design's."""
        wanted = {"driver_teeth": self.driver, "driven_teeth": self.driven}
        return {f"{self.path}.{key}": teeth for key, teeth in wanted.items() if getattr(self.stage, key) != teeth}


def _pairs_of(stage: Stage) -> bool:
    """Whether a stage is a pair of wheels with teeth that a bin may hold, and nothing between them."""
    return bool(stage.form and stage.form.part and stage.form.toothed and stage.tooth_size) and len(stage.members) == 2


def _choices(path: str, stage: Stage, bin_: Sequence[Owned], left: Mapping[str, int], units: int) -> list[_Pair]:
    wheels = [
        (int(getattr(owned.part, "teeth")), owned.part.id)  # noqa: B009  # a form with teeth has them
        for owned in bin_
        if stage.form and owned.part.kind == stage.form.part and left.get(owned.part.id, 0) >= units
        and abs(getattr(owned.part, "tooth_size", 0.0) - (stage.tooth_size or 0.0)) <= 1e-6
    ]  # fmt: skip
    found = [
        _Pair(path, stage, a, b, Counter({one: units}) + Counter({other: units}))
        for (a, one), (b, other) in product(wheels, wheels)
        if abs(b / a / stage.ratio - 1.0) <= BAND and b >= a
    ]
    return sorted(found, key=lambda pair: abs(pair.driven / pair.driver / stage.ratio - 1.0))[:MOST_PAIRS]


def _swap(chosen: Sequence[_Pair], wanted: float, left: Mapping[str, int]) -> Iterator[Swap]:
    off = math.prod(pair.driven / pair.driver for pair in chosen) / wanted - 1.0
    need = sum((Counter(pair.need) for pair in chosen), Counter())
    if abs(off) > SAME or any(left.get(id_, 0) < number for id_, number in need.items()):
        return
    changes = {path: teeth for pair in chosen for path, teeth in pair.changes.items()}
    told = ", ".join(f"{pair.stage.noun} {pair.driver} : {pair.driven}" for pair in chosen if pair.changes)
    same = "the same reduction" if abs(off) < 5e-4 else f"the reduction {100.0 * off:+.1f} %"
    yield Swap(f"{told}: all owned, {same}", changes, abs(off))
