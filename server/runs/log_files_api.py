"""Loggers' files for the page: begun with their first lines, sent in pieces, read by a worker, with progress."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.limits import LOG_FILE, PIECE
from server.api.parsers import PieceParser, piece_of
from server.api.requests import DocumentField, NameField, answer_of, read
from server.runs import log_files
from server.runs.api import vehicle_of
from server.runs.models import FileState, LogFile
from server.workshops import access
from server.workshops.access import acting
from ydrometer.instruments.columns import MEANINGS, LogLayout
from ydrometer.screens.logged_file import FileShown


class NewFileSerializer(serializers.Serializer[Any]):
    """A file that is about to come; `head` its first lines, empty of a sheet."""

    name = NameField(max_length=200)
    size = serializers.IntegerField(min_value=1, max_value=LOG_FILE)
    head = serializers.CharField(max_length=200_000, trim_whitespace=False, allow_blank=True)


class ReadFileSerializer(serializers.Serializer[Any]):
    """What its columns hold, confirmed; or that a sheet has come and is to be looked at, or is not wanted any more."""

    layout = DocumentField(required=False)
    do = serializers.ChoiceField(choices=("look", "cancel"), required=False)


class LogFileSerializer(serializers.Serializer[Any]):
    """A file: in pieces of how many bytes it comes, how its table is written, how far it has been read, and what was
    found in it.
    """

    id = serializers.UUIDField()
    name = serializers.CharField()
    size = serializers.IntegerField()
    piece = serializers.IntegerField()
    state = serializers.ChoiceField(FileState.choices)
    layout = answer_of(LogLayout)()
    meanings = serializers.DictField(child=serializers.CharField())
    rows = serializers.IntegerField()
    trouble = serializers.CharField()
    found = answer_of(FileShown)(allow_null=True)


def _shown(file: LogFile) -> dict[str, Any]:
    return {
        "id": file.pk,
        "name": file.name,
        "size": file.size,
        "piece": PIECE,
        "state": file.state,
        "layout": file.layout,
        "meanings": {meaning: unit for meaning, (_, unit) in MEANINGS.items()},
        "rows": file.rows,
        "trouble": file.trouble,
        "found": file.found,
    }


CHANGES = {"look": log_files.look, "cancel": log_files.cancel}


def _file(request: Request, vehicle: UUID, file: UUID, roles: Any = access.READERS) -> LogFile:
    return get_object_or_404(vehicle_of(request, vehicle, roles).log_files, pk=file)


class FilesView(APIView):
    @extend_schema(request=NewFileSerializer, responses={201: LogFileSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Begins with a file: what its columns probably hold."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        file_row = log_files.begin(acting(request), vehicle_row, **read(NewFileSerializer, request))
        return Response(_shown(file_row), status=status.HTTP_201_CREATED)


class FileView(APIView):
    @extend_schema(responses={200: LogFileSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID, file: UUID) -> Response:
        return Response(_shown(_file(request, vehicle, file)))

    @extend_schema(request=ReadFileSerializer, responses={200: LogFileSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, vehicle: UUID, file: UUID) -> Response:
        """Has it read, or ends that."""
        file_row = _file(request, vehicle, file, access.EDITORS)
        body = read(ReadFileSerializer, request)
        if "do" in body:
            CHANGES[body["do"]](acting(request), file_row)
        elif "layout" in body:
            log_files.read_it(acting(request), file_row, body["layout"])
        file_row.refresh_from_db()
        return Response(_shown(file_row))


class PieceView(APIView):
    parser_classes = (PieceParser,)

    @extend_schema(request={"application/octet-stream": OpenApiTypes.BINARY}, responses={204: None, **BAD, **HIDDEN})
    def put(self, request: Request, vehicle: UUID, file: UUID, number: int) -> Response:
        """A piece of the file; sent again it changes nothing."""
        file_row = _file(request, vehicle, file, access.EDITORS)
        log_files.add_piece(acting(request), file_row, number, piece_of(request))
        return Response(status=status.HTTP_204_NO_CONTENT)
