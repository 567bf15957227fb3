"""Which fields of a type screens show, and how each is typed."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass, field
from typing import Any, Literal

from ydrometer.base.reading import Spec


def labelled(label: str, declared: Any) -> Any:
    """A field with what a screen calls it; without a label it is left to drawings and files."""
    return field(default=declared.default, metadata={**declared.metadata, "label": label})


Control = Literal["quantity", "whole", "numbers", "flag", "choice"]
"""How the value of a field is typed on a screen."""


_CONTROLS: dict[str, Control] = {"integer": "whole", "array": "numbers", "boolean": "flag"}


@dataclass(frozen=True, slots=True)
class LabelledField:
    """A field that screens show: its key, its label, how it is typed, the dimension of a quantity, empty otherwise, and
    whether it may be left empty.
    """

    key: str
    label: str
    control: Control
    dimension: str
    optional: bool


def labelled_fields(kind: type[Any]) -> list[LabelledField]:
    """The fields of a type that screens show, in the order of its declaration."""
    return [_labelled(f) for f in dataclasses.fields(kind) if f.metadata.get("label")]


def _labelled(declared: dataclasses.Field[Any]) -> LabelledField:
    spec: Spec = declared.metadata["spec"]
    schema = spec.read.schema()
    control: Control = "quantity" if spec.absent else _CONTROLS.get(schema.get("type", ""), "choice")
    dimension = spec.absent.dimension if spec.absent else ""
    optional = declared.default is not dataclasses.MISSING
    return LabelledField(declared.name, declared.metadata["label"], control, dimension, optional)
