"""The cards of a bench, worked out once for each state of a vehicle."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any
from uuid import UUID

import orjson
from drf_spectacular.utils import extend_schema
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.errors import HIDDEN
from server.api.requests import answer_of
from server.designs.api import with_present
from server.workshops import access
from server.workshops.access import acting
from ydrometer.base.errors import DocumentError
from ydrometer.screens.card import Card, card

KEPT = 500
"""Cards that a process keeps; one is some 5 KB."""


@dataclass(frozen=True, slots=True)
class CardShown:
    """The card of a vehicle, or why its design cannot be read."""

    vehicle: UUID
    card: Card | None
    trouble: str


class CardsView(APIView):
    @extend_schema(responses={200: answer_of(CardShown)(many=True), **HIDDEN})
    def get(self, request: Request, workshop: UUID) -> Response:
        """Of all vehicles on the bench; those that were put away have none."""
        workshop_row = access.workshop_for(acting(request), workshop)
        here = with_present(workshop_row.vehicles.filter(scratch=False, put_away=False))
        rows: list[Any] = list(here)  # each has its present document besides
        return Response([CardShown(row.pk, *_card(orjson.dumps(row.present))) for row in rows])


@lru_cache(maxsize=KEPT)
def _card(document: bytes) -> tuple[Card | None, str]:
    try:
        return card(orjson.loads(document)), ""
    except DocumentError as error:
        return None, str(error)
