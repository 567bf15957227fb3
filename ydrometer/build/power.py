"""The last steps: road wheels, locker, nothing loose, first power, first run, what was closed looked at again."""

from __future__ import annotations

from collections.abc import Iterator

from ydrometer.build.safe import FUEL, fingers, has_brakes, has_engine, look, running
from ydrometer.build.shafts import standing
from ydrometer.build.step import RECHECK, SIGNED
from ydrometer.build.workshop import BuildShop
from ydrometer.document.stages.assembly import CURE, FUMES, Fitting, Job, Record
from ydrometer.document.walk import branch_of
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.evaluation.result import in_rpm

SPIN = "vehicle:spin"
"""The step that counts the wheel's turns in the air."""
FIRST_S, HOUR_S = 5 * 60.0, 60 * 60.0
"""Running after which everything is looked at again, s."""
STAND = "Wheels off the ground on a firm stand, nobody in line with them, hand on the switch that stops it."
CLEAR = "Bystanders clear of the track; the brakes hold the speed before it is raised, more so on slopes."
RIDER = "Helmet and proper ground; local law and event rules come first, and roads are for what is licensed."


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
            uses=("locker",),
            title="One screw after the other out, a drop of medium locker on it, in again: mounts, plates, wheels",
            why="All at once out loses the settings; the locker has its full strength after 24 hours.",
            tools=("thread locker", "hex keys"),
            cautions=(FUMES,),
        )
    for source, each in shop.line.sources.items():
        yield Job(
            place=source,
            verb="alone",
            kind="power",
            minutes=5 * each,
            parts=(source,),
            cautions=_standing(shop),
            title=_alone(shop, source),
            why="" if shop.on_drum(source) else "Turning the wrong way: change two leads, not the gears.",
            after=("vehicle:stand", *_tried(shop)),
        )


def road_wheels(shop: BuildShop) -> Job:
    """What rolls on the ground, once its axle stands.

    Args:
        shop: of the design.
    """
    tracks, wheels = shop.design.vehicle.tracks, shop.design.vehicle.wheels
    title = f"Put the {wheels} road wheels on, tighten each crosswise a little at a time, and pull at each"
    if tracks:
        on = "track" if tracks == 1 else f"{tracks} tracks"
        title = f"Put the {on} on: slack it off, over the driving sprocket last; tighten until it no longer climbs"
    return Job(
        place="vehicle",
        verb="road_wheels",
        kind="shaft",
        minutes=5 * (tracks or wheels),
        parts=("vehicle.wheel_diameter",),
        uses=("wheel", "track", "track sprocket", "key", "sleeve", "adapter"),
        title=title,
        after=(standing(shop, shop.line.axle),),
        tools=("wrench",),
        cautions=(fingers(shop.design),) if tracks else (),
    )


