"""What a change comes to that was made from a state which is no longer there."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Generic, TypeVar

T = TypeVar("T")


@dataclass(frozen=True, slots=True)
class Stale(Generic[T]):
    """Somebody made a change in between: nothing was written.

    Attributes:
        present: how it stands now; of several, those that are still there.
    """

    present: T
