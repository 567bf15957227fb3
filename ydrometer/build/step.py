"""A step of a build, and what is written down of one that was done."""

from __future__ import annotations

from dataclasses import dataclass

from ydrometer.document.stages.assembly import Loose, Record

POWERED = ("power", "run")
"""Kinds of steps for which nothing may be loose."""
RECHECK = "recheck"
"""The kind of steps that look again at all that was closed and set."""
SIGNED = "sign_off"
"""The kind of step that asks for an empty ledger, and is of one state alone."""
COMES_AGAIN = ("locker", "guard", "look_over", "run", RECHECK, SIGNED)
"""Kinds of steps that are done once more after any change before them."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Step:
    """One step, in the order in which it can be done.

    Attributes:
        id: place, verb, and from the second unit on its number; it stays as long as its place does.
        title, why: what to do, with its numbers. kind: of work. place: of the design. unit: from 1, 0 for all at once.
        needs: ids of steps before it. opens: what it leaves loose. closes: ids of that.
        buries: ids of steps that nobody can do after it. wait: s after it, before what needs it.
        parts: paths of the design that it handles. about: the same in words. uses: kinds of the parts list without
        which it cannot be done there.
        made_from: the design's numbers about them, see `facts`. tools, cautions: in words.
        clashes: what Fit says does not go together there, in words.
        minutes: of work. record: what it measures; None where nothing is.
    """

    id: str
    title: str
    kind: str
    place: str
    minutes: float
    why: str = ""
    unit: int = 0
    needs: tuple[str, ...] = ()
    opens: tuple[Loose, ...] = ()
    closes: tuple[str, ...] = ()
    buries: tuple[str, ...] = ()
    wait: float = 0.0
    parts: tuple[str, ...] = ()
    uses: tuple[str, ...] = ()
    about: str = ""
    made_from: tuple[str, ...] = ()
    tools: tuple[str, ...] = ()
    clashes: tuple[str, ...] = ()
    record: Record | None = None
    cautions: tuple[str, ...] = ()

    @property
    def powers(self) -> bool:
        """Whether something turns under power in it."""
        return self.kind in POWERED
