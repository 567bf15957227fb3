"""What can go wrong, each with a machine-readable code, a path and the values concerned."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass


class YdrometerError(Exception):
    """Base of every error the core raises on purpose.

    Attributes:
        code: a short constant a program can branch on.
        path: where in the design document, `$` for the document as a whole.
        values: the numbers or texts concerned, by name.
    """

    code = "error"

    def __init__(self, message: str, *, path: str = "$", **values: object) -> None:
        super().__init__(message)
        self.path = path
        self.values = values


class QuantityError(YdrometerError):
    """A text or number that is not a quantity of the wanted kind; `remedy` says what would be."""

    code = "quantity"

    def __init__(self, message: str, remedy: str, **values: object) -> None:
        super().__init__(message)
        self.values = values
        self.remedy = remedy


@dataclass(frozen=True, slots=True)
class Fault:
    """One thing wrong with a document: where, what is wrong, and what would be right."""

    path: str
    problem: str
    remedy: str

    def __str__(self) -> str:
        return f"{self.path}: {self.problem}, {self.remedy}"


MOST_FAULTS = 200
"""Faults that are told of one document; nobody reads more, and a stranger could send a million."""


class DocumentError(YdrometerError):
    """A document that cannot be read.

    Attributes:
        faults: what is wrong with it, in its own order, the first `MOST_FAULTS`.
        more: how many faults there are besides.
    """

    code = "document"

    def __init__(self, faults: Sequence[Fault], more: int = 0) -> None:
        self.faults = tuple(faults[:MOST_FAULTS])
        self.more = more + len(faults) - len(self.faults)
        super().__init__("; ".join(self.lines()), path=faults[0].path)

    def __reduce__(self) -> tuple[type[DocumentError], tuple[tuple[Fault, ...], int]]:
        """So that it can be raised in one process and met in another."""
        return DocumentError, (self.faults, self.more)

    def lines(self) -> list[str]:
        """The faults in words, the last line saying how many are not told."""
        return [*map(str, self.faults), *([f"and {self.more:,} more"] if self.more else [])]
