"""What requests bring, and what the core answers, as serializers."""

from __future__ import annotations

from datetime import date
from typing import Any

from rest_framework import serializers
from rest_framework.request import Request
from rest_framework_dataclasses.serializers import DataclassSerializer

from ydrometer.base.reading import one_line
from ydrometer.build.book import FIRST_YEAR, LAST_YEAR

MOST_DIGITS = 15


class DocumentField(serializers.DictField):
    """A design document; the core reads it, here it is any object."""


class NameField(serializers.CharField):
    """A name: text of one line. What comes on several lines is joined by blanks."""

    def to_internal_value(self, data: Any) -> str:
        """The name on one line."""
        return one_line(super().to_internal_value(data))


class OurTime(serializers.Field):  # type: ignore[type-arg]  # goes before a field of moments or of days
    """In the years that such a thing can have happened in."""

    def to_internal_value(self, data: Any) -> Any:
        """The moment or day that is meant.

        Raises:
            ValidationError: it cannot be read, or lies in another century.
        """
        moment: date = super().to_internal_value(data)
        need_our_time(moment)
        return moment


class MomentField(OurTime, serializers.DateTimeField):
    """When something happened."""


class DayField(OurTime, serializers.DateField):
    """A day of these years."""


def need_our_time(moment: date) -> None:
    """Refuse what lies in another century: a clock is wrong there, and no calendar reckons with it.

    Raises:
        ValidationError: it does.
    """
    if not FIRST_YEAR <= moment.year <= LAST_YEAR:
        raise serializers.ValidationError(
            f"The year {moment.year} is given: give one from {FIRST_YEAR} to {LAST_YEAR}."
        )


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
