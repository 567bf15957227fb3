"""Archives over the wire: one out of a workshop, and one in that becomes a workshop."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiResponse, extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN, SIGNED_OUT
from server.api.files import download
from server.api.parsers import PieceParser
from server.archive.pack import pack
from server.archive.unpack import unpack
from server.workshops import access
from server.workshops.access import acting
from server.workshops.api import WorkshopSerializer, need_room_for_another, shown


class ArchiveParser(PieceParser):
    """A whole archive as it is."""

    LARGEST = 200_000_000


class ArchiveView(APIView):
    @extend_schema(responses={(200, "application/zip"): OpenApiResponse(OpenApiTypes.BINARY), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> HttpResponse:
        """A workshop as one file: designs, bin, runs, builds and photos."""
        workshop_row = access.workshop_for(acting(request), workshop)
        return download(pack(workshop_row), "application/zip", f"{workshop_row.name}.zip")


class ArchivesView(APIView):
    parser_classes = (ArchiveParser,)

    @extend_schema(
        request={"application/octet-stream": OpenApiTypes.BINARY},
        responses={201: WorkshopSerializer, **BAD, **SIGNED_OUT},
    )
    def post(self, request: Request) -> Response:
        """A workshop of one's own from an archive."""
        user = acting(request)
        need_room_for_another(user)
        if not isinstance(request.data, bytes):
            raise serializers.ValidationError({"data": "Send the archive as bytes."})
        workshop_row = unpack(user, request.data)
        return Response(shown(workshop_row.memberships.get(user=user)), status=status.HTTP_201_CREATED)
