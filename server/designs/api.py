"""Vehicles, their revisions, and the live evaluation of a design."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db.models import OuterRef, QuerySet, Subquery
from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.permissions import AllowAny
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView
from rest_framework_dataclasses.serializers import DataclassSerializer

from server.api.errors import BAD, HIDDEN, SIGNED_OUT
from server.designs import actions
from server.designs.actions import Stale
from server.designs.models import Revision, Vehicle
from server.workshops import access
from server.workshops.access import acting
from ydrometer import design
from ydrometer.aids import Finding, find
from ydrometer.drawing import UNFOLDED
from ydrometer.live import Doubts, Live, Wish, doubts, look
from ydrometer.template import new_vehicle
from ydrometer.vocabulary import Vocabulary, vocabulary
from ydrometer.working import Working, working


class LiveSerializer(DataclassSerializer[Live]):
    class Meta:
        dataclass = Live


class VocabularySerializer(DataclassSerializer[Vocabulary]):
    class Meta:
        dataclass = Vocabulary


class SelectedSerializer(serializers.Serializer[Any]):
    path = serializers.CharField(max_length=200)
    member = serializers.CharField(max_length=20)


class DocumentField(serializers.DictField):
    """A design document; the core reads it, here it is any object."""


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


class DoubtsSerializer(DataclassSerializer[Doubts]):
    class Meta:
        dataclass = Doubts


class WorkingSerializer(DataclassSerializer[Working]):
    class Meta:
        dataclass = Working


class FindingSerializer(DataclassSerializer[Finding]):
    class Meta:
        dataclass = Finding


class DoubtsRequestSerializer(serializers.Serializer[Any]):
    """`assumed` says whether assumed values are drawn with their usual spreads."""

    document = DocumentField()
    assumed = serializers.BooleanField(default=True)


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


class RevisionSerializer(serializers.Serializer[Any]):
    number = serializers.IntegerField()
    author = serializers.CharField(source="author.username", default=None, allow_null=True)
    saved_at = serializers.DateTimeField()


class RevisionWithDocumentSerializer(RevisionSerializer):
    document = DocumentField()


class VehicleSerializer(serializers.Serializer[Any]):
    id = serializers.UUIDField()
    workshop = serializers.UUIDField(source="workshop_id")
    name = serializers.CharField()
    put_away = serializers.BooleanField()


class VehicleCardSerializer(VehicleSerializer):
    """With the present design, so that the bench can draw it."""

    document = DocumentField(source="present")


class VehicleWithRevisionSerializer(VehicleSerializer):
    role = serializers.CharField()
    revision = RevisionWithDocumentSerializer()


class NewVehicleSerializer(serializers.Serializer[Any]):
    """A document, or only a name for a design to start from."""

    name = serializers.CharField(max_length=200, required=False)
    document = DocumentField(required=False)

    def validate(self, attrs: dict[str, Any]) -> dict[str, Any]:
        if ("name" in attrs) == ("document" in attrs):
            raise serializers.ValidationError("Give either a name or a document.")
        return attrs


class PutAwaySerializer(serializers.Serializer[Any]):
    put_away = serializers.BooleanField()


class SaveSerializer(serializers.Serializer[Any]):
    """`base` is the number of the revision that the document was made from."""

    base = serializers.IntegerField(min_value=1, max_value=2_000_000_000)
    document = DocumentField()


class ConflictSerializer(serializers.Serializer[Any]):
    """Both versions: what was sent, and what somebody else has saved since."""

    detail = serializers.CharField()
    yours = DocumentField()
    theirs = RevisionWithDocumentSerializer()


def _vehicle(request: Request, vehicle: UUID, roles: Any = access.READERS) -> Vehicle:
    return access.belonging(Vehicle.objects.all(), acting(request), roles, pk=vehicle)


def _with_present(vehicles: QuerySet[Vehicle]) -> QuerySet[Vehicle]:
    newest = Revision.objects.filter(vehicle=OuterRef("pk")).order_by("-number")
    return vehicles.annotate(present=Subquery(newest.values("document")[:1]))


def _read(form: type[serializers.Serializer[Any]], request: Request) -> dict[str, Any]:
    made = form(data=request.data)
    made.is_valid(raise_exception=True)
    asked: dict[str, Any] = made.validated_data
    return asked


class VocabularyView(APIView):
    permission_classes = (AllowAny,)

    @extend_schema(responses=VocabularySerializer)
    def get(self, request: Request) -> Response:
        return Response(vocabulary(), headers={"Cache-Control": "max-age=3600"})


class LiveView(APIView):
    @extend_schema(request=LiveRequestSerializer, responses={200: LiveSerializer, **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        asked = _read(LiveRequestSerializer, request)
        chosen = asked.get("selected")
        selected = (chosen["path"], chosen["member"]) if chosen else None
        wish = Wish(selected, asked.get("picked"), asked.get("longest", UNFOLDED), asked.get("told"))
        return Response(look(asked["document"], asked.get("mark"), wish))


class DoubtsView(APIView):
    @extend_schema(request=DoubtsRequestSerializer, responses={200: DoubtsSerializer, **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        asked = _read(DoubtsRequestSerializer, request)
        return Response(doubts(asked["document"], assumed=asked["assumed"]))


class WorkingView(APIView):
    @extend_schema(request=WorkingRequestSerializer, responses={200: WorkingSerializer, **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        asked = _read(WorkingRequestSerializer, request)
        document = design.read(asked["document"])
        return Response(working(document, asked["measure"], branch=asked["branch"], at=asked.get("at")))


class AidView(APIView):
    @extend_schema(request=AidRequestSerializer, responses={200: FindingSerializer, **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        asked = _read(AidRequestSerializer, request)
        return Response(find(asked["aid"], asked["given"]))


class VehiclesView(APIView):
    @extend_schema(responses={200: VehicleCardSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        found = access.workshop_for(acting(request), workshop)
        return Response(VehicleCardSerializer(_with_present(found.vehicles.all()), many=True).data)

    @extend_schema(request=NewVehicleSerializer, responses={201: VehicleSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID) -> Response:
        found = access.workshop_for(acting(request), workshop, access.EDITORS)
        asked = _read(NewVehicleSerializer, request)
        document = asked["document"] if "document" in asked else new_vehicle(asked["name"])
        vehicle = actions.add_vehicle(acting(request), found, document)
        return Response(VehicleSerializer(vehicle).data, status=status.HTTP_201_CREATED)


class VehicleView(APIView):
    @extend_schema(responses={200: VehicleWithRevisionSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        found = _vehicle(request, vehicle)
        revision = found.revisions.select_related("author").first()
        role = found.workshop.memberships.get(user=acting(request)).role
        shown = VehicleSerializer(found).data
        return Response({**shown, "role": role, "revision": RevisionWithDocumentSerializer(revision).data})

    @extend_schema(request=PutAwaySerializer, responses={200: VehicleSerializer, **BAD, **HIDDEN})
    def patch(self, request: Request, vehicle: UUID) -> Response:
        found = _vehicle(request, vehicle, access.EDITORS)
        actions.put_away(acting(request), found, _read(PutAwaySerializer, request)["put_away"])
        return Response(VehicleSerializer(found).data)


class RevisionsView(APIView):
    @extend_schema(responses={200: RevisionSerializer(many=True), **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        revisions = _vehicle(request, vehicle).revisions.select_related("author").defer("document")[:200]
        return Response(RevisionSerializer(revisions, many=True).data)

    @extend_schema(
        request=SaveSerializer, responses={201: RevisionSerializer, 409: ConflictSerializer, **BAD, **HIDDEN}
    )
    def post(self, request: Request, vehicle: UUID) -> Response:
        found = _vehicle(request, vehicle, access.EDITORS)
        asked = _read(SaveSerializer, request)
        saved = actions.save_revision(acting(request), found, **asked)
        if isinstance(saved, Stale):
            conflict = {
                "detail": f"Revision {saved.present.number} has been saved since. Nothing was overwritten.",
                "yours": asked["document"],
                "theirs": RevisionWithDocumentSerializer(saved.present).data,
            }
            return Response(conflict, status=status.HTTP_409_CONFLICT)
        return Response(RevisionSerializer(saved).data, status=status.HTTP_201_CREATED)


class RevisionView(APIView):
    @extend_schema(responses={200: RevisionWithDocumentSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID, number: int) -> Response:
        found = _vehicle(request, vehicle)
        return Response(RevisionWithDocumentSerializer(get_object_or_404(found.revisions, number=number)).data)
