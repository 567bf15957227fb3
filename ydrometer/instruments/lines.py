"""Lines of JSON that an instrument speaks, as samples in time; what cannot be read is told line by line."""

from __future__ import annotations

import json
import math
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Any

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.base.seen import shown

LONGEST, MOST = 2_000, 500_000
"""Characters of a line, and lines of a stream."""
MOST_FAULTS = 20
"""That are told one by one, of lines as of rows."""
WRAP = 2.0**32 / 1e6
"""Seconds after which a clock of 32 bits that counts microseconds begins again."""
NEAR_WRAP = 0.05
"""Share of that before and after which such a clock counts as having begun again by itself."""
MARKS = {"pulse", "gate"}
VALUES = {"volt": "voltage", "amp": "current", "degC": "temperature", "newton": "force"}
"""What a sample may tell, and the kind of quantity it is."""
ZERO_CELSIUS = 273.15


@dataclass(frozen=True, slots=True)
class Sample:
    """One line: its time, s, on a clock that goes on, the part of the stream it stands in, and what it tells.

    Attributes:
        t: time. part: counts up where the instrument was started again; times of different parts have nothing to do
        with each other. key: one of `MARKS` or `VALUES`. value: number of the gate, or the value, SI.
    """

    t: float
    part: int
    key: str
    value: float


@dataclass(slots=True)
class Stream:
    """What has been read so far; more lines may follow.

    Attributes:
        slots: pulses a turn. on: what is counted, wheel or motor. samples: in order. faults: lines that could not be
        read. read: how many lines there were.
    """

    slots: int = 1
    on: str = "wheel"
    samples: list[Sample] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)
    read: int = 0
    _part: int = 0
    _clock: float = -math.inf
    _turns: int = 0

    def take(self, lines: Iterable[str]) -> None:
        """Read on.

        Raises:
            DocumentError: more lines than anybody needs.
        """
        for line in lines:
            self.read += 1
            if self.read > MOST:
                raise DocumentError([Fault(f"line {self.read}", "too many lines", f"give at most {MOST:,}")])
            if line.strip():
                self._line(line.strip(), f"line {self.read}")

    def _line(self, line: str, place: str) -> None:
        try:
            entry = json.loads(line) if len(line) <= LONGEST else None
        except (ValueError, RecursionError):
            entry = None
        if not isinstance(entry, dict):
            self._fault(place, shown(line[:60]), 'give one object of JSON, such as {"t": 1.25, "pulse": 1}')
        elif "instrument" in entry:
            self._head(entry, place)
        else:
            self._samples(entry, place)

    def _head(self, entry: dict[str, Any], place: str) -> None:
        """The instrument has been started."""
        slots, on = entry.get("slots", 1), entry.get("on", "wheel")
        if not isinstance(slots, int) or isinstance(slots, bool) or not 1 <= slots <= 1000:
            self._fault(f"{place}.slots", shown(slots), "give the pulses a turn, a whole number from 1 to 1000")
        elif on not in ("wheel", "motor"):
            self._fault(f"{place}.on", shown(on), "give wheel or motor")
        else:
            self.slots, self.on = slots, on
        self._restart()

    def _samples(self, entry: dict[str, Any], place: str) -> None:
        t: Any = entry.get("t")
        if not _is_number(t):
            self._fault(f"{place}.t", shown(t), "give the time of the instrument's own clock in seconds")
            return
        known = [key for key in entry if key in MARKS or key in VALUES]
        if not known:
            wanted = ", ".join(sorted({*MARKS, *VALUES}))
            self._fault(place, shown(line_of(entry)), f"give one of {wanted}")
        at = self._on_one_clock(float(t))
        for key in known:
            if not _is_number(entry[key]):
                self._fault(f"{place}.{key}", shown(entry[key]), "give a number")
                continue
            offset = ZERO_CELSIUS if key == "degC" else 0.0
            self.samples.append(Sample(at, self._part, key, float(entry[key]) + offset))

    def _on_one_clock(self, t: float) -> float:
        """The time on a clock that goes on where the instrument's wraps, and begins anew where that was restarted."""
        if t < self._clock:
            if self._clock > (1.0 - NEAR_WRAP) * WRAP and t < NEAR_WRAP * WRAP:
                self._turns += 1
            else:
                self._restart()
        self._clock = t
        return t + self._turns * WRAP

    def _restart(self) -> None:
        if self.samples and self.samples[-1].part == self._part:
            self._part += 1
        self._clock, self._turns = -math.inf, 0

    def _fault(self, place: str, given: str, remedy: str) -> None:
        self.faults.append(Fault(place, f"{given} given", remedy))


def _is_number(value: Any) -> bool:
    return isinstance(value, int | float) and not isinstance(value, bool) and math.isfinite(value)


def line_of(entry: dict[str, Any]) -> str:
    """A line as an instrument speaks it."""
    return json.dumps(entry, separators=(", ", ": "))
