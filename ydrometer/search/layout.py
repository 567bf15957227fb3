"""What a search request lets be chosen: layouts with their stages, and where their shafts may stand."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.base.seen import Reading
from ydrometer.document import design
from ydrometer.document.mounting import MOST_HOLES, POINT, Point
from ydrometer.document.stages import KINDS as STAGES
from ydrometer.document.stages import Stage
from ydrometer.document.stages.forms import Form
from ydrometer.document.stages.plane import Loop
from ydrometer.parts.boxes import BOX

MOST_PARTS = 5000


MOST_STAGES = 8


MOST_WAYS = 250_000
"""Ways to place two shafts that are tied, at most: on a plate of 40 × 12 holes both may stand anywhere."""


EVERY = "*"


Choice = tuple[str, ...] | None
"""Ids to choose from; None for every part of the kind."""


def _read_choice(raw: Any, path: str, seen: Reading) -> Any:
    if raw == EVERY:
        return None
    if not isinstance(raw, list | tuple) or not raw or not all(isinstance(entry, str) for entry in raw):
        return seen.fault(path, "no choice of parts", 'give a list of ids, or "*" for every part of the kind')
    return tuple(dict.fromkeys(raw))


def _choice() -> Any:
    schema = {"anyOf": [{"const": EVERY}, {"type": "array", "items": {"type": "string"}, "minItems": 1}]}
    return reading.field_of(reading.Reader(_read_choice, lambda: schema), default=None)


def _read_band(raw: Any, path: str, seen: Reading) -> Any:
    numbers = isinstance(raw, list | tuple) and all(isinstance(e, int | float) and e == e for e in raw)  # noqa: PLR0124
    if not numbers or len(raw) != 2 or not 0 <= raw[0] <= raw[1]:
        return seen.fault(path, "no pair of bounds", "give [lowest, highest]")
    return float(raw[0]), float(raw[1])


def band(default: tuple[float, float] | None) -> Any:
    """A field holding a lowest and a highest number, both included."""
    schema = {"type": "array", "items": {"type": "number", "minimum": 0}, "minItems": 2, "maxItems": 2}
    return reading.field_of(reading.Reader(_read_band, lambda: schema), default=default)


_NO_OVERDRIVE = (1.0, float("inf"))


@dataclass(frozen=True, slots=True, kw_only=True)
class Length:
    """A belt or chain at hand: how long it is, and its pitch, which a V-belt has none of."""

    length: float = reading.quantity("length", above=0.0)
    pitch: float | None = reading.quantity("length", above=0.0, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class PairChoice:
    """A stage of a driver and a driven part of one tooth size; `ratio` bounds driven over driver, both included.

    Of `lengths` one has to go around, where any are given. `usual` is a stage of its kind: what it loses, how it slips
    and which form its wheels have are the same for all sizes.
    """

    kind: ClassVar[str]
    usual: ClassVar[Stage]
    form: ClassVar[Form]
    driver: Choice = _choice()
    driven: Choice = _choice()
    ratio: tuple[float, float] = band(_NO_OVERDRIVE)
    lengths: tuple[Length, ...] | None = reading.field_of(
        reading.list_reader(reading.object_reader(Length), most=MOST_PARTS), None
    )

    @property
    def part(self) -> str:
        """Kind of the parts that it pairs."""
        return self.form.part

    @property
    def loop(self) -> Loop | None:
        """What runs around the pair; None where it meshes."""
        return self.usual.in_plane if isinstance(self.usual.in_plane, Loop) else None


def _pair_of(kind: type[Stage]) -> type[PairChoice]:
    """The choice of a kind's two wheels from the parts."""
    (usual,) = design.read_stages([{"kind": kind.kind, **kind.start}])
    body = {"__slots__": (), "kind": kind.kind, "usual": usual, "form": kind.form, "__doc__": f"Two of {kind.noun}."}
    return type(f"{kind.__name__}Pair", (PairChoice,), body)


PAIRS = {name: _pair_of(kind) for name, kind in STAGES.items() if kind.form is not None and kind.form.part}
"""The kinds of stages whose two wheels are parts of a bin."""


@dataclass(frozen=True, slots=True, kw_only=True)
class BoxChoice:
    """One gearbox out of several."""

    kind: ClassVar[str] = BOX
    parts: Choice = _choice()


@dataclass(frozen=True, slots=True, kw_only=True)
class Fixed:
    """A stage taken as it stands."""

    kind: ClassVar[str] = "fixed"
    stage: Stage = reading.one_of(STAGES)


StageChoice = PairChoice | BoxChoice | Fixed


CHOICES: dict[str, type] = {**PAIRS, BoxChoice.kind: BoxChoice, Fixed.kind: Fixed}
"""What a layout may ask of a stage, by kind; `fixed` takes any as it stands."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Spots:
    """Where a shaft may stand: on one of some places, m, the first one rather than others; or in a slot between two."""

    at: tuple[Point, ...] = reading.items(POINT, least=1, most=MOST_HOLES**2, required=True)
    slot: bool = reading.flag()

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A slot has two ends."""
        if self.slot and len(self.at) != 2:
            yield "at", f"{len(self.at)} places of a slot", "give its two ends"


@dataclass(frozen=True, slots=True, kw_only=True)
class Edge:
    """A line of the frame, from end to end, m."""

    start: Point = reading.field_of(POINT)
    end: Point = reading.field_of(POINT)


@dataclass(frozen=True, slots=True, kw_only=True)
class Mount:
    """Where the shafts of a layout may stand: first that of the source, then what each pair drives, in their order.

    `tolerance` is how much further apart gears may stand than without backlash, the usual where it is left out,
    `loop_tolerance` how far the wheels of
    a loop may be off the distance at which it is taut, m; wheels keep `gap`, m, from the frame; see `document.mounting`
    """

    shafts: tuple[Spots, ...] = reading.items(reading.object_reader(Spots), least=2, most=MOST_STAGES + 1)
    tolerance: float | None = reading.quantity("length", at_least=0.0, default=None)
    loop_tolerance: float = reading.quantity("length", at_least=0.0)
    frame: tuple[Edge, ...] = reading.items(reading.object_reader(Edge))
    gap: float = reading.quantity("length", at_least=0.0, default=0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class DriveLayout:
    """The product of its choices; no `count` stands for the design's own. With a `mount`, what has no places is out."""

    sources: Choice = _choice()
    count: tuple[int, ...] = reading.items(reading.whole_reader(1, 64))
    supplies: Choice = _choice()
    wheels: Choice = _choice()
    stages: tuple[StageChoice, ...] = reading.items(reading.kind_reader(CHOICES), most=MOST_STAGES)
    mount: Mount | None = reading.nested(Mount, default=None)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Each pair ties a shaft to the next."""
        if self.mount is None:
            return
        pairs = sum(isinstance(choice, PairChoice) for choice in self.stages)
        if len(self.mount.shafts) != pairs + 1:
            yield "mount.shafts", f"{len(self.mount.shafts)} shafts of {pairs} pairs", f"give {pairs + 1}"
        for i, (first, second) in enumerate(pairwise(self.mount.shafts)):
            if len(first.at) * len(second.at) > MOST_WAYS:
                sentence = f"{len(first.at)} places of one shaft and {len(second.at)} of the next"
                remedy = f"say where one of them stands: at most {MOST_WAYS} ways to place a pair are gone through"
                yield f"mount.shafts[{i}]", sentence, remedy
