"""Connections of which none can hold the others up, whatever it sends or leaves unread.

Waitress gives a thread to each request. It answers all requests that came in one piece one after the other, and a
thread that has more to say than its connection has room for waits for the other side to read. A few connections that
ask much and read nothing could so hold every thread. Here the next request of a connection is begun when the answer
before it is gone, what waits to be written is bounded in all, and whoever does not read is not waited for.
"""

from __future__ import annotations

from collections.abc import Sequence
from types import MethodType
from typing import Any

from waitress.channel import HTTPChannel

WRITE_LIMIT_S = 20.0
"""Seconds after which whoever reads nothing, or next to nothing, is not waited for any longer."""
SLOWEST = 2_000.0
"""Bytes a second that a phone at the edge of a network still takes."""
MOST_WAITING = 64_000_000
"""Bytes that may wait to be written, of all connections of a process together."""


class FairChannel(HTTPChannel):  # type: ignore[misc]  # the library has no types
    """A connection with one request under way, whose time begins with a request's first byte."""

    request: Any
    sent_continue: bool
    ahead = b""
    """What came behind the request that is under way."""
    owes_since = 0.0
    """When something began to wait to be written; 0 while nothing does."""
    taken = 0
    """Bytes that the other side has taken since."""

    def handle_read(self) -> None:
        """Read what is there; bytes that trickle in do not prolong a request's time."""
        before: float = self.last_activity  # type: ignore[has-type]
        super().handle_read()
        if self.request is not None:
            self.last_activity = before

    def received(self, data: bytes) -> bool:
        """Take in bytes up to the end of a request; what comes behind it waits until that is answered."""
        while data:
            with self.requests_lock:
                if self.will_close or self.close_when_flushed:
                    return False
                if self.requests:
                    self.ahead += data
                    return True
                data = data[self._parse(data) :]
        return True

    def _parse(self, data: bytes) -> int:
        """How many bytes belong to the request that is being read; a thread is asked for once it is whole."""
        if self.request is None:
            self.request = self.parser_class(self.adj)
        request = self.request
        count: int = request.received(data)
        if request.expect_continue and request.headers_finished and not self.sent_continue:
            self.send_continue()
        if request.completed:
            self.sent_continue = False
            self.request = None
            if not request.empty:
                self.requests.append(request)
                self.server.add_task(self)
        return count

    def writable(self) -> bool:
        """Also while something came that can be begun now."""
        return bool(super().writable() or (self.ahead and not self.requests))

    def handle_write(self) -> None:
        """Write what waits; once nothing does, begin the next request that came."""
        super().handle_write()
        if self.ahead and self.connected and not self.requests and not self.total_outbufs_len:
            ahead, self.ahead = self.ahead, b""
            self.received(ahead)

    def write_soon(self, data: bytes) -> int:
        """Put bytes among those to be written; where too many wait, the loop drops whoever owes most."""
        count: int = super().write_soon(data)
        if waiting(self.server) > MOST_WAITING:
            self.server.next_channel_cleanup = 0.0
            self.server.pull_trigger()
        return count

    def send(self, data: bytes, *, do_close: bool = True) -> int:
        """Write, and count what the other side has taken."""
        count: int = super().send(data, do_close=do_close)
        self.taken += count
        return count

    def stalls(self, now: float) -> bool:
        """Whether it has been written to for long, and took next to nothing."""
        if not self.total_outbufs_len:
            self.owes_since = 0.0
        elif not self.owes_since:
            self.owes_since, self.taken = now, 0
        owed = now - self.owes_since if self.owes_since else 0.0
        return owed > WRITE_LIMIT_S and self.taken < SLOWEST * owed


def waiting(server: Any) -> int:
    """Bytes that wait to be written, of all connections."""
    return sum(channel.total_outbufs_len for channel in list(server.active_channels.values()))


def make_fair(server: Any) -> None:
    """Give a server these connections, and let it look after them.

    Args:
        server: one of waitress, before it runs.
    """
    server.channel_class = FairChannel
    idle = server.maintenance

    def maintenance(self: Any, now: float) -> None:
        """Close what is idle, and have dropped what cannot be waited for.

        It is called while the loop makes its list of connections; they are closed when that has been gone through.
        """
        idle(now)
        stalled = [channel for channel in list(self.active_channels.values()) if channel.stalls(now)]
        if stalled or waiting(self) > MOST_WAITING:
            self.trigger.pull_trigger(lambda: _drop(self, stalled))

    server.maintenance = MethodType(maintenance, server)


def _drop(server: Any, stalled: Sequence[FairChannel]) -> None:
    """Close connections that do not read, and while too much waits in all, whoever owes most."""
    for channel in stalled:
        channel.handle_close()
    while waiting(server) > MOST_WAITING:
        max(server.active_channels.values(), key=lambda channel: channel.total_outbufs_len).handle_close()
