"""Which measure is worked out how: one row a measure."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable
from dataclasses import dataclass

from ydrometer.base.errors import YdrometerError
from ydrometer.base.tables.measures import MEASURES
from ydrometer.document.design import Document
from ydrometer.evaluation.evaluate import Evaluation, evaluate
from ydrometer.working import measures as m
from ydrometer.working.ladder import climb
from ydrometer.working.measures import MeasureCase
from ydrometer.working.sheet import Sheet, Working

DYNAMICS = "Longitudinal model of a vehicle: Gillespie, Fundamentals of Vehicle Dynamics, chapters 1, 2 and 4."
ELECTRIC = (
    "Direct-current motor in steady state behind a loss-free converter: Hughes and Drury, Electric Motors and Drives, "
    "chapters 3 and 4."
)
GEARING = "Ratio of teeth or pitch diameters: ISO 53, ISO 606, ISO 5294, ISO 4184."


class NoWorkingError(YdrometerError):
    """A measure that is none, or a branch that is not there."""

    code = "working"


@dataclass(frozen=True, slots=True)
class Recipe:
    """How a measure is worked out: in words, by which steps, from which source."""

    formula: str
    write: Callable[[MeasureCase], None]
    source: str
    level: str = "moving"
    """Whether it needs a design that starts: moving, or standing."""


def working(document: Document, name: str, *, branch: int = 0, at: float | None = None) -> Working:
    """The working behind a measure of a design.

    Args:
        document: the design.
        name: of the measure.
        branch: which one, for a measure that has a number for each.
        at: the distance, speed or time it refers to, SI, in place of the run's.

    Raises:
        NoWorkingError: there is no such measure, or no such branch.
    """
    row = MEASURES.get(name)
    if row is None or name not in RECIPES:
        raise NoWorkingError(f"{name} is no measure with a working, use one of {', '.join(RECIPES)}", path=name)
    if not 0 <= branch < len(document.design.drive.branches):
        raise NoWorkingError(f"there is no branch {branch}", path=name)
    if at is not None and row.run:
        run = dataclasses.replace(document.design.run, **{row.run: at})
        document = dataclasses.replace(document, design=dataclasses.replace(document.design, run=run))
    evaluation = evaluate([document])
    recipe, sheet = RECIPES[name], Sheet(document.values)
    value = _of(evaluation, name, branch)
    if value is not None and (recipe.level == "standing" or evaluation.value("top_speed", 0)):
        recipe.write(MeasureCase(evaluation, 0, sheet, branch))
    text = value if isinstance(value, str) else ""
    plain, parts = climb(evaluation, 0, lambda e: _number(_of(e, name, branch)))
    return Working(
        name,
        row.dimension,
        _number(value),
        text,
        recipe.formula,
        recipe.source,
        sheet.inputs,
        sheet.table,
        sheet.steps,
        plain,
        parts,
    )


def _of(evaluation: Evaluation, name: str, branch: int) -> float | str | None:
    """The measure of the design, of one branch where there is one a branch, in the lowest gear."""
    value = evaluation.value(name, 0)
    if name == "overall_ratio":
        branch *= len(evaluation.group(0)[0].batch.gears[0])
    number: float | str | None = value[branch] if isinstance(value, list) else value
    return number


def _number(value: float | str | None) -> float | None:
    return None if isinstance(value, str) else value


BY_TABLE = "Integrals over speed, t = ∫dv/a and x = ∫v·dv/a, summed in rows: " + DYNAMICS
RECIPES: dict[str, Recipe] = {
    "overall_ratio": Recipe("Ratios of all stages in a row multiply.", m.overall_ratio, GEARING, "standing"),
    "no_load_speed": Recipe(
        "In the air a motor only overcomes itself: it turns so fast that its back-EMF leaves no driving force.",
        m.no_load_speed,
        ELECTRIC,
        "standing",
    ),
    "no_load_wheel_rpm": Recipe("The no-load speed as turns of the wheel.", m.no_load_wheel_rpm, ELECTRIC, "standing"),
    "top_speed": Recipe(
        "The speed at which the driving force is just the resistance of rolling, air and slope.", m.top_speed, DYNAMICS
    ),
    "limited_by": Recipe(
        "Gearing, where the top speed is at least 0.90 of the no-load speed; else grip or power, whichever ends it.",
        m.limited_by,
        DYNAMICS,
    ),
    "launch_acceleration": Recipe(
        "What is left of the force over the mass: of the drive's, or of the tyres' where that is less.",
        m.launch_acceleration,
        DYNAMICS,
    ),
    "time_to_distance": Recipe(
        "Every small gain in speed takes dv/a; the rows add up.",
        m.run("t_D", "time to the distance", "sum(dt)", "time", "time_to_distance"),
        BY_TABLE,
    ),
    "speed_at_distance": Recipe(
        "The gains in speed up to the distance add up.",
        m.run("v_D", "speed at the distance", "sum(dv)", "speed", "time_to_distance"),
        BY_TABLE,
    ),
    "time_to_speed": Recipe(
        "Every small gain in speed takes dv/a; the rows add up.",
        m.run("t_v", "time to the speed", "sum(dt)", "time", "time_to_speed"),
        BY_TABLE,
    ),
    "distance_in_time": Recipe(
        "Every small gain in speed covers v·dv/a; the rows add up.",
        m.run("x_t", "distance in the time", "sum(dx)", "distance", "run"),
        BY_TABLE,
    ),
    "energy_per_run": Recipe(
        "What the supply gives, bus voltage times current, over the run; the rows add up.",
        m.run("E_D", "energy for the distance", "sum(dE)", "energy", "time_to_distance"),
        BY_TABLE,
    ),
    "sprint_and_stop": Recipe(
        "The run up to the braking point, and from there the speed over the deceleration.", m.sprint_and_stop, BY_TABLE
    ),
    "stopping_distance": Recipe(
        "Speed squared over twice the deceleration; the air's help is left out.", m.stopping_distance, DYNAMICS
    ),
    "stall_wheel_torque": Recipe(
        "Torque of the sources, held still, through all stages with their losses.",
        m.stall_wheel_torque,
        ELECTRIC,
        "standing",
    ),
    "pushing_force": Recipe(
        "What the drive gives held still, or what the tyres hold where that is less.",
        m.pushing_force,
        DYNAMICS,
        "standing",
    ),
    "pushing_limit": Recipe("The lesser of the two forces names it.", m.pushing_force, DYNAMICS, "standing"),
    "pushing_motor_current": Recipe(
        "The current that gives the push: where the tyres hold it back, eased off to just that.",
        m.current(m.pushing, "current of one motor while pushing"),
        ELECTRIC,
        "standing",
    ),
    "pushing_bus_current": Recipe(
        "What all motors take while pushing, over the bus voltage.", m.bus(m.pushing), ELECTRIC, "standing"
    ),
    "launch_motor_current": Recipe(
        "Held still only resistance bounds the current, or the controller.",
        m.current(m.launching, "current of one motor in the hard start"),
        ELECTRIC,
        "standing",
    ),
    "launch_bus_current": Recipe(
        "What all motors take in the hard start, over the bus voltage.", m.bus(m.launching), ELECTRIC, "standing"
    ),
    "peak_bus_current": Recipe(
        "The largest current of the run, looked for up to 0.99 of the top speed.", m.peak_bus_current, ELECTRIC
    ),
    "cruise_motor_current": Recipe(
        "The current whose torque just holds the top speed.",
        m.current(m.at_top, "current of one motor at top speed"),
        ELECTRIC,
    ),
    "cruise_bus_current": Recipe("What all motors take at top speed.", m.bus(m.at_top), ELECTRIC),
    "max_grade": Recipe(
        "The slope at which the first gives way: the drive, the tyres, or the front axle.",
        m.max_grade,
        DYNAMICS,
        "standing",
    ),
    "motor_speed_at_top": Recipe("Speed of the wheel times the overall ratio.", m.motor_speed_at_top, GEARING),
    "endurance_at_top": Recipe("Capacity over the current at top speed.", m.endurance_at_top, ELECTRIC),
    "range_at_top": Recipe("Time at top speed times that speed.", m.range_at_top, ELECTRIC),
}
