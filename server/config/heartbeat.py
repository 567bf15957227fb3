"""When each of a few processes has shown last that it answers, in memory that they share with their parent."""

from __future__ import annotations

import mmap
import struct
import time

_MOMENT = struct.Struct("d")


class Heartbeats:
    """Of a number of processes that are forked from this one."""

    def __init__(self, count: int) -> None:
        self._memory = mmap.mmap(-1, count * _MOMENT.size)

    def of(self, place: int) -> Heartbeat:
        """That of the process at a place."""
        return Heartbeat(self._memory, place * _MOMENT.size)


class Heartbeat:
    """When one process has shown last that it answers."""

    def __init__(self, memory: mmap.mmap, offset: int) -> None:
        self._memory, self._offset = memory, offset

    def beat(self) -> None:
        """It answers now."""
        _MOMENT.pack_into(self._memory, self._offset, time.monotonic())

    def silent_for(self) -> float:
        """Seconds since then."""
        (last,) = _MOMENT.unpack_from(self._memory, self._offset)
        return time.monotonic() - float(last)
