"""One table of limits: what stands in front of the application takes as much as the application does."""

import re
from pathlib import Path
from unittest import TestCase

from server.api import limits
from server.api.parsers import PhotoParser, PieceParser

PROXY = Path(__file__).parents[2] / "docs" / "hosting" / "nginx.conf"


class Limits(TestCase):
    def test_the_proxy_takes_every_body(self) -> None:
        size = re.search(r"client_max_body_size (\d+)m;", PROXY.read_text())
        assert size is not None
        self.assertGreaterEqual(int(size[1]) * 2**20, limits.BODY)

    def test_the_server_takes_what_its_parsers_do(self) -> None:
        self.assertGreaterEqual(limits.BODY, max(limits.JSON_BODY, PhotoParser.LARGEST, PieceParser.LARGEST))

    def test_an_archive_has_room_for_all_that_a_workshop_keeps(self) -> None:
        kept = limits.MOST_PHOTO_BYTES + limits.MOST_REVISION_BYTES
        self.assertGreater(limits.ARCHIVE, kept)
        self.assertGreater(limits.ARCHIVE_UNPACKED, kept)
        self.assertGreater(limits.HELD, limits.ARCHIVE)
