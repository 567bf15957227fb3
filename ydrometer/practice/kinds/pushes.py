"""Torque and push, and whether it starts: at the wheel, at the rim, on a slope, against a wall."""

from __future__ import annotations

import math
from typing import Any

from ydrometer.base.units import STANDARD_GRAVITY
from ydrometer.practice import rigs
from ydrometer.practice.draw import MOST, Again, Draw
from ydrometer.practice.posed import Choice, Posed, Sum, choose
from ydrometer.practice.rigs import gears, with_torque

CLEARLY = 1.2
"""How far what is compared has to be apart."""


def _torque(d: Draw, least: float = 0.2) -> float:
    return d.size("torque", (least, 3, 0.1), (5 * least, 30, 0.5))


def wheel_torque(d: Draw) -> Posed:
    """Torque at the wheel behind a reduction."""
    torque, pairs = _torque(d), d.pairs(2 if d.level == 3 else 1)
    kept = 1.0 if d.level == 1 else d.choice((0.85, 0.88, 0.9, 0.92))
    stages = [gears(a, b) for a, b in pairs]
    stages[-1]["efficiency"] = kept
    raw = with_torque(torque, stages)
    s = Sum()
    s.given("T", "torque of the motor", torque, "torque")
    s.pairs(pairs)
    s.given("e", "share that gets through", kept)
    s.step("G", "reduction", "*".join(f"b_{k}/a_{k}" for k in range(1, len(pairs) + 1)))
    s.step("T_w", "torque at the wheel", "T*G*e", "torque")
    train = ", then ".join(f"{a} on {b}" for a, b in pairs)
    loss = "without loss" if kept == 1.0 else f"and {100 * kept:g} % of it gets through"
    words = (
        f"A motor gives {d.say(torque, 'torque')}. It drives the wheel through {train} teeth, driver first, {loss}. "
        "What torque is at the wheel?"
    )
    hints = (
        "What turns slower turns stronger.",
        "Torque grows by as much as the turns shrink.",
        "Multiply the torque by the reduction" + ("." if kept == 1.0 else ", and take the loss off."),
    )
    mistakes = {"divided instead of multiplied": "T/G*e", "ratio left out": "T*e"}
    if kept < 1.0:
        mistakes |= {"loss forgotten": "T*G", "loss taken twice": "T*G*e*e"}
    return s.number(
        d,
        words,
        "torque",
        rigs.measured(raw, "stall_wheel_torque"),
        mistakes,
        hints,
        raw,
        "torque at the wheel = torque of the motor · reduction · share that gets through",
    )


def rim_force(d: Draw) -> Posed:
    """Force at the rim of the driven wheel."""
    torque = d.size("torque", (1, 20, 0.5), (10, 180, 5))
    wheel = d.size("length", (50, 300, 10 if d.level == 1 else 2), (2, 12, 0.5))
    raw = with_torque(torque, [], wheel=wheel)
    s = Sum()
    s.given("T", "torque at the wheel", torque, "torque")
    s.given("D", "diameter", wheel, "length")
    s.step("r", "radius", "D/2", "length")
    s.step("F", "force at the rim", "T/r", "force")
    words = (
        f"A wheel of {d.say(wheel, 'length')} diameter is turned with {d.say(torque, 'torque')}. With what force "
        "does it push at "
        "its rim?"
    )
    hints = (
        "Torque is a force on a lever arm.",
        "The arm goes from the middle to the rim.",
        f"The arm is {d.say(wheel / 2, 'length')}.",
    )
    mistakes = {"diameter for radius": "T/D", "multiplied instead of divided": "T*r"}
    if d.level == 3:
        mistakes["pi forgotten"] = "T/(3.141592653589793*D)"
    return s.number(
        d, words, "force", rigs.measured(raw, "pushing_force"), mistakes, hints, raw, "force = torque / radius"
    )


EFFECTS = {
    "half, double": "the top speed halves, the push doubles",
    "double, half": "the top speed doubles, the push halves",
    "same, double": "the top speed stays, the push doubles",
    "double, double": "both double",
    "same, same": "neither changes",
}
WORDS = {0.5: "half", 1.0: "same", 2.0: "double"}


