"""Vehicles and their revisions."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db.models import OuterRef, Q, QuerySet, Subquery
from django.http import HttpResponse
from django.shortcuts import get_object_or_404
from drf_spectacular.types import OpenApiTypes
from drf_spectacular.utils import OpenApiParameter, OpenApiResponse, extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import BAD, HIDDEN
from server.api.files import download, faces_folder
from server.api.heavy import aside
from server.api.requests import DocumentField, NameField, read
from server.api.stale import Stale
from server.designs import actions, history
from server.designs.copying import copy_vehicle
from server.designs.models import Revision, Vehicle
from server.workshops import access
from server.workshops.access import acting
from server.workshops.models import Workshop
from ydrometer.files.design_sheet import Heading, System, design_sheet
from ydrometer.starting.answers import begun
from ydrometer.starting.starts import BY_KEY, KEYS

NEWEST = 20
"""Revisions without a name that are listed."""
MOST_LISTED = 500
STATIONS = ("brief", "line", "options", "fit", "loads", "parts", "build", "runs")


class RevisionSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    author = serializers.CharField(source="author.username", default=None, allow_null=True)
    saved_at = serializers.DateTimeField()
    name = serializers.CharField()
    summary = serializers.CharField()


class OtherSerializer(serializers.Serializer[Any]):
    """Somebody else who is at the vehicle, and at which station."""

    username = serializers.CharField(source="user.username")
    station = serializers.CharField()


class NewestSerializer(RevisionSerializer):
    others = OtherSerializer(many=True)


class RevisionWithDocumentSerializer(RevisionSerializer):
    document = DocumentField()


class VehicleSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    workshop = serializers.UUIDField(source="workshop_id")
    name = serializers.CharField()
    put_away = serializers.BooleanField()
    scratch = serializers.BooleanField()


class VehicleCardSerializer(VehicleSerializer):
    """With the present design, so that the bench can draw it, and when it was last changed."""

    changed_at = serializers.DateTimeField()
    gone_at = serializers.DateTimeField(allow_null=True)
    document = DocumentField(source="present")


class VehicleWithRevisionSerializer(VehicleSerializer):
    role = serializers.CharField()
    revision = RevisionWithDocumentSerializer()


class BeginningSerializer(serializers.Serializer[Any]):
    """A vehicle to start from by its key, and the answers to the questions after it."""

    start = serializers.ChoiceField(choices=KEYS)
    answers = DocumentField()


class NewVehicleSerializer(serializers.Serializer[Any]):
    """A document, or how somebody begins."""

    document = DocumentField(required=False)
    beginning = BeginningSerializer(required=False)

    def validate(self, attrs: dict[str, Any]) -> dict[str, Any]:
        if ("beginning" in attrs) == ("document" in attrs):
            raise serializers.ValidationError("Give either a document or a beginning.")
        return attrs


class PlaceSerializer(serializers.Serializer[Any]):
    """Where a vehicle is: on the bench or put away; `keep` puts a scratch vehicle on the bench for good, with `delete`
    it goes for good in a month.
    """

    put_away = serializers.BooleanField(required=False)
    delete = serializers.BooleanField(required=False)
    keep = serializers.ChoiceField(choices=[True], required=False)


class CopySerializer(serializers.Serializer[Any]):
    """`workshop` is where the copy goes; without it, beside what was copied."""

    workshop = serializers.UUIDField(required=False)


class SaveSerializer(serializers.Serializer[Any]):
    """`base` is the number of the revision that the document was made from."""

    base = serializers.IntegerField(min_value=1, max_value=2_000_000_000)
    document = DocumentField()


class ConflictSerializer(serializers.Serializer[Any]):
    """Both versions: what was sent, and what somebody else has saved since."""

    detail = serializers.CharField()
    yours = DocumentField()
    theirs = RevisionWithDocumentSerializer()


class NameSerializer(serializers.Serializer[Any]):
    """An empty name takes it away again."""

    name = NameField(max_length=200, allow_blank=True)


def _vehicle(request: Request, vehicle: UUID, roles: Any = access.READERS) -> Vehicle:
    return access.belonging(Vehicle.objects.all(), acting(request), roles, pk=vehicle)


def with_present(vehicles: QuerySet[Vehicle]) -> QuerySet[Vehicle]:
    newest = Revision.objects.filter(vehicle=OuterRef("pk")).order_by("-number")
    latest = {"present": "document", "changed_at": "saved_at"}
    return vehicles.annotate(**{name: Subquery(newest.values(column)[:1]) for name, column in latest.items()})


class VehiclesView(APIView):
    @extend_schema(responses={200: VehicleCardSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop)
        return Response(
            VehicleCardSerializer(with_present(workshop_row.vehicles.filter(scratch=False)), many=True).data
        )

    @extend_schema(request=NewVehicleSerializer, responses={201: VehicleSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        workshop_row = access.workshop_for(acting(request), workshop, access.EDITORS)
        body = read(NewVehicleSerializer, request)
        document = body["document"] if "document" in body else _begun(workshop_row, **body["beginning"])
        vehicle = actions.add_vehicle(acting(request), workshop_row, document)
        return Response(VehicleSerializer(vehicle).data, status=status.HTTP_201_CREATED)


def _begun(workshop: Workshop, start: str, answers: dict[str, Any]) -> dict[str, Any]:
    chosen = {answers.get("source"), answers.get("supply")} - {None, ""}
    parts = workshop.parts.filter(ref__in=[str(ref) for ref in chosen]) if chosen else ()
    return begun(BY_KEY[start], answers, [part.document for part in parts])


class VehicleView(APIView):
    @extend_schema(responses={200: VehicleWithRevisionSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        vehicle_row = _vehicle(request, vehicle)
        revision = vehicle_row.revisions.select_related("author").first()
        role = vehicle_row.workshop.memberships.get(user=acting(request)).role
        shown = VehicleSerializer(vehicle_row).data
        return Response({**shown, "role": role, "revision": RevisionWithDocumentSerializer(revision).data})

    @extend_schema(request=PlaceSerializer, responses={200: VehicleSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, vehicle: UUID) -> Response:
        vehicle_row = _vehicle(request, vehicle, access.EDITORS)
        body = read(PlaceSerializer, request)
        if "keep" in body:
            actions.keep(acting(request), vehicle_row)
        if body.get("delete"):
            actions.delete(acting(request), vehicle_row)
        elif "put_away" in body:
            actions.put_away(acting(request), vehicle_row, body["put_away"])
        return Response(VehicleSerializer(vehicle_row).data)


def copied(request: Request, vehicle: Vehicle) -> Response:
    """Copy a vehicle that the user may see to where the request says, which they must be allowed to change."""
    to = read(CopySerializer, request).get("workshop", vehicle.workshop_id)
    copy = copy_vehicle(acting(request), vehicle, access.workshop_for(acting(request), to, access.EDITORS))
    return Response(VehicleSerializer(copy).data, status=status.HTTP_201_CREATED)


class CopiesView(APIView):
    @extend_schema(request=CopySerializer, responses={201: VehicleSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Copy a vehicle, within its workshop or to another one that the user may change."""
        return copied(request, _vehicle(request, vehicle))


