"""Where this server is found from other devices: by its name, or in the local network."""

from __future__ import annotations

from dataclasses import dataclass

import segno
from django.conf import settings
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import SIGNED_OUT
from server.api.requests import answer_of


@dataclass(frozen=True, slots=True)
class Reach:
    """Addresses for other devices, none where this computer alone is served.

    Attributes:
        addresses: the one to try first comes first. qr: that one as a picture, a data address.
        local: whether the other device has to be in the same network.
        fingerprint: of the certificate that was made on this machine, empty without HTTPS.
    """

    addresses: list[str]
    qr: str
    local: bool
    fingerprint: str


class ReachView(APIView):
    @extend_schema(responses={200: answer_of(Reach), **SIGNED_OUT})
    def get(self, request: Request) -> Response:
        public = [request.build_absolute_uri("/")] if settings.IS_PUBLIC else []
        addresses = public or [f"{origin}/" for origin in settings.LAN_ORIGINS]
        qr = segno.make(addresses[0], micro=False).svg_data_uri(scale=4, border=2, light="white") if addresses else ""
        return Response(Reach(addresses, qr, not public, settings.FINGERPRINT))
