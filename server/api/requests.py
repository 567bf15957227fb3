"""What requests bring, and what the core answers, as serializers."""

from __future__ import annotations

from typing import Any

from rest_framework import serializers
from rest_framework.request import Request
from rest_framework_dataclasses.serializers import DataclassSerializer

MOST_DIGITS = 15


class DocumentField(serializers.DictField):
    """A design document; the core reads it, here it is any object."""


def answer_of(kind: type[Any]) -> type[DataclassSerializer[Any]]:
    """The serializer that describes a dataclass of the core in the published schema."""
    meta = type("Meta", (), {"dataclass": kind})
    return type(f"{kind.__name__}Serializer", (DataclassSerializer,), {"Meta": meta, "__doc__": kind.__doc__})


def whole_number(text: str) -> int | None:
    """A number in an address; None where nothing is given.

    Raises:
        ValidationError: it is none, or has more digits than anything here is counted in.
    """
    if not text:
        return None
    if not text.isdecimal() or len(text) > MOST_DIGITS:
        raise serializers.ValidationError(f'"{text[:20]}" given: give a whole number of at most {MOST_DIGITS} digits.')
    return int(text)


def read(form: type[serializers.Serializer[Any]], request: Request) -> dict[str, Any]:
    """The validated content of a request; what is wrong with it is answered with 400."""
    serializer = form(data=request.data)
    serializer.is_valid(raise_exception=True)
    values: dict[str, Any] = serializer.validated_data
    return values
