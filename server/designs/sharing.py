"""A design shown to whoever brings a link: made, looked at without an account, taken back."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Any
from uuid import UUID

from django.db.models import F
from django.http import Http404
from django.shortcuts import get_object_or_404
from django.utils import timezone
from drf_spectacular.utils import extend_schema
from rest_framework import serializers, status
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.accounts import codes, patience
from server.accounts.models import User
from server.api.errors import BAD, HIDDEN, TOO_MANY
from server.api.quotas import need_room
from server.api.requests import answer_of, read
from server.config.logs import security
from server.designs.models import Share, Vehicle
from server.entrance.api import PublicView
from server.workshops import access
from server.workshops.access import EDITORS, acting, allowed
from ydrometer.document import design
from ydrometer.screens.card import Card, card
from ydrometer.working import Working, working

DAYS = (1, 7, 30, 90)
"""For how many days a link may stand."""
MOST = 20
"""Links of a vehicle that stand at once."""


class NewShareSerializer(serializers.Serializer[Any]):
    days = serializers.ChoiceField(choices=DAYS)


class ShareSerializer(serializers.ModelSerializer[Share]):
    """A link that stands; `code` is told when it is made, and never again."""

    author = serializers.CharField(source="author.username", default=None, allow_null=True)
    code = serializers.CharField(read_only=True, default="")

    class Meta:
        model = Share
        fields = ["id", "author", "made_at", "expires_at", "opened", "code"]


class CodeSerializer(serializers.Serializer[Any]):
    code = serializers.CharField(max_length=100)


class SharedWorkingSerializer(CodeSerializer):
    measure = serializers.CharField(max_length=60)
    at = serializers.FloatField(allow_null=True, required=False)


@dataclass(frozen=True, slots=True)
class Shared:
    """A design as it stood when it was shared, and how long the link stands."""

    name: str
    made_at: datetime
    expires_at: datetime
    card: Card


@allowed(EDITORS)
def share(user: User, vehicle: Vehicle, days: int) -> tuple[Share, str]:
    """Make a link to a design as it stands now; its code is told only now.

    Raises:
        Full: there are too many links.
    """
    need_room("links", _standing(vehicle).count(), MOST)
    code, code_hash = codes.draw()
    shared = Share.objects.create(
        vehicle=vehicle,
        document=vehicle.revisions.latest("number").document,
        code_hash=code_hash,
        author=user,
        expires_at=timezone.now() + timedelta(days=days),
    )
    vehicle.shares.filter(expires_at__lte=timezone.now()).delete()
    security.info("account %s shared vehicle %s for %d days", user.pk, vehicle.pk, days)
    return shared, code


@allowed(EDITORS)
def take_back(user: User, link: Share) -> None:
    """Take a link back."""
    security.info("account %s took link %s back", user.pk, link.pk)
    link.delete()


class SharesView(APIView):
    @extend_schema(responses={200: ShareSerializer(many=True), **HIDDEN})
    def get(self, request: Request, vehicle: UUID) -> Response:
        """The links that stand."""
        return Response(ShareSerializer(_standing(_vehicle(request, vehicle)), many=True).data)

    @extend_schema(request=NewShareSerializer, responses={201: ShareSerializer, **BAD, **HIDDEN})
    def post(self, request: Request, vehicle: UUID) -> Response:
        """Makes a link to the design as it stands now."""
        share_row, code = share(acting(request), _vehicle(request, vehicle), read(NewShareSerializer, request)["days"])
        return Response({**ShareSerializer(share_row).data, "code": code}, status=status.HTTP_201_CREATED)


class ShareView(APIView):
    @extend_schema(responses={204: None, **HIDDEN})
    def delete(self, request: Request, vehicle: UUID, share: UUID) -> Response:
        """Takes a link back."""
        take_back(acting(request), get_object_or_404(_vehicle(request, vehicle).shares, pk=share))
        return Response(status=status.HTTP_204_NO_CONTENT)


class SharedView(PublicView):
    @extend_schema(request=CodeSerializer, responses={200: answer_of(Shared), **BAD, **HIDDEN, **TOO_MANY})
    def post(self, request: Request) -> Response:
        """What a link shows, to anybody who has it."""
        shared = _shared(request, read(CodeSerializer, request)["code"])
        Share.objects.filter(pk=shared.pk).update(opened=F("opened") + 1)
        name = design.read(shared.document).design.name
        return Response(Shared(name, shared.made_at, shared.expires_at, card(shared.document)))


class SharedWorkingView(PublicView):
    @extend_schema(request=SharedWorkingSerializer, responses={200: answer_of(Working), **BAD, **HIDDEN, **TOO_MANY})
    def post(self, request: Request) -> Response:
        """Where one of its numbers comes from."""
        body = read(SharedWorkingSerializer, request)
        shared = _shared(request, body["code"])
        return Response(working(design.read(shared.document), body["measure"], at=body.get("at")))


def _vehicle(request: Request, vehicle: UUID) -> Vehicle:
    return access.belonging(Vehicle.objects.all(), acting(request), access.EDITORS, pk=vehicle)


def _standing(vehicle: Vehicle) -> Any:
    return vehicle.shares.filter(expires_at__gt=timezone.now()).select_related("author")


def _shared(request: Request, code: str) -> Share:
    """The share that a code belongs to, while it stands, its vehicle is in no drawer and its workshop is open.

    Raises:
        Http404: none does; who tries codes one after another waits.
    """
    key = (patience.SHARED, patience.address_of(request))
    seen = {"vehicle__gone_at__isnull": True, "vehicle__workshop__closed_at__isnull": True}
    standing = Share.objects.filter(expires_at__gt=timezone.now(), **seen)
    shared = standing.filter(code_hash=codes.hash_of(code)).first()
    if shared is None:
        patience.count(key)
        raise Http404
    return shared
