"""The practice rig for the page: what it is to do, and its lines as they come."""

from __future__ import annotations

import threading
import time
from collections.abc import Iterator
from typing import Any
from uuid import UUID

from django.db import connection
from django.http import Http404, StreamingHttpResponse
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, OpenApiResponse, extend_schema
from rest_framework import serializers, status
from rest_framework.negotiation import BaseContentNegotiation
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.requests import read, whole_number
from server.runs import rig
from server.runs.api import DesignOfRunSerializer, design_of, vehicle_of
from server.runs.models import OrderState, Rig
from server.workshops import access
from server.workshops.access import acting
from ydrometer.instruments.rig import ACTIONS

HELD_S = 8.0
"""How long a stream is held; the browser comes again at once and goes on behind the last line it has."""
MOST_HELD = 2
"""Streams that one process holds, each with a thread; others are told what there is and asked to come again."""
AGAIN_MS, LATER_MS = 200, 900
LOOK_S = 0.15
_places = threading.BoundedSemaphore(MOST_HELD)


class OrderSerializer(DesignOfRunSerializer):
    """What is to be done, how often, and with which design."""

    action = serializers.ChoiceField(choices=ACTIONS)
    repeats = serializers.IntegerField(min_value=1, max_value=rig.MOST_REPEATS, default=3)


class ChangeRigSerializer(serializers.Serializer[Any]):
    """What is done with it: the work stopped, the battery charged, what is hidden shown, or another vehicle taken."""

    do = serializers.ChoiceField(choices=("stop", "charge", "show", "start anew"))


class HiddenSerializer(serializers.Serializer[Any]):
    """What is true: the factor on what the present design holds."""

    name = serializers.CharField()
    factor = serializers.FloatField()


class RigSerializer(serializers.Serializer[Any]):
    """How it stands: what it does, None where nothing; the number behind which the lines of that come; what is hidden,
    where that is shown.
    """

    action = serializers.CharField(allow_null=True)
    after = serializers.IntegerField()
    hidden = HiddenSerializer(many=True)


CHANGES = {"stop": rig.stop, "charge": rig.charge, "show": rig.show, "start anew": rig.start_anew}


def _shown(rig_row: Rig | None) -> dict[str, Any]:
    if rig_row is None:
        return {"action": None, "after": 0, "hidden": []}
    under = rig_row.orders.filter(state__in=rig.OPEN).first()
    hidden = [{"name": name, "factor": factor} for name, factor in rig.truth(rig_row)] if rig_row.shown else []
    return {"action": under.action if under else None, "after": rig.line_before(rig_row, under), "hidden": hidden}


class RigView(APIView):
    @extend_schema(responses={200: RigSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        return Response(_shown(rig.rig_of(vehicle_of(request, vehicle))))

    @extend_schema(request=OrderSerializer, responses={201: RigSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Has the rig do something."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        body = read(OrderSerializer, request)
        rig.order(acting(request), vehicle_row, body["action"], body["repeats"], design_of(vehicle_row, body))
        return Response(_shown(rig.rig_of(vehicle_row)), status=status.HTTP_201_CREATED)

    @extend_schema(request=ChangeRigSerializer, responses={200: RigSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, vehicle: UUID) -> Response:
        rig_row = rig.rig_of(vehicle_of(request, vehicle, access.EDITORS))
        body = read(ChangeRigSerializer, request)
        if rig_row is not None:
            CHANGES[body["do"]](acting(request), rig_row)
        return Response(_shown(rig_row))


class AsItIs(BaseContentNegotiation):
    """A stream is a stream, whatever is asked for."""

    def select_parser(self, request: Request, parsers: Any) -> Any:
        return parsers[0]

    def select_renderer(self, request: Request, renderers: Any, format_suffix: str | None = None) -> Any:
        return renderers[0], renderers[0].media_type


class RigStreamView(APIView):
    content_negotiation_class = AsItIs

    @extend_schema(
        parameters=[OpenApiParameter("after", int)],
        responses={(200, "text/event-stream"): OpenApiResponse(OpenApiTypes.STR), **BAD, **HIDDEN},
    )
    def get(self, request: Request, vehicle: UUID) -> StreamingHttpResponse:
        """Its lines as server-sent events, numbered, from behind the last one that the browser has."""
        rig_row = rig.rig_of(vehicle_of(request, vehicle))
        if rig_row is None:
            raise Http404
        last = whole_number(request.headers.get("Last-Event-ID") or request.query_params.get("after", ""))
        after = rig.newest_line(rig_row) if last is None else last
        headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
        return StreamingHttpResponse(events(rig_row, after), content_type="text/event-stream", headers=headers)


def events(rig_row: Rig, after: int) -> Iterator[str]:
    """Lines as events, for as long as a stream is held; only those that are there where too many are."""
    held = _places.acquire(blocking=False)
    try:
        yield f"retry: {AGAIN_MS if held else LATER_MS}\n\n"
        until = time.monotonic() + (HELD_S if held else 0.0)
        while True:
            lines = rig.lines_after(rig_row, after)
            for line in lines:
                yield f"id: {line.pk}\ndata: {line.text}\n\n"
                after = line.pk
            if time.monotonic() >= until or _over(rig_row, lines):
                return
            time.sleep(LOOK_S)
    finally:
        if held:
            _places.release()
        connection.close()


def _over(rig_row: Rig, lines: list[Any]) -> bool:
    """Whether nothing more will come."""
    return not lines and not rig_row.orders.filter(state__in=(OrderState.WAITING, OrderState.RUNNING)).exists()
