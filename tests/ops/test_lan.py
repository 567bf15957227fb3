"""Serving the local network: addresses, a certificate of the machine's own, and HTTPS taken off in front."""

from __future__ import annotations

import os
import shutil
import socket
import ssl
import tempfile
import threading
import unittest
from http.server import BaseHTTPRequestHandler, HTTPServer
from pathlib import Path
from unittest import mock

from ops import lan
from ops.lan import Lan, certificate, local_network
from ops.say import GiveUp
from ops.serving import SERVING, Reach, _launch
from ops.terminator import stands_for
from ops.watching import end


class Tells(BaseHTTPRequestHandler):
    """Answers who is there."""

    def do_GET(self) -> None:  # the library's name
        self.send_response(200)
        self.end_headers()
        self.wfile.write(self.client_address[0].encode())

    def log_message(self, *args: object) -> None:
        pass


class LocalNetwork(unittest.TestCase):
    def setUp(self) -> None:
        self.folder = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, self.folder)
        self.enterContext(mock.patch.object(lan, "RUN", self.folder))

    def test_what_stands_in_the_way(self) -> None:
        with mock.patch.object(lan, "addresses", return_value=()), self.assertRaisesRegex(GiveUp, "in no network"):
            local_network(8000, https=False)
        with self.assertRaisesRegex(GiveUp, "add --lan"):
            Reach(https=True)

    def test_what_the_application_is_told(self) -> None:
        with mock.patch.object(lan, "addresses", return_value=("192.0.2.7", "198.51.100.4")):
            plain = local_network(8000, https=False)
            closed = local_network(8000, https=True)
        self.assertEqual(plain.origins, ["http://192.0.2.7:8000", "http://198.51.100.4:8000"])
        self.assertEqual(plain.env["YDROMETER_HOSTS"], "192.0.2.7,198.51.100.4")
        self.assertEqual(plain.env["YDROMETER_FINGERPRINT"], "")
        self.assertEqual(closed.origins[0], "https://192.0.2.7:8000")
        self.assertRegex(closed.env["YDROMETER_FINGERPRINT"], r"^([0-9A-F]{2}:){31}[0-9A-F]{2}$")

    def test_a_certificate_lasts_as_long_as_the_addresses(self) -> None:
        first = certificate(("192.0.2.7",)).fingerprint
        self.assertEqual(certificate(("192.0.2.7",)).fingerprint, first)
        self.assertNotEqual(certificate(("192.0.2.8",)).fingerprint, first)
        self.assertEqual((self.folder / "certificate" / "key.pem").stat().st_mode & 0o777, 0o600)

    def test_each_client_keeps_an_address_of_its_own(self) -> None:
        self.assertEqual(stands_for("192.168.1.23"), "127.168.1.23")
        behind = HTTPServer(("127.0.0.1", 0), Tells)
        threading.Thread(target=behind.serve_forever, daemon=True).start()
        self.addCleanup(behind.server_close)
        self.addCleanup(behind.shutdown)
        made = certificate(("127.0.0.2",))
        command = Lan(("127.0.0.2",), behind.server_port, made).terminator
        terminator = _launch(command, {**os.environ, **SERVING}, self.folder / "log")
        self.addCleanup(end, terminator)
        self.assertTrue(self.asked(behind.server_port, made.file).endswith(b"127.0.0.1"))

    def asked(self, port: int, trusted: Path) -> bytes:
        """The answer over HTTPS, once something listens."""
        context = ssl.create_default_context(cafile=str(trusted))
        for _ in range(200):
            try:
                with (
                    socket.create_connection(("127.0.0.2", port), timeout=5) as plain,
                    context.wrap_socket(plain, server_hostname="127.0.0.2") as closed,
                ):
                    closed.sendall(b"GET / HTTP/1.0\r\n\r\n")
                    return b"".join(iter(lambda: closed.recv(4096), b""))
            except ConnectionRefusedError:
                threading.Event().wait(0.05)
        raise AssertionError((self.folder / "log").read_text())
