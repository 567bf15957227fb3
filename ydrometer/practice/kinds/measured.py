"""What is measured: turns counted with a wheel held or with both turning, and where a V-belt really runs."""

from __future__ import annotations

from dataclasses import replace

from ydrometer.practice.draw import Again, Draw, times
from ydrometer.practice.posed import Choice, Posed, Sum, choose
from ydrometer.practice.rigs import rig
from ydrometer.questions import aids

HELD = "reduction = 2 · motor turns / turns of the free wheel, where the other wheel is held"
BOTH = "reduction = motor turns / wheel turns"


def _count(d: Draw) -> tuple[int, int, float]:
    """Turns of motor and wheel that fit a reduction, and the reduction itself for the drawing."""
    turns = d.choice((5, 10)) if d.level == 1 else d.whole(4, 20)
    reduction = d.choice((4, 6, 8, 10, 12)) if d.level == 1 else d.number(3.2, 14.0, 0.1)
    counted = round(reduction * turns)
    if counted == turns:
        raise Again
    return counted, turns, reduction


def counted_held(d: Draw) -> Posed:
    """Reduction of an axle from counted turns with one wheel held."""
    n_m, n_w, _ = _count(d)
    counted = aids.find("counted_turns", {"n_m": str(n_m), "n_w": str(n_w), "k": True}).value
    s = Sum()
    s.given("n_m", "turns of the motor", n_m)
    s.given("n_w", "turns of the free wheel", n_w)
    s.step("G", "reduction with both wheels turning", "2*n_m/n_w")
    words = (
        f"A bought axle with an open differential: one wheel is held still, the motor's shaft is turned by hand "
        f"{times(n_m, 'time')}, and the other wheel turns {times(n_w, 'time')}. What is the reduction when both wheels "
        "turn, in motor turns for one turn of the wheels?"
    )
    hints = (
        "A differential shares the turns out: what one wheel does not turn, the other one turns in addition.",
        "With one wheel held, the other turns twice as far.",
        f"With both turning, each would have turned {n_w / 2:g} times.",
    )
    mistakes = {
        "held wheel forgotten": "n_m/n_w",
        "halved instead of doubled": "n_m/n_w/2",
        "ratio turned over": "n_w/n_m",
    }
    return replace(s.number(d, words, "ratio", counted, mistakes, hints, _box(counted), HELD), closed=True)


def counted_both(d: Draw) -> Posed:
    """Reduction from counted turns with both wheels turning."""
    n_m, n_w, _ = _count(d)
    counted = aids.find("counted_turns", {"n_m": str(n_m), "n_w": str(n_w)}).value
    s = Sum()
    s.given("n_m", "turns of the motor", n_m)
    s.given("n_w", "turns of the wheels", n_w)
    s.step("G", "reduction", "n_m/n_w")
    words = (
        f"The vehicle is pushed along, and both driven wheels turn {times(n_w, 'time')}. Meanwhile the motor turns "
        f"{times(n_m, 'time')}. What is the reduction, in motor turns for one turn of the wheels?"
    )
    hints = (
        "Nothing is held here.",
        "How many turns of the motor come on one turn of the wheels?",
        f"Share out {n_m} turns over {n_w}.",
    )
    mistakes = {"doubled though both turned": "2*n_m/n_w", "ratio turned over": "n_w/n_m"}
    return replace(s.number(d, words, "ratio", counted, mistakes, hints, _box(counted), BOTH), closed=True)


def _box(ratio: float) -> dict[str, object]:
    return rig([{"kind": "gearbox", "ratio": ratio, "efficiency": 1.0}])


def _pulley(d: Draw) -> tuple[float, float]:
    """Rim and depth of a V-pulley, m."""
    rim = d.size("length", (40, 90, 2), (1.5, 3.5, 0.125))
    return rim, d.size("length", (2.5, 6, 0.5), (0.1, 0.25, 0.025))


def _runs(rim: float, depth: float) -> float:
    """Where the belt runs, m."""
    return aids.find("rim_and_depth", {"d_o": rim, "y": depth}).value


