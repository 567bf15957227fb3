"""Designs side by side, with what was measured of them and what they cost."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.requests import DocumentField, answer_of, read
from server.builds.site import Clock, bench_of
from server.designs.models import Vehicle
from server.runs import history
from server.workshops import access
from server.workshops.access import acting
from ydrometer.questions.compare import MOST as MOST_COMPARED
from ydrometer.questions.compare import Comparison, compare
from ydrometer.screens.live import readable
from ydrometer.screens.parts_shown import price_of
from ydrometer.trials.measured import Measured, measured_of


class CompareRequestSerializer(serializers.Serializer[Any]):
    """One to four designs; the first one's targets are asked of all. `vehicle` whose runs stand beside them."""

    vehicle = serializers.UUIDField(required=False, allow_null=True)
    documents = serializers.ListField(child=DocumentField(), min_length=1, max_length=MOST_COMPARED)


def _measured(vehicle: Vehicle) -> list[Measured]:
    """What the runs of a vehicle have measured."""
    _, tried, runs = history.of(vehicle)
    designs = {design.key: design.document for design in tried}
    return measured_of(designs, [{**run.document, "design": run.design} for run in runs])


def _prices(vehicle: Vehicle, documents: list[dict[str, Any]]) -> list[float]:
    """What each design costs with the vehicle's bin and what was paid already; nothing where one has faults."""
    bench = bench_of(vehicle, Clock(None))
    readables = [readable(document) for document in documents]
    return [price_of(document, bench) for document in readables if document is not None] if all(readables) else []


class CompareView(APIView):
    @extend_schema(request=CompareRequestSerializer, responses={200: answer_of(Comparison), **BAD, **HIDDEN})
    def post(self, request: Request) -> Response:
        body = read(CompareRequestSerializer, request)
        documents = body["documents"]
        if not body.get("vehicle"):
            return Response(compare(documents))
        vehicle = access.belonging(Vehicle.objects.all(), acting(request), pk=body["vehicle"])
        return Response(compare(documents, _measured(vehicle), _prices(vehicle, documents)))
