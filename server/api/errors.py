"""How refusals look to the page: a sentence, and the faults of a document with their paths."""

from __future__ import annotations

import logging
from typing import Any

from django.db import DatabaseError, OperationalError
from django.http import HttpRequest, JsonResponse
from drf_spectacular.utils import OpenApiResponse
from rest_framework import serializers, status
from rest_framework.exceptions import APIException
from rest_framework.response import Response
from rest_framework.views import exception_handler, set_rollback

from server.api.requests import answer_of
from ydrometer.base.errors import DocumentError, Fault, YdrometerError


class RefusalSerializer(serializers.Serializer[Any]):
    """`fields` says what is wrong with which entry of a form; `faults` with which place of a document, and `more` how
    many faults there are besides those that are told.
    """

    detail = serializers.CharField()
    fields = serializers.DictField(  # type: ignore[assignment]  # the name the page reads; shadows only the form machinery
        child=serializers.ListField(child=serializers.CharField()), required=False
    )
    faults = answer_of(Fault)(many=True, required=False)
    more = serializers.IntegerField(required=False)


REFUSAL = OpenApiResponse(RefusalSerializer, "Refused, with the reason")
BAD = {400: REFUSAL}
SIGNED_OUT = {401: REFUSAL}
TOO_MANY = {429: REFUSAL}
HIDDEN = {401: REFUSAL, 403: REFUSAL, 404: REFUSAL}


log = logging.getLogger("ydrometer.database")
NO_ROOM = frozenset({"53100", "58030"})
"""PostgreSQL's words for a full disk, and for one that cannot be written to."""
DISK_FULL = (
    "The disk of the server is full: nothing was saved. What you typed is kept in this page; whoever looks after the "
    "server has to make room."
)
DATABASE_BUSY = "The database has its hands full, or is not there for a moment: try again in a few seconds."


class Refused(APIException):
    """A rule of the workshop stands against it."""

    status_code = status.HTTP_400_BAD_REQUEST


def handle(error: Exception, context: dict[str, Any]) -> Response | None:
    """Every refusal in the one shape of `RefusalSerializer`."""
    if isinstance(error, DocumentError):
        faults = [{"path": f.path, "problem": f.problem, "remedy": f.remedy} for f in error.faults]
        every = len(faults) + error.more
        detail = f"{every:,} values of the design cannot be read" if every > 1 else str(error)
        refusal = {"detail": detail, "faults": faults, "more": error.more}
        return Response(refusal, status=status.HTTP_400_BAD_REQUEST)
    if isinstance(error, YdrometerError):
        return Response({"detail": str(error)}, status=status.HTTP_400_BAD_REQUEST)
    if isinstance(error, DatabaseError):
        return _database_trouble(error)
    response = exception_handler(error, context)
    if response is not None and not (isinstance(response.data, dict) and "detail" in response.data):
        fields = response.data if isinstance(response.data, dict) else {"": response.data}
        listed = {name: _texts(value) for name, value in fields.items()}
        first = next((text for texts in listed.values() for text in texts), "")
        response.data = {"detail": first, "fields": listed}
    return response


def _database_trouble(error: DatabaseError) -> Response | None:
    """What is said where the database cannot do its work now; a fault of ours is none of these."""
    state = getattr(error.__cause__, "sqlstate", None)
    if state in NO_ROOM:
        set_rollback()
        log.critical("the disk is full: %s", error)
        return Response({"detail": DISK_FULL}, status=status.HTTP_507_INSUFFICIENT_STORAGE)
    if not isinstance(error, OperationalError):
        return None
    set_rollback()
    log.error("the database: %s", error)
    return Response({"detail": DATABASE_BUSY}, status=status.HTTP_503_SERVICE_UNAVAILABLE, headers={"Retry-After": "3"})


def _texts(value: Any) -> list[str]:
    if isinstance(value, dict):
        return [text for part in value.values() for text in _texts(part)]
    return [str(part) for part in value] if isinstance(value, list) else [str(value)]


def csrf_failure(request: HttpRequest, reason: str = "") -> JsonResponse:
    """The page's token is missing or old."""
    return JsonResponse({"detail": "The page has been open too long: load it again."}, status=403)


def server_error(request: HttpRequest) -> JsonResponse:
    """Something went wrong before any view was reached, or in one."""
    return JsonResponse({"detail": "Something went wrong here. What you typed is kept; try again."}, status=500)


def not_found(request: HttpRequest) -> JsonResponse:
    """An address of the API that is none."""
    return JsonResponse({"detail": "There is nothing at this address."}, status=404)
