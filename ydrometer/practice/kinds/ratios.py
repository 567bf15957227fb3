"""Ratio: of a pair, in turns, of two pairs the taller one, and said the other way round; who drives whom."""

from __future__ import annotations

from ydrometer.practice import rigs
from ydrometer.practice.draw import Again, Draw, times
from ydrometer.practice.posed import Choice, Mistake, Posed, Sum, WheelAsked, choose, known
from ydrometer.practice.rigs import gears, rig
from ydrometer.working.sheet import Sheet

RATIO = "ratio = teeth of the driven wheel / teeth of the driver"
FEWER = "Of two wheels that mesh, the one with fewer teeth turns more often."


def ratio(d: Draw) -> Posed:
    """Driver turns for one turn of the driven."""
    a, b = d.pair(up=d.level == 3 and d.choice((True, False)))
    s = Sum()
    s.teeth(a, b)
    s.step("i", "ratio", "b/a")
    words = (
        f"A gear with {a} teeth drives a gear with {b} teeth. How many times does the driver turn for one turn of the "
        "driven gear?"
    )
    hints = (
        FEWER,
        "Count teeth: in one turn the driven gear pushes all of its teeth past the mesh.",
        f"The driver has to push {b} teeth past, {a} at each of its turns.",
    )
    return s.number(
        d,
        words,
        "ratio",
        rigs.reduction(gears(a, b)),
        {"ratio turned over": "a/b", "teeth subtracted": "abs(b - a)"},
        hints,
        rig([gears(a, b)]),
        RATIO,
    )


def turns(d: Draw) -> Posed:
    """Driver turns for some turns of the driven."""
    (a, b), n = d.pair(), d.whole(2, 12)
    s = Sum()
    s.teeth(a, b)
    s.given("n", "turns of the driven wheel", n)
    s.step("i", "ratio", "b/a")
    s.step("n_a", "turns of the driver", "n*i")
    kind, noun, stage = d.choice((("gear", "gear", gears(a, b)), ("chain", "sprocket", _chain(a, b))))
    words = (
        f"A {noun} with {a} teeth drives one with {b} teeth{' by a chain' if kind == 'chain' else ''}. How many times "
        f"must the driver turn for {times(n, 'turn')} of the driven {noun}?"
    )
    hints = (FEWER, "First for one turn of the driven wheel, then for all of them.", f"One turn takes {b}/{a} turns.")
    mistakes = {"ratio turned over": "n*a/b", "turns left out": "b/a", "teeth subtracted": "abs(b - a)"}
    return s.number(
        d,
        words,
        "ratio",
        n * rigs.reduction(stage),
        mistakes,
        hints,
        rig([stage]),
        "turns of the driver = ratio · turns of the driven wheel",
    )


def _chain(a: int, b: int) -> dict[str, object]:
    return {"kind": "chain", "driver_teeth": a, "driven_teeth": b, "pitch": "6.35 mm", "efficiency": 1.0}


def taller(d: Draw) -> Posed:
    """Of two pairs, behind which the driven wheel turns faster."""
    this, other = d.pairs(2)
    if d.level == 1:
        other = this[0], other[1]
    first, second = rigs.reduction(gears(*this)), rigs.reduction(gears(*other))
    if abs(first - second) < 0.05 * first:
        raise Again
    s = Sheet({})
    for name, (a, b) in (("A", this), ("B", other)):
        s.put(f"a_{name}", f"teeth of the driver of {name}", a, "ratio", "given")
        s.put(f"b_{name}", f"teeth of the driven wheel of {name}", b, "ratio", "given")
        s.step(f"i_{name}", f"ratio of {name}", f"b_{name}/a_{name}", "ratio")
    words = (
        f"The same motor drives the wheel through pair A, {this[0]} teeth on {this[1]}, or through pair B, {other[0]} "
        f"on {other[1]}. Which of the two is geared taller, so that the wheel turns faster?"
    )
    answer = "A" if first < second else "B"
    hints = (
        "Taller: fewer turns of the motor for one turn of the wheel.",
        "Work out both ratios.",
        "The smaller ratio, driven by driver, is the taller gearing.",
    )
    return choose(
        words,
        (Choice("A", f"pair A, {this[0]} : {this[1]}"), Choice("B", f"pair B, {other[0]} : {other[1]}")),
        answer,
        {"A": "ratio turned over", "B": "ratio turned over"},
        hints,
        rig([gears(*this)]),
        RATIO,
        s,
    )


