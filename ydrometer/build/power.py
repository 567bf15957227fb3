"""The last steps: road wheels, locker, nothing loose, first power, first run, what was closed looked at again."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build import wiring
from ydrometer.build.wiring import SAFE_ENGINE
from ydrometer.build.workshop import BuildShop
from ydrometer.document.sources import Engine
from ydrometer.document.stages.assembly import CURE, FUMES, Job, Record
from ydrometer.document.walk import branch_of
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.result import in_rpm

RECHECK = "recheck"
"""The kind of steps that look again at all that was closed and set."""
SPIN = "vehicle:spin"
"""The step that counts the wheel's turns in the air."""
FIRST_S, HOUR_S = 5 * 60.0, 60 * 60.0
"""Running after which everything is looked at again, s."""
STAND = "Wheels off the ground on a firm stand, nobody in line with them, hand on the off switch."
CLEAR = "Bystanders clear of the track; the brakes hold the speed before it is raised, more so on slopes."
RIDER = "Helmet and proper ground; local law and event rules come first, and roads are for what is licensed."
LOOK = "Power off and battery out before hands go in."


def per_unit(shop: BuildShop) -> Iterator[Job]:
    """The locker of one unit, when all of it is set, and each of its sources under power by itself.

    Args:
        shop: of the design.
    """
    if shop.ways.locking == "locker":
        yield Job(
            place="vehicle",
            verb="locker",
            kind="locker",
            minutes=30,
            wait=CURE,
            parts=("build.locking", *shop.line.shafts),
            title="One screw after the other out, a drop of medium locker on it, in again: mounts, plates, wheels",
            why="All at once out loses the settings; the locker has its full strength after 24 hours.",
            tools=("thread locker", "hex keys"),
            cautions=(FUMES,),
        )
    for source, each in shop.line.sources.items():
        name = shop.named(source)
        yield Job(
            place=source,
            verb="alone",
            kind="power",
            minutes=5 * each,
            parts=(source,),
            cautions=_standing(shop, source),
            title=f"Run {name} alone, slowly: it turns {_sense(shop, source)}, nothing rubs, nothing smells",
            why="Turning the wrong way: change two leads, not the gears; an engine cannot.",
            after=("vehicle:stand",),
        )


def road_wheels() -> Job:
    """The wheels on the ground."""
    return Job(
        place="vehicle",
        verb="road_wheels",
        kind="shaft",
        minutes=20,
        parts=("vehicle.wheel_diameter",),
        title="Put the road wheels on, tighten each crosswise a little at a time, and pull at each",
        tools=("wrench",),
    )


def jobs(shop: BuildShop, before: tuple[str, ...]) -> Iterator[Job]:
    """From the last look before power to the signature.

    Args:
        shop: of the design.
        before: ids of all that has to be done before power.
    """
    sources = tuple(f"{source}:alone" for source in shop.line.sources)
    yield Job(
        place="vehicle",
        verb="look_over",
        kind="check",
        minutes=15,
        after=before,
        title="Go along the line with a lamp: nothing loose, nothing left in belts or gears, every guard on",
        cautions=(LOOK,),
    )
    yield Job(
        place="vehicle",
        verb="stand",
        kind="check",
        minutes=10,
        after=("vehicle:look_over",),
        title="Set it on a firm stand, wheels off the ground, and rock it: it stays",
        cautions=(STAND,),
    )
    yield Job(
        place="vehicle",
        verb="spin",
        kind="power",
        minutes=10,
        after=sources,
        cautions=tuple(dict.fromkeys(c for source in shop.line.sources for c in _standing(shop, source))),
        title=f"Run all together at full throttle and count the wheel's turns{_predicted(shop)}",
        why="It goes into Runs as a run in the air; far off means something rubs, or a number of the design is wrong.",
        record=Record("turns of the wheel", "rpm"),
        tools=("counter",),
    )
    yield from _on_the_ground(shop)


def _on_the_ground(shop: BuildShop) -> Iterator[Job]:
    ridden = shop.design.vehicle.payload > 0.0
    yield Job(
        place="vehicle",
        verb="first_run",
        kind="run",
        minutes=15,
        wait=FIRST_S,
        after=("vehicle:spin",),
        title="First run: slowly, straight on, then both ways round, then stop it from a walking pace",
        cautions=(CLEAR, *((RIDER,) if ridden else ())),
    )
    for verb, after, wait, time in (
        ("recheck_5_min", "first_run", HOUR_S - FIRST_S, "After 5 minutes of running"),
        ("recheck_1_h", "recheck_5_min", 0.0, "After an hour of running"),
    ):
        yield Job(
            place="vehicle",
            verb=verb,
            kind=RECHECK,
            minutes=20,
            wait=wait,
            after=(f"vehicle:{after}",),
            cautions=(LOOK,),
            title=f"{time}: every fastening, play and tension again; feel and measure what is hot",
            why="What backs out or settles does so in the first minutes.",
            record=Record("hottest place", "degC"),
            tools=("hex keys", "thermometer"),
        )
    yield Job(
        place="vehicle",
        verb="sign_off",
        kind="sign_off",
        minutes=5,
        after=("vehicle:recheck_1_h",),
        title="Sign it off: nothing is loose, and what was found is written down",
        why="It says what was done, not that it is safe; event rules and makers' instructions come first.",
    )


def before_power(shop: BuildShop) -> tuple[str, ...]:
    """Ids of what the wiring and the wheels need done before power."""
    return ("vehicle:road_wheels", *wiring.ids(shop))


def _standing(shop: BuildShop, source: str) -> tuple[str, ...]:
    """What to mind while a source turns in the air."""
    said = shop.design.drive.branches[branch_of(source)].source
    return (STAND, SAFE_ENGINE) if isinstance(said, Engine) else (STAND,)


def _sense(shop: BuildShop, source: str) -> str:
    said = shop.design.drive.branches[branch_of(source)].source
    return "anticlockwise as the Line shows it" if said.reversed else "clockwise as the Line shows it"


def _predicted(shop: BuildShop) -> str:
    """What the model says of the wheel in the air; nothing where it says nothing."""
    turns = in_rpm(evaluate([shop.document]).value("no_load_wheel_rpm", 0))
    return f": {turns:.0f} rpm are predicted" if turns else ""
