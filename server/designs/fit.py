"""A design on its plate: what Fit shows, the ways to place it, and the templates; nothing here is kept."""

from __future__ import annotations

from functools import cache, lru_cache
from pathlib import Path
from typing import Any
from uuid import UUID

from django.conf import settings
from django.db.models import Count, Max, Sum
from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiResponse, extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.requests import DocumentField, answer_of, read
from server.parts.models import Part
from server.workshops import access
from server.workshops.access import acting
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document import design
from ydrometer.files.sheets.dxf import dxf
from ydrometer.files.sheets.outline import adapter_outline, plate_outline
from ydrometer.files.sheets.pdf import SIZES, pdf
from ydrometer.files.sheets.svg import svg
from ydrometer.fit.setup import set_up
from ydrometer.fit.stock import Stock, stock_of
from ydrometer.fit.ways import Ways
from ydrometer.screens.mounted import Mounted, mounted, places


class FitRequestSerializer(serializers.Serializer[Any]):
    document = DocumentField()


def _hand(workshop: Workshop) -> Stock:
    """What the bin has; read anew only when a part of it has changed, which a drag over the plate does not wait for."""
    stamp = workshop.parts.aggregate(count=Count("pk"), changes=Sum("version"), newest=Max("pk"))
    return _read_hand(workshop.pk, stamp["count"], stamp["changes"], stamp["newest"])


@lru_cache(maxsize=64)
def _read_hand(workshop: UUID, count: int, changes: int | None, newest: int | None) -> Stock:
    return stock_of(list(Part.objects.filter(workshop=workshop).values_list("document", flat=True)))


class TemplateRequestSerializer(serializers.Serializer[Any]):
    """`shaft` asks for an adapter for that shaft, by its path; empty for the whole plate. `sheet` is of paper."""

    document = DocumentField()
    shaft = serializers.CharField(max_length=200, allow_blank=True, default="")
    sheet = serializers.ChoiceField(choices=list(SIZES), default="a4")


class FitView(APIView):
    @extend_schema(request=FitRequestSerializer, responses={200: answer_of(Mounted), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """A design as it stands, with the parts of a bin."""
        found = access.workshop_for(acting(request), workshop)
        document = design.read(read(FitRequestSerializer, request)["document"])
        return Response(mounted(document, _hand(found)))


class PlacesView(APIView):
    @extend_schema(request=FitRequestSerializer, responses={200: answer_of(Ways), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """All ways to place its shafts."""
        found = access.workshop_for(acting(request), workshop)
        document = design.read(read(FitRequestSerializer, request)["document"])
        return Response(places(document, _hand(found)))


class TemplateView(APIView):
    @extend_schema(
        request=TemplateRequestSerializer,
        responses={(200, "application/octet-stream"): OpenApiResponse(OpenApiTypes.BINARY), **BAD, **HIDDEN},
    )
    def post(self, request: Request, workshop: UUID, kind: str) -> HttpResponse:
        """A template at full size: pdf, svg or dxf."""
        found = access.workshop_for(acting(request), workshop)
        if kind not in TYPES:
            raise Http404
        asked = read(TemplateRequestSerializer, request)
        setup = set_up(design.read(asked["document"]).design, _hand(found))
        try:
            outline = adapter_outline(setup, asked["shaft"]) if asked["shaft"] else plate_outline(setup)
            made = pdf(outline, asked["sheet"], template_font()) if kind == "pdf" else WRITE[kind](outline)
        except ValueError as error:
            raise DocumentError([Fault("fit", str(error), "then ask again")]) from None
        return HttpResponse(made, content_type=TYPES[kind])


TYPES = {"pdf": "application/pdf", "svg": "image/svg+xml", "dxf": "image/vnd.dxf"}
WRITE = {"svg": svg, "dxf": dxf}


@cache
def template_font() -> Path | None:
    """The face that ships with the page, where the page is built."""
    return next(
        iter(sorted(Path(settings.PAGE).glob("assets/atkinson-hyperlegible-next-latin-wght-normal*.woff2"))), None
    )
