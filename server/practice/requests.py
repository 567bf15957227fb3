"""What requests of practice bring."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema_field
from rest_framework import serializers

from server.api.requests import NameField
from ydrometer.practice import IDEAS, KINDS
from ydrometer.practice.draw import LEVELS, SEEDS
from ydrometer.practice.exercise import SYSTEMS
from ydrometer.practice.memory import RATINGS

LONGEST_NICKNAME = 30
MOST_EXERCISES = 40
KIND_NAMES = list(KINDS)


class WhichSerializer(serializers.Serializer[Any]):
    """An exercise: the same four always give the same one."""

    kind = serializers.ChoiceField(choices=KIND_NAMES)
    level = serializers.IntegerField(min_value=LEVELS[0], max_value=LEVELS[-1])
    seed = serializers.IntegerField(min_value=0, max_value=SEEDS)
    units = serializers.ChoiceField(choices=SYSTEMS, default=SYSTEMS[0])


@extend_schema_field({"oneOf": [{"type": "string"}, {"type": "array", "items": {"type": "integer"}}]})
class AnswerField(serializers.Field):  # type: ignore[type-arg]  # what comes is read by the core
    """A text, or tooth counts of picked wheels."""

    def to_internal_value(self, data: Any) -> Any:
        good = isinstance(data, str) and len(data) <= 200
        picks = isinstance(data, list) and len(data) <= 8 and all(type(pick) is int for pick in data)
        if not good and not picks:
            raise serializers.ValidationError("Give a text, or the teeth of the wheels that are picked.")
        return data

    def to_representation(self, value: Any) -> Any:
        return value


class JudgeSerializer(WhichSerializer):
    answer = AnswerField()


class WentSerializer(WhichSerializer):
    """How an exercise went, once it is over."""

    went = serializers.ChoiceField(choices=list(RATINGS))


class OpenSerializer(WhichSerializer):
    """The workshop in which the scratch vehicle stands."""

    workshop = serializers.UUIDField()


class NewSetSerializer(serializers.Serializer[Any]):
    """A set for a class: so many exercises of these ideas at these levels."""

    name = NameField(max_length=120)
    ideas = serializers.ListField(
        child=serializers.ChoiceField(choices=list(IDEAS)), min_length=1, max_length=len(IDEAS)
    )
    levels = serializers.ListField(
        child=serializers.IntegerField(min_value=LEVELS[0], max_value=LEVELS[-1]), min_length=1, max_length=3
    )
    count = serializers.IntegerField(min_value=1, max_value=MOST_EXERCISES)
    own_numbers = serializers.BooleanField(default=False)
    units = serializers.ChoiceField(choices=SYSTEMS, default=SYSTEMS[0])


class JoinClassSerializer(serializers.Serializer[Any]):
    """The code of a class's set, and a first name or nickname."""

    code = serializers.CharField(max_length=20)
    nickname = NameField(max_length=LONGEST_NICKNAME)


class PupilAnswerSerializer(serializers.Serializer[Any]):
    answer = AnswerField()
