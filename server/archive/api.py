"""Archives over the wire: one out of a workshop, one in that becomes a workshop; each in pieces, and with progress."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiResponse, extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN, SIGNED_OUT
from server.api.limits import ARCHIVE, PIECE
from server.api.parsers import PieceParser, piece_of
from server.api.requests import NameField, answer_of, read
from server.archive import actions
from server.archive.models import Archive, ArchiveState, Direction
from server.archive.pack import stays
from server.pieces import store
from server.pieces.models import HeldPiece
from server.workshops import access
from server.workshops.access import acting
from ydrometer.base.errors import Fault


class NewArchiveSerializer(serializers.Serializer[Any]):
    """An archive that is about to come."""

    name = NameField(max_length=200)
    size = serializers.IntegerField(min_value=1, max_value=ARCHIVE)


class ChangeArchiveSerializer(serializers.Serializer[Any]):
    """All of it has come and is to be opened, or nobody wants it any more."""

    do = serializers.ChoiceField(choices=("open", "cancel"))


class ArchiveSerializer(serializers.Serializer[Any]):
    """How far an archive is: `size` bytes in pieces of `piece`, of which those are `missing`; `done` of `steps`.

    `workshop` is the one that was written, or that it has become; `stays` says what an archive that is written leaves
    behind.
    """

    id = serializers.UUIDField()
    direction = serializers.ChoiceField(Direction.choices)
    name = serializers.CharField()
    state = serializers.ChoiceField(ArchiveState.choices)
    size = serializers.IntegerField()
    piece = serializers.IntegerField()
    missing = serializers.ListField(child=serializers.IntegerField())
    done = serializers.IntegerField()
    steps = serializers.IntegerField()
    workshop = serializers.UUIDField(allow_null=True)
    stays = serializers.ListField(child=serializers.CharField())
    faults = answer_of(Fault)(many=True)


def _shown(archive: Archive) -> dict[str, Any]:
    held, coming = archive.held, archive.state == ArchiveState.COMING
    is_out = archive.direction == Direction.OUT
    return {
        "id": archive.pk,
        "direction": archive.direction,
        "name": archive.name,
        "state": archive.state,
        "size": held.size if held else 0,
        "piece": PIECE,
        "missing": store.missing(held) if held and coming else [],
        "done": archive.done,
        "steps": archive.steps,
        "workshop": archive.workshop_id if is_out or archive.state == ArchiveState.DONE else None,
        "stays": stays(archive.user, archive.workshop) if is_out and archive.workshop else [],
        "faults": archive.faults,
    }


def _own(request: Request, archive: UUID) -> Archive:
    """An archive of whoever asks; one out of a workshop as long as they are in it.

    Raises:
        Http404: it is not theirs to see.
    """
    mine = Archive.objects.select_related("held", "workshop", "user")
    row = get_object_or_404(mine, pk=archive, user=acting(request))
    if row.direction == Direction.OUT and not (row.workshop and access.may(row.user, row.workshop, access.READERS)):
        raise Http404
    return row


class WorkshopArchivesView(APIView):
    @extend_schema(request=None, responses={201: ArchiveSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Has a workshop written as one file."""
        workshop_row = access.workshop_for(acting(request), workshop)
        return Response(_shown(actions.ask(acting(request), workshop_row)), status=status.HTTP_201_CREATED)


class ArchivesView(APIView):
    @extend_schema(request=NewArchiveSerializer, responses={201: ArchiveSerializer, **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        """Begins with an archive that is to become a workshop of one's own."""
        row = actions.begin(acting(request), **read(NewArchiveSerializer, request))
        return Response(_shown(row), status=status.HTTP_201_CREATED)


class ArchiveView(APIView):
    @extend_schema(responses={200: ArchiveSerializer, **HIDDEN})
    def get(self, request: Request, archive: UUID) -> Response:
        """How far it is."""
        return Response(_shown(_own(request, archive)))

    @extend_schema(request=ChangeArchiveSerializer, responses={200: ArchiveSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, archive: UUID) -> Response:
        """Has it opened, or ends it."""
        row = _own(request, archive)
        does = {"open": actions.open_it, "cancel": actions.cancel}
        does[read(ChangeArchiveSerializer, request)["do"]](acting(request), row)
        return Response(_shown(_own(request, archive)))


class ArchivePieceView(APIView):
    parser_classes = (PieceParser,)

    @extend_schema(responses={(200, "application/octet-stream"): OpenApiResponse(OpenApiTypes.BINARY), **HIDDEN})
    def get(self, request: Request, archive: UUID, number: int) -> HttpResponse:
        """A piece of one that is written."""
        row = _own(request, archive)
        if row.direction != Direction.OUT or row.state != ArchiveState.DONE:
            raise Http404
        piece = get_object_or_404(HeldPiece, file=row.held_id, number=number)
        return HttpResponse(bytes(piece.data), content_type="application/octet-stream")

    @extend_schema(request={"application/octet-stream": OpenApiTypes.BINARY}, responses={204: None, **BAD, **HIDDEN})
    def put(self, request: Request, archive: UUID, number: int) -> Response:
        """A piece of one that comes; sent again it changes nothing."""
        row = _own(request, archive)
        actions.add_piece(acting(request), row, number, piece_of(request))
        return Response(status=status.HTTP_204_NO_CONTENT)