def brakes(shop: BuildShop) -> Iterator[Job]:
    """The brakes of whatever has some, or carries somebody: fitted, and tried before anything drives it.

    Args:
        shop: of the design.
    """
    if not has_brakes(shop.design.vehicle):
        return
    yield Job(
        place="vehicle",
        verb="brakes",
        kind="shaft",
        minutes=60,
        after=("vehicle:road_wheels",),
        parts=("vehicle.brake_force",),
        fittings=(Fitting("brake", "brakes with lever and cables or hoses"),),
        title="Fit the brakes, cables or hoses clear of all that turns; with the brake off every wheel turns freely",
        why="What drags heats; what rubs through fails when it is needed.",
        tools=("hex keys",),
    )
    yield Job(
        place="vehicle",
        verb="brakes_standing",
        kind="check",
        minutes=10,
        after=("vehicle:brakes",),
        parts=("vehicle.brake_force",),
        title="Brake standing: hold the lever and push with all your weight, forwards and backwards; no wheel turns",
        cautions=("On level ground, with chocks at hand. A brake that fails is mended before anything else is done.",),
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
        kind="look_over",
        minutes=15,
        after=before,
        title="Go along the line with a lamp: nothing loose, nothing left in belts or gears, every guard on",
        cautions=(look(shop.design),),
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
    yield from _off_tried(shop)
    yield Job(
        place="vehicle",
        verb="all_off",
        kind="power",
        minutes=5,
        after=sources,
        parts=("drive.supply",),
        cautions=_standing(shop),
        title=f"All together, slowly, with everything in: {_stops(shop)} while it turns; it goes dead at once and runs "
        "out",
        why="What was tried alone may fail with everything in.",
    )
    yield _all_together(shop)
    yield from _on_the_ground(shop)


def _stops(shop: BuildShop) -> str:
    """How it is stopped, in words."""
    ways = ["switch off"] if shop.design.drive.supply is not None else []
    return " and ".join([*ways, *(["press stop"] if has_engine(shop.design) else [])])


def _off_tried(shop: BuildShop) -> Iterator[Job]:
    """What stops it, tried before anything turns by power."""
    if shop.design.drive.supply is not None:
        yield Job(
            place="drive.supply",
            verb="try_off",
            kind="power",
            minutes=10,
            after=("vehicle:stand",),
            parts=("drive.supply",),
            cautions=(STAND,),
            title="Try the off switch with all leads joined, throttle closed: on, then off; 0 V at every "
            f"{'controller' if any(branch.controller for branch in shop.design.drive.branches) else 'motor'}",
            record=Record("voltage when off", "V"),
            tools=("multimeter",),
        )
    if has_engine(shop.design):
        yield Job(
            place="vehicle",
            verb="fuel",
            kind="charge",
            minutes=10,
            after=("vehicle:stand",),
            title="Fill in a little fuel, enough for a few minutes",
            cautions=(FUEL,),
        )
        yield Job(
            place="drive",
            verb="try_stop",
            kind="power",
            minutes=10,
            after=("vehicle:fuel",),
            parts=("drive",),
            cautions=_standing(shop),
            title="Try the stop switch with the engine in: start it, let it idle, press stop; it dies at once",
        )


def _tried(shop: BuildShop) -> tuple[str, ...]:
    return tuple(job.id for job in _off_tried(shop))


def _alone(shop: BuildShop, source: str) -> str:
    name, sense = shop.named(source), _sense(shop, source)
    if shop.on_drum(source):
        return f"Let {name} idle: the line stands still; then a little throttle: it turns {sense}, nothing rubs"
    return f"Run {name} alone, slowly: it turns {sense}, nothing rubs, nothing smells"


def _all_together(shop: BuildShop) -> Job:
    """At full throttle in the air motors reach the speed that is predicted; an engine would run away."""
    engine = has_engine(shop.design)
    return Job(
        place="vehicle",
        verb="spin",
        kind="power",
        minutes=10,
        after=("vehicle:all_off",),
        cautions=_standing(shop),
        title="Run all together with a little throttle, never full in the air: nothing rubs, nothing smells"
        if engine
        else f"Run all together at full throttle and count the wheel's turns{_predicted(shop)}",
        why="With nothing to drive an engine runs away."
        if engine
        else "It goes into Runs as a run in the air; far off means something rubs, or a number of the design is wrong.",
        record=None if engine else Record("turns of the wheel", "rpm"),
        tools=() if engine else ("counter",),
    )


def _on_the_ground(shop: BuildShop) -> Iterator[Job]:
    minded = (CLEAR, *((RIDER,) if shop.design.vehicle.payload > 0.0 else ()))
    if has_brakes(shop.design.vehicle):
        yield Job(
            place="vehicle",
            verb="brakes_rolling",
            kind="check",
            minutes=10,
            after=("vehicle:spin",),
            parts=("vehicle.brake_force",),
            title="Brake rolling, without power: push it to a walking pace and brake; it stops at once and straight on",
            cautions=minded,
        )
    yield Job(
        place="vehicle",
        verb="first_run",
        kind="run",
        minutes=15,
        wait=FIRST_S,
        after=("vehicle:spin", "vehicle:brakes_rolling"),
        title="First run: slowly, straight on, then both ways round, then stop it from a walking pace",
        cautions=(*minded, *running(shop.design)),
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
            cautions=(look(shop.design),),
            title=f"{time}: every fastening, play and tension again; feel and measure what is hot",
            why="What backs out or settles does so in the first minutes.",
            record=Record("hottest place", "degC"),
            tools=("hex keys", "thermometer"),
        )
    yield Job(
        place="vehicle",
        verb="sign_off",
        kind=SIGNED,
        minutes=5,
        after=("vehicle:recheck_1_h",),
        title="Sign it off: nothing is loose, and what was found is written down",
        why="It says what was done, not that it is safe; event rules and makers' instructions come first.",
    )


def _standing(shop: BuildShop) -> tuple[str, ...]:
    """What to mind while it turns in the air."""
    return (STAND, *running(shop.design))


def _sense(shop: BuildShop, source: str) -> str:
    said = shop.design.drive.branches[branch_of(source)].source
    return "anticlockwise as the Line shows it" if said.reversed else "clockwise as the Line shows it"


def _predicted(shop: BuildShop) -> str:
    """What the model says of the wheel in the air; nothing where it says nothing."""
    turns = in_rpm(evaluate([shop.document]).value("no_load_wheel_rpm", 0))
    return f": {turns:.0f} rpm are predicted" if turns else ""
