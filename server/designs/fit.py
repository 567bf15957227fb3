"""A design on its plate: what Fit shows, the ways to place it, and the templates; nothing here is kept."""

from __future__ import annotations

from functools import cache, lru_cache
from pathlib import Path
from typing import Any
from uuid import UUID

from django.db.models import Count, Max, Sum
from django.http import Http404
from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.files import faces_folder
from server.api.heavy import aside
from server.api.requests import DocumentField, answer_of, read
from server.parts.models import Part
from server.workshops import access
from server.workshops.access import acting
from server.workshops.models import Workshop
from ydrometer.document import design
from ydrometer.files.sheets.pdf import SIZES
from ydrometer.files.sheets.template import TYPES, Template, TemplateWish, template
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


class PlacesRequestSerializer(serializers.Serializer[Any]):
    """`behind` is the path of the stage that turns the axis in front of the plate; empty for the first plate."""

    document = DocumentField()
    behind = serializers.CharField(max_length=200, allow_blank=True, default="")


class TemplateRequestSerializer(PlacesRequestSerializer):
    """`shaft` asks for an adapter for that shaft, by its path, or for a plate of an adapter between flanges; empty for
    the whole plate. `sheet` is of paper.
    """

    shaft = serializers.CharField(max_length=200, allow_blank=True, default="")
    sheet = serializers.ChoiceField(choices=list(SIZES), default="a4")


class FitView(APIView):
    @extend_schema(request=FitRequestSerializer, responses={200: answer_of(Mounted), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """A design as it stands, with the parts of a bin."""
        workshop_row = access.workshop_for(acting(request), workshop)
        document = design.read(read(FitRequestSerializer, request)["document"])
        return Response(mounted(document, _hand(workshop_row)))


class PlacesView(APIView):
    @extend_schema(request=PlacesRequestSerializer, responses={200: answer_of(Ways), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """All ways to place its shafts."""
        workshop_row = access.workshop_for(acting(request), workshop)
        body = read(PlacesRequestSerializer, request)
        return Response(aside(places, design.read(body["document"]), _hand(workshop_row), body["behind"]))


class TemplateView(APIView):
    @extend_schema(
        request=TemplateRequestSerializer,
        responses={200: answer_of(Template), **BAD, **HIDDEN},
    )
    def post(self, request: Request, workshop: UUID, kind: str) -> Response:
        """A template at full size: pdf, svg or dxf."""
        workshop_row = access.workshop_for(acting(request), workshop)
        if kind not in TYPES:
            raise Http404
        body = read(TemplateRequestSerializer, request)
        wish = TemplateWish(kind, body["sheet"], body["shaft"], body["behind"])
        return Response(aside(template, body["document"], _hand(workshop_row), wish, template_fonts()))


@cache
def template_fonts() -> tuple[Path, ...]:
    """The face that ships with the page, where the page is built: common signs first, then the others."""
    names = ("latin-wght", "latin-ext-wght")
    return tuple(f for name in names for f in faces_folder().glob(f"atkinson-hyperlegible-next-{name}-normal*.woff2"))
