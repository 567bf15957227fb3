"""The search request: a design, parts, layouts and limits, read with every fault at once."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from ydrometer.base import reading
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.seen import Reading, printable
from ydrometer.base.tables.measures import OF_LOADS, TARGETABLE
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.document.target import Target
from ydrometer.parts import kinds as parts
from ydrometer.parts.boxes import BOX
from ydrometer.parts.part import Part
from ydrometer.search.layout import MOST_PARTS, BoxChoice, Choice, DriveLayout, Fixed, PairChoice, band

FORMAT = "ydrometer-search"
LARGEST = 8_000_000
"""Bytes of a request, at most."""
MOST_LAYOUTS = 64
MOST_KEPT = 1000
SUPPLIES = ("battery", "panel")
"""Kinds of parts that feed a drive."""


@dataclass(frozen=True, slots=True, kw_only=True)
class SearchLimits:
    """What a combination must keep to be counted at all."""

    owned_only: bool = reading.flag()
    price_at_most: float | None = reading.quantity("price", at_least=0.0, default=None)
    overall_ratio: tuple[float, float] | None = band(None)
    parts_to_buy_at_most: int | None = reading.whole(0, 1_000_000, default=None)


def _read_weights(raw: Any, path: str, seen: Reading) -> Any:
    if not isinstance(raw, Mapping):
        return seen.fault(path, "not an object", 'give for example {"top_speed": 2}')
    for key, weight in raw.items():
        if key not in TARGETABLE:
            seen.fault(f"{path}.{printable(key)}", "no measure", "use the name of a target's measure")
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
    layouts: tuple[DriveLayout, ...] = reading.items(
        reading.object_reader(DriveLayout), least=1, most=MOST_LAYOUTS, required=True
    )
    limits: SearchLimits = reading.nested(SearchLimits, default=SearchLimits())
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

    @property
    def targets(self) -> list[Target]:
        """Targets that combinations are judged by; what Loads would say of each is worked out for the listed ones
        alone.
        """
        return [target for target in self.document.design.targets if target.measure not in OF_LOADS]

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
    seen = Reading()
    document = None
    try:
        document = design.read(raw.get("design"))
    except DocumentError as error:
        seen.take(error, "design")
    body = reading.read_object(_Body, {key: value for key, value in raw.items() if key != "design"}, "", seen)
    seen.refuse()
    assert document is not None  # else there is a fault
    faults = [*_one_branch(document), *_ids(body), *_targets(document), *_drives(document, body)]
    if faults:
        raise DocumentError(faults)
    return SearchRequest(document, body, raw)


def boxes(request: SearchRequest) -> list[tuple[int, Any]]:
    """Boxes that a layout may pick, with their places: one of several speeds is taken as a fixed stage."""
    known: list[tuple[int, Any]] = request.of_kind(BOX)
    return [(i, part) for i, part in known if not part.stage_kind.several_speeds]


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
        several = part.kind == BOX and getattr(part, "stage_kind").several_speeds  # noqa: B009  # boxes have one
        known[part.id] = "box of several speeds" if several else part.kind
    for i, layout in enumerate(body.layouts):
        wanted: list[tuple[str, Choice, tuple[str, ...]]] = [
            ("sources", layout.sources, ("motor", "engine")),
            ("supplies", layout.supplies, SUPPLIES),
            ("wheels", layout.wheels, ("wheel",)),
        ]
        for s, stage in enumerate(layout.stages):
            if isinstance(stage, PairChoice):
                wanted += [(f"stages[{s}].{end}", getattr(stage, end), (stage.part,)) for end in ("driver", "driven")]
            elif isinstance(stage, BoxChoice):
                wanted.append((f"stages[{s}].parts", stage.parts, (BOX,)))
        for where, choice, kinds in wanted:
            for name in choice or ():
                if known.get(name) not in kinds:
                    yield Fault(
                        f"layouts[{i}].{where}",
                        f'"{name[:40]}" is no {" or ".join(kinds)} among the parts',
                        "give ids of such parts",
                    )
