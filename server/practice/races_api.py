"""Race boards over the wire."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.requests import DocumentField, answer_of, read
from server.practice import racing
from server.practice.models import RaceBoard
from server.practice.racing import BoardShown, cards, shown
from server.workshops import access
from server.workshops.access import acting


class RaceCardSerializer(serializers.Serializer[Any]):
    """A race in a list."""

    id = serializers.UUIDField()
    name = serializers.CharField()
    made_at = serializers.DateTimeField()
    entries = serializers.IntegerField()
    heats = serializers.IntegerField()


class NewRaceSerializer(serializers.Serializer[Any]):
    """A board as docs/practice.md has it."""

    document = DocumentField()


class SaveRaceSerializer(serializers.Serializer[Any]):
    """`base` is the version that was changed."""

    base = serializers.IntegerField(min_value=1, max_value=2_000_000_000)
    document = DocumentField()


class RaceConflictSerializer(serializers.Serializer[Any]):
    """Somebody has changed it since: nothing was overwritten, and this is how it stands."""

    detail = serializers.CharField()
    present = answer_of(BoardShown)()


def _board(request: Request, which: UUID, roles: Any = access.READERS) -> RaceBoard:
    return access.belonging(RaceBoard.objects.select_related("workshop"), acting(request), roles, pk=which)


class RacesView(APIView):
    @extend_schema(responses={200: RaceCardSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        """All races of a workshop, the newest first."""
        workshop_row = access.workshop_for(acting(request), workshop)
        return Response(RaceCardSerializer(cards(list(workshop_row.races.all())), many=True).data)

    @extend_schema(request=NewRaceSerializer, responses={201: answer_of(BoardShown), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Makes a board."""
        workshop_row = access.workshop_for(acting(request), workshop, access.EDITORS)
        row = racing.make(acting(request), workshop_row, read(NewRaceSerializer, request)["document"])
        return Response(shown(row), status=status.HTTP_201_CREATED)


class RaceView(APIView):
    @extend_schema(responses={200: answer_of(BoardShown), **HIDDEN})
    def get(self, request: Request, race: UUID) -> Response:
        """A board, with who runs next and how everybody stands."""
        return Response(shown(_board(request, race)))

    @extend_schema(
        request=SaveRaceSerializer,
        responses={200: answer_of(BoardShown), 409: RaceConflictSerializer, **BAD, **HIDDEN},
    )
    def put(self, request: Request, race: UUID) -> Response:
        """Changes it: entries, settings, and heats that were run."""
        board = _board(request, race, access.EDITORS)
        body = read(SaveRaceSerializer, request)
        saved = racing.change(acting(request), board, body["base"], body["document"])
        if saved is None:
            detail = "Somebody has changed the race since. Nothing was overwritten."
            present = shown(_board(request, race))
            return Response({"detail": detail, "present": present}, status=status.HTTP_409_CONFLICT)
        return Response(shown(saved))

    @extend_schema(responses={204: None, **HIDDEN})
    def delete(self, request: Request, race: UUID) -> Response:
        """Takes it away for good."""
        racing.delete(acting(request), _board(request, race, access.EDITORS))
        return Response(status=status.HTTP_204_NO_CONTENT)
