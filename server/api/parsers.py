"""JSON bodies, read by the core's document reader: bounded in size and depth."""

from collections.abc import Mapping
from typing import IO, Any

from rest_framework import serializers
from rest_framework.exceptions import ParseError
from rest_framework.parsers import BaseParser
from rest_framework.request import Request

from server.api.limits import FORM, JSON_BODY, PHOTO, PIECE
from ydrometer.base import strict_json
from ydrometer.base.errors import DocumentError

DEEPEST = strict_json.DEEPEST + 2


class LimitedJSONParser(BaseParser):
    media_type = "application/json"

    def parse(
        self, stream: IO[Any], media_type: str | None = None, parser_context: Mapping[str, Any] | None = None
    ) -> Any:
        try:
            most = JSON_BODY if _is_known(parser_context) else FORM
            return strict_json.load(stream.read(most + 1), largest=most, deepest=DEEPEST)
        except DocumentError as error:
            raise ParseError(str(error)) from None


def _is_known(context: Mapping[str, Any] | None) -> bool:
    """Whether somebody who is signed in has sent it: nobody else has more to say than a form holds.

    Django's own request is asked. The framework's would read the body first, to look for a token in it.
    """
    return bool(context and context["request"]._request.user.is_authenticated)


class PieceParser(BaseParser):
    """A piece of a file as it is."""

    media_type = "application/octet-stream"
    LARGEST: int = PIECE

    def parse(
        self, stream: IO[Any], media_type: str | None = None, parser_context: Mapping[str, Any] | None = None
    ) -> Any:
        data = stream.read(self.LARGEST + 1)
        if len(data) > self.LARGEST:
            raise ParseError(f"a piece has {self.LARGEST:,} bytes at most")
        return data


class PhotoParser(PieceParser):
    """A photo as a phone makes it."""

    LARGEST = PHOTO


def piece_of(request: Request) -> bytes:
    """The bytes that were sent.

    Raises:
        ValidationError: something else was.
    """
    if not isinstance(request.data, bytes):
        raise serializers.ValidationError({"data": "Send the bytes as application/octet-stream."})
    return request.data
