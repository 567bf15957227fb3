"""A race board: who runs next, knockout or everyone against everyone, and how everybody stands."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import combinations
from statistics import fmean
from typing import Any, Literal

from ydrometer.base import reading
from ydrometer.base.seen import Reading

FORMAT, VERSION = "ydrometer-race", 1
Mode = Literal["knockout", "everyone"]
MODES: tuple[Mode, ...] = ("knockout", "everyone")
MOST_LANES, MOST_ENTRIES, MOST_HEATS = 8, 64, 2200
"""Heats: everyone of the most entries once against everyone, and some of it run again."""
LONGEST_NAME = 60


@dataclass(frozen=True, slots=True, kw_only=True)
class Entry:
    """A team: its name, and the id of its vehicle in the workshop, empty where it is only a name."""

    id: str = reading.text(longest=40)
    name: str = reading.text(longest=LONGEST_NAME)
    vehicle: str = reading.text(longest=40)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """It can be told from the others."""
        for key in ("id", "name"):
            if not getattr(self, key).strip():
                yield key, "empty", "give it some words"


@dataclass(frozen=True, slots=True, kw_only=True)
class Heat:
    """One start: its round, who stood in which lane, and their times, s; None of who did not finish.

    `revisions` are those of their vehicles then, by lane, as far as they have any.
    """

    round: int = reading.whole(1, 1000)
    entries: tuple[str, ...] = reading.items(reading.line_reader(longest=40), least=1, most=MOST_LANES)
    times: tuple[float | None, ...] = reading.items(
        reading.or_null(reading.quantity_reader("time", above=0.0)), least=1, most=MOST_LANES
    )

    revisions: tuple[int | None, ...] = reading.items(
        reading.or_null(reading.whole_reader(1, 2_000_000_000)), most=MOST_LANES
    )

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """A time, or none, of each, and a revision where any is given; at least one has finished."""
        if len(self.times) != len(self.entries):
            yield "times", f"{len(self.times)} times of {len(self.entries)} entries", "give one of each, null of none"
        elif self.revisions and len(self.revisions) != len(self.entries):
            yield "revisions", f"{len(self.revisions)} revisions of {len(self.entries)} entries", "give one of each"
        elif not any(time is not None for time in self.times):
            yield "times", "nobody finished", "run it again, or give one of them a time"

    @property
    def winner(self) -> str:
        """The fastest; of equal times the one in the lower lane."""
        known = [(time, lane) for lane, time in enumerate(self.times) if time is not None]
        return self.entries[min(known)[1]]


@dataclass(frozen=True, slots=True, kw_only=True)
class Board:
    """A race: over which distance, how many lanes, how it is run, who takes part, and what was run so far."""

    format: str = reading.choice((FORMAT,))
    version: int = reading.whole(VERSION, VERSION)
    name: str = reading.text(longest=LONGEST_NAME)
    distance: float = reading.quantity("distance", above=0.0)
    lanes: int = reading.whole(1, MOST_LANES, default=2)
    mode: str = reading.choice(MODES)
    entries: tuple[Entry, ...] = reading.items(reading.object_reader(Entry), most=MOST_ENTRIES)
    heats: tuple[Heat, ...] = reading.items(reading.object_reader(Heat), most=MOST_HEATS)

    def faults(self) -> Iterator[tuple[str, str, str]]:
        """Each entry once, and heats of those that are there, on the lanes that there are."""
        ids = [entry.id for entry in self.entries]
        if len(set(ids)) < len(ids):
            yield "entries", "one is there twice", "give each an id of its own"
        if self.mode == "knockout" and self.lanes < 2:
            yield "lanes", "one lane in a knockout", "give at least 2: they run against each other"
        for k, heat in enumerate(self.heats):
            if not set(heat.entries) <= set(ids) or len(set(heat.entries)) < len(heat.entries):
                yield f"heats[{k}].entries", "somebody who is not entered, or twice", "take entries of the board, once"
            if len(heat.entries) > self.lanes:
                count = len(heat.entries)
                yield f"heats[{k}].entries", f"{count} entries on {self.lanes} lanes", f"give {count} lanes, or less"


@dataclass(frozen=True, slots=True)
class NextHeat:
    """Who runs next, by lane, in which round."""

    round: int
    entries: list[str]


@dataclass(frozen=True, slots=True)
class Place:
    """How an entry stands: its place from 1, heats run and won, whether it is out, best and mean time, s."""

    place: int
    entry: str
    runs: int
    wins: int
    out: bool
    best: float | None
    mean: float | None


def read(raw: Any) -> Board:
    """Read a board from parsed JSON.

    Raises:
        DocumentError: with every fault at once.
    """
    seen = Reading()
    return reading.finish(reading.read_object(Board, raw, "", seen), seen)


def next_heat(board: Board) -> NextHeat | None:
    """Who runs next; None where it is over, or nobody has entered."""
    return _next_in_knockout(board) if board.mode == "knockout" else _next_of_all(board)


def _next_in_knockout(board: Board) -> NextHeat | None:
    for number, groups in _rounds(board):
        for group in groups:
            if len(group) > 1 and _run(board, number, group) is None:
                return NextHeat(number, group)
    return None


def _rounds(board: Board) -> Iterator[tuple[int, list[list[str]]]]:
    """The groups of each round as far as it is known; whoever stands alone goes on without a run."""
    left, number = [entry.id for entry in board.entries], 1
    while len(left) > 1:
        groups = _groups(left, board.lanes)
        yield number, groups
        winners = [_winner(board, number, group) for group in groups]
        if None in winners:
            return
        left, number = [winner for winner in winners if winner is not None], number + 1


def _groups(left: Sequence[str], lanes: int) -> list[list[str]]:
    """As many groups as are needed, as equal as they can be."""
    count = -(-len(left) // lanes)
    size, more = divmod(len(left), count)
    groups, begin = [], 0
    for k in range(count):
        end = begin + size + (k < more)
        groups.append(list(left[begin:end]))
        begin = end
    return groups


def _winner(board: Board, number: int, group: Sequence[str]) -> str | None:
    if len(group) == 1:
        return group[0]
    heat = _run(board, number, group)
    return heat.winner if heat else None


def _run(board: Board, number: int, group: Sequence[str]) -> Heat | None:
    """The heat of this group in this round; the last one, where it was run again."""
    heats = [heat for heat in board.heats if heat.round == number and set(heat.entries) == set(group)]
    return heats[-1] if heats else None


def _next_of_all(board: Board) -> NextHeat | None:
    """A group that meets as many new opponents as can be, of those who have run least."""
    ids = [entry.id for entry in board.entries]
    met = {frozenset(pair) for heat in board.heats for pair in combinations(heat.entries, 2)}
    runs = {id: sum(id in heat.entries for heat in board.heats) for id in ids}
    if board.lanes == 1:
        waiting = [id for id in ids if runs[id] == 0]
        return NextHeat(1, waiting[:1]) if waiting else None
    unmet = [pair for pair in combinations(ids, 2) if frozenset(pair) not in met]
    if not unmet:
        return None
    first = min(unmet, key=lambda pair: (runs[pair[0]] + runs[pair[1]], max(runs[pair[0]], runs[pair[1]])))
    group = list(first)
    while len(group) < min(board.lanes, len(ids)):
        others = [id for id in ids if id not in group]
        new = {id: sum(frozenset((id, member)) not in met for member in group) for id in others}
        best = max(others, key=lambda id: (new[id], -runs[id]))
        if not new[best]:
            break
        group.append(best)
    return NextHeat(1 + min(runs[id] for id in group), group)


def standings(board: Board) -> list[Place]:
    """Everybody in their order: by the round reached in a knockout, else by heats won; then by the best time."""
    fates = _fates(board)
    rows = []
    for entry in board.entries:
        own = [heat for heat in board.heats if entry.id in heat.entries]
        times = [time for heat in own if (time := heat.times[heat.entries.index(entry.id)]) is not None]
        wins = sum(heat.winner == entry.id for heat in own)
        reached, out = fates[entry.id]
        ahead = (reached, not out) if board.mode == "knockout" else (wins, True)
        best = min(times, default=math.inf)
        rows.append(
            (
                ahead,
                -best,
                Place(
                    0,
                    entry.id,
                    len(own),
                    wins,
                    out,
                    None if math.isinf(best) else best,
                    fmean(times) if times else None,
                ),
            )
        )
    rows.sort(key=lambda row: row[:2], reverse=True)
    return [replace(row, place=k) for k, (_, _, row) in enumerate(rows, 1)]


def _fates(board: Board) -> dict[str, tuple[int, bool]]:
    """The round that each entry has come into, and whether it has lost there."""
    fates = {entry.id: (1, False) for entry in board.entries}
    if board.mode != "knockout":
        return fates
    for number, groups in _rounds(board):
        for group in groups:
            winner = _winner(board, number, group)
            for id in group:
                won = id == winner
                fates[id] = number + won, winner is not None and not won
    return fates
