"""Speed: from the motor's turns, the ratio and the wheel; how far a turn rolls; of a model; and after a swap."""

from __future__ import annotations

import math
from typing import Any

from ydrometer.base.units import RPM
from ydrometer.practice import rigs
from ydrometer.practice.draw import FEWEST, MOST, Again, Draw, times
from ydrometer.practice.posed import Posed, Sum
from ydrometer.practice.rigs import gears, rig
from ydrometer.questions import aids

PI = aids.PI
HINTS_ROLL = "One turn of the wheel rolls its circumference: pi times the diameter."


def _wheel(d: Draw) -> float:
    """A rolling diameter, m."""
    return d.size("length", (50, 300, 10 if d.level == 1 else 1), (2, 12, 0.5 if d.level == 1 else 0.1))


def road_speed(d: Draw) -> Posed:
    """Speed on the ground, without slip and loss."""
    wheel, rpm = _wheel(d), d.number(600, 12000, 300 if d.level == 1 else 10)
    pairs = d.pairs(2 if d.level == 3 else 1)
    stages = [gears(a, b) for a, b in pairs]
    ratio = float(f"{rigs.reduction(*stages):.4g}")
    raw = rig([{"kind": "gearbox", "ratio": ratio, "efficiency": 1.0}], wheel=wheel, turns=rpm / RPM)
    speed = rigs.measured(raw, "no_load_speed")
    if not 0.8 < speed < 25.0:
        raise Again
    s = Sum()
    s.given("n", "turns of the motor in a second", rpm / 60.0, "frequency")
    s.given("G", "reduction, motor turns for one turn of the wheel", ratio)
    s.given("D", "rolling diameter", wheel, "length")
    s.step("n_w", "turns of the wheel in a second", "n/G", "frequency")
    s.step("U", "rolled in one turn", f"{PI}*D", "length")
    s.step("v", "speed", "n_w*U", "speed")
    words = (
        f"A motor turns at {rpm:g} rpm and drives wheels of {d.say(wheel, 'length')} rolling diameter through a "
        f"reduction of {ratio:g}. How fast does the vehicle roll, without slip?"
    )
    hints = (
        "How often does the wheel turn in a second?",
        HINTS_ROLL,
        f"The wheel turns {rpm / 60 / ratio:.3g} times in a second.",
    )
    mistakes = {
        "pi forgotten": "n_w*D",
        "multiplied instead of divided": "n*G*U",
        "radius for diameter": "n_w*U/2",
        "minutes taken for seconds": "60*v",
        "ratio left out": "n*U",
    }
    return s.number(d, words, "speed", speed, mistakes, hints, raw, "speed = turns of the wheel · pi · diameter")


def roll_per_turn(d: Draw) -> Posed:
    """How far the vehicle rolls for one turn of the motor."""
    wheel, (a, b) = _wheel(d), d.pair()
    raw = rig([gears(a, b)], wheel=wheel, turns=2.0 * math.pi)
    s = Sum()
    s.teeth(a, b)
    s.given("D", "rolling diameter", wheel, "length")
    s.step("G", "reduction", "b/a")
    s.step("U", "rolled in one turn of the wheel", f"{PI}*D", "length")
    s.step("x", "rolled in one turn of the motor", "U/G", "length")
    words = (
        f"A pinion with {a} teeth on the motor drives a spur gear with {b} teeth on the axle; the wheels roll on "
        f"{d.say(wheel, 'length')}. How far does the vehicle roll for one turn of the motor?"
    )
    hints = (
        HINTS_ROLL,
        "How much of a turn does the wheel make for one turn of the motor?",
        f"The wheel makes {a}/{b} of a turn.",
    )
    mistakes = {
        "pi forgotten": "D/G",
        "multiplied instead of divided": "U*G",
        "radius for diameter": "U/2/G",
        "ratio left out": "U",
    }
    # At one turn of the motor in a second it rolls as far in a second.
    return s.number(
        d,
        words,
        "length",
        rigs.measured(raw, "no_load_speed"),
        mistakes,
        hints,
        raw,
        "roll per motor turn = pi · diameter / reduction",
    )