class SheetView(APIView):
    @extend_schema(
        parameters=[OpenApiParameter("system", str, enum=["metric", "inch"])],
        responses={(200, "application/pdf"): OpenApiResponse(OpenApiTypes.BINARY), **HIDDEN},
    )
    def get(self, request: Request, vehicle: UUID) -> HttpResponse:
        """The newest design on one page, to be saved or printed."""
        vehicle_row = _vehicle(request, vehicle)
        newest = vehicle_row.revisions.latest("number")
        revision = newest.name or f"revision {newest.number}"
        heading = Heading(revision, f"{newest.saved_at:%-d %B %Y}", vehicle_row.workshop.name)
        system: System = "inch" if request.query_params.get("system") == "inch" else "metric"
        data = aside(design_sheet, newest.document, heading, faces_folder(), system)
        return download(data, "application/pdf", f"{vehicle_row.name}-sheet.pdf")


class NewestView(APIView):
    @extend_schema(
        parameters=[OpenApiParameter("station", str, enum=STATIONS)], responses={200: NewestSerializer, **HIDDEN}
    )
    def get(self, request: Request, vehicle: UUID) -> Response:
        """Its newest revision without the document, and who else is at it: asked every few seconds. `station` is where
        the user is.
        """
        vehicle_row = _vehicle(request, vehicle)
        station = request.query_params.get("station")
        if station in STATIONS:
            history.be_at(acting(request), vehicle_row, station)
        newest = vehicle_row.revisions.select_related("author").defer("document").first()
        return Response(
            {
                **RevisionSerializer(newest).data,
                "others": OtherSerializer(history.others_at(acting(request), vehicle_row), many=True).data,
            }
        )


class RevisionsView(APIView):
    @extend_schema(responses={200: RevisionSerializer(many=True), **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        """Those with a name, and the newest without."""
        revisions = _vehicle(request, vehicle).revisions.select_related("author").defer("document")
        newest = revisions.values_list("number", flat=True)[:NEWEST]
        shown = revisions.filter(Q(number__in=list(newest)) | ~Q(name=""))[:MOST_LISTED]
        return Response(RevisionSerializer(shown, many=True).data)

    @extend_schema(
        request=SaveSerializer, responses={201: RevisionSerializer, 409: ConflictSerializer, **BAD, **HIDDEN}
    )
    def post(self, request: Request, vehicle: UUID) -> Response:
        vehicle_row = _vehicle(request, vehicle, access.EDITORS)
        body = read(SaveSerializer, request)
        saved = actions.save_revision(acting(request), vehicle_row, **body)
        if isinstance(saved, Stale):
            conflict = {
                "detail": f"Revision {saved.present.number} has been saved since. Nothing was overwritten.",
                "yours": body["document"],
                "theirs": RevisionWithDocumentSerializer(saved.present).data,
            }
            return Response(conflict, status=status.HTTP_409_CONFLICT)
        return Response(RevisionSerializer(saved).data, status=status.HTTP_201_CREATED)


class RevisionView(APIView):
    @extend_schema(responses={200: RevisionWithDocumentSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID, number: int) -> Response:
        vehicle_row = _vehicle(request, vehicle)
        return Response(RevisionWithDocumentSerializer(get_object_or_404(vehicle_row.revisions, number=number)).data)

    @extend_schema(request=NameSerializer, responses={200: RevisionSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, vehicle: UUID, number: int) -> Response:
        vehicle_row = _vehicle(request, vehicle, access.EDITORS)
        revision = get_object_or_404(vehicle_row.revisions.select_related("author"), number=number)
        actions.name_revision(acting(request), revision, read(NameSerializer, request)["name"])
        return Response(RevisionSerializer(revision).data)
