"""Practice alone: the map of ideas, an exercise, what is said of an answer, and the exercise on the Line."""

from __future__ import annotations

from typing import Any

from django.utils import timezone
from drf_spectacular.utils import extend_schema
from rest_framework import status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts.models import User
from server.api.errors import BAD, HIDDEN
from server.api.requests import answer_of, read
from server.designs.api import VehicleSerializer
from server.entrance.api import PublicView
from server.practice import actions
from server.practice.requests import JudgeSerializer, OpenSerializer, WentSerializer, WhichSerializer
from server.workshops import access
from server.workshops.access import acting
from ydrometer.practice import KINDS, Exercise, Judgement, exercise, judge
from ydrometer.screens.practised import ExerciseShown, PracticeShown, Solved, exercise_shown, practice_shown, solved


def _drawn(body: dict[str, Any]) -> Exercise:
    return exercise(body["kind"], body["level"], body["seed"], body["units"])


def _user(request: Request) -> User | None:
    return request.user if isinstance(request.user, User) else None


class PracticeView(PublicView):
    @extend_schema(responses={200: answer_of(PracticeShown)})
    def get(self, request: Request) -> Response:
        """The map of ideas, and what comes next."""
        return Response(practice_shown(actions.known_to(_user(request)), timezone.now()))

    @extend_schema(request=WentSerializer, responses={200: answer_of(PracticeShown), **BAD})
    def post(self, request: Request) -> Response:
        """Notes how an exercise went; of those who are not signed in nothing is kept."""
        body, user = read(WentSerializer, request), _user(request)
        if user is not None and actions.keeps(user):
            actions.note(user, KINDS[body["kind"]].idea, body["went"])
        return Response(practice_shown(actions.known_to(user), timezone.now()))


class ExerciseView(PublicView):
    @extend_schema(request=WhichSerializer, responses={200: answer_of(ExerciseShown), **BAD})
    def post(self, request: Request) -> Response:
        """An exercise without its answer."""
        return Response(exercise_shown(_drawn(read(WhichSerializer, request))))


class JudgeView(PublicView):
    @extend_schema(request=JudgeSerializer, responses={200: answer_of(Judgement), **BAD})
    def post(self, request: Request) -> Response:
        """What is to be said of an answer."""
        body = read(JudgeSerializer, request)
        return Response(judge(_drawn(body), body["answer"]))


class SolvedView(PublicView):
    @extend_schema(request=WhichSerializer, responses={200: answer_of(Solved), **BAD})
    def post(self, request: Request) -> Response:
        """The answer, and how it comes about."""
        return Response(solved(_drawn(read(WhichSerializer, request))))


class OpenView(APIView):
    @extend_schema(request=OpenSerializer, responses={201: VehicleSerializer, **BAD, **HIDDEN})
    def post(self, request: Request) -> Response:
        """Opens an exercise on the Line, as a scratch vehicle."""
        body = read(OpenSerializer, request)
        workshop = access.workshop_for(acting(request), body["workshop"], access.EDITORS)
        vehicle_row = actions.open_on_line(acting(request), workshop, _drawn(body))
        return Response(VehicleSerializer(vehicle_row).data, status=status.HTTP_201_CREATED)
