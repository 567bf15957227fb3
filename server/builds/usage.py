"""How much of its room a workshop uses."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import HIDDEN
from server.api.limits import MOST_PHOTO_BYTES, MOST_REVISION_BYTES, MOST_VEHICLES
from server.api.quotas import NEAR
from server.builds import photos
from server.designs import actions
from server.workshops import access
from server.workshops.access import acting
from ydrometer.search.layout import MOST_PARTS


class UsageSerializer(serializers.Serializer[Any]):
    """`unit` is "bytes", or empty where things are counted; `near` when it is time to say so."""

    what = serializers.CharField()
    unit = serializers.CharField()
    used = serializers.IntegerField()
    most = serializers.IntegerField()
    near = serializers.BooleanField()


class UsageView(APIView):
    @extend_schema(responses={200: UsageSerializer(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        """How much of its room a workshop uses."""
        workshop_row = access.workshop_for(acting(request), workshop)
        rows = (
            ("vehicles", "", workshop_row.vehicles.count(), MOST_VEHICLES),
            ("designs and their revisions", "bytes", actions.bytes_of(workshop_row.pk), MOST_REVISION_BYTES),
            ("photos", "bytes", photos.bytes_of(workshop_row.pk), MOST_PHOTO_BYTES),
            ("parts", "", workshop_row.parts.count(), MOST_PARTS),
        )
        keys = ("what", "unit", "used", "most")
        return Response([{**dict(zip(keys, row, strict=True)), "near": row[2] > NEAR * row[3]} for row in rows])