def _v_belt(driver: float, driven: float) -> dict[str, object]:
    return {
        "kind": "v_belt",
        "driver_pitch_diameter": driver,
        "driven_pitch_diameter": driven,
        "creep": 0.0,
        "efficiency": 1.0,
    }


def v_pulley(d: Draw) -> Posed:
    """Running diameter of a V-pulley, or the ratio of two."""
    rim, depth = _pulley(d)
    s = Sum()
    s.given("d_o", "rim of the driver", rim, "length")
    s.given("y", "depth of the belt's pitch line", depth, "length")
    small = s.step("d_p", "running diameter of the driver", "d_o - 2*y", "length")
    said = (
        f"A V-pulley is {d.say(rim, 'length')} across its rim, and the belt's pitch line sits "
        f"{d.say(depth, 'length')} below the rim."
    )
    hints = (
        "The label of a V-pulley is its rim; the belt runs deeper.",
        "The depth counts on both sides of the pulley.",
        "Take twice the depth off the rim.",
    )
    if d.level == 1:
        mistakes = {"rim for running diameter": "d_o", "depth taken once": "d_o - y", "depth added": "d_o + 2*y"}
        return s.number(
            d,
            f"{said} At which diameter does the belt run?",
            "length",
            _runs(rim, depth),
            mistakes,
            hints,
            rig([_v_belt(small, 2.0 * small)]),
            "running diameter = rim − 2 · depth",
        )
    other = d.size("length", (100, 180, 5), (4, 7, 0.25))
    s.given("D_o", "rim of the driven pulley", other, "length")
    large = s.step("D_p", "running diameter of the driven pulley", "D_o - 2*y", "length")
    s.step("i", "ratio", "D_p/d_p")
    words = (
        f"{said} It drives a pulley of {d.say(other, 'length')} across its rim, with the belt as deep. How many times "
        "does the driver turn for one turn of the driven, without creep?"
    )
    mistakes = {
        "rim for running diameter": "D_o/d_o",
        "depth added": "(D_o + 2*y)/(d_o + 2*y)",
        "ratio turned over": "1/i",
    }
    if d.level == 3:
        mistakes["depth taken once"] = "(D_o - y)/(d_o - y)"
    return s.number(
        d,
        words,
        "ratio",
        _runs(other, depth) / _runs(rim, depth),
        mistakes,
        hints,
        rig([_v_belt(small, large)]),
        "ratio = running diameter of the driven / that of the driver",
    )


def runs_smaller(d: Draw) -> Posed:
    """Which of two pulleys runs smaller: not always the one that looks smaller."""
    (rim, depth), (b, deeper) = _pulley(d), _pulley(d)
    first, two = _runs(rim, depth), _runs(b, deeper)
    fools = (rim < b) != (first < two)
    if (
        abs(first - two) < 0.02 * first
        or rim == b
        or (d.level > 1 and not fools)
        or (d.level == 1 and abs(rim - b) > 0.02)
    ):
        raise Again
    s = Sum()
    for name, value, down in (("A", rim, depth), ("B", b, deeper)):
        s.given(f"d_{name}", f"rim of {name}", value, "length")
        s.given(f"y_{name}", f"depth of {name}", down, "length")
        s.step(f"p_{name}", f"running diameter of {name}", f"d_{name} - 2*y_{name}", "length")
    words = (
        f"Pulley A is {d.say(rim, 'length')} across, its belt runs {d.say(depth, 'length')} below the rim. Pulley B is "
        f"{d.say(b, 'length')} across, its belt runs {d.say(deeper, 'length')} below. On which of the two does the "
        "belt run on the smaller circle?"
    )
    hints = ("Do not go by the rims.", "Take twice the depth off each rim.", "Compare what is left.")
    choices = (Choice("A", "pulley A"), Choice("B", "pulley B"))
    name = "rim for running diameter" if fools else "depth added"
    return choose(
        words,
        choices,
        "A" if first < two else "B",
        {"A": name, "B": name},
        hints,
        rig([_v_belt(first, two)]),
        "running diameter = rim − 2 · depth",
        s.sheet,
    )
