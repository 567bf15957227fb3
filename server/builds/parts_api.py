"""The parts list for the page: lines, what was said of them, files of it, one order list for several vehicles."""

from __future__ import annotations

import base64
import binascii
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.http import Http404, HttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, OpenApiResponse, extend_schema
from rest_framework import serializers, status
from rest_framework.exceptions import ValidationError
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.files import attachment
from server.api.heavy import aside
from server.api.requests import DayField, DocumentField, MomentField, NameField, answer_of, read
from server.builds import actions
from server.builds.actions import NewPartEntry
from server.builds.api import NOW, clock_of, vehicle_of
from server.builds.models import Build
from server.builds.site import bench_of, on_bench, present, pulse_of, vehicles_on
from server.parts.models import documents
from server.workshops import access
from server.workshops.access import acting
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.build.purchase import PURCHASE_STATES
from ydrometer.document import design
from ydrometer.files.parts_sheet import order_table, read_table, table
from ydrometer.parts import files
from ydrometer.parts.sheet import CellFault
from ydrometer.screens.live import readable
from ydrometer.screens.orders import OrderList, orders
from ydrometer.screens.parts_shown import PartsShown, parts_shown, price_working
from ydrometer.working import Working

MOST_AT_ONCE = 200


@dataclass(frozen=True, slots=True)
class PartsAnswer:
    """The station, with the version of the book."""

    version: int
    pulse: str
    shown: PartsShown


@dataclass(frozen=True, slots=True)
class PartsFileRead:
    """What a file said: how many lines it changed, and what was wrong with it; with faults nothing was written."""

    changed: int
    faults: list[CellFault]


class PartsListRequestSerializer(serializers.Serializer[Any]):
    """A design as it stands on the page, and another to compare with."""

    document = DocumentField()
    mark = DocumentField(allow_null=True, required=False)


class PartEntrySerializer(serializers.Serializer[Any]):
    """What is said of a line; its id is made on the device, so that one sent twice is one."""

    id = serializers.UUIDField()
    key = serializers.CharField(max_length=300)
    state = serializers.ChoiceField(choices=PURCHASE_STATES)
    at = MomentField()
    expected = DayField(required=False, allow_null=True, default=None)
    paid = serializers.FloatField(min_value=0.0, max_value=1e9, required=False, allow_null=True, default=None)


class PartEntriesSerializer(serializers.Serializer[Any]):
    entries = serializers.ListField(child=PartEntrySerializer(), max_length=MOST_AT_ONCE)


class PartsFileSerializer(serializers.Serializer[Any]):
    """A CSV or XLSX file of a parts list, in base64."""

    name = NameField(max_length=200)
    data = serializers.CharField(max_length=2 * files.LARGEST)  # type: ignore[assignment]  # as in the bin's files


class PartsListView(APIView):
    @extend_schema(
        request=PartsListRequestSerializer,
        parameters=[NOW],
        responses={200: answer_of(PartsAnswer), **BAD, **HIDDEN},
    )
    def post(self, request: Request, vehicle: UUID) -> Response:
        """What a design needs, what of it the bin has, and what was said of it."""
        vehicle_row, body = vehicle_of(request, vehicle), read(PartsListRequestSerializer, request)
        bench = bench_of(vehicle_row, clock_of(request))
        shown = parts_shown(design.read(body["document"]), bench, readable(body.get("mark")))
        version = Build.objects.filter(vehicle=vehicle_row).values_list("version", flat=True).first() or 0
        return Response(PartsAnswer(version, pulse_of(vehicle_row), shown))


class PriceWorkingView(APIView):
    @extend_schema(request=PartsListRequestSerializer, responses={200: answer_of(Working), **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """How the price of a design comes about."""
        vehicle_row, body = vehicle_of(request, vehicle), read(PartsListRequestSerializer, request)
        return Response(price_working(design.read(body["document"]), bench_of(vehicle_row, clock_of(request))))


class PartEntriesView(APIView):
    @extend_schema(request=PartEntriesSerializer, responses={201: None, **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Writes down what is said of lines."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        entries = read(PartEntriesSerializer, request)["entries"]
        actions.say_of_parts(acting(request), vehicle_row, [NewPartEntry(**entry) for entry in entries])
        return Response(status=status.HTTP_201_CREATED)


class PartsExportView(APIView):
    @extend_schema(
        parameters=[NOW],
        responses={(200, "application/octet-stream"): OpenApiResponse(OpenApiTypes.BINARY), **BAD, **HIDDEN},
    )
    def get(self, request: Request, vehicle: UUID, suffix: str) -> HttpResponse:
        """The list of the newest design as a file."""
        vehicle_row = vehicle_of(request, vehicle)
        shown = parts_shown(present(vehicle_row), bench_of(vehicle_row, clock_of(request)))
        return attachment(f"{vehicle_row.name}-parts", suffix, [("Parts", table(shown))])


class PartsImportView(APIView):
    @extend_schema(
        request=PartsFileSerializer, parameters=[NOW], responses={200: answer_of(PartsFileRead), **BAD, **HIDDEN}
    )
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Takes states and prices from a file that was exported; all of them or none."""
        vehicle_row, clock = vehicle_of(request, vehicle, access.EDITORS), clock_of(request)
        body = read(PartsFileSerializer, request)
        try:
            data = base64.b64decode(body["data"], validate=True)
        except (binascii.Error, ValueError):
            raise DocumentError([Fault("data", "not base64", "give the file's bytes in base64")]) from None
        tables = aside(files.tables_in, body["name"], data)
        shown = parts_shown(present(vehicle_row), bench_of(vehicle_row, clock))
        said, faults = read_table(tables[0][1] if tables else [], [line.key for line in shown.lines])
        if faults:
            return Response(PartsFileRead(0, faults))
        return Response(PartsFileRead(actions.take_file(acting(request), vehicle_row, said, shown), []))


class OrdersView(APIView):
    @extend_schema(
        parameters=[NOW, OpenApiParameter("vehicle", UUID, many=True)],
        responses={200: answer_of(OrderList), **BAD, **HIDDEN},
    )
    def get(self, request: Request, workshop: UUID) -> Response:
        """One order list for several vehicles, or for all on the bench."""
        return Response(_orders(request, workshop))


class OrdersExportView(APIView):
    @extend_schema(
        parameters=[NOW, OpenApiParameter("vehicle", UUID, many=True)],
        responses={(200, "application/octet-stream"): OpenApiResponse(OpenApiTypes.BINARY), **BAD, **HIDDEN},
    )
    def get(self, request: Request, workshop: UUID, suffix: str) -> HttpResponse:
        """The same as a file."""
        return attachment("orders", suffix, [("Orders", order_table(_orders(request, workshop)))])


def _orders(request: Request, workshop: UUID) -> OrderList:
    workshop_row, clock = access.workshop_for(acting(request), workshop), clock_of(request)
    try:
        ids = [UUID(text) for text in request.query_params.getlist("vehicle")]
    except ValueError:
        raise ValidationError({"vehicle": ["This is no vehicle: give its id."]}) from None
    vehicles = vehicles_on(workshop_row, ids)
    if len(vehicles) < len(set(ids)):
        raise Http404
    return aside(orders, documents(workshop_row), on_bench(workshop_row, vehicles, clock))
