"""Where one is signed in; new passwords with a code."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.db.models import QuerySet
from django.shortcuts import get_object_or_404
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts import patience
from server.accounts.models import SignedIn
from server.api.errors import BAD, HIDDEN, SIGNED_OUT, TOO_MANY
from server.api.requests import read
from server.entrance import devices, resets
from server.entrance.api import PublicView
from server.workshops import access
from server.workshops.access import acting


class DeviceSerializer(serializers.ModelSerializer[SignedIn]):
    """A device on which one is signed in; `here` is the one that asks."""

    here = serializers.SerializerMethodField()

    class Meta:
        model = SignedIn
        fields = ["id", "device", "address", "since", "last_at", "here"]

    def get_here(self, device: SignedIn) -> bool:
        """Whether the question comes from it."""
        asks: str | None = self.context["request"].session.session_key
        return device.session_key == asks


class ResetLinkSerializer(serializers.Serializer[Any]):
    """What a member brings to choose a new password; told once."""

    code = serializers.CharField()


class ResetSerializer(serializers.Serializer[Any]):
    code = serializers.CharField(max_length=100)
    password = serializers.CharField(max_length=200, trim_whitespace=False)


class DevicesView(APIView):
    @extend_schema(responses={200: DeviceSerializer(many=True), **SIGNED_OUT})
    def get(self, request: Request) -> Response:
        devices.note(request, acting(request))
        return Response(DeviceSerializer(_mine(request), many=True, context={"request": request}).data)

    @extend_schema(operation_id="accounts_devices_destroy_others", responses={204: None, **SIGNED_OUT})
    def delete(self, request: Request) -> Response:
        """Signs out everywhere but here."""
        devices.end(acting(request), _mine(request).exclude(session_key=request.session.session_key))
        return Response(status=status.HTTP_204_NO_CONTENT)


def _mine(request: Request) -> QuerySet[SignedIn]:
    return devices.of(acting(request), request.session.session_key)


class DeviceView(APIView):
    @extend_schema(responses={204: None, **HIDDEN})
    def delete(self, request: Request, device: UUID) -> Response:
        """Signs out there."""
        device_row = get_object_or_404(_mine(request), pk=device)
        devices.end(acting(request), SignedIn.objects.filter(pk=device_row.pk))
        return Response(status=status.HTTP_204_NO_CONTENT)


class ResetView(PublicView):
    @extend_schema(request=ResetSerializer, responses={204: None, **BAD, **TOO_MANY})
    def post(self, request: Request) -> Response:
        """Chooses a new password with a code."""
        key = (patience.RESET, patience.address_of(request))
        patience.count(key)
        body = read(ResetSerializer, request)
        with patience.hashing():
            resets.use(body["code"], body["password"])
        patience.forgive(key)
        return Response(status=status.HTTP_204_NO_CONTENT)


class ResetLinkView(APIView):
    @extend_schema(request=None, responses={201: ResetLinkSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, workshop: UUID, member: int) -> Response:
        """Makes a code with which a member who forgot it chooses a new password, within a day."""
        workshop_row = access.workshop_for(acting(request), workshop, access.OWNERS)
        membership = get_object_or_404(workshop_row.memberships.select_related("user"), pk=member)
        return Response({"code": resets.make_for_member(acting(request), membership)}, status=status.HTTP_201_CREATED)
