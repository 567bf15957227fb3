"""Tooth counts of parts that are owned and give the same reduction: what one could swap to buy nothing for the line."""

from __future__ import annotations

import dataclasses
import math
from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import product
from typing import Any, cast

from ydrometer.build.bin import Bin, Owned
from ydrometer.document.design import Design
from ydrometer.document.stages import Stage
from ydrometer.document.stages.forms import OF_PART
from ydrometer.document.walk import stages_with_paths
from ydrometer.parts.fitting import SAME_SIZE
from ydrometer.parts.part import PowerWheel
from ydrometer.taking import Changes, pair_values

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
        words: in a sentence. changes: values by their paths, all that the wheels bring included; None takes one out.
        off: by what share the overall reduction differs.
    """

    words: str
    changes: Changes
    off: float


def swaps(design: Design, bin_: Bin, taken: Mapping[str, int]) -> list[Swap]:
    """Ways to make the same reduction from what is owned, those nearest to it first.

    Args:
        design: whose toothed stages are looked at; one of another kind stays as it is.
        bin_: parts.
        taken: by the ids of parts, how many of them other vehicles have.
    """
    stages = [(path, stage) for path, stage in stages_with_paths(design) if _pairs_of(stage)][:MOST_STAGES]
    choices = [_choices(path, stage, bin_, taken, design.drive.units) for path, stage in stages]
    if not stages or not all(choices):
        return []
    wanted = math.prod(stage.ratio for _, stage in stages)
    offers = [swap for chosen in product(*choices) for swap in _swap(chosen, wanted, bin_, taken)]
    return sorted(offers, key=lambda swap: (round(swap.off, 4), len(swap.changes)))[:KEPT]


@dataclass(frozen=True, slots=True)
class _Pair:
    """A driver and a driven part for a stage; `need` says how many of each are needed."""

    path: str
    stage: Stage
    driver: Owned
    driven: Owned
    need: Mapping[str, int]

    @property
    def teeth(self) -> tuple[int, int]:
        """Of driver and driven."""
        return _teeth(self.driver), _teeth(self.driven)

    @property
    def ratio(self) -> float:
        """Driven over driver."""
        driver, driven = self.teeth
        return driven / driver

    @property
    def is_other(self) -> bool:
        """Whether its teeth are not those of the design."""
        return self.teeth != tuple(int(member.measure) for member in self.stage.members)

    def changes(self) -> Changes:
        """All that taking both wheels changes."""
        typed = dataclasses.asdict(self.stage)  # type: ignore[call-overload]  # kinds are dataclasses
        chosen = {"driver": self.driver.raw, "driven": self.driven.raw}
        values = pair_values(type(self.stage), chosen, typed)
        return {f"{self.path}.{key}": value for key, value in values.items() if typed.get(key) != value}


def swappable() -> frozenset[str]:
    """Kinds of parts that may be swapped for others: wheels with teeth."""
    return frozenset(part for part, form in OF_PART.items() if form.toothed)


def _teeth(owned: Owned) -> int:
    part: Any = owned.part
    return int(part.measure)


def _pairs_of(stage: Stage) -> bool:
    """Whether a stage is a pair of wheels with teeth that a bin may hold, and nothing between them."""
    wheels = stage.form is not None and stage.form.part in swappable() and len(stage.members) == 2
    return wheels and bool(stage.tooth_size) and not any(member.form.encloses for member in stage.members)


def _choices(path: str, stage: Stage, bin_: Bin, taken: Mapping[str, int], units: int) -> list[_Pair]:
    wheels = _wheels(stage, bin_, taken, units)
    pairs = [
        _Pair(path, stage, wheel, other, Counter({wheel.part.id: units}) + Counter({other.part.id: units}))
        for wheel, other in product(wheels, wheels)
        if abs(_teeth(other) / _teeth(wheel) / stage.ratio - 1.0) <= BAND and _teeth(other) >= _teeth(wheel)
    ]
    return sorted(pairs, key=lambda pair: abs(pair.ratio / stage.ratio - 1.0))[:MOST_PAIRS]


def _wheels(stage: Stage, bin_: Bin, taken: Mapping[str, int], units: int) -> list[Owned]:
    """Free wheels of the stage's tooth size; of each tooth count the first two, for more make no other reduction."""
    size, counts = stage.tooth_size or 0.0, Counter[int]()
    wheels = []
    for owned in bin_.of(stage.form.part if stage.form else ""):
        fits = abs(cast(PowerWheel, owned.part).tooth_size - size) <= SAME_SIZE * size
        if fits and counts[_teeth(owned)] < 2 and bin_.left(owned.part.id, taken) >= units:
            counts[_teeth(owned)] += 1
            wheels.append(owned)
    return wheels


def _swap(chosen: Sequence[_Pair], wanted: float, bin_: Bin, taken: Mapping[str, int]) -> Iterator[Swap]:
    off = math.prod(pair.ratio for pair in chosen) / wanted - 1.0
    need = sum((Counter(pair.need) for pair in chosen), Counter())
    if abs(off) > SAME or any(bin_.left(id, taken) < number for id, number in need.items()):
        return
    others = [pair for pair in chosen if pair.is_other]
    if not others:
        return
    changes = {path: value for pair in others for path, value in pair.changes().items()}
    pair_words = ", ".join(f"{pair.stage.noun} {pair.teeth[0]} : {pair.teeth[1]}" for pair in others)
    same = "the same reduction" if abs(off) < 5e-4 else f"the reduction {100.0 * off:+.1f} %"
    yield Swap(f"{pair_words}: all owned, {same}", changes, abs(off))
