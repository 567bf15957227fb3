"""What does not go together on a plate, and by how much.

Each check is a function of one subject and stands in `CHECKS`; it yields what it finds.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from ydrometer.fit import bodies, flanges, meeting, metal, screws, seating, toothing, touching
from ydrometer.fit.clash import Clash
from ydrometer.fit.setup import Setup


def clashes(setup: Setup) -> list[Clash]:
    """All that does not go, then all that is to be minded; the worst first."""
    every_clash = [clash for check in CHECKS for clash in check(setup)]
    return sorted(every_clash, key=lambda clash: (clash.level != "clash", -clash.amount))


def all_clashes(setups: Iterable[Setup]) -> list[Clash]:
    """What does not go together on any of the plates.

    Args:
        setups: of one design.
    """
    return [clash for setup in setups for clash in clashes(setup)]


def goes(setup: Setup) -> bool:
    """Whether all goes together in the plane, as it stands; what is on the shafts is another matter."""
    return not clashing(setup)


def clashing(setup: Setup) -> int:
    """How much does not go together in the plane, as it stands."""
    return sum(clash.level == "clash" for check in IN_PLANE for clash in check(setup))


def meets(setup: Setup) -> bool:
    """Whether all that is coupled stands as far apart as it should."""
    return not any(clash.level == "clash" for clash in meeting.apart(setup))


IN_PLANE: tuple[Callable[[Setup], Iterator[Clash]], ...] = (
    meeting.on_the_plate,
    meeting.apart,
    toothing.contact,
    meeting.slots,
    meeting.with_tensioner,
    meeting.holding,
    touching.wheels_and_shafts,
    touching.frame,
    touching.runs,
    touching.ground,
    touching.neighbours,
    touching.tensioners,
    bodies.bodies,
)
"""What depends on where the shafts stand."""

CHECKS: tuple[Callable[[Setup], Iterator[Clash]], ...] = (
    *IN_PLANE,
    meeting.strangers,
    meeting.level,
    toothing.tips,
    toothing.small_rings,
    seating.widths,
    seating.bores,
    seating.bolts,
    seating.stacks,
    screws.reached,
    metal.thin_places,
    flanges.flanges,
)
