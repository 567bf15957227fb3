"""Which is better: whether a difference is more than scatter, and how many more runs would show it."""

from __future__ import annotations

import math

import numpy as np

from ydrometer.practice.draw import Again, Draw
from ydrometer.practice.posed import Choice, Posed, Sum, choose
from ydrometer.practice.rigs import rig
from ydrometer.trials.differences import by_chance, repeats_needed

SURE, OPEN = 0.02, 0.25
"""Shares of chance below which a difference is clear, and above which nobody can tell."""


def more_than_scatter(d: Draw) -> Posed:
    """Whether one of two gearings is faster by more than its scatter."""
    count = 5 if d.level == 1 else d.whole(4, 6)
    base, spread = d.number(3.0, 7.0, 0.1), d.number(0.02, 0.05, 0.01)
    apart = base * spread * d.choice((0.0, 0.3, 3.0, 4.0) if d.level == 1 else (0.2, 0.5, 2.0, 2.6))
    heaps = {
        key: [round(d.random.gauss(mean, base * spread), 2) for _ in range(count)]
        for key, mean in zip(d.some("AB", 2), (base, base + apart), strict=True)
    }
    first, second = (np.array(heaps[key]) for key in "AB")
    chance = by_chance(first, second)
    if SURE < chance < OPEN or abs(first.mean() - second.mean()) < 0.005:
        raise Again
    faster = "A" if first.mean() < second.mean() else "B"
    s = Sum()
    for key in "AB":
        for k, time in enumerate(heaps[key], 1):
            s.given(f"t_{key}{k}", f"gearing {key}, run {k}", time, "time")
    for key in "AB":
        s.step(
            f"m_{key}", f"mean of {key}", f"({' + '.join(f't_{key}{k}' for k in range(1, count + 1))})/{count}", "time"
        )
    s.step("x", "apart", "abs(m_A - m_B)", "time")
    s.sheet.put("p", "share of all ways to deal these runs that set them as far apart", chance, "ratio", "solved")
    times = "; ".join(f"{key}: {', '.join(f'{time:.2f}' for time in heaps[key])} s" for key in "AB")
    words = (
        f"Two gearings, {count} runs each over the same way, swapped in turn. {times}. Which is faster, by more than "
        "scatter?"
    )
    hints = (
        "Look how far the runs of one gearing differ among themselves.",
        "Do the two heaps overlap?",
        "If the runs were shuffled and dealt anew, would the means be as far apart?",
    )
    choices = (Choice("A", "A is faster"), Choice("B", "B is faster"), Choice("open", "it cannot be told yet"))
    slower = "B" if faster == "A" else "A"
    if chance < SURE:
        return choose(
            words,
            choices,
            faster,
            {"open": "difference overlooked", slower: "slower taken for faster"},
            hints,
            rig([]),
            "a difference counts that chance alone seldom makes",
            s.sheet,
            said={"heaps": heaps},
        )
    wrong = {faster: "scatter taken for a difference", slower: "slower taken for faster"}
    return choose(
        words,
        choices,
        "open",
        wrong,
        hints,
        rig([]),
        "a difference counts that chance alone seldom makes",
        s.sheet,
        said={"heaps": heaps},
    )


FACTORS = {
    2: ("twice", "four times", "half", "a quarter"),
    3: ("three times", "nine times", "a third", "a ninth"),
}
SHRINKS = "scatter of a mean = scatter / √runs"


def how_many_runs(d: Draw) -> Posed:
    """How many times as many runs a smaller difference takes, or how small a one so many more runs show."""
    scatter, factor = d.number(0.02, 0.04, 0.005), 2 if d.level == 1 else d.choice((2, 3))
    apart, backwards = d.number(0.02, 0.06, 0.01), d.choice((True, False))
    few, many = (repeats_needed(1.0, 1.0 + x, scatter) or 0 for x in (apart, apart / factor))
    if not 6 <= few <= 30:
        raise Again
    s = Sum()
    s.given("s", "scatter of one run", scatter)
    s.given("d_1", "difference that shows", apart)
    s.given(
        "k",
        "how many times as many runs" if backwards else "how many times smaller it is",
        factor**2 if backwards else factor,
    )
    s.sheet.put("n_1", "runs of each that show it", few, "ratio", "solved")
    times, squared, part, part_squared = FACTORS[factor]
    said = (
        f"Single runs scatter by {100 * scatter:g} %. With {few} runs of each gearing a difference of "
        f"{100 * apart:g} % would show."
    )
    hints = (
        "The mean of several runs scatters less than one run.",
        "Four times as many runs scatter half as much.",
        f"The scatter has to shrink to {part}."
        if not backwards
        else "Take the square root of how many more runs there are.",
    )
    design, question = rig([]), {"asked": "difference" if backwards else "runs"}
    if backwards:
        s.step("d_2", "difference that shows then, about", "d_1/sqrt(k)")
        shares = {"same": 1.0, "part": 1.0 / factor, "square": 1.0 / factor**2}
        words = f"{said} With {squared} as many runs, how small a difference would show?"
        choices = [
            Choice("same", "the same"),
            Choice("part", f"about {part} of it"),
            Choice("square", f"about {part_squared} of it"),
        ]
        share = 1.0 / math.sqrt(many / few)
        names = {"same": "believed enough", "square": "not squared"}
        return choose(words, choices, _nearest(shares, share), names, hints, design, SHRINKS, s.sheet, said=question)
    s.step("n_2", "runs of each for the smaller one, about", "n_1*k*k")
    words = f"{said} A difference of {part} of that is looked for: how many runs of each does that take?"
    counts = {"same": 1.0, "times": float(factor), "square": float(factor**2), "half": 1.0 / factor}
    choices = [
        Choice("half", f"about {part} as many"),
        Choice("same", "as many"),
        Choice("times", f"about {times} as many"),
        Choice("square", f"about {squared} as many"),
    ]
    names = {"times": "not squared", "same": "believed enough", "half": "believed enough"}
    return choose(words, choices, _nearest(counts, many / few), names, hints, design, SHRINKS, s.sheet, said=question)


def _nearest(shares: dict[str, float], share: float) -> str:
    return min(shares, key=lambda key: abs(shares[key] - share))
