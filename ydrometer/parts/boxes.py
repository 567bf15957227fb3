"""Bought boxes in a bin: what one says is what the kinds of stages say that a box can be.

Nothing of a kind stands here. Which keys a box has, how each is read and what a table calls it come from the kinds that
have such parts as their `whole_part`; the key of its ratio tells which kind a box is.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, ClassVar

from ydrometer.document.stages import Stage, whole_kinds
from ydrometer.parts.part import Part, optional_length

BOX = "gearbox"
"""The kind of parts, as a bin has it."""


@dataclass(frozen=True, slots=True)
class BoxValue:
    """One value of a box: its key, what a table calls it, the kind of stage that reads it, and the kind of quantity of
    the entries where it is a list of quantities.
    """

    key: str
    head: str
    kind: type[Stage]
    each: str = ""

    @property
    def is_list(self) -> bool:
        """Whether it is a list."""
        return bool(self.declared.metadata["spec"].read.schema().get("type") == "array")

    @property
    def declared(self) -> dataclasses.Field[Any]:
        """The field of the stage."""
        return next(field for field in dataclasses.fields(self.kind) if field.name == self.key)  # type: ignore[arg-type]


def _ratios() -> dict[str, BoxValue]:
    """What makes the ratio of each kind: the key of which a box has exactly one."""
    ratios = [BoxValue(kind.ratio_key, kind.ratio_head or kind.ratio_key, kind) for kind in whole_kinds(BOX)]
    return {value.key: value for value in sorted(ratios, key=lambda value: value.is_list)}


def _brought() -> dict[str, BoxValue]:
    """What a box says besides, each key once."""
    brought: dict[str, BoxValue] = {}
    of_every_part = {field.name for field in dataclasses.fields(Part)}
    for kind in whole_kinds(BOX):
        for bring in kind.brings:
            if bring.key in of_every_part:
                continue
            head = bring.head or bring.key.replace("_", " ")
            brought.setdefault(bring.key, BoxValue(bring.key, head, kind, bring.each))
    return brought


RATIOS = _ratios()
BROUGHT = _brought()


@dataclass(frozen=True, slots=True, kw_only=True)
class _Box(Part):
    """A bought box: its shafts, and what the kinds say."""

    kind: ClassVar[str] = BOX
    bore: float | None = optional_length()
    shaft: float | None = optional_length()

    @property
    def stage_kind(self) -> type[Stage]:
        """The kind of stage that it is."""
        return next(value.kind for key, value in RATIOS.items() if getattr(self, key) not in (None, ()))

    @property
    def stage(self) -> Stage:
        """It as a stage."""
        kind = self.stage_kind
        brought = {bring.to: getattr(self, bring.key) for bring in kind.brings}
        return kind(**{kind.ratio_key: getattr(self, kind.ratio_key)}, **brought)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """One ratio, and what its kind of stage has against it."""
        yield from Part.faults(self)
        given = [key for key in RATIOS if getattr(self, key) not in (None, ())]
        if len(given) != 1:
            *first, last = RATIOS
            yield next(iter(RATIOS)), "given twice or not at all", f"give one of {', '.join(first)} and {last}"
        else:
            yield from self.stage.faults()


def _field(value: BoxValue) -> tuple[str, Any, Any]:
    """A field of the part, read as the stage reads it, which need not be given."""
    default: Any = () if value.is_list else None
    return value.key, Any, dataclasses.field(default=default, metadata=value.declared.metadata)


GearboxPart: Any = dataclasses.make_dataclass(
    "GearboxPart",
    [_field(value) for value in (*RATIOS.values(), *BROUGHT.values())],
    bases=(_Box,),
    frozen=True,
    slots=True,
    kw_only=True,
    namespace={"__doc__": _Box.__doc__},
)
"""A bought box of any kind."""
