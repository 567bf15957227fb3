"""Which fields of a type screens show, and how each is typed."""

from __future__ import annotations

import dataclasses
from dataclasses import dataclass, field
from typing import Any, Literal

from ydrometer.base.reading import Spec, key_of

STRENGTH = "strength"
"""Group of the fields that say what a part stands."""


def labelled(label: str, declared: Any, *, group: str = "") -> Any:
    """A field with what a screen calls it, and the group that it stands in; without a label it is left to drawings and
    files.
    """
    return field(default=declared.default, metadata={**declared.metadata, "label": label, "group": group})


def strength(label: str, declared: Any) -> Any:
    """A field that says what a part stands."""
    return labelled(label, declared, group=STRENGTH)


def parts(kind: type[Any], declared: Any, *, group: str = "") -> Any:
    """A field that holds an object whose own labelled fields are shown.

    Args:
        kind: of the object.
        declared: the field.
        group: in which they stand together; empty where each has its own.
    """
    return field(default=declared.default, metadata={**declared.metadata, "parts": kind, "group": group})


Control = Literal["quantity", "whole", "numbers", "flag", "text", "choice"]
"""How the value of a field is typed on a screen."""


_CONTROLS: dict[str, Control] = {"integer": "whole", "array": "numbers", "boolean": "flag", "string": "text"}


@dataclass(frozen=True, slots=True)
class LabelledField:
    """A field that screens show: its key, its label, how it is typed, the dimension of a quantity, empty otherwise,
    whether it may be left empty, the group it stands in, and what a choice is between.
    """

    key: str
    label: str
    control: Control
    dimension: str
    optional: bool
    group: str
    choices: list[str]


def labelled_fields(kind: type[Any], prefix: str = "") -> list[LabelledField]:
    """The fields of a type that screens show, in the order of its declaration.

    Args:
        kind: the type.
        prefix: of their keys, where it is nested in another one.
    """
    shown = [label for f in dataclasses.fields(kind) for label in _labels(f)]
    return [dataclasses.replace(label, key=f"{prefix}{label.key}") for label in shown]


def _labels(declared: dataclasses.Field[Any]) -> list[LabelledField]:
    """Of a field, or of all that is in the object that it holds; none of one that is left to drawings and files."""
    if "parts" in declared.metadata:
        inside = labelled_fields(declared.metadata["parts"], f"{key_of(declared)}.")
        return [dataclasses.replace(each, group=declared.metadata["group"] or each.group) for each in inside]
    return [_labelled(declared)] if declared.metadata.get("label") else []


def _labelled(declared: dataclasses.Field[Any]) -> LabelledField:
    spec: Spec = declared.metadata["spec"]
    schema = spec.read.schema()
    control: Control = "quantity" if spec.absent else _CONTROLS.get(schema.get("type", ""), "choice")
    dimension = spec.absent.dimension if spec.absent else ""
    optional = declared.default is not dataclasses.MISSING
    return LabelledField(
        key_of(declared),
        declared.metadata["label"],
        control,
        dimension,
        optional,
        declared.metadata["group"],
        list(schema.get("enum", ())),
    )
