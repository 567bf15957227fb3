"""JSON bodies, read by the core's document reader: bounded in size and depth."""

from collections.abc import Mapping
from typing import IO, Any

from rest_framework.exceptions import ParseError
from rest_framework.parsers import BaseParser

from ydrometer.base import strict_json
from ydrometer.base.errors import DocumentError

LARGEST = 4 * strict_json.LARGEST
"""Bytes of a body: room for a design, its mark and what stands around them."""
DEEPEST = strict_json.DEEPEST + 2


class LimitedJSONParser(BaseParser):
    media_type = "application/json"

    def parse(
        self, stream: IO[Any], media_type: str | None = None, parser_context: Mapping[str, Any] | None = None
    ) -> Any:
        try:
            return strict_json.load(stream.read(LARGEST + 1), largest=LARGEST, deepest=DEEPEST)
        except DocumentError as error:
            raise ParseError(str(error)) from None


class PieceParser(BaseParser):
    """A piece of a file as it is."""

    media_type = "application/octet-stream"
    LARGEST: int = 4_000_000

    def parse(
        self, stream: IO[Any], media_type: str | None = None, parser_context: Mapping[str, Any] | None = None
    ) -> Any:
        data = stream.read(self.LARGEST + 1)
        if len(data) > self.LARGEST:
            raise ParseError(f"a piece has {self.LARGEST:,} bytes at most")
        return data


class PhotoParser(PieceParser):
    """A photo as a phone makes it."""

    LARGEST = 12_000_000
