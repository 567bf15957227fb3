"""The core's answers about a design that comes with the request; nothing here is kept."""

from __future__ import annotations

from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.authentication import RecentSession
from server.api.errors import BAD, HIDDEN, SIGNED_OUT
from server.api.requests import DocumentField, answer_of, read
from server.designs import lessons
from server.designs.models import Vehicle
from server.workshops import access
from server.workshops.access import acting
from ydrometer.base import units
from ydrometer.base.errors import DocumentError, Fault, QuantityError
from ydrometer.document import design
from ydrometer.drawing import UNFOLDED
from ydrometer.questions.aids import Finding, find
from ydrometer.questions.duty_limit import DutyLimit, duty_limit
from ydrometer.questions.grid import MOST as MOST_SIZES
from ydrometer.questions.grid import Grid, grid
from ydrometer.questions.typical import TypicalValue, offers
from ydrometer.screens.day_shown import DayShown, day_shown
from ydrometer.screens.gauge_bands import Uncertainties, uncertainties
from ydrometer.screens.live import Live, Wish, look, readable
from ydrometer.screens.loads import HelpShown, LoadsShown, RowWanted, helps_shown, loads_shown, working_shown
from ydrometer.screens.starts_shown import StartsShown, starts_shown
from ydrometer.screens.sweeps import Sweep, sweep_of
from ydrometer.screens.vocabulary import Vocabulary, vocabulary
from ydrometer.working import Working, working


class SelectedSerializer(serializers.Serializer[Any]):
    path = serializers.CharField(max_length=200)
    member = serializers.CharField(max_length=20)


class SweepRequestSerializer(SelectedSerializer):
    """`of` says which of the things to sweep there; `parts` are documents of the bin that may be tried."""

    document = DocumentField()
    of = serializers.CharField(max_length=20, allow_blank=True, default="")
    parts = serializers.ListField(child=DocumentField(), max_length=500, required=False)


class LiveRequestSerializer(serializers.Serializer[Any]):
    """`picked` is a speed of the run, m/s; `longest` how many times as long as high a row of the drawing may be;
    `told` a ratio that somebody was told for the selected stage.
    """

    document = DocumentField()
    mark = DocumentField(allow_null=True, required=False)
    selected = SelectedSerializer(allow_null=True, required=False)
    picked = serializers.FloatField(min_value=0.0, max_value=1e6, allow_null=True, required=False)
    longest = serializers.FloatField(min_value=0.5, max_value=UNFOLDED, required=False)
    told = serializers.FloatField(min_value=1e-6, max_value=1e6, allow_null=True, required=False)


class LoadsRequestSerializer(serializers.Serializer[Any]):
    document = DocumentField()
    mark = DocumentField(allow_null=True, required=False)


class LoadsDayRequestSerializer(serializers.Serializer[Any]):
    document = DocumentField()


class LoadsRowRequestSerializer(serializers.Serializer[Any]):
    """Which row of Loads is asked about."""

    document = DocumentField()
    check = serializers.CharField(max_length=60)
    path = serializers.CharField(max_length=200)
    member = serializers.CharField(max_length=40, allow_blank=True, default="")
    moment = serializers.CharField(max_length=40, allow_blank=True, default="")


class UncertaintiesRequestSerializer(serializers.Serializer[Any]):
    """`assumed` says whether assumed values are drawn with their usual spreads; `vehicle` whose runs have told how
    fitted values vary together.
    """

    document = DocumentField()
    assumed = serializers.BooleanField(default=True)
    vehicle = serializers.UUIDField(required=False, allow_null=True)


class WorkingRequestSerializer(serializers.Serializer[Any]):
    """`branch` chooses one of several numbers; `at` is a distance, speed or time in place of the run's, SI."""

    document = DocumentField()
    measure = serializers.CharField(max_length=60)
    branch = serializers.IntegerField(min_value=0, max_value=63, default=0)
    at = serializers.FloatField(min_value=1e-9, max_value=1e9, allow_null=True, required=False)


class AidRequestSerializer(serializers.Serializer[Any]):
    """What was measured, as typed, by the symbols of the aid."""

    aid = serializers.CharField(max_length=60)
    given = serializers.DictField()


def _counts() -> serializers.ListField:
    return serializers.ListField(
        child=serializers.IntegerField(min_value=5, max_value=1000), min_length=1, max_length=MOST_SIZES
    )


class GridRequestSerializer(serializers.Serializer[Any]):
    """`path` of a stage with teeth, and the tooth counts of its driver and driven."""

    document = DocumentField()
    path = serializers.CharField(max_length=200)
    drivers = _counts()
    drivens = _counts()


class DutyLimitRequestSerializer(serializers.Serializer[Any]):
    """`speed` is the top speed to compare at, as typed; without it that of the targets."""

    document = DocumentField()
    speed = serializers.CharField(max_length=60, required=False)


class TypicalRequestSerializer(serializers.Serializer[Any]):
    """`path` of a field of the design, which may have faults."""

    document = DocumentField()
    path = serializers.CharField(max_length=200)


