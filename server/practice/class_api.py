"""A class: sets that an owner makes, and pupils who join by a code and see their own answers alone."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiResponse, extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts import patience
from server.api.errors import BAD, HIDDEN, TOO_MANY
from server.api.files import download, faces_folder
from server.api.requests import answer_of, read
from server.entrance.api import PublicView
from server.practice import actions
from server.practice.models import ExerciseSet, Pupil
from server.practice.requests import JoinClassSerializer, NewSetSerializer, PupilAnswerSerializer
from server.practice.shown import ClassShown, SetShown, class_shown, set_shown
from server.workshops import access
from server.workshops.access import acting
from ydrometer.files.practice_sheet import practice_sheet
from ydrometer.practice import Judgement
from ydrometer.screens.practised import ExerciseShown, Solved, exercise_shown, solved

PUPIL = "pupil"
"""Where a browser's session says which pupil it is."""


class SetCardSerializer(serializers.ModelSerializer[ExerciseSet]):
    """A set in a list, with how many have joined it."""

    count = serializers.SerializerMethodField()
    joined = serializers.SerializerMethodField()

    class Meta:
        model = ExerciseSet
        fields = ("id", "name", "code", "made_at", "count", "joined")

    def get_count(self, exercise_set: ExerciseSet) -> int:
        return len(exercise_set.plan)

    def get_joined(self, exercise_set: ExerciseSet) -> int:
        return exercise_set.pupils.count()


def _set(request: Request, which: UUID) -> ExerciseSet:
    return access.belonging(ExerciseSet.objects.select_related("workshop"), acting(request), access.OWNERS, pk=which)


class SetsView(APIView):
    @extend_schema(responses={200: SetCardSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        """All sets of a workshop, the newest first."""
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        return Response(SetCardSerializer(workshop_row.exercise_sets.all(), many=True).data)

    @extend_schema(request=NewSetSerializer, responses={201: SetCardSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Makes a set with a code to join it by."""
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        set_row = actions.make_set(acting(request), workshop_row, read(NewSetSerializer, request))
        return Response(SetCardSerializer(set_row).data, status=status.HTTP_201_CREATED)


class SetView(APIView):
    @extend_schema(responses={200: answer_of(SetShown), **HIDDEN})
    def get(self, request: Request, which: UUID) -> Response:
        """How far everybody is, and which mistakes are made."""
        return Response(set_shown(_set(request, which)))

    @extend_schema(responses={204: None, **HIDDEN})
    def delete(self, request: Request, which: UUID) -> Response:
        """Takes the set away for good, with its pupils and their answers."""
        actions.delete_set(acting(request), _set(request, which))
        return Response(status=status.HTTP_204_NO_CONTENT)


class SetPupilsView(APIView):
    @extend_schema(responses={204: None, **HIDDEN})
    def delete(self, request: Request, which: UUID) -> Response:
        """Forgets all pupils of the set with their answers."""
        actions.forget_pupils(acting(request), _set(request, which))
        return Response(status=status.HTTP_204_NO_CONTENT)


class WallView(APIView):
    @extend_schema(responses={200: answer_of(ExerciseShown), **HIDDEN})
    def get(self, request: Request, which: UUID, place: int) -> Response:
        """One exercise for the wall, with the set's own numbers and without names."""
        return Response(exercise_shown(actions.of_set(set_row := _set(request, which), _place(set_row, place))))

    @extend_schema(request=None, responses={200: answer_of(Solved), **HIDDEN})
    def post(self, request: Request, which: UUID, place: int) -> Response:
        """Its answer, once the class has seen it."""
        return Response(solved(actions.of_set(set_row := _set(request, which), _place(set_row, place))))


class SetSheetView(APIView):
    @extend_schema(responses={(200, "application/pdf"): OpenApiResponse(OpenApiTypes.BINARY), **HIDDEN})
    def get(self, request: Request, which: UUID) -> HttpResponse:
        """The set on paper: exercises with drawings, and their answers with working on pages of their own."""
        set_row = _set(request, which)
        exercises = [actions.of_set(set_row, place) for place in range(len(set_row.plan))]
        return download(
            practice_sheet(set_row.name, exercises, faces_folder()), "application/pdf", f"{set_row.name}.pdf"
        )


def _place(exercise_set: ExerciseSet, place: int) -> int:
    if place >= len(exercise_set.plan):
        raise Http404
    return place


def _pupil(request: Request) -> Pupil:
    """Who this browser has joined as.

    Raises:
        Http404: as nobody, or as somebody who is forgotten.
    """
    pupil = _known(request)
    if pupil is None:
        raise Http404
    return pupil


def _known(request: Request) -> Pupil | None:
    known = request.session.get(PUPIL)
    seen = Pupil.objects.select_related("set").filter(set__workshop__closed_at__isnull=True)
    return seen.filter(pk=known).first() if known else None


class JoiningClassView(PublicView):
    @extend_schema(request=JoinClassSerializer, responses={200: answer_of(ClassShown), **BAD, **TOO_MANY, **HIDDEN})
    def post(self, request: Request) -> Response:
        """Joins a class by its code, under a nickname."""
        body = read(JoinClassSerializer, request)
        tried = (patience.CLASS, patience.address_of(request))
        patience.count(tried)
        pupil = actions.join(body["code"], body["nickname"])
        if pupil is None:
            raise serializers.ValidationError({"code": "There is no class with this code: look once more."})
        patience.forgive(tried)
        request.session[PUPIL] = str(pupil.pk)
        return Response(class_shown(pupil))


class ClassView(PublicView):
    @extend_schema(responses={200: answer_of(ClassShown), 204: None})
    def get(self, request: Request) -> Response:
        """How far this pupil is; nothing where this browser has joined no class."""
        pupil = _known(request)
        return Response(status=status.HTTP_204_NO_CONTENT) if pupil is None else Response(class_shown(pupil))

    @extend_schema(request=None, responses={204: None})
    def delete(self, request: Request) -> Response:
        """Leaves the class on this device."""
        request.session.pop(PUPIL, None)
        return Response(status=status.HTTP_204_NO_CONTENT)


class ClassExerciseView(PublicView):
    @extend_schema(responses={200: answer_of(ExerciseShown), **HIDDEN})
    def get(self, request: Request, place: int) -> Response:
        """One exercise of the pupil's set, with their numbers."""
        return Response(exercise_shown(_own(pupil := _pupil(request), _place(pupil.set, place))))

    @extend_schema(request=PupilAnswerSerializer, responses={200: answer_of(Judgement), **BAD, **HIDDEN})
    def post(self, request: Request, place: int) -> Response:
        """Judges an answer and keeps it."""
        pupil, given = _pupil(request), read(PupilAnswerSerializer, request)["answer"]
        return Response(actions.answer(pupil, _place(pupil.set, place), given))


def _own(pupil: Pupil, place: int) -> Any:
    return actions.of_set(pupil.set, place, pupil.number)
