"""The search request: a design, parts, layouts and limits, read with every fault at once."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import pairwise
from typing import Any, ClassVar

from ydrometer.base import reading
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.reading import Reading
from ydrometer.base.tables.measures import TARGETABLE
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.document.mounting import MOST_HOLES, POINT, Point
from ydrometer.document.stages import KINDS as STAGES
from ydrometer.document.stages import Stage
from ydrometer.document.stages.forms import Form
from ydrometer.document.stages.plane import Loop
from ydrometer.parts import kinds as parts
from ydrometer.parts.kinds import Part

FORMAT = "ydrometer-search"
LARGEST = 8_000_000
"""Bytes of a request, at most."""
MOST_PARTS = 5000
MOST_LAYOUTS = 64
MOST_STAGES = 8
MOST_KEPT = 1000
MOST_WAYS = 250_000
"""Ways to place two shafts that are tied, at most: on a plate of 40 × 12 holes both may stand anywhere."""
EVERY = "*"
SUPPLIES = ("battery", "panel")
"""Kinds of parts that feed a drive."""

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


def _band(default: tuple[float, float] | None) -> Any:
    schema = {"type": "array", "items": {"type": "number", "minimum": 0}, "minItems": 2, "maxItems": 2}
    return reading.field_of(reading.Reader(_read_band, lambda: schema), default=default)


_NO_OVERDRIVE = (1.0, float("inf"))


@dataclass(frozen=True, slots=True, kw_only=True)
class Length:
    """A belt or chain at hand: how long it is, and its pitch, which a V-belt has none of."""

    length: float = reading.quantity("length", above=0.0)
    pitch: float | None = reading.quantity("length", above=0.0, default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class Pair:
    """A stage of a driver and a driven part of one tooth size; `ratio` bounds driven over driver, both included.

    Of `lengths` one has to go around, where any are given. `usual` is a stage of its kind: what it loses, how it slips
    and which form its wheels have are the same for all sizes.
    """

    kind: ClassVar[str]
    usual: ClassVar[Stage]
    form: ClassVar[Form]
    driver: Choice = _choice()
    driven: Choice = _choice()
    ratio: tuple[float, float] = _band(_NO_OVERDRIVE)
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


def _pair_of(kind: type[Stage]) -> type[Pair]:
    """The choice of a kind's two wheels from the parts."""
    (usual,) = design.read_stages([{"kind": kind.kind, **kind.start}])
    body = {"__slots__": (), "kind": kind.kind, "usual": usual, "form": kind.form, "__doc__": f"Two of {kind.noun}."}
    return type(f"{kind.__name__}Pair", (Pair,), body)


PAIRS = {name: _pair_of(kind) for name, kind in STAGES.items() if kind.form is not None and kind.form.part}
"""The kinds of stages whose two wheels are parts of a bin."""


@dataclass(frozen=True, slots=True, kw_only=True)
class BoxChoice:
    """One gearbox out of several."""

    kind: ClassVar[str] = "gearbox"
    parts: Choice = _choice()


@dataclass(frozen=True, slots=True, kw_only=True)
class Fixed:
    """A stage taken as it stands."""

    kind: ClassVar[str] = "fixed"
    stage: Stage = reading.one_of(STAGES)


