"""Connections that ask much and read nothing hold nobody up."""

import logging
import socket
import threading
import time
import unittest
from collections.abc import Callable
from typing import Any
from unittest import mock

from waitress import wasyncore
from waitress.server import create_server

from server.config import channels

LARGE = b"x" * 6_000_000
"""More than the system keeps for a connection."""
REQUEST = b"GET /%d HTTP/1.1\r\nHost: here\r\n\r\n"


def application(environ: dict[str, Any], start: Callable[..., Any]) -> list[bytes]:
    body = LARGE if environ["PATH_INFO"] == "/0" else b"answer " + environ["PATH_INFO"].encode()
    start("200 OK", [("Content-Length", str(len(body)))])
    return [body]


class Held(unittest.TestCase):
    def setUp(self) -> None:
        logging.disable()
        self.addCleanup(logging.disable, logging.NOTSET)
        listening = socket.create_server(("127.0.0.1", 0))
        self.port: int = listening.getsockname()[1]
        self.server = create_server(
            application, sockets=[listening], threads=2, cleanup_interval=0.1, ident=None, asyncore_use_poll=True
        )
        channels.make_fair(self.server)
        running = threading.Thread(target=self.server.run, daemon=True)
        running.start()
        self.addCleanup(running.join)
        self.addCleanup(self.server.task_dispatcher.shutdown)
        self.addCleanup(lambda: self.server.trigger.pull_trigger(lambda: wasyncore.close_all(self.server._map)))

    def connect(self) -> socket.socket:
        connection = socket.create_connection(("127.0.0.1", self.port), timeout=10.0)
        self.addCleanup(connection.close)
        return connection

    def asks(self, *paths: int) -> socket.socket:
        connection = self.connect()
        connection.sendall(b"".join(REQUEST % path for path in paths))
        return connection

    def read_until(self, connection: socket.socket, end: bytes) -> bytes:
        text = b""
        while not text.endswith(end):
            piece = connection.recv(65536)
            self.assertTrue(piece, "the connection was closed")
            text += piece
        return text

    def test_those_who_read_nothing_hold_no_thread(self) -> None:
        for _ in range(8):
            self.asks(*([0] * 90))
        time.sleep(0.5)  # until each has been answered as much as it ever will be
        self.read_until(self.asks(7), b"/7")

    def test_requests_that_come_in_one_piece_are_answered_in_their_order(self) -> None:
        text = self.read_until(self.asks(1, 2, 3, 0, 4), b"/4")
        self.assertEqual([text.count(b"answer /%d" % path) for path in (1, 2, 3, 4)], [1, 1, 1, 1])
        self.assertLess(text.index(b"answer /3"), text.index(LARGE))

    def test_whoever_reads_nothing_is_let_go(self) -> None:
        with mock.patch.object(channels, "WRITE_LIMIT_S", 0.3):
            self.asks(0)
            self.eventually(lambda: not self.server.active_channels)

    def test_what_waits_in_all_is_bounded(self) -> None:
        with mock.patch.object(channels, "MOST_WAITING", 10_000_000):
            for _ in range(8):
                self.asks(0)
            self.eventually(lambda: 0 < channels.waiting(self.server) <= 10_000_000)
            self.eventually(lambda: len(self.server.active_channels) < 8)

    def eventually(self, holds: Callable[[], bool]) -> None:
        end = time.monotonic() + 10.0
        while not holds():
            self.assertLess(time.monotonic(), end, "in vain")
            time.sleep(0.02)