def twice(d: Draw) -> Posed:
    """What twice the ratio, half of it, or a second motor does."""
    (a, b), torque = d.pair(), _torque(d)
    if 2 * b > MOST:
        raise Again
    what = d.choice(("ratio", "motor") if d.level == 1 else ("ratio", "motor", "wheel", "half"))
    changed: dict[str, Any] = {"wheel": 0.1}
    if what == "ratio":
        stages = [gears(a, 2 * b)]
    else:
        stages = [gears(a, b)] if what != "half" else [gears(2 * a, b)]
        changed = {"wheel": 0.2 if what == "wheel" else 0.1, "count": 2 if what == "motor" else 1}
    before, after = with_torque(torque, [gears(a, b)], wheel=0.1), with_torque(torque, stages, **changed)
    evaluation = rigs.evaluated(before, after)
    speed, push = (evaluation.value(name, 1) / evaluation.value(name, 0) for name in ("no_load_speed", "pushing_force"))
    answer = ", ".join(WORDS[round(2.0 * factor) / 2.0] for factor in (speed, push))
    question = {
        "ratio": f"The driven gear of {b} teeth is changed for one of {2 * b}, on the same driver of {a}.",
        "half": f"The driver of {a} teeth is changed for one of {2 * a}, on the same driven gear of {b}.",
        "motor": f"A second motor of the same kind is put on the same gear, {a} on {b} teeth.",
        "wheel": f"Behind a pair of {a} on {b} teeth the road wheel is changed for one twice as large.",
    }[what]
    words = (
        f"{question} With grip enough and the same voltage: what happens to the top speed without load and to the push "
        "at standstill?"
    )
    s = Sum()
    s.teeth(a, b)
    larger = 2.0 if what == "wheel" else 1.0
    s.sheet.put("k_D", "diameter of the road wheel, new by old", larger, "ratio", "solved")
    s.sheet.put("k_n", "turns of the wheel, new by old", speed / larger, "ratio", "solved")
    s.sheet.put("k_T", "torque at the wheel, new by old", push * larger, "ratio", "solved")
    s.step("k_v", "speed, new by old", "k_n*k_D")
    s.step("k_F", "push, new by old", "k_T/k_D")
    hints = (
        "Speed: how often does the wheel turn, and how far does one turn roll?",
        "Push: the torque at the wheel, by the radius of the wheel.",
        "Gears trade one for the other; a motor brings more of one alone.",
    )
    names = {
        "double, double": "motors taken for speed" if what == "motor" else "speed for pull",
        "same, same": "nothing expected",
        "double, half": "ratio turned over",
        "half, double": "ratio turned over",
        "same, double": "speed for pull",
    }
    if what == "motor":
        names["half, double"] = names["double, half"] = "motors taken for speed"
    choices = [Choice(key, words) for key, words in EFFECTS.items()]
    return choose(
        words,
        choices,
        answer,
        names,
        hints,
        after,
        "what gears give in push they take in speed",
        s.sheet,
        said={"change": what},
    )


