"""Runs of a vehicle: the log, what they show, and what is put into the design."""

from __future__ import annotations

from typing import Any, cast
from uuid import UUID, uuid4, uuid5

from django.db.models import Count, Q
from django.http import Http404, HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, OpenApiResponse, extend_schema, extend_schema_field
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN, SIGNED_OUT
from server.api.files import download
from server.api.heavy import aside
from server.api.requests import DocumentField, MomentField, answer_of, read
from server.api.stale import Stale
from server.designs import lessons
from server.designs.models import Vehicle
from server.runs import actions, history
from server.runs.actions import NewRun
from server.runs.learning import learnt_of
from server.runs.models import Origin, Tried
from server.workshops import access
from server.workshops.access import acting
from server.workshops.models import Token
from server.workshops.tokens import TokenAuthentication
from ydrometer.document import design
from ydrometer.instruments.findings import read_lines
from ydrometer.screens.heard import Listened, listened
from ydrometer.screens.learnt_shown import Learnt

MOST_LINES, LONGEST_LINE = 100_000, 2000
A_PAGE = 300
"""Runs of a page of the log."""


class RunSerializer(serializers.Serializer[Any]):
    """A run as it is kept. `version` counts its changes; `design` is the key of the design it was made with."""

    id = serializers.UUIDField()
    version = serializers.IntegerField()
    design = serializers.IntegerField(source="tried_id")
    revision = serializers.IntegerField(source="tried.revision", allow_null=True)
    document = DocumentField()
    origin = serializers.ChoiceField(Origin.choices)
    author = serializers.CharField(source="author.username", default=None, allow_null=True)
    made_at = serializers.DateTimeField()
    put_away = serializers.BooleanField()
    changed = serializers.ListField(child=serializers.CharField())
    words = serializers.CharField()
    dimension = serializers.CharField()
    measured = serializers.FloatField()
    predicted = serializers.FloatField(allow_null=True)
    off = serializers.FloatField(allow_null=True)


class LogPageSerializer(serializers.Serializer[Any]):
    """A page of the log; `count` of all runs that are not put away, `away` of those that are; `older` if there are."""

    runs = RunSerializer(many=True)
    count = serializers.IntegerField()
    away = serializers.IntegerField()
    older = serializers.BooleanField()


BEFORE = OpenApiParameter("before", UUID, description="The run before which the page ends: the last one of a page.")


def _id(text: str) -> UUID:
    """The id of a run.

    Raises:
        ValidationError: it is none.
    """
    try:
        return UUID(text)
    except ValueError:
        raise serializers.ValidationError({"before": [f'"{text[:40]}" given: give the id of a run.']}) from None


class DesignOfRunSerializer(serializers.Serializer[Any]):
    """A design that comes along, or one that was run before, by its key; else the present one."""

    design = DocumentField(required=False, allow_null=True)
    tried = serializers.IntegerField(min_value=1, max_value=2**62, required=False, allow_null=True)


class NewRunSerializer(DesignOfRunSerializer):
    """A run with its design. `id` is drawn where the run was typed: sent twice it is one run."""

    id = serializers.UUIDField()
    document = DocumentField()
    made_at = MomentField(required=False, allow_null=True)


class RunsFileSerializer(serializers.Serializer[Any]):
    """A runs file, see docs/runs.md."""

    file = DocumentField()


@extend_schema_field({"type": "array", "items": {"type": "string", "maxLength": LONGEST_LINE}, "maxItems": MOST_LINES})
class LinesField(serializers.Field):  # type: ignore[type-arg]  # read in one go: a field for each line takes seconds
    """Lines of text as an instrument speaks them."""

    def to_internal_value(self, data: Any) -> list[str]:
        """The lines.

        Raises:
            ValidationError: they are none, or too many or too long.
        """
        good = isinstance(data, list) and len(data) <= MOST_LINES
        if not good or not all(isinstance(line, str) and len(line) <= LONGEST_LINE for line in data):
            most = f"{MOST_LINES:,} lines of {LONGEST_LINE:,} signs"
            raise serializers.ValidationError(f"Give a list of texts: at most {most}.")
        return [line.replace("\0", "") for line in data]

    def to_representation(self, value: list[str]) -> list[str]:
        return value


