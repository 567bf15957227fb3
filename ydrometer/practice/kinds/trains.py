"""Stages one behind the other: idlers that change nothing, compound pairs and planetary steps that multiply."""

from __future__ import annotations

from ydrometer.practice import rigs
from ydrometer.practice.draw import Again, Draw
from ydrometer.practice.posed import Posed, Sum
from ydrometer.practice.rigs import gears, rig

MULTIPLY = "overall ratio = product of the ratios of all pairs"
STEPS = (3, 3.5, 3.8, 4, 4.5, 5, 5.5)


def idler_changes(d: Draw) -> Posed:
    """The ratio of a pair with idlers between."""
    a, b = d.pair()
    idlers = [d.whole(10, 60) for _ in range(2 if d.level == 3 else 1)]
    s = Sum()
    s.teeth(a, b)
    s.given("c", "teeth of the idler" if len(idlers) == 1 else "teeth of the first idler", idlers[0])
    if len(idlers) > 1:
        s.given("e", "teeth of the second idler", idlers[1])
    s.step("i", "ratio, in which the idlers cancel", "c/a*e/c*b/e" if len(idlers) > 1 else "c/a*b/c")
    between = (
        f"an idler with {idlers[0]} teeth" if len(idlers) == 1 else f"idlers with {idlers[0]} and {idlers[1]} teeth"
    )
    words = (
        f"A gear with {a} teeth drives one with {b} teeth over {between} between them. How many times does the driver "
        "turn for one turn of the last gear?"
    )
    hints = (
        "An idler sits on a shaft of its own that carries nothing else.",
        "Every tooth that is pushed into the idler on one side comes out on the other.",
        "So count the teeth of the first and of the last gear alone.",
    )
    added = "c/a + e/c + b/e" if len(idlers) > 1 else "c/a + b/c"
    mistakes = {
        "stopped at the idler": "c/a",
        "begun at the idler": "b/c",
        "added instead of multiplied": added,
        "ratio turned over": "a/b",
    }
    stage = gears(a, b, idlers=idlers)
    return s.number(
        d,
        words,
        "ratio",
        rigs.reduction(stage),
        mistakes,
        hints,
        rig([stage]),
        "an idler changes the sense and the spacing, not the ratio",
    )


def idler_or_compound(d: Draw) -> Posed:
    """The reduction of a compound pair that looks like an idler."""
    a, b = d.pair()
    large, small = d.whole(24, 60), d.whole(10, 22)
    s = Sum()
    s.given("a", "teeth of the first gear", a)
    s.given("c", "teeth of what it drives", large)
    s.given("e", "teeth of the gear on the same shaft", small)
    s.given("b", "teeth of the last gear", b)
    s.step("i_1", "first pair", "c/a")
    s.step("i_2", "second pair", "b/e")
    s.step("i", "overall", "i_1*i_2")
    words = (
        f"A gear with {a} teeth drives one with {large} teeth. On the same shaft as that one sits a gear with {small} "
        f"teeth, and it drives a gear with {b} teeth. How many times does the first gear turn for one turn of the last?"
    )
    hints = (
        "Two wheels on one shaft are no idler: power enters by one and leaves by the other.",
        "There are two meshes between different wheels: two ratios.",
        f"The first is {large}/{a}.",
    )
    mistakes = {"one pair left out": "b/a", "added instead of multiplied": "c/a + b/e", "ratio turned over": "a/c*e/b"}
    stages = [gears(a, large), gears(small, b)]
    return s.number(d, words, "ratio", rigs.reduction(*stages), mistakes, hints, rig(stages), MULTIPLY)


def compound(d: Draw) -> Posed:
    """The overall ratio of two or three pairs."""
    pairs = d.pairs(3 if d.level == 3 else 2)
    s = Sum()
    s.pairs(pairs)
    places = range(1, len(pairs) + 1)
    for k in places:
        s.step(f"i_{k}", f"pair {k}", f"b_{k}/a_{k}")
    s.step("i", "overall", "*".join(f"i_{k}" for k in places))
    train = ", then ".join(f"{a} on {b}" for a, b in pairs)
    words = (
        f"A motor drives the wheel through {train} teeth, driver first. How many times does the motor turn for one "
        "turn of the wheel?"
    )
    hints = (
        "Each pair works on what the one before has left.",
        "Work out the ratio of each pair, driven by driver.",
        "Multiply them.",
    )
    mistakes = {
        "added instead of multiplied": " + ".join(f"i_{k}" for k in places),
        "one pair left out": "i_1",
        "ratio turned over": "1/i",
    }
    stages = [gears(a, b) for a, b in pairs]
    return s.number(d, words, "ratio", rigs.reduction(*stages), mistakes, hints, rig(stages), MULTIPLY)


def planetary_steps(d: Draw) -> Posed:
    """What a stack of planetary steps reduces."""
    count = 2 if d.level == 1 else d.level
    steps = [d.choice(STEPS if d.level > 1 else (3, 4, 5)) for _ in range(count)]
    s = Sum()
    for k, step in enumerate(steps, 1):
        s.given(f"i_{k}", f"step {k}", step)
    places = range(1, count + 1)
    s.step("i", "of the stack", "*".join(f"i_{k}" for k in places))
    steps_ = " and ".join((", ".join(f"{step:g} : 1" for step in steps[:-1]), f"{steps[-1]:g} : 1"))
    words = (
        f"A planetary gearbox is stacked from steps of {steps_}. How many times does its motor turn for one turn of "
        "its output?"
    )
    hints = (
        "Each step takes what the one before gives.",
        "What does the second step make of one turn of the first?",
        "Multiply the steps.",
    )
    mistakes = {
        "added instead of multiplied": " + ".join(f"i_{k}" for k in places),
        "one pair left out": "*".join(f"i_{k}" for k in places[:-1]),
    }
    stage = {"kind": "planetary", "reductions": steps, "efficiency": 1.0}
    return s.number(d, words, "ratio", rigs.reduction(stage), mistakes, hints, rig([stage]), "product of the steps")


def third_stage(d: Draw) -> Posed:
    """What the third stage has to be for an overall ratio."""
    pairs = d.pairs(2)
    before = rigs.reduction(*(gears(a, b) for a, b in pairs))
    third = d.choice((1.5, 2, 2.5, 3)) if d.level == 1 else d.number(1.3, 3.6, 0.1)
    wanted = float(f"{before * third:.4g}")
    if wanted > 90.0:
        raise Again
    s = Sum()
    s.given("G", "overall ratio wanted", wanted)
    s.pairs(pairs)
    s.step("i_1", "first pair", "b_1/a_1")
    s.step("i_2", "second pair", "b_2/a_2")
    s.step("i_3", "third pair", "G/(i_1*i_2)")
    train = " and ".join(f"{a} on {b}" for a, b in pairs)
    words = (
        f"An overall ratio of {wanted:g} is wanted, in motor turns for one turn of the wheel. Two pairs are there: "
        f"{train} teeth, driver first. What ratio must the third pair have?"
    )
    hints = (
        "All three multiplied have to give what is wanted.",
        "What do the first two give together?",
        "Divide what is wanted by that.",
    )
    mistakes = {
        "subtracted instead of divided": "G - i_1 - i_2",
        "one pair left out": "G/i_1",
        "added instead of multiplied": "G/(i_1 + i_2)",
    }
    return s.number(d, words, "ratio", wanted / before, mistakes, hints, rig([gears(a, b) for a, b in pairs]), MULTIPLY)
