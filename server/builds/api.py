"""Build for the page: steps with what was done, the ledger, the days to the event, photos and inspections."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, OpenApiResponse, extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.files import download
from server.api.parsers import PhotoParser, piece_of
from server.api.requests import DocumentField, MomentField, answer_of, read
from server.api.stale import Stale
from server.builds import actions, booklets, photos
from server.builds.actions import NewEntry
from server.builds.models import Booklet, BookletState, Build, Photo
from server.builds.site import Clock, hours_run, inspections_of, present, pulse_of, site_of
from server.designs.models import Vehicle
from server.workshops import access
from server.workshops.access import acting
from ydrometer.build.inspection import Care, cares
from ydrometer.files.calendar import calendar
from ydrometer.screens.build_shown import BuildShown, Reason, build_shown, steps_for
from ydrometer.screens.step_entries import DOINGS

MOST_AT_ONCE = 200
NOW = OpenApiParameter("now", str, description="the time on the clock of whoever asks, such as 2027-05-03T18:00")


def vehicle_of(request: Request, vehicle: UUID, roles: Any = access.READERS) -> Vehicle:
    """The vehicle, where who asks may do so."""
    return access.belonging(Vehicle.objects.select_related("workshop"), acting(request), roles, pk=vehicle)


def clock_of(request: Request) -> Clock:
    """The clock of whoever asks."""
    return Clock(request.query_params.get("now"))


@dataclass(frozen=True, slots=True)
class BuildAnswer:
    """The station, with the version of its book; `pulse` changes with everything that is shown."""

    version: int
    pulse: str
    shown: BuildShown
    hours: float
    cares: list[Care]


@dataclass(frozen=True, slots=True)
class HeldBackShown:
    """An entry that was not taken, and why."""

    id: str
    reasons: list[Reason]


@dataclass(frozen=True, slots=True)
class Said:
    """What became of entries: those that were not taken; all others are written down."""

    pulse: str
    held_back: list[HeldBackShown]


class EntrySerializer(serializers.Serializer[Any]):
    """What is said of a step; its id is made on the device, so that one sent twice is one."""

    id = serializers.UUIDField()
    step = serializers.CharField(max_length=200)
    doing = serializers.ChoiceField(choices=DOINGS)
    at = MomentField()
    minutes = serializers.FloatField(min_value=0.0, max_value=1e5, required=False, allow_null=True, default=None)
    value = serializers.CharField(max_length=100, required=False, allow_blank=True, default="")
    note = serializers.CharField(max_length=4000, required=False, allow_blank=True, default="")
    reason = serializers.CharField(max_length=1000, required=False, allow_blank=True, default="")
    about = serializers.CharField(max_length=1000, required=False, allow_blank=True, default="")
    title = serializers.CharField(max_length=1000, required=False, allow_blank=True, default="")
    made_from = serializers.ListField(
        child=serializers.CharField(max_length=400), required=False, max_length=200, default=list
    )


class EntriesSerializer(serializers.Serializer[Any]):
    entries = serializers.ListField(child=EntrySerializer(), max_length=MOST_AT_ONCE)


class BookSerializer(serializers.Serializer[Any]):
    """What is said beside the design, see docs/build.md; `base` is the version that it was made from, 0 for none."""

    base = serializers.IntegerField(min_value=0)
    book = DocumentField()


class BookOfSerializer(serializers.Serializer[Any]):
    version = serializers.IntegerField()
    book = DocumentField()
    author = serializers.CharField(source="author.username", default=None, allow_null=True)


class BookConflictSerializer(serializers.Serializer[Any]):
    detail = serializers.CharField()
    present = BookOfSerializer()


class NewInspectionSerializer(serializers.Serializer[Any]):
    """An inspection as docs/build.md has it."""

    id = serializers.UUIDField()
    at = MomentField()
    document = DocumentField()


class InspectionSerializer(NewInspectionSerializer):
    author = serializers.CharField(source="author.username", default=None, allow_null=True)


class PulseSerializer(serializers.Serializer[Any]):
    pulse = serializers.CharField()


class PhotoKeptSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    step = serializers.CharField()


class BuildView(APIView):
    @extend_schema(parameters=[NOW], responses={200: answer_of(BuildAnswer), **BAD, **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        """The steps of the newest design with what was done."""
        vehicle_row, clock = vehicle_of(request, vehicle), clock_of(request)
        document, site = present(vehicle_row), site_of(vehicle_row, clock)
        hours = hours_run(vehicle_row)
        version = Build.objects.filter(vehicle=vehicle_row).values_list("version", flat=True).first() or 0
        care = cares(steps_for(document, site.bench), hours, inspections_of(vehicle_row))
        return Response(BuildAnswer(version, pulse_of(vehicle_row), build_shown(document, site), hours, care))


class BookView(APIView):
    @extend_schema(responses={200: BookOfSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        """What is said beside the design."""
        vehicle_row = vehicle_of(request, vehicle)
        build = Build.objects.filter(vehicle=vehicle_row).select_related("author").first()
        return Response(BookOfSerializer(build or Build(vehicle=vehicle_row, version=0)).data)

    @extend_schema(
        request=BookSerializer, responses={200: BookOfSerializer, 409: BookConflictSerializer, **BAD, **HIDDEN}
    )
    def put(self, request: Request, vehicle: UUID) -> Response:
        """Puts another in its place, unless somebody else has meanwhile."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        body = read(BookSerializer, request)
        book = actions.change_book(acting(request), vehicle_row, body["base"], body["book"])
        if isinstance(book, Stale):
            detail = "Somebody else has changed this meanwhile. Nothing was overwritten."
            answer = {"detail": detail, "present": BookOfSerializer(book.present).data}
            return Response(answer, status=status.HTTP_409_CONFLICT)
        return Response(BookOfSerializer(book).data)