class LinesSerializer(serializers.Serializer[Any]):
    """The lines that an instrument has spoken, with `more` keys of the runs that it cannot know."""

    lines = LinesField()
    more = serializers.DictField(default=dict)


class ReadingsSerializer(serializers.Serializer[Any]):
    """A run as in a runs file but for its design; or the lines that an instrument speaks, with `more` keys of the runs
    that it cannot know, such as the distance between its gates. The same `id` sent again makes no second run.
    """

    id = serializers.UUIDField(default=uuid4)
    document = DocumentField(required=False)
    lines = LinesField(required=False)
    more = serializers.DictField(default=dict)

    def validate(self, attrs: dict[str, Any]) -> dict[str, Any]:
        if ("document" in attrs) == ("lines" in attrs):
            raise serializers.ValidationError("Give either a document or lines.")
        return attrs


class ChangeRunSerializer(serializers.Serializer[Any]):
    """`base` is the version that was changed."""

    base = serializers.IntegerField(min_value=1, max_value=2_000_000_000)
    document = DocumentField(required=False)
    put_away = serializers.BooleanField(required=False)


class LastRunSerializer(serializers.Serializer[Any]):
    """How many runs a vehicle has, what was measured last, and how far that was off its prediction."""

    vehicle = serializers.UUIDField(source="vehicle_id")
    count = serializers.IntegerField()
    words = serializers.CharField()
    off = serializers.FloatField(allow_null=True)


class RunConflictSerializer(serializers.Serializer[Any]):
    """What was sent, and how the run stands now; nothing was overwritten."""

    detail = serializers.CharField()
    yours = DocumentField(allow_null=True)
    theirs = RunSerializer()


def vehicle_of(request: Request, vehicle: UUID, roles: Any = access.READERS) -> Vehicle:
    """The vehicle, where who asks may do so."""
    return access.belonging(Vehicle.objects.all(), acting(request), roles, pk=vehicle)


def design_of(vehicle: Vehicle, body: dict[str, Any]) -> Tried:
    """The design that a run is, or will be, made with.

    Raises:
        Http404: there is no such one.
        DocumentError: the one that comes along has faults.
    """
    if body.get("tried") is not None:
        return get_object_or_404(vehicle.tried, pk=body["tried"])
    if body.get("design") is not None:
        design.read(body["design"])
        return actions.tried(vehicle, body["design"])
    return actions.present_design(vehicle)


