"""The first look at a request: how large the search is, and all of it where it is small."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ydrometer.search.options import Options, options_of
from ydrometer.search.outcome import Outcome
from ydrometer.search.request import read_request
from ydrometer.search.run import SearchPiece, pieces, search, sizes


@dataclass(frozen=True, slots=True)
class Begun:
    """A search as it begins.

    Attributes:
        combinations: before the limits. pieces: to be gone through; none where it is done.
        found, options: where it was small, of the options the first.
    """

    combinations: int
    pieces: list[SearchPiece]
    outcome: Outcome | None
    options: Options | None


def begin(raw: Any, at_once: int, most: int) -> Begun:
    """Read a request; search at once up to so many combinations, and make no pieces of more than `most`.

    Raises:
        DocumentError: faults in the request.
    """
    request = read_request(raw)
    total = sum(sizes(request))
    if total > at_once:
        return Begun(total, pieces(request) if total <= most else [], None, None)
    outcome = search(request)
    return Begun(total, [], outcome, options_of(request, outcome, at_first=True))


def sizes_of(raw: Any) -> list[int]:
    """How many combinations each layout of a request describes.

    Raises:
        DocumentError: faults in the request.
    """
    return sizes(read_request(raw))


def options_in(raw: Any, outcome: dict[str, Any]) -> Options:
    """What was found, as it is kept, to be looked at."""
    return options_of(read_request(raw), Outcome.from_json(outcome))
