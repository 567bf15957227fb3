"""The demo from outside: its visitor signs in with one button, and anybody may copy its vehicles; elsewhere these
addresses do not exist.
"""

from __future__ import annotations

from uuid import UUID

from django.conf import settings
from django.contrib.auth import login
from django.db.models import QuerySet
from django.http import Http404
from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts.models import User
from server.api.errors import BAD, HIDDEN, REFUSAL, SIGNED_OUT
from server.demo.load import VISITOR, WORKSHOP
from server.designs.api import CopySerializer, VehicleCardSerializer, VehicleSerializer, copied, with_present
from server.designs.models import Vehicle
from server.entrance.api import PublicView, SessionSerializer, session


class DemoSignInView(PublicView):
    @extend_schema(request=None, responses={200: SessionSerializer, 404: REFUSAL})
    def post(self, request: Request) -> Response:
        visitor = User.objects.filter(username=VISITOR).first() if settings.DEMO else None
        if visitor is None:
            raise Http404
        login(request, visitor)
        return Response(session(visitor))


class DemoVehiclesView(APIView):
    @extend_schema(responses={200: VehicleCardSerializer(many=True), 404: REFUSAL, **SIGNED_OUT})
    def get(self, request: Request) -> Response:
        """The demo's vehicles, to be copied to a bench of one's own."""
        return Response(VehicleCardSerializer(with_present(_vehicles()), many=True).data)


class DemoCopiesView(APIView):
    @extend_schema(request=CopySerializer, responses={201: VehicleSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Copy one of them into a workshop of one's own."""
        return copied(request, get_object_or_404(_vehicles(), pk=vehicle))


def _vehicles() -> QuerySet[Vehicle]:
    if not settings.DEMO:
        raise Http404
    return Vehicle.objects.filter(workshop_id=WORKSHOP, put_away=False)
