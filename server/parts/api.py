"""The bin of a workshop: its parts, changes to them, and lists of parts in files."""

from __future__ import annotations

import base64
import binascii
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.http import HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, OpenApiResponse, extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.files import FORMATS, attachment, download
from server.api.heavy import aside
from server.api.requests import DocumentField, NameField, answer_of, read
from server.api.stale import Stale
from server.parts import books
from server.parts.actions import Change, change_parts
from server.parts.models import documents
from server.workshops import access
from server.workshops.access import acting
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document import design
from ydrometer.document.walk import stage_at
from ydrometer.parts import bulk, files, sheet
from ydrometer.parts.columns import TABLE
from ydrometer.parts.fitting import PartFit, fits
from ydrometer.parts.names import Ids
from ydrometer.parts.part import LONGEST_ID

MOST_CHANGES = 5000


class BinPartSerializer(serializers.Serializer[Any]):
    version = serializers.IntegerField()
    document = DocumentField()


class ChangeSerializer(serializers.Serializer[Any]):
    """`base` is the version that was changed, 0 for a new part; without a document the part is taken out."""

    id = serializers.CharField(max_length=LONGEST_ID)
    base = serializers.IntegerField(min_value=0, max_value=2_000_000_000)
    document = DocumentField(allow_null=True)

    def validate(self, attrs: dict[str, Any]) -> dict[str, Any]:
        if attrs["document"] is not None and attrs["document"].get("id") != attrs["id"]:
            raise serializers.ValidationError("The document's id is another than that of the change.")
        return attrs


class ChangesSerializer(serializers.Serializer[Any]):
    changes = serializers.ListField(child=ChangeSerializer(), min_length=1, max_length=MOST_CHANGES)


class PartConflictSerializer(serializers.Serializer[Any]):
    """What stands in the bin now, of the parts that somebody else has changed since."""

    detail = serializers.CharField()
    present = BinPartSerializer(many=True)


class BulkSerializer(serializers.Serializer[Any]):
    """Lines such as "module 1: 12 13 14x2"."""

    kind = serializers.ChoiceField(choices=sorted(bulk.LISTED))
    text = serializers.CharField(max_length=20_000, trim_whitespace=False)


class FileSerializer(serializers.Serializer[Any]):
    """A CSV or XLSX file in base64; `kind` is that of rows which do not say theirs."""

    name = NameField(max_length=200)
    data = serializers.CharField(  # type: ignore[assignment]  # the name the page sends; shadows only the form machinery
        max_length=2 * files.LARGEST
    )
    kind = serializers.ChoiceField(choices=list(TABLE), required=False)


@dataclass(frozen=True, slots=True)
class PartList:
    """Parts as they would stand in the bin, and what is wrong with the lines they came from; nothing is written yet.

    Attributes:
        parts: documents. versions: of the part in the bin that each would replace, 0 for a new one.
        faults: with any of them nothing is to be written.
    """

    parts: list[dict[str, Any]]
    versions: list[int]
    faults: list[sheet.CellFault]


@dataclass(frozen=True, slots=True)
class Fits:
    """Parts that fit a stage, from the smallest up."""

    fits: list[PartFit]


class FitsRequestSerializer(serializers.Serializer[Any]):
    """`path` of a stage of the design."""

    document = DocumentField()
    path = serializers.CharField(max_length=200)


class PartsView(APIView):
    @extend_schema(responses={200: BinPartSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop)
        return Response(list(workshop_row.parts.values("version", "document")))

    @extend_schema(
        request=ChangesSerializer,
        responses={200: BinPartSerializer(many=True), 409: PartConflictSerializer, **BAD, **HIDDEN},
    )
    def post(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop, access.EDITORS)
        changes = read(ChangesSerializer, request)["changes"]
        changed = change_parts(
            acting(request), workshop_row, [Change(c["id"], c["base"], c["document"]) for c in changes]
        )
        if isinstance(changed, Stale):
            detail = "Somebody else has changed these parts since. Nothing was overwritten."
            present = BinPartSerializer(changed.present, many=True).data
            return Response({"detail": detail, "present": present}, status=status.HTTP_409_CONFLICT)
        return Response(BinPartSerializer(changed, many=True).data)


class FitsView(APIView):
    @extend_schema(request=FitsRequestSerializer, responses={200: answer_of(Fits), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """The parts of the bin that could stand in a stage of a design."""
        workshop_row = access.workshop_for(acting(request), workshop)
        body = read(FitsRequestSerializer, request)
        stage = stage_at(design.read(body["document"]).design, body["path"])
        if stage is None:
            raise DocumentError([Fault("path", f'"{body["path"][:60]}" given', "give the path of a stage")])
        parts = workshop_row.parts.filter(document__kind=stage.form.part if stage.form else "")
        return Response(Fits(fits(stage, list(parts.values_list("document", flat=True)))))


class BulkView(APIView):
    @extend_schema(request=BulkSerializer, responses={200: answer_of(PartList), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop, access.EDITORS)
        body = read(BulkSerializer, request)
        parts, faults = bulk.read_lines(body["kind"], body["text"])
        ids = Ids(workshop_row.parts.values_list("ref", flat=True))
        for part in parts:
            part["id"] = ids.new(part)
        cell_faults = [sheet.CellFault(f.line, "", f.problem, f.remedy) for f in faults]
        return Response(PartList(parts, [0] * len(parts), cell_faults))


class FileView(APIView):
    @extend_schema(request=FileSerializer, responses={200: answer_of(PartList), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Reads a file; what it holds is put into the bin by a change, all or nothing."""
        workshop_row = access.workshop_for(acting(request), workshop, access.EDITORS)
        body = read(FileSerializer, request)
        try:
            data = base64.b64decode(body["data"], validate=True)
        except (binascii.Error, ValueError):
            raise DocumentError([Fault("data", "not base64", "give the file's bytes in base64")]) from None
        versions = dict(workshop_row.parts.values_list("ref", "version"))
        parts, faults = aside(files.parts_in, body["name"], data, body.get("kind", ""), tuple(versions))
        return Response(PartList(parts, [versions.get(part["id"], 0) for part in parts], faults))


class ExportView(APIView):
    @extend_schema(
        parameters=[OpenApiParameter("kind", str, enum=list(TABLE))],
        responses={(200, "application/octet-stream"): OpenApiResponse(OpenApiTypes.BINARY), **BAD, **HIDDEN},
    )
    def get(self, request: Request, workshop: UUID, suffix: str) -> HttpResponse:
        """All parts, or those of one kind, as a file: CSV has one table for all, XLSX a sheet for each kind.

        XLSX is written by a worker: until it is there the answer is 503, with when to ask again.
        """
        workshop_row = access.workshop_for(acting(request), workshop)
        kind = request.query_params.get("kind", "")
        if suffix == "xlsx":
            book = books.book_of(workshop_row, kind if kind in TABLE else "")
            return download(book, FORMATS[suffix], "parts.xlsx")
        parts = [part for part in documents(workshop_row) if kind in ("", part["kind"])]
        return attachment("parts", suffix, [("", sheet.rows_of(parts))])
