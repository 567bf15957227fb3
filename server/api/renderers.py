"""Answers as JSON."""

from __future__ import annotations

from typing import Any

import orjson
from rest_framework.renderers import BaseRenderer


class JSONRenderer(BaseRenderer):
    """Plain data and the core's dataclasses, written by orjson in a tenth of the time that json takes."""

    media_type = "application/json"
    format = "json"
    charset = None

    def render(self, data: Any, accepted_media_type: Any = None, renderer_context: Any = None) -> bytes:
        """UTF-8; nothing at all for an answer without content."""
        return b"" if data is None else dumped(data)


def dumped(data: Any) -> bytes:
    """Plain data and dataclasses as JSON."""
    return orjson.dumps(data, option=orjson.OPT_SERIALIZE_NUMPY)
