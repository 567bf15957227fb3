"""What a choice changes in a design that comes with the request: a part that is taken, another kind of stage."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from drf_spectacular.utils import extend_schema
from rest_framework import serializers
from rest_framework.request import Request
from rest_framework.response import Response
from rest_framework.views import APIView

from server.api.authentication import RecentSession
from server.api.errors import BAD, SIGNED_OUT
from server.api.requests import DocumentField, answer_of, read
from ydrometer.taking import changes, exchanged


@dataclass(frozen=True, slots=True)
class ChangedValues:
    """Values as typed, by their paths in the document; null takes one out."""

    changes: dict[str, Any]


class TakingSerializer(serializers.Serializer[Any]):
    """`part` is a document of the bin; `path` of what takes it, `member` the wheel there that it becomes."""

    document = DocumentField()
    path = serializers.CharField(max_length=200, allow_blank=True, default="")
    member = serializers.CharField(max_length=20, allow_blank=True, default="")
    part = DocumentField()


class OtherKindSerializer(serializers.Serializer[Any]):
    """`path` of a stage, `kind` of the one that takes its place."""

    document = DocumentField()
    path = serializers.CharField(max_length=200)
    kind = serializers.CharField(max_length=40)


class TakingView(APIView):
    authentication_classes = (RecentSession,)

    @extend_schema(request=TakingSerializer, responses={200: answer_of(ChangedValues), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        """What a part of the bin becomes where it is taken."""
        body = read(TakingSerializer, request)
        return Response(ChangedValues(changes(body["document"], body["path"], body["member"], body["part"])))


class OtherKindView(APIView):
    authentication_classes = (RecentSession,)

    @extend_schema(request=OtherKindSerializer, responses={200: answer_of(ChangedValues), **BAD, **SIGNED_OUT})
    def post(self, request: Request) -> Response:
        """Another kind of stage with what stays of the present one."""
        body = read(OtherKindSerializer, request)
        stage = exchanged(body["document"], body["path"], body["kind"])
        return Response(ChangedValues({body["path"]: stage}))
