"""A host's settings, looked through before anything starts."""

from __future__ import annotations

import socket
import tempfile
import unittest
from pathlib import Path
from unittest import mock

from ops import production
from ops.production import faults
from ops.say import GiveUp

RIGHT = {
    "ALLOWED_HOSTS": "gears.example.org,www.gears.example.org",
    "SECRET_KEY": "k" * 60,
    "DATABASE_URL": "postgresql://ydrometer:pw@127.0.0.1/ydrometer",
    "YDROMETER_PROXIES": "1",
}


class Faults(unittest.TestCase):
    def told(self, **changed: str) -> str:
        return "\n".join(faults({**RIGHT, **changed}))

    def test_right_ones(self) -> None:
        self.assertEqual(self.told(), "")
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder, "secret")
            file.write_text("k" * 60 + "\n")
            self.assertEqual(self.told(SECRET_KEY="", SECRET_KEY_FILE=str(file)), "")

    def test_each_is_told_with_what_would_be_right(self) -> None:
        self.assertIn("names alone", self.told(ALLOWED_HOSTS="*"))
        self.assertIn("names alone", self.told(ALLOWED_HOSTS="https://gears.example.org"))
        self.assertIn("has 5 characters: 50", self.told(SECRET_KEY="short"))
        self.assertIn("cannot be read", self.told(SECRET_KEY="", SECRET_KEY_FILE="/nowhere/secret"))
        self.assertIn("postgresql://user@host", self.told(DATABASE_URL="sqlite:///here"))
        self.assertIn("1 with nginx alone", self.told(YDROMETER_PROXIES="0"))

    def test_all_at_once_and_nothing_started(self) -> None:
        with mock.patch.dict("os.environ", {"PATH": "/bin"}, clear=True), self.assertRaises(GiveUp) as caught:
            production.environment()
        self.assertEqual(str(caught.exception).count("\n  * "), 4)


class Systemd(unittest.TestCase):
    def test_is_told_by_a_path_or_by_an_abstract_name(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            for given, bound in ((f"{folder}/notify", f"{folder}/notify"), (f"@{folder}", f"\0{folder}")):
                with self.subTest(given), socket.socket(socket.AF_UNIX, socket.SOCK_DGRAM) as systemd:
                    systemd.bind(bound)
                    with mock.patch.dict("os.environ", {"NOTIFY_SOCKET": given}):
                        production.tell_systemd()
                    systemd.settimeout(10)
                    self.assertEqual(systemd.recv(100), b"READY=1")

    def test_is_not_told_where_it_did_not_start_this(self) -> None:
        with mock.patch.dict("os.environ", clear=True), mock.patch("socket.socket") as made:
            production.tell_systemd()
        made.assert_not_called()
