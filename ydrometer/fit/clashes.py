"""What does not go together on a plate, and by how much.

Each check is a function of one subject and stands in `CHECKS`; it yields what it finds.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator

from ydrometer.fit import meeting, seating, touching
from ydrometer.fit.clash import Clash
from ydrometer.fit.setup import Setup


def clashes(setup: Setup) -> list[Clash]:
    """All that does not go, then all that is to be minded; the worst first."""
    found = [clash for check in CHECKS for clash in check(setup)]
    return sorted(found, key=lambda clash: (clash.level != "clash", -clash.amount))


CHECKS: tuple[Callable[[Setup], Iterator[Clash]], ...] = (
    meeting.strangers, meeting.on_the_plate, meeting.apart, meeting.slots, meeting.with_tensioner, meeting.holding,
    meeting.level,    touching.wheels_and_shafts, touching.frame, touching.runs, touching.ground, touching.neighbours,
    touching.tensioners,
    seating.widths, seating.bores, seating.bolts, seating.stacks,
)  # fmt: skip