StageChoice = Pair | BoxChoice | Fixed
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

    `tolerance` is how much further apart than without play gears may stand, `loop_tolerance` how far a loop's wheels
    may be off the distance at which it is taut, m; wheels keep `gap`, m, from the frame. See `document.mounting`.
    """

    shafts: tuple[Spots, ...] = reading.items(reading.object_reader(Spots), least=2, most=MOST_STAGES + 1)
    tolerance: float = reading.quantity("length", at_least=0.0)
    loop_tolerance: float = reading.quantity("length", at_least=0.0)
    frame: tuple[Edge, ...] = reading.items(reading.object_reader(Edge))
    gap: float = reading.quantity("length", at_least=0.0, default=0.0)


@dataclass(frozen=True, slots=True, kw_only=True)
class Layout:
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
        pairs = sum(isinstance(choice, Pair) for choice in self.stages)
        if len(self.mount.shafts) != pairs + 1:
            yield "mount.shafts", f"{len(self.mount.shafts)} shafts of {pairs} pairs", f"give {pairs + 1}"
        for i, (one, other) in enumerate(pairwise(self.mount.shafts)):
            if len(one.at) * len(other.at) > MOST_WAYS:
                told = f"{len(one.at)} places of one shaft and {len(other.at)} of the next"
                remedy = f"say where one of them stands: at most {MOST_WAYS} ways to place a pair are gone through"
                yield f"mount.shafts[{i}]", told, remedy


@dataclass(frozen=True, slots=True, kw_only=True)
class Limits:
    """What a combination must keep to be counted at all."""

    owned_only: bool = reading.flag()
    price_at_most: float | None = reading.quantity("price", at_least=0.0, default=None)
    overall_ratio: tuple[float, float] | None = _band(None)
    parts_to_buy_at_most: int | None = reading.whole(0, 1_000_000, default=None)


def _read_weights(raw: Any, path: str, seen: Reading) -> Any:
    if not isinstance(raw, Mapping):
        return seen.fault(path, "not an object", 'give for example {"top_speed": 2}')
    for key, weight in raw.items():
        if key not in TARGETABLE:
            seen.fault(f"{path}.{reading.printable(key)}", "no measure", "use the name of a target's measure")
        elif isinstance(weight, bool) or not isinstance(weight, int | float) or not 0 <= weight <= 1e6:
            seen.fault(f"{path}.{key}", "no weight", "give a number from 0 up")
    return dict(raw)


def _weights() -> Any:
    schema = {"type": "object", "additionalProperties": {"type": "number", "minimum": 0}}
    return reading.field_of(reading.Reader(_read_weights, lambda: schema), default=None)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Body:
    """The request but for its design and parts, which are read each on its own."""

    format: str = reading.choice((FORMAT,))
    version: int = reading.whole(1, 1)
    layouts: tuple[Layout, ...] = reading.items(
        reading.object_reader(Layout), least=1, most=MOST_LAYOUTS, required=True
    )
    limits: Limits = reading.nested(Limits, default=Limits())
    keep: int = reading.whole(1, MOST_KEPT, default=50)
    weights: dict[str, float] | None = _weights()
    add_part_masses: bool = reading.flag()
    wheels_needed: int = reading.whole(1, 64, default=4)
    parts: tuple[Part, ...] = reading.items(reading.kind_reader(parts.KINDS), most=MOST_PARTS)


@dataclass(frozen=True, slots=True)
class SearchRequest:
    """A request as read; `raw` are its design and parts as they came, for the designs of the answer."""

    document: Document
    body: _Body
    raw: Mapping[str, Any]

    def of_kind(self, kind: str) -> list[tuple[int, Part]]:
        """The parts of a kind with their places in the request."""
        return [(i, part) for i, part in enumerate(self.body.parts) if part.kind == kind]

    def weight(self, measure: str) -> float:
        """How much a target counts."""
        return (self.body.weights or {}).get(measure, 1.0)


def read_request(raw: Any) -> SearchRequest:
    """Read a search request from parsed JSON.

    Raises:
        DocumentError: with every fault at once.
    """
    if not isinstance(raw, Mapping):
        raise DocumentError([Fault("$", "not an object", "give one search request")])
    faults: list[Fault] = []
    document = None
    try:
        document = design.read(raw.get("design"))
    except DocumentError as error:
        faults += [Fault("design" if f.path == "$" else f"design.{f.path}", f.problem, f.remedy) for f in error.faults]
    seen = Reading()
    body = reading.read_object(_Body, {key: value for key, value in raw.items() if key != "design"}, "", seen)
    faults += seen.faults
    if not faults:
        assert document is not None  # else there is a fault
        faults += [*_one_branch(document), *_ids(body), *_targets(document), *_drives(document, body)]
    if faults:
        raise DocumentError(faults)
    assert document is not None
    return SearchRequest(document, body, raw)


def boxes(request: SearchRequest) -> list[tuple[int, parts.GearboxPart]]:
    """Gearboxes that a layout may pick, with their places: a box of several speeds is taken as a fixed stage."""
    return [
        (i, part) for i, part in request.of_kind("gearbox") if isinstance(part, parts.GearboxPart) and not part.ratios
    ]


def _one_branch(document: Document) -> Iterator[Fault]:
    branches = len(document.design.drive.branches)
    if branches != 1:
        yield Fault("design.drive.branches", f"{branches} branches", "a search takes a design of one")


def _targets(document: Document) -> Iterator[Fault]:
    for i, target in enumerate(document.design.targets):
        if 0.0 in (target.lower, target.upper):
            yield Fault(f"design.targets[{i}]", "a bound of 0", "options are ranked by relative margins: give another")


def _drives(document: Document, body: _Body) -> Iterator[Fault]:
    """What could be chosen must make a drive: clutch for an engine, supply for a motor, one box of several speeds."""
    drive = document.design.drive
    supplies = drive.supply is not None or any(part.kind in SUPPLIES for part in body.parts)
    clutch = bool(drive.branches) and drive.branches[0].clutch is not None
    for i, part in enumerate(body.parts):
        if isinstance(part, parts.EnginePart) and part.clutch is None and not clutch:
            yield Fault(f"parts[{i}].clutch", "missing", "an engine needs one, or the design's own")
        if isinstance(part, parts.MotorPart) and not supplies:
            yield Fault(f"parts[{i}]", "a motor without a supply", "give the design a supply, or a battery as a part")
    for i, layout in enumerate(body.layouts):
        boxes = [s for s in layout.stages if isinstance(s, Fixed) and s.stage.several_speeds]
        if len(boxes) > 1:
            yield Fault(f"layouts[{i}].stages", "two boxes of several speeds", "one is computed at most")


def _ids(body: _Body) -> Iterator[Fault]:
    known: dict[str, str] = {}
    for i, part in enumerate(body.parts):
        if part.id in known:
            yield Fault(f"parts[{i}].id", f'"{part.id}" a second time', "give each part an id of its own")
        several = isinstance(part, parts.GearboxPart) and part.ratios
        known[part.id] = "box of several speeds" if several else part.kind
    for i, layout in enumerate(body.layouts):
        asked: list[tuple[str, Choice, tuple[str, ...]]] = [
            ("sources", layout.sources, ("motor", "engine")),
            ("supplies", layout.supplies, SUPPLIES),
            ("wheels", layout.wheels, ("wheel",)),
        ]
        for s, stage in enumerate(layout.stages):
            if isinstance(stage, Pair):
                asked += [(f"stages[{s}].{end}", getattr(stage, end), (stage.part,)) for end in ("driver", "driven")]
            elif isinstance(stage, BoxChoice):
                asked.append((f"stages[{s}].parts", stage.parts, ("gearbox",)))
        for where, choice, kinds in asked:
            for name in choice or ():
                if known.get(name) not in kinds:
                    yield Fault(f"layouts[{i}].{where}", f'"{name[:40]}" is no {" or ".join(kinds)} among the parts',
                                "give ids of such parts")  # fmt: skip
