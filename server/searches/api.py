"""Searches through the bin, and questions turned round."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from typing import Any
from uuid import UUID

import orjson
from django.db.models import Count, Q
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, OpenApiResponse, extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.files import attachment
from server.api.heavy import aside
from server.api.requests import DocumentField, answer_of, read
from server.designs.models import Vehicle
from server.parts.models import documents
from server.searches import actions
from server.searches.models import Search, State
from server.workshops import access
from server.workshops.access import acting
from server.workshops.models import Workshop
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document import design
from ydrometer.questions.candidates import Sought
from ydrometer.questions.inverse import Inverse, inverse, unknowns
from ydrometer.search.begin import options_in, sizes_of
from ydrometer.search.compose import compose
from ydrometer.search.layouts import Picture, picture, suggested
from ydrometer.search.options import Options
from ydrometer.search.request import MOST_LAYOUTS
from ydrometer.search.table import rows_of

LISTED = 20
"""Searches that are listed."""


@dataclass(frozen=True, slots=True)
class Survey:
    """What could be searched for, before it is.

    Attributes:
        pictures: of the layouts asked for. suggested: layouts one step from the design's.
        combinations: that each layout describes. at_once: how many are answered without a worker.
        faults: why the request could not be searched as it stands. unknowns: what can be asked turned round.
    """

    pictures: list[Picture]
    suggested: list[Picture]
    combinations: list[int]
    at_once: int
    faults: list[Fault]
    unknowns: list[Sought]


@dataclass(frozen=True, slots=True)
class SearchState:
    """How a search stands.

    Attributes:
        words: the layouts. combinations: before the limits. done: share of the pieces gone through.
        remaining: seconds, None where nobody can say. before: searches of the workshop that come first.
        meeting: how many of them meet every target, once that is known. trouble: why it failed.
    """

    id: UUID
    vehicle: UUID | None
    words: str
    combinations: int
    state: State
    done: float
    remaining: float | None
    before: int
    meeting: int | None
    trouble: str
    created_at: datetime


@dataclass(frozen=True, slots=True)
class SearchAnswer:
    """A search with its request, but for the parts, and what was found where it is done."""

    search: SearchState
    request: dict[str, Any]
    options: Options | None


class AskSerializer(serializers.Serializer[Any]):
    """A search request without parts: they come from the bin. `vehicle` is what it is for."""

    request = DocumentField()
    vehicle = serializers.UUIDField(required=False, allow_null=True)


class SurveySerializer(serializers.Serializer[Any]):
    request = DocumentField()


class CancelSerializer(serializers.Serializer[Any]):
    state = serializers.ChoiceField(choices=[State.CANCELLED.value])


class InverseSerializer(serializers.Serializer[Any]):
    """`unknown` and `path` as the survey names them; `target` as in a document."""

    document = DocumentField()
    unknown = serializers.CharField(max_length=40)
    path = serializers.CharField(max_length=200, allow_blank=True)
    target = DocumentField()


class SurveyView(APIView):
    @extend_schema(request=SurveySerializer, responses={200: answer_of(Survey), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop)
        body = read(SurveySerializer, request)["request"]
        document, layouts = body.get("design"), body.get("layouts")
        read_document = design.read(document)
        layouts = [layout for layout in layouts if isinstance(layout, dict)] if isinstance(layouts, list) else []
        counted, faults = _counted(body, workshop_row)
        return Response(
            Survey(
                pictures=[picture(document, layout) for layout in layouts[:MOST_LAYOUTS]],
                suggested=suggested(document),
                combinations=counted,
                at_once=actions.AT_ONCE,
                faults=faults,
                unknowns=unknowns(read_document),
            )
        )


def _counted(body: dict[str, Any], workshop: Workshop) -> tuple[list[int], list[Fault]]:
    try:
        return aside(sizes_of, compose(body, documents(workshop))), []
    except DocumentError as error:
        return [], list(error.faults)


class SearchesView(APIView):
    @extend_schema(
        parameters=[OpenApiParameter("vehicle", UUID)],
        responses={200: answer_of(SearchState)(many=True), **BAD, **HIDDEN},
    )
    def get(self, request: Request, workshop: UUID) -> Response:
        """The newest searches, or those for one vehicle."""
        workshop_row = access.workshop_for(acting(request), workshop)
        searches = workshop_row.searches.defer("request", "found")
        vehicle = request.query_params.get("vehicle")
        if vehicle is not None:
            try:
                searches = searches.filter(vehicle_id=UUID(vehicle))
            except ValueError:
                raise DocumentError([Fault("vehicle", "no such number", "give a vehicle's id")]) from None
        return Response([_state(search) for search in searches[:LISTED]])

    @extend_schema(request=AskSerializer, responses={201: answer_of(SearchAnswer), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        """Answers a small search at once, and puts a large one into the row."""
        workshop_row = access.workshop_for(acting(request), workshop, access.EDITORS)
        body = read(AskSerializer, request)
        vehicle = None
        if body.get("vehicle"):
            vehicle = get_object_or_404(Vehicle, pk=body["vehicle"], workshop=workshop_row)
        asked_for = actions.ask(acting(request), workshop_row, vehicle, body["request"])
        # The options are JSON already, and stay as they are.
        options: Any = None if asked_for.options is None else orjson.Fragment(asked_for.options)
        return Response(_answer(asked_for.search, options), status=status.HTTP_201_CREATED)


class SearchView(APIView):
    @extend_schema(responses={200: answer_of(SearchAnswer), **HIDDEN})
    def get(self, request: Request, search: UUID) -> Response:
        search_row = access.belonging(Search.objects.all(), acting(request), pk=search)
        return Response(_answer(search_row, _options(search_row) if search_row.found else None))

    @extend_schema(request=CancelSerializer, responses={200: answer_of(SearchState), **BAD, **HIDDEN})
    def patch(self, request: Request, search: UUID) -> Response:
        search_row = access.belonging(Search.objects.all(), acting(request), access.EDITORS, pk=search)
        read(CancelSerializer, request)
        actions.cancel(acting(request), search_row)
        search_row.refresh_from_db()
        return Response(_state(search_row))


class ExportView(APIView):
    @extend_schema(responses={(200, "application/octet-stream"): OpenApiResponse(OpenApiTypes.BINARY), **HIDDEN})
    def get(self, request: Request, search: UUID, suffix: str) -> HttpResponse:
        """The options found, as a table."""
        search_row = access.belonging(Search.objects.all(), acting(request), pk=search)
        if search_row.found is None:
            raise Http404
        return attachment("options", suffix, [("Options", rows_of(_options(search_row)))])


class InverseView(APIView):
    @extend_schema(request=InverseSerializer, responses={200: answer_of(Inverse), **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop)
        body = read(InverseSerializer, request)
        return Response(
            inverse(body["document"], body["unknown"], body["path"], body["target"], documents(workshop_row))
        )


def _answer(search: Search, options: Options | None) -> SearchAnswer:
    request = {key: value for key, value in search.request.items() if key != "parts"}
    return SearchAnswer(_state(search), request, options)


def _options(search: Search) -> Options:
    """Worked out once: what was found never changes."""
    return _known_options(search.pk)


@lru_cache(maxsize=32)
def _known_options(search: UUID) -> Options:
    request, outcome = Search.objects.values_list("request", "found").get(pk=search)
    return aside(options_in, request, outcome or {})


def _state(search: Search) -> SearchState:
    done, remaining = _progress(search)
    before = 0
    if search.state == State.WAITING:
        earlier = Q(state=State.RUNNING) | Q(state=State.WAITING, created_at__lt=search.created_at)
        before = Search.objects.filter(earlier, workshop_id=search.workshop_id).count()
    return SearchState(
        search.id,
        search.vehicle_id,
        search.words,
        search.combinations,
        State(search.state),
        done,
        remaining,
        before,
        search.meeting,
        search.trouble,
        search.created_at,
    )


def _progress(search: Search) -> tuple[float, float | None]:
    """Share done, and seconds that the rest will take at the pace so far."""
    if search.state != State.RUNNING or search.started_at is None:
        return float(search.state == State.DONE), None
    counts = search.pieces.aggregate(every=Count("pk"), left=Count("pk", filter=Q(found__isnull=True)))
    done = counts["every"] - counts["left"]
    if not done:
        return 0.0, None
    passed = (timezone.now() - search.started_at).total_seconds()
    return done / counts["every"], passed / done * counts["left"]
