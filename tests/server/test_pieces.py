"""Files that come and go in pieces: no more than was announced, nothing lost, nothing kept for ever."""

from __future__ import annotations

from datetime import timedelta
from unittest import mock

from django.utils import timezone

from server.api.errors import Refused
from server.api.quotas import Full
from server.pieces import store
from server.pieces.models import HeldFile
from tests.server.people import WorkshopCase, small_parts

WHOLE = bytes(range(25))


class Pieces(WorkshopCase):
    def setUp(self) -> None:
        self.enterContext(small_parts(10))
        self.owner = self.people["owner"]

    def sent(self) -> HeldFile:
        file = store.begin(self.owner, len(WHOLE))
        for number in (2, 0, 1, 0):
            store.add(file, number, WHOLE[10 * number : 10 * number + 10])
        file.refresh_from_db()
        return file

    def test_it_is_whole_in_whatever_order_it_came(self) -> None:
        file = self.sent()
        self.assertEqual((file.came, store.missing(file)), (25, []))
        self.assertEqual(b"".join(store.pieces_of(file)), WHOLE)

    def test_it_is_read_from_anywhere(self) -> None:
        with store.opened(self.sent()) as stream:
            self.assertEqual(stream.read(), WHOLE)
            self.assertEqual((stream.seek(-3, 2), stream.read(9)), (22, WHOLE[22:]))
            self.assertEqual((stream.seek(8), stream.read(4)), (8, WHOLE[8:12]))
            self.assertRaises(ValueError, stream.seek, -1)

    def test_what_is_missing_is_known(self) -> None:
        file = store.begin(self.owner, len(WHOLE))
        store.add(file, 1, WHOLE[10:20])
        self.assertEqual(store.missing(file), [0, 2])

    def test_no_more_comes_than_was_announced(self) -> None:
        file = store.begin(self.owner, len(WHOLE))
        for number, data in ((3, b"more"), (0, WHOLE[:9]), (2, WHOLE[20:] + b"!"), (2, WHOLE[20:24])):
            with self.subTest(number=number), self.assertRaises(Refused):
                store.add(file, number, data)
        self.assertFalse(file.pieces.exists())

    def test_one_account_has_a_few_on_their_way_and_all_together_have_a_limit(self) -> None:
        with mock.patch("server.pieces.store.MOST_HELD", 1):
            store.begin(self.owner, 5)
            self.assertRaises(Full, store.begin, self.owner, 5)
        self.sent()
        with mock.patch("server.pieces.store.HELD", 25):
            self.assertRaises(Full, store.begin, self.people["editor"], 1)

    def test_what_goes_no_further_is_forgotten(self) -> None:
        begun, whole = store.begin(self.owner, 30), self.sent()
        hours_ago = timezone.now() - timedelta(hours=2)
        HeldFile.objects.update(touched_at=hours_ago)
        store.clear_old()
        self.assertEqual(list(HeldFile.objects.values_list("pk", flat=True)), [whole.pk])
        self.assertNotEqual(begun.pk, whole.pk)
        HeldFile.objects.update(touched_at=timezone.now() - timedelta(days=2))
        store.clear_old()
        self.assertFalse(HeldFile.objects.exists())

    def test_what_is_written_is_cut_into_pieces_up_to_a_limit(self) -> None:
        file = HeldFile.objects.create(author=self.owner, size=0)
        stream = store.Writing(file, most=25)
        for k in range(0, 25, 4):
            stream.write(WHOLE[k : k + 4])
        stream.finish()
        file.refresh_from_db()
        self.assertEqual((file.size, file.came, b"".join(store.pieces_of(file))), (25, 25, WHOLE))
        stream.write(b"!")
        self.assertRaises(Full, stream.finish)
