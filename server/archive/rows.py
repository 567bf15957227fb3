"""Rows of an archive as they are written and read: each checked as if it were sent, and nothing of it is believed."""

from __future__ import annotations

from typing import Any, get_args

from rest_framework import serializers

from server.api.limits import MOST_PUPILS
from server.api.requests import DocumentField, MomentField, NameField
from server.practice.requests import LONGEST_NICKNAME, MOST_EXERCISES, AnswerField
from server.runs.models import Origin
from ydrometer.practice import KINDS
from ydrometer.practice.draw import LEVELS, SEEDS
from ydrometer.practice.exercise import SYSTEMS
from ydrometer.practice.judge import Verdict

LONGEST_NAME = 200
FILE = 300
"""Characters of the name of a file."""
MOST_PATHS, MOST_TOGETHER = 200, 400


class RevisionRow(serializers.Serializer[Any]):
    """A revision, whose document is in a file of its own."""

    file = serializers.CharField(max_length=FILE)
    name = NameField(max_length=LONGEST_NAME, allow_blank=True, default="")
    number = serializers.IntegerField(min_value=1, required=False, allow_null=True, default=None)
    saved_at = MomentField(required=False, allow_null=True, default=None)


class KeptRunRow(serializers.Serializer[Any]):
    """What is known of a run besides what stands in its runs file; `revision` is its design's number."""

    id = serializers.UUIDField()
    made_at = MomentField()
    origin = serializers.ChoiceField(Origin.choices)
    put_away = serializers.BooleanField(default=False)
    changed = serializers.ListField(child=serializers.CharField(max_length=1000), max_length=1000, default=list)
    revision = serializers.IntegerField(min_value=1, max_value=2_000_000_000, allow_null=True, default=None)


class TogetherForm(serializers.Serializer[Any]):
    """Values that were fitted together."""

    paths = serializers.ListField(child=serializers.CharField(max_length=FILE), max_length=MOST_PATHS)
    values = serializers.ListField(child=serializers.FloatField(), max_length=MOST_PATHS)
    factors = serializers.ListField(
        child=serializers.ListField(child=serializers.FloatField(), max_length=MOST_TOGETHER), max_length=MOST_PATHS
    )

    def validate(self, attrs: dict[str, Any]) -> dict[str, Any]:
        paths, values, factors = attrs["paths"], attrs["values"], attrs["factors"]
        if not len(paths) == len(values) == len(factors) or len({len(row) for row in factors}) > 1:
            raise serializers.ValidationError("Give a value of each path, and as many factors of each.")
        return attrs


class LessonRow(serializers.Serializer[Any]):
    """What was learnt from runs."""

    together = TogetherForm()
    runs = serializers.ListField(child=serializers.UUIDField(), max_length=10_000)
    learnt_at = MomentField()


class PhotoRow(serializers.Serializer[Any]):
    """A photo, whose picture is in a file of its own."""

    step = serializers.CharField(max_length=200)
    file = serializers.CharField(max_length=FILE)
    taken_at = MomentField()


class ExerciseRow(serializers.Serializer[Any]):
    """One exercise of a set."""

    kind = serializers.ChoiceField(choices=list(KINDS))
    level = serializers.IntegerField(min_value=LEVELS[0], max_value=LEVELS[-1])


class PupilRow(serializers.Serializer[Any]):
    """A pupil of a set."""

    number = serializers.IntegerField(min_value=1, max_value=2_000_000_000)
    nickname = NameField(max_length=LONGEST_NICKNAME)
    joined_at = MomentField()


class SetRow(serializers.Serializer[Any]):
    """A set of exercises with its pupils."""

    name = NameField(max_length=120)
    plan = serializers.ListField(child=ExerciseRow(), min_length=1, max_length=MOST_EXERCISES)
    own_numbers = serializers.BooleanField()
    seed = serializers.IntegerField(min_value=0, max_value=SEEDS)
    units = serializers.ChoiceField(choices=SYSTEMS)
    made_at = MomentField()
    pupils = serializers.ListField(child=PupilRow(), max_length=MOST_PUPILS)

    def validate(self, attrs: dict[str, Any]) -> dict[str, Any]:
        numbers = [pupil["number"] for pupil in attrs["pupils"]]
        if len(set(numbers)) < len(numbers):
            raise serializers.ValidationError("Two pupils have the same number: give each their own.")
        return attrs


class AnswerRow(serializers.Serializer[Any]):
    """An answer of a pupil."""

    pupil = serializers.IntegerField(min_value=1, max_value=2_000_000_000)
    place = serializers.IntegerField(min_value=0, max_value=MOST_EXERCISES - 1)
    given = AnswerField()
    verdict = serializers.ChoiceField(choices=list(get_args(Verdict)))
    mistake = serializers.CharField(max_length=60, allow_blank=True, default="")
    at = MomentField()


class RaceRow(serializers.Serializer[Any]):
    """A race, whose vehicles are named by their ids in the archive."""

    document = DocumentField()
    made_at = MomentField()


class TemplateRow(serializers.Serializer[Any]):
    """Own steps under a name."""

    name = NameField(max_length=120)
    steps = serializers.ListField(child=serializers.DictField())