def other_way_round(d: Draw) -> Posed:
    """A ratio said in turns of the driven, to be said in turns of the driver."""
    a, b = d.pair()
    said = round(a / b, 4)
    s = Sum()
    s.given("x", "turns of the wheel for one turn of the motor", said)
    s.step("i", "motor turns for one turn of the wheel", "1/x")
    words = (
        f'Somebody says: "My gearing is {said}." They mean turns of the wheel for one turn of the motor. How many '
        "turns of the motor does one turn of the wheel take?"
    )
    hints = (
        "Both say the same gearing, seen from its two ends.",
        "If the wheel turns less often than the motor, the motor turns more often than the wheel.",
        f"How many times does {said} go into one whole turn?",
    )
    mistakes = {"taken as it was said": "x", "subtracted from one": "1 - x"}
    return s.number(
        d,
        words,
        "ratio",
        rigs.reduction(gears(a, b)),
        mistakes,
        hints,
        rig([gears(a, b)]),
        "motor turns per wheel turn = 1 / wheel turns per motor turn",
    )


PLACES = ("first", "second", "third")


def mark_driver(d: Draw) -> Posed:
    """The driver of a stage, clicked in the drawing."""
    count = d.level
    pairs = d.pairs(count)
    place = d.whole(0, count - 1)
    stages = [gears(a, b) for a, b in pairs]
    path = "drive.branches[0].stages[{}] {}"
    choices = tuple(
        Choice(path.format(k, member), f"{teeth[m]} teeth, {PLACES[k]} pair")
        for k, teeth in enumerate(pairs)
        for m, member in enumerate(("driver", "driven"))
    )
    mistakes = [Mistake(path.format(place, "driven"), "driver and driven mixed up")]
    mistakes += [Mistake(path.format(k, "driver"), "stages mixed up") for k in range(count) if k != place]
    words = (
        "The motor is on the left. Choose the driver in the drawing."
        if count == 1
        else f"The motor is on the left. Choose the driver of the {PLACES[place]} pair in the drawing."
    )
    hints = (
        "Power goes from the motor to the wheel on the ground.",
        "A driver pushes, a driven wheel is pushed.",
        "Behind the first pair the shaft that was driven carries the next driver.",
    )
    sheet = Sheet({})
    sheet.put("k", "pair that is asked for, from the motor on", place + 1, "ratio", "given")
    sheet.step("n", "which wheel it is, counted from the motor on", "2*k - 1", "ratio")
    return Posed(
        words,
        WheelAsked(choices),
        path.format(place, "driver"),
        known(tuple(mistakes)),
        hints,
        "power enters a pair by its driver",
        sheet,
        rig(stages),
    )


def speed_or_pull(d: Draw) -> Posed:
    """Whether a line is geared for speed or for pull."""
    pairs = d.pairs(d.level)
    pairs = [(b, a) if d.choice((True, False)) else (a, b) for a, b in pairs]
    total = rigs.reduction(*(gears(a, b) for a, b in pairs))
    if 0.85 < total < 1.18:
        raise Again
    s = Sum()
    s.pairs(pairs)
    s.step("i", "overall ratio", "*".join(f"b_{k}/a_{k}" for k in range(1, len(pairs) + 1)), "ratio")
    train = ", then ".join(f"{a} on {b}" for a, b in pairs)
    words = (
        f"From the motor to the wheel: {train} teeth, driver first. Compared with the wheel straight on the motor's "
        "shaft: is it geared for speed or for pull?"
    )
    choices = (
        Choice("speed", "for speed: the wheel turns faster than the motor"),
        Choice("pull", "for pull: the wheel turns slower than the motor"),
    )
    hints = (
        FEWER,
        "Work out each ratio, driven by driver, and multiply them.",
        "Above 1 the motor turns more often than the wheel.",
    )
    wrong = {"speed": "ratio turned over", "pull": "ratio turned over"}
    return choose(
        words,
        choices,
        "pull" if total > 1.0 else "speed",
        wrong,
        hints,
        rig([gears(*p) for p in pairs]),
        RATIO,
        s.sheet,
    )