def start_slope(d: Draw) -> Posed:
    """Whether it starts on a slope, and if not, whether motor or tyre fails."""
    torque, wheel = _torque(d, 0.5), d.size("length", (80, 250, 10), (3, 10, 0.5))
    mass, grade = d.size("mass", (5, 60, 1), (10, 130, 1)), d.number(0.1, 0.5, 0.05)
    a, b = d.pair()
    grip = 1.2 if d.level == 1 else d.choice((0.3, 0.4, 0.5, 0.6, 0.8))
    stages = [gears(a, b)]
    raw = with_torque(torque, stages, wheel=wheel, mass=mass, grip=grip, grade=grade)
    s = Sum()
    s.given("T", "torque of the motor", torque, "torque")
    s.teeth(a, b)
    s.given("D", "diameter of the wheels", wheel, "length")
    s.given("m", "mass", mass, "mass")
    s.given("s", "slope, rise over run", grade)
    s.given("mu", "grip", grip)
    s.step("T_w", "torque at the wheels", "T*b/a", "torque")
    drive = s.step("F", "what the motor gives at the rim", "2*T_w/D", "force")
    s.step("W", "weight", f"m*{STANDARD_GRAVITY}", "force")
    needed = s.step("F_s", "what the slope asks for", "W*s/sqrt(1 + s*s)", "force")
    held = s.step("F_g", "what the tyres hold", "mu*W/sqrt(1 + s*s)", "force")
    if not all(
        first > CLEARLY * second or second > CLEARLY * first for first, second in ((drive, needed), (held, needed))
    ):
        raise Again
    if drive < needed and held < needed:
        raise Again
    evaluation = rigs.evaluated(raw)
    answer = "starts" if evaluation.starts(0) else {"torque": "torque", "grip": "grip"}[evaluation.held_by(0)]
    words = (
        f"A vehicle of {d.say(mass, 'mass')} stands on a slope of {100 * grade:g} %. At standstill its motor gives "
        f"{d.say(torque, 'torque')}, {a} teeth drive {b}, all wheels are {d.say(wheel, 'length')} across and "
        "driven, and "
        f"the grip is {grip:g}. Does it start uphill? Nothing is lost on the way."
    )
    hints = (
        "Three forces along the slope: what the motor gives, what the tyres hold, what the slope asks for.",
        f"The slope asks for about {100 * grade:g} % of the weight.",
        "The smaller of what the motor gives and what the tyres hold has to be larger than that.",
    )
    choices = (
        Choice("starts", "it starts"),
        Choice("torque", "no: the motor is too weak"),
        Choice("grip", "no: the tyres slip"),
    )
    names = {
        "starts": "grip forgotten" if answer == "grip" else "motor trusted",
        "torque": "motor blamed",
        "grip": "grip blamed",
    }
    return choose(
        words, choices, answer, names, hints, raw, "the motor's force and the grip against the slope's pull", s.sheet
    )


def spin_or_stall(d: Draw) -> Posed:
    """At a wall: whether the wheels spin or the motor stalls."""
    torque, wheel = _torque(d, 0.4), d.size("length", (60, 200, 10), (2.5, 8, 0.5))
    mass, (a, b) = d.size("mass", (3, 40, 1), (8, 90, 1)), d.pair()
    grip = d.choice((0.5, 0.6, 0.8, 0.9, 1.0))
    raw = with_torque(torque, [gears(a, b)], wheel=wheel, mass=mass, grip=grip)
    s = Sum()
    s.given("T", "torque of the motor", torque, "torque")
    s.teeth(a, b)
    s.given("D", "diameter of the wheels", wheel, "length")
    s.given("m", "mass", mass, "mass")
    s.given("mu", "grip", grip)
    s.step("T_w", "torque at the wheels", "T*b/a", "torque")
    drive = s.step("F", "what the motor gives at the rim", "2*T_w/D", "force")
    held = s.step("F_g", "what the tyres hold", f"mu*m*{STANDARD_GRAVITY}", "force")
    if not (drive > CLEARLY * held or held > CLEARLY * drive) or not math.isfinite(drive):
        raise Again
    limit = rigs.evaluated(raw).value("pushing_limit", 0)
    words = (
        f"A vehicle of {d.say(mass, 'mass')}, all of it on driven wheels of {d.say(wheel, 'length')}, pushes "
        "against a wall. "
        f"Its motor gives {d.say(torque, 'torque')} at standstill, {a} teeth drive {b}, the grip is {grip:g}. Do "
        "the wheels "
        "spin, or does the motor stall?"
    )
    hints = (
        "Compare two forces at the rim.",
        "The tyres hold the weight times the grip.",
        "What the motor gives: its torque times the ratio, by the radius.",
    )
    choices = (Choice("spin", "the wheels spin"), Choice("stall", "the motor stalls"))
    names = {"spin": "motor trusted", "stall": "grip forgotten"}
    return choose(
        words,
        choices,
        "spin" if limit == "grip" else "stall",
        names,
        hints,
        raw,
        "the motor's force at the rim against grip · weight",
        s.sheet,
    )
