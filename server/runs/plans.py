"""Plans of what to try: kept with their vehicle, changed only by who knows the newest state."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db import transaction
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts.models import User
from server.api.errors import BAD, HIDDEN
from server.api.heavy import aside
from server.api.requests import DocumentField, answer_of, read
from server.designs.models import Vehicle
from server.parts.models import documents
from server.runs.api import vehicle_of
from server.runs.models import Plan
from server.workshops import access
from server.workshops.access import EDITORS, acting, allowed
from ydrometer.screens.planned import GearingOffered, Planned, offered, planned


class SavePlanSerializer(serializers.Serializer[Any]):
    """`base` is the version that was changed, 0 where there was none."""

    base = serializers.IntegerField(min_value=0, max_value=2_000_000_000)
    document = DocumentField()


class KeptPlanSerializer(serializers.Serializer[Any]):
    """A plan as typed and worked out; None where there is none."""

    version = serializers.IntegerField()
    document = DocumentField(allow_null=True)
    planned = answer_of(Planned)(allow_null=True)


class PlanConflictSerializer(serializers.Serializer[Any]):
    """What was sent, and how the plan stands now; nothing was overwritten."""

    detail = serializers.CharField()
    yours = DocumentField()
    theirs = DocumentField()
    version = serializers.IntegerField()


@allowed(EDITORS)
@transaction.atomic
def save_plan(user: User, vehicle: Vehicle, base: int, document: dict[str, Any]) -> Plan | None:
    """Keep a plan that was worked out; None where somebody has changed it since."""
    vehicle.lock()
    present = Plan.objects.filter(vehicle=vehicle).first()
    if (present.version if present else 0) != base:
        return None
    plan = present or Plan(vehicle=vehicle, version=0)
    plan.document, plan.author, plan.version = document, user, plan.version + 1
    plan.save()
    return plan


class PlanView(APIView):
    @extend_schema(responses={200: KeptPlanSerializer, **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        plan = Plan.objects.filter(vehicle=vehicle_of(request, vehicle)).first()
        if plan is None:
            return Response({"version": 0, "document": None, "planned": None})
        return Response(_kept(plan, aside(planned, plan.document)))

    @extend_schema(
        request=SavePlanSerializer, responses={200: KeptPlanSerializer, 409: PlanConflictSerializer, **BAD, **HIDDEN}
    )
    def put(self, request: Request, vehicle: UUID) -> Response:
        """Keeps a plan, or what of it is done."""
        vehicle_row = vehicle_of(request, vehicle, access.EDITORS)
        body = read(SavePlanSerializer, request)
        answer = aside(planned, body["document"])
        saved = save_plan(acting(request), vehicle_row, body["base"], body["document"])
        if saved is None:
            present = Plan.objects.get(vehicle=vehicle_row)
            conflict = {
                "detail": "Somebody has changed the plan since. Nothing was overwritten.",
                "yours": body["document"],
                "theirs": present.document,
                "version": present.version,
            }
            return Response(conflict, status=status.HTTP_409_CONFLICT)
        return Response(_kept(saved, answer))


def _kept(plan: Plan, answer: Planned) -> dict[str, Any]:
    return {"version": plan.version, "document": plan.document, "planned": answer}


class PlanChoicesView(APIView):
    @extend_schema(responses={200: answer_of(GearingOffered)(many=True), **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        """Gearings that could be tried: the present one, those that were run or kept, and what the bin has."""
        vehicle_row = vehicle_of(request, vehicle)
        present = vehicle_row.revisions.values_list("document", flat=True)[0]
        tried = list(vehicle_row.tried.values_list("document", flat=True))
        kept = list(vehicle_row.revisions.exclude(name="").values_list("document", flat=True))
        return Response(aside(offered, present, tried, kept, documents(vehicle_row.workshop)))