class RunsView(APIView):
    @extend_schema(parameters=[BEFORE], responses={200: LogPageSerializer, **BAD, **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        """A page of the log, the newest first; with those that were put away."""
        vehicle_row = vehicle_of(request, vehicle)
        runs = vehicle_row.runs.select_related("author", "tried").defer("tried__document")
        page = runs.order_by("-made_at", "-pk")
        before = request.query_params.get("before")
        if before:
            last = get_object_or_404(vehicle_row.runs.only("made_at"), pk=_id(before))
            page = page.filter(Q(made_at__lt=last.made_at) | Q(made_at=last.made_at, pk__lt=last.pk))
        listed = list(page[: A_PAGE + 1])
        counts = vehicle_row.runs.aggregate(all=Count("pk"), away=Count("pk", filter=Q(put_away=True)))
        return Response(
            {
                "runs": RunSerializer(listed[:A_PAGE], many=True).data,
                "count": counts["all"] - counts["away"],
                "away": counts["away"],
                "older": len(listed) > A_PAGE,
            }
        )

    @extend_schema(request=NewRunSerializer, responses={201: RunSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Logs a run."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        body = read(NewRunSerializer, request)
        of = design_of(vehicle_row, body)
        new = NewRun(body["id"], body["document"], made_at=body.get("made_at"))
        run = actions.log_run(acting(request), vehicle_row, new, of)
        return Response(RunSerializer(run).data, status=status.HTTP_201_CREATED)


class LastRunsView(APIView):
    @extend_schema(responses={200: LastRunSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        """Of each vehicle that was run: how often, and the last run."""
        workshop_row = access.workshop_for(acting(request), workshop)
        return Response(LastRunSerializer(history.last_runs(workshop_row), many=True).data)


class RunView(APIView):
    @extend_schema(
        request=ChangeRunSerializer, responses={200: RunSerializer, 409: RunConflictSerializer, **BAD, **HIDDEN}
    )
    def patch(self, request: Request, vehicle: UUID, run: UUID) -> Response:
        """Corrects a run, or puts it away or back."""
        run_row = get_object_or_404(vehicle_of(request, vehicle, access.EDITORS).runs, pk=run)
        body = read(ChangeRunSerializer, request)
        changed = actions.change_run(acting(request), run_row, **body)
        if isinstance(changed, Stale):
            conflict = {
                "detail": "Somebody has changed this run since. Nothing was overwritten.",
                "yours": body.get("document"),
                "theirs": RunSerializer(changed.present).data,
            }
            return Response(conflict, status=status.HTTP_409_CONFLICT)
        return Response(RunSerializer(changed).data)


class ReadingsView(APIView):
    """For somebody's own instrument, with a token of the workshop and nothing else."""

    authentication_classes = (TokenAuthentication,)

    @extend_schema(request=ReadingsSerializer, responses={201: RunSerializer(many=True), **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Logs a run of the present design, or those that are read out of an instrument's lines."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        if vehicle_row.workshop_id != cast(Token, request.auth).workshop_id:
            raise Http404
        body = read(ReadingsSerializer, request)
        documents = [body["document"]] if "document" in body else read_lines(body["lines"], body["more"])
        of = actions.present_design(vehicle_row)
        logged = [
            actions.log_run(
                acting(request), vehicle_row, NewRun(uuid5(body["id"], str(k)), document, Origin.INSTRUMENT), of
            )
            for k, document in enumerate(documents)
        ]
        return Response(RunSerializer(logged, many=True).data, status=status.HTTP_201_CREATED)


class LinesView(APIView):
    @extend_schema(request=LinesSerializer, responses={200: answer_of(Listened), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        """What an instrument's lines hold so far; nothing here is kept."""
        body = read(LinesSerializer, request)
        return Response(aside(listened, body["lines"], body["more"]))


class LearntView(APIView):
    @extend_schema(responses={200: answer_of(Learnt), **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        """What the runs show of the present design, and what was learnt."""
        return Response(learnt_of(vehicle_of(request, vehicle)))

    @extend_schema(request=None, responses={200: answer_of(Learnt), **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """The same, and keeps how its values vary together: they are about to be put into the design."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        answer = learnt_of(vehicle_row)
        lessons.keep(acting(request), vehicle_row, answer["together"], [run["key"] for run in answer["runs"]])
        return Response(answer)


class RunsFileView(APIView):
    @extend_schema(responses={(200, "application/json"): OpenApiResponse(OpenApiTypes.OBJECT), **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> HttpResponse:
        """All runs as a runs file, for ./ydro calibrate and for keeping."""
        vehicle_row = vehicle_of(request, vehicle)
        return download(history.runs_file(vehicle_row), "application/json", f"{vehicle_row.name}-runs.json")

    @extend_schema(request=RunsFileSerializer, responses={201: RunSerializer(many=True), **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Logs the runs of a file, all or none; one that is there already stays one."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        logged = actions.log_file(acting(request), vehicle_row, read(RunsFileSerializer, request)["file"])
        return Response(RunSerializer(logged, many=True).data, status=status.HTTP_201_CREATED)
