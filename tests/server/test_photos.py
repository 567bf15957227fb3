"""Photos of steps: made anew, bounded, kept once."""

import io
import struct
import zlib
from typing import Any
from unittest import mock
from uuid import uuid4

from PIL import Image

from server.builds.models import Photo
from tests.server.builds_case import BuildCase


class Photos(BuildCase):
    def send(self, data: bytes, id_: str = "") -> Any:
        query = f"?step=fit:mark_out&id={id_ or uuid4()}"
        address = f"/api/vehicles/{self.vehicle.id}/build/photos/{query}"
        return self.as_("owner").post(address, data, content_type="application/octet-stream")

    def picture(self, form: str = "JPEG") -> bytes:
        stream = io.BytesIO()
        picture = Image.new("RGB", (3000, 2000), "red")
        exif = picture.getexif()
        exif[0x0110] = "camera"
        exif.get_ifd(0x8825)[2] = (50.0, 1.0, 2.0)
        picture.save(stream, form, exif=exif)
        return stream.getvalue()

    def test_a_small_file_that_claims_to_be_a_large_picture_is_refused_unread(self) -> None:
        for wide, high in ((1, 60_000_000), (12_001, 1), (7_000, 7_000)):
            claim = b"IHDR" + struct.pack(">IIBBBBB", wide, high, 1, 0, 0, 0, 0)
            sent = b"\x89PNG\r\n\x1a\n\0\0\0\r" + claim + struct.pack(">I", zlib.crc32(claim))
            answer = self.send(sent + b"\0\0\0\0IEND\xaeB`\x82")
            self.assertEqual(answer.status_code, 400)
            self.assertIn(f"{wide:,} by {high:,} pixels; at most 12,000 on a side", answer.json()["detail"])

    def test_are_made_anew_without_where_they_were_taken(self) -> None:
        for form in ("JPEG", "PNG"):
            answer = self.send(self.picture(form))
            self.assertEqual(answer.status_code, 201)
            kept = self.get("viewer", f"build/photos/{answer.json()['id']}/").content
            read = Image.open(io.BytesIO(kept))
            self.assertEqual((read.format, max(read.size), dict(read.getexif())), ("JPEG", 1600, {}))
        self.assertEqual(len(self.steps()["fit:mark_out"]["photos"]), 2)

    def test_a_browser_keeps_one_and_asks_each_time_whether_it_still_may(self) -> None:
        id_ = self.send(self.picture()).json()["id"]
        address = f"/api/vehicles/{self.vehicle.id}/build/photos/{id_}/"
        first = self.as_("viewer").get(address)
        self.assertEqual(first["Cache-Control"], "private, no-cache")
        known = {"If-None-Match": first["ETag"]}
        again = self.as_("viewer").get(address, headers=known)
        self.assertEqual((again.status_code, again.content), (304, b""))
        self.assertEqual(self.as_("stranger").get(address, headers=known).status_code, 404)
        self.as_("owner").delete(address)
        self.assertEqual(self.as_("viewer").get(address, headers=known).status_code, 404)

    def test_there_is_room_for_so_many_bytes(self) -> None:
        with mock.patch("server.builds.photos.MOST_PHOTO_BYTES", 1000):
            self.assertIn("bytes of photos", self.send(self.picture()).json()["detail"])

    def test_sent_twice_is_one_and_it_can_be_taken_away(self) -> None:
        id_ = str(uuid4())
        self.assertEqual([self.send(self.picture(), id_).status_code for _ in range(2)], [201, 201])
        self.assertEqual(Photo.objects.count(), 1)
        address = f"/api/vehicles/{self.vehicle.id}/build/photos/{id_}/"
        self.assertEqual(self.as_("owner").delete(address).status_code, 204)

    def test_others_are_refused_with_words(self) -> None:
        heic = self.send(b"\0\0\0\x18ftypheic" + bytes(80))
        self.assertIn("HEIC", heic.json()["detail"])
        self.assertIn("cannot be read", self.send(b"not a picture").json()["detail"])
