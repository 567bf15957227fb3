"""JSON bodies, read by the core's document reader: bounded in size and depth."""

from collections.abc import Mapping
from typing import IO, Any

from rest_framework.exceptions import ParseError
from rest_framework.parsers import BaseParser

from ydrometer.base.errors import DocumentError
from ydrometer.document import design

LARGEST = 4 * design.LARGEST
"""Bytes of a body: room for a design, its mark and what stands around them."""
DEEPEST = design.DEEPEST + 2


class LimitedJSONParser(BaseParser):
    media_type = "application/json"

    def parse(
        self, stream: IO[Any], media_type: str | None = None, parser_context: Mapping[str, Any] | None = None
    ) -> Any:
        try:
            return design.load(stream.read(LARGEST + 1), largest=LARGEST, deepest=DEEPEST)
        except DocumentError as error:
            raise ParseError(str(error)) from None
