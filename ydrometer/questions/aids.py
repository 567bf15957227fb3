"""Measuring aids: from what can be measured in a garage to a value of the design, with its arithmetic."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from ydrometer.base import units
from ydrometer.base.errors import DocumentError, Fault, QuantityError
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.base.units import STANDARD_GRAVITY
from ydrometer.working.sheet import Sheet, Step


@dataclass(frozen=True, slots=True)
class AidInput:
    """One thing to measure: its symbol in the formula, what it is, its kind of quantity.

    A `flag` is yes or no and counts as 2 or 1 in the formula.
    """

    symbol: str
    words: str
    dimension: str
    example: str
    flag: bool = False


@dataclass(frozen=True, slots=True)
class Aid:
    """A way to find a value.

    Attributes:
        name, title: what it is called. hint: how it is done, with what to mind.
        asked: what is measured. symbol, words, expression, dimension: the value.
        path: where it belongs in a design, empty where it is only shown; "stages[].ratio" stands for the ratio of any
        stage, "stages[].pitch_diameter" for that of any wheel.
        note: kept with the value; {…} are replaced by what was typed.
    """

    name: str
    title: str
    hint: str
    inputs: tuple[AidInput, ...]
    symbol: str
    words: str
    expression: str
    dimension: str
    path: str
    note: str


@dataclass(frozen=True, slots=True)
class Finding:
    """What an aid found, SI; `typed` and `note` are what to keep in the design, `steps` its arithmetic."""

    aid: str
    value: float
    dimension: str
    typed: str
    note: str
    path: str
    steps: list[Step]


PI = "3.141592653589793"
AIDS = (
    Aid(
        "rolled_distance",
        "Roll it and measure",
        "With everything on board, mark tyre and floor, roll it some turns straight ahead, measure from mark to mark. "
        "A soft tyre rolls smaller than its label.",
        (AidInput("x", "distance rolled", "distance", "1178 mm"), AidInput("n", "turns of the wheel", "ratio", "3")),
        "D",
        "rolling diameter",
        f"x/(n*{PI})",
        "length",
        "vehicle.wheel_diameter",
        "rolled {n} turns, {x}",
    ),
    Aid(
        "weighed_axles",
        "Weigh both axles",
        "Level floor, one axle on the scale, the other on a block of the same height; then the other way round.",
        (
            AidInput("m_f", "front axle", "mass", "49.5 kg"),
            AidInput("m_r", "rear axle", "mass", "68.5 kg"),
            AidInput("L", "wheelbase", "length", "1050 mm"),
        ),
        "b",
        "centre of mass ahead of the rear axle",
        "L*m_f/(m_f + m_r)",
        "length",
        "vehicle.cg_ahead_of_rear",
        "front axle {m_f}, rear {m_r}",
    ),
    Aid(
        "towed_pull",
        "Tow it with a spring scale",
        "Drive disengaged, level ground, a steady walking pace; read the scale while it rolls. Keep feet clear.",
        (AidInput("F", "pull while rolling", "force", "4.2 N"), AidInput("m", "all-up mass", "mass", "14.2 kg")),
        "C_rr",
        "rolling resistance",
        f"F/(m*{STANDARD_GRAVITY})",
        "ratio",
        "vehicle.rolling_resistance",
        "towed at {F}, {m}",
    ),
    Aid(
        "slid_pull",
        "Pull until it slides",
        "All wheels blocked, on the ground of the event; pull level at axle height until it slides.",
        (AidInput("F", "pull at which it slides", "force", "125 N"), AidInput("m", "all-up mass", "mass", "14.2 kg")),
        "mu",
        "grip",
        f"F/(m*{STANDARD_GRAVITY})",
        "ratio",
        "vehicle.grip",
        "slid at {F}, {m}",
    ),
    Aid(
        "counted_turns",
        "Count turns",
        "Supply disconnected and no fingers near gears, belts or chains, also when turning by hand. Mark motor and "
        "wheel; of a box alone, its two shafts. With an open differential and one wheel held, the other turns twice as "
        "far: the count is half the reduction.",
        (
            AidInput("n_m", "turns of the motor", "ratio", "42"),
            AidInput("n_w", "turns of the wheel", "ratio", "10"),
            AidInput("k", "one wheel was held", "ratio", "", flag=True),
        ),
        "G",
        "reduction, motor turns per wheel turn",
        "k*n_m/n_w",
        "ratio",
        "stages[].ratio",
        "{n_m} turns of the motor for {n_w} of the wheel",
    ),
    Aid(
        "rim_and_depth",
        "Rim of a V-pulley and how deep the belt sits",
        "The label is the rim. Measure the rim, and from the rim down to the belt's pitch line, about a third of the "
        "belt's height below its back.",
        (
            AidInput("d_o", "diameter of the rim", "length", "160 mm"),
            AidInput("y", "depth to the pitch line", "length", "2.5 mm"),
        ),
        "d_p",
        "running diameter",
        "d_o - 2*y",
        "length",
        "stages[].pitch_diameter",
        "rim {d_o}, belt {y} down",
    ),
    Aid(
        "swapped_wheel",
        "Speed before and after a swap",
        "For those who know only what they clocked before: by proportion, everything else the same.",
        (
            AidInput("v_1", "speed clocked before", "speed", "7.4 m/s"),
            AidInput("z_1", "driver teeth before", "ratio", "14"),
            AidInput("z_2", "driver teeth after", "ratio", "16"),
            AidInput("y_1", "driven teeth before", "ratio", "56"),
            AidInput("y_2", "driven teeth after", "ratio", "56"),
        ),
        "v_2",
        "speed after the swap, about",
        "v_1*(y_1/z_1)/(y_2/z_2)",
        "speed",
        "",
        "clocked {v_1} before",
    ),
    Aid(
        "clocked_before",
        "Speed clocked before, another reduction now",
        "By proportion, everything else the same: a check that needs no figures of the motor.",
        (
            AidInput("v_1", "speed clocked before", "speed", "7.4 m/s"),
            AidInput("G_1", "reduction then", "ratio", "8.62"),
            AidInput("G_2", "reduction now", "ratio", "8"),
        ),
        "v_2",
        "speed now, about",
        "v_1*G_1/G_2",
        "speed",
        "",
        "clocked {v_1} before",
    ),
    Aid(
        "scale_speed",
        "Full-size speed of a scale model",
        "What the model's speed looks like beside its original: lengths in proportion, time as it is.",
        (AidInput("v_m", "speed of the model", "speed", "4.1 m/s"), AidInput("N", "scale, 1 to", "ratio", "10")),
        "v_f",
        "full-size equivalent",
        "v_m*N",
        "speed",
        "",
        "1 : {N}",
    ),
)
BY_NAME = {aid.name: aid for aid in AIDS}
DIGITS = 5


def find(name: str, given: Mapping[str, Any]) -> Finding:
    """The value an aid finds from what was typed.

    Args:
        name: of the aid.
        given: typed quantities by symbol; flags as true or false.

    Raises:
        DocumentError: no such aid, or what is wrong with each value.
    """
    aid = BY_NAME.get(name)
    if aid is None:
        raise DocumentError([Fault("aid", f'"{name[:40]}" given', f"use one of {', '.join(BY_NAME)}")])
    faults: list[Fault] = []
    numbers = {input.symbol: _number(input, given.get(input.symbol), faults) for input in aid.inputs}
    if faults:
        raise DocumentError(faults)
    sheet = Sheet({})
    for input in aid.inputs:
        sheet.put(input.symbol, input.words, numbers[input.symbol], input.dimension, "measured")
    value = sheet.step(aid.symbol, aid.words, aid.expression, aid.dimension)
    if value <= 0.0:
        raise DocumentError([Fault(aid.inputs[-1].symbol, "leaves nothing", "check what was measured")])
    unit = DIMENSIONS[aid.dimension].metric
    shown = value / units.scale(unit, aid.dimension)[0]
    typed = f"{shown:.{DIGITS}g} {unit}".strip()
    note = aid.note.format(**{input.symbol: str(given.get(input.symbol)) for input in aid.inputs})
    if any(input.flag and given.get(input.symbol) for input in aid.inputs):
        note += ", one wheel held"
    return Finding(aid.name, value, aid.dimension, typed, note, aid.path, sheet.steps)


def _number(input: AidInput, typed: Any, faults: list[Fault]) -> float:
    if input.flag:
        return 2.0 if typed is True else 1.0
    try:
        if typed is None or typed == "":
            raise QuantityError("missing", f"{input.words}, such as {input.example}")
        value = units.parse(typed, input.dimension)
        if value <= 0.0:
            raise QuantityError(f'"{typed}" given', "a value above 0")
    except QuantityError as error:
        faults.append(Fault(input.symbol, str(error), f"give {error.remedy}"))
        return 1.0
    return value