def wheel_counter(d: Draw) -> Posed:
    """Road speed from a counter on the wheel."""
    wheel = _wheel(d)
    rpm = d.number(60, 1800, 60 if d.level == 1 else 1)
    raw = rig([], wheel=wheel, turns=rpm / RPM)
    speed = rigs.measured(raw, "no_load_speed")
    if not 0.5 < speed < 25.0:
        raise Again
    s = Sum()
    s.given("n", "turns of the wheel in a second", rpm / 60.0, "frequency")
    s.given("D", "rolling diameter", wheel, "length")
    s.step("U", "rolled in one turn", f"{PI}*D", "length")
    s.step("v", "speed", "n*U", "speed")
    words = (
        f"A counter on a driven wheel of {d.say(wheel, 'length')} shows {times(rpm, 'turn')} a minute. How fast is "
        "the vehicle, without slip?"
    )
    hints = ("How many turns is that in a second?", HINTS_ROLL, f"{rpm / 60:.3g} turns a second.")
    mistakes = {"pi forgotten": "n*D", "radius for diameter": "v/2", "minutes taken for seconds": "60*v"}
    return s.number(d, words, "speed", speed, mistakes, hints, raw, "speed = turns in a second · pi · diameter")


def scale_speed(d: Draw) -> Posed:
    """What a model's speed looks like beside its original."""
    scale = d.choice((8, 10, 16, 20) if d.level == 1 else (12, 14, 18, 22.5, 24, 32))
    speed = d.size("speed", (1, 6, 0.5 if d.level == 1 else 0.1), (2, 12, 0.5 if d.level == 1 else 0.1))
    s = Sum()
    s.given("v_m", "speed of the model", speed, "speed")
    s.given("N", "scale, 1 to", scale)
    s.step("v_f", "full-size equivalent", "v_m*N", "speed")
    words = (
        f"A model built 1 : {scale:g} runs at {d.say(speed, 'speed')}. What speed does that look like at full "
        "size, with "
        "lengths in proportion and time as it is?"
    )
    hints = (
        "In the same time the original covers a longer way.",
        f"Every length is {scale:g} times as long.",
        "So is the way of one second.",
    )
    mistakes = {"scale turned over": "v_m/N", "taken as it was said": "v_m"}
    return s.number(
        d,
        words,
        "speed",
        aids.find("scale_speed", {"v_m": speed, "N": scale}).value,
        mistakes,
        hints,
        rig([]),
        "full-size speed = model's speed · scale",
    )


def swap_speed(d: Draw) -> Posed:
    """Speed after a swap, by proportion."""
    (z_1, y_1), speed = d.pair(), d.size("speed", (2, 12, 0.1), (5, 25, 0.1))
    z_2, y_2 = z_1 + d.choice((-4, -3, -2, 2, 3, 4)), y_1
    if d.level == 3:
        y_2 += d.choice((-8, -6, 6, 8))
    if z_2 < FEWEST or not z_2 < y_2 <= MOST:
        raise Again
    given: dict[str, Any] = {"v_1": speed, "z_1": str(z_1), "z_2": str(z_2), "y_1": str(y_1), "y_2": str(y_2)}
    s = Sum()
    s.given("v_1", "speed before", speed, "speed")
    s.given("z_1", "driver teeth before", z_1)
    s.given("y_1", "driven teeth before", y_1)
    s.given("z_2", "driver teeth after", z_2)
    s.given("y_2", "driven teeth after", y_2)
    s.step("G_1", "ratio before", "y_1/z_1")
    s.step("G_2", "ratio after", "y_2/z_2")
    s.step("v_2", "speed after", "v_1*G_1/G_2", "speed")
    change = f"{z_1} on {y_1} for {z_2} on {y_2}"
    words = (
        f"With {z_1} teeth on {y_1}, driver first, a vehicle was clocked at {d.say(speed, 'speed')}. Swapping "
        f"{change}: how fast is it then, by proportion?"
    )
    hints = (
        "The motor turns about as fast as before.",
        "Behind a larger ratio the wheels turn slower.",
        "Multiply the speed by the ratio before and divide by the ratio after.",
    )
    mistakes = {"proportion turned over": "v_1*G_2/G_1", "taken as it was said": "v_1"}
    if d.level == 3:
        mistakes["one wheel of the swap left out"] = "v_1*z_2/z_1"
    return s.number(
        d,
        words,
        "speed",
        aids.find("swapped_wheel", given).value,
        mistakes,
        hints,
        rig([gears(z_2, y_2)]),
        "speed after = speed before · ratio before / ratio after",
    )