class EntriesView(APIView):
    @extend_schema(request=EntriesSerializer, parameters=[NOW], responses={201: answer_of(Said), **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Writes down what is said of steps; what is held back comes back with words."""
        vehicle_row, clock = vehicle_of(request, vehicle, access.EDITORS), clock_of(request)
        new = [NewEntry(**entry) for entry in read(EntriesSerializer, request)["entries"]]
        back = actions.say_of_steps(acting(request), vehicle_row, new, present(vehicle_row), clock)
        held = [HeldBackShown(str(each.id), each.reasons) for each in back]
        return Response(Said(pulse_of(vehicle_row), held), status=status.HTTP_201_CREATED)


class PulseView(APIView):
    @extend_schema(responses={200: PulseSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        """Something that changes with all that the station shows."""
        return Response({"pulse": pulse_of(vehicle_of(request, vehicle))})


class CalendarView(APIView):
    @extend_schema(
        parameters=[NOW],
        responses={(200, "text/calendar"): OpenApiResponse(OpenApiTypes.STR), **BAD, **HIDDEN},
    )
    def get(self, request: Request, vehicle: UUID) -> HttpResponse:
        """Orders, evenings and cures for a calendar."""
        vehicle_row = vehicle_of(request, vehicle)
        shown = build_shown(present(vehicle_row), site_of(vehicle_row, clock_of(request)))
        feed = calendar(vehicle_row.name, str(vehicle_row.pk), shown)
        return download(feed, "text/calendar; charset=utf-8", f"{vehicle_row.name}-build.ics")


class PhotosView(APIView):
    parser_classes = (PhotoParser,)

    @extend_schema(
        request={"application/octet-stream": OpenApiTypes.BINARY},
        parameters=[OpenApiParameter("step", str, required=True), OpenApiParameter("id", UUID, required=True)],
        responses={201: PhotoKeptSerializer, **BAD, **HIDDEN},
    )
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Keeps a photo of a step: a JPEG or PNG as it is."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        body = PhotoKeptSerializer(data=request.query_params)
        body.is_valid(raise_exception=True)
        which = body.validated_data
        jpeg = photos.picture(piece_of(request))
        photo = photos.keep(acting(request), vehicle_row, which["step"][:200], which["id"], jpeg)
        return Response(PhotoKeptSerializer(photo).data, status=status.HTTP_201_CREATED)


class PhotoView(APIView):
    @extend_schema(responses={(200, "image/jpeg"): OpenApiResponse(OpenApiTypes.BINARY), **HIDDEN})
    def get(self, request: Request, vehicle: UUID, photo: UUID) -> HttpResponse:
        """The picture."""
        photos_of_it = Photo.objects.filter(vehicle=vehicle_of(request, vehicle))
        # A photo is never changed, so its id says which one the browser has. Whether it may be seen is asked each time.
        kept = {"Cache-Control": "private, no-cache", "ETag": f'"{photo}"'}
        if request.headers.get("If-None-Match") == kept["ETag"] and photos_of_it.filter(pk=photo).exists():
            return HttpResponse(status=status.HTTP_304_NOT_MODIFIED, headers=kept)
        photo_row = get_object_or_404(photos_of_it, pk=photo)
        return HttpResponse(bytes(photo_row.data), content_type="image/jpeg", headers=kept)

    @extend_schema(responses={204: None, **HIDDEN})
    def delete(self, request: Request, vehicle: UUID, photo: UUID) -> Response:
        """Takes it away for good."""
        photo_row = get_object_or_404(Photo, vehicle=vehicle_of(request, vehicle, access.EDITORS), pk=photo)
        photos.remove(acting(request), photo_row)
        return Response(status=status.HTTP_204_NO_CONTENT)


class InspectionsView(APIView):
    @extend_schema(responses={200: InspectionSerializer(many=True), **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        """All inspections, the oldest first."""
        inspections = vehicle_of(request, vehicle).inspections.select_related("author")
        return Response(InspectionSerializer(inspections, many=True).data)

    @extend_schema(request=NewInspectionSerializer, responses={201: InspectionSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Writes one down."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        body = read(NewInspectionSerializer, request)
        inspection = actions.inspect(acting(request), vehicle_row, body["id"], body["document"], body["at"])
        return Response(InspectionSerializer(inspection).data, status=status.HTTP_201_CREATED)


class BookletSerializer(serializers.Serializer[Any]):
    """A booklet being written: how many of how many chapters are done."""

    id = serializers.UUIDField()
    state = serializers.ChoiceField(BookletState.choices)
    written = serializers.IntegerField()
    chapters = serializers.IntegerField()
    trouble = serializers.CharField()


class BookletsView(APIView):
    @extend_schema(request=None, responses={201: BookletSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Has one written."""
        asked_for = booklets.ask(acting(request), vehicle_of(request, vehicle))
        return Response(BookletSerializer(asked_for).data, status=status.HTTP_201_CREATED)


class BookletView(APIView):
    @extend_schema(responses={200: BookletSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID, booklet: UUID) -> Response:
        """How far it is."""
        booklet_row = get_object_or_404(Booklet.objects.defer("data"), vehicle=vehicle_of(request, vehicle), pk=booklet)
        return Response(BookletSerializer(booklet_row).data)


class BookletFileView(APIView):
    @extend_schema(responses={(200, "application/pdf"): OpenApiResponse(OpenApiTypes.BINARY), **HIDDEN})
    def get(self, request: Request, vehicle: UUID, booklet: UUID) -> HttpResponse:
        """The file."""
        vehicle_row = vehicle_of(request, vehicle)
        written = get_object_or_404(Booklet, vehicle=vehicle_row, pk=booklet, state=BookletState.DONE)
        return download(bytes(written.data or b""), "application/pdf", f"{vehicle_row.name}-booklet.pdf")