class VocabularyView(APIView):
    permission_classes = (AllowAny,)

    @extend_schema(responses=answer_of(Vocabulary))
    def get(self, request: Request) -> Response:
        return Response(vocabulary(), headers={"Cache-Control": "max-age=3600"})


class LiveView(APIView):
    authentication_classes = (RecentSession,)

    @extend_schema(request=LiveRequestSerializer, responses={200: answer_of(Live), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        body = read(LiveRequestSerializer, request)
        chosen = body.get("selected")
        selected = (chosen["path"], chosen["member"]) if chosen else None
        wish = Wish(selected, body.get("picked"), body.get("longest", UNFOLDED), body.get("told"))
        return Response(look(body["document"], body.get("mark"), wish))


class LoadsView(APIView):
    authentication_classes = (RecentSession,)

    @extend_schema(request=LoadsRequestSerializer, responses={200: answer_of(LoadsShown), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        """What each part has to stand, and does; how warm motors get over the day."""
        body = read(LoadsRequestSerializer, request)
        return Response(loads_shown(design.read(body["document"]), readable(body.get("mark"))))


class LoadsDayView(APIView):
    @extend_schema(request=LoadsDayRequestSerializer, responses={200: answer_of(DayShown), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        """The day of a design: how warm its motors get, and what flows."""
        return Response(day_shown(design.read(read(LoadsDayRequestSerializer, request)["document"])))


def _row_wanted(body: dict[str, Any]) -> RowWanted:
    return RowWanted(body["check"], body["path"], body["member"], body["moment"])


class LoadsHelpsView(APIView):
    @extend_schema(
        request=LoadsRowRequestSerializer, responses={200: answer_of(HelpShown)(many=True), **BAD, **SIGNED_OUT}
    )
    def post(self, request: Request) -> Response:
        """What would relieve one row."""
        body = read(LoadsRowRequestSerializer, request)
        return Response(helps_shown(design.read(body["document"]), _row_wanted(body)))


class LoadsWorkingView(APIView):
    @extend_schema(request=LoadsRowRequestSerializer, responses={200: answer_of(Working), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        """How one row comes about."""
        body = read(LoadsRowRequestSerializer, request)
        return Response(working_shown(design.read(body["document"]), _row_wanted(body)))


class SweepView(APIView):
    authentication_classes = (RecentSession,)

    @extend_schema(request=SweepRequestSerializer, responses={200: answer_of(Sweep), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        body = read(SweepRequestSerializer, request)
        parts = body.get("parts", ())
        return Response(sweep_of(body["document"], body["path"], body["member"], body["of"], parts))


class UncertaintiesView(APIView):
    @extend_schema(request=UncertaintiesRequestSerializer, responses={200: answer_of(Uncertainties), **BAD, **HIDDEN})
    def post(self, request: Request) -> Response:
        body = read(UncertaintiesRequestSerializer, request)
        vehicle = body.get("vehicle")
        known = vehicle and access.belonging(Vehicle.objects.all(), acting(request), pk=vehicle)
        together = lessons.together(known) if known else None
        return Response(uncertainties(body["document"], assumed=body["assumed"], together=together))


class WorkingView(APIView):
    @extend_schema(request=WorkingRequestSerializer, responses={200: answer_of(Working), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        body = read(WorkingRequestSerializer, request)
        document = design.read(body["document"])
        return Response(working(document, body["measure"], branch=body["branch"], at=body.get("at")))


class AidView(APIView):
    @extend_schema(request=AidRequestSerializer, responses={200: answer_of(Finding), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        body = read(AidRequestSerializer, request)
        return Response(find(body["aid"], body["given"]))


class TypicalView(APIView):
    @extend_schema(
        request=TypicalRequestSerializer, responses={200: answer_of(TypicalValue)(many=True), **BAD, **SIGNED_OUT}
    )
    def post(self, request: Request) -> Response:
        """What the value of a field usually is."""
        body = read(TypicalRequestSerializer, request)
        return Response(offers(body["document"], body["path"]))


class StartsView(APIView):
    @extend_schema(responses={200: answer_of(StartsShown), **SIGNED_OUT})
    def get(self, request: Request) -> Response:
        """The vehicles to start from."""
        return Response(starts_shown())


class GridView(APIView):
    @extend_schema(request=GridRequestSerializer, responses={200: answer_of(Grid), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        body = read(GridRequestSerializer, request)
        return Response(grid(design.read(body["document"]), body["path"], body["drivers"], body["drivens"]))


def typed_speed(text: str) -> float:
    """A speed above 0 as typed.

    Raises:
        DocumentError: it is none.
    """
    try:
        speed = units.parse(text, "speed")
    except QuantityError as error:
        raise DocumentError([Fault("speed", str(error), f"give {error.remedy}")]) from None
    if speed <= 0.0:
        raise DocumentError([Fault("speed", f'"{text}" given', "give a speed above 0")])
    return speed


class DutyLimitView(APIView):
    @extend_schema(request=DutyLimitRequestSerializer, responses={200: answer_of(DutyLimit), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        body = read(DutyLimitRequestSerializer, request)
        document = design.read(body["document"])
        return Response(duty_limit(document, typed_speed(body["speed"]) if "speed" in body else None))
