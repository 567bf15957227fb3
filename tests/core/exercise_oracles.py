"""Answers of exercises worked out once more from what they give, without the core."""

from __future__ import annotations

import itertools
import math
from collections.abc import Callable
from typing import Any

G = 9.80665
Given = dict[str, Any]


class Told:
    """The numbers that an exercise gives, by symbol, SI."""

    def __init__(self, given: Given) -> None:
        """Keep numbers as such, and the rest as it is."""
        for symbol, value in given.items():
            number = isinstance(value, dict) and "value" in value
            setattr(self, symbol, value["value"] if number else value)

    def __getattr__(self, name: str) -> Any:
        raise AttributeError(name)

    def all(self, letter: str) -> list[float]:
        """letter_1, letter_2 …"""
        found = itertools.takewhile(lambda k: hasattr(self, f"{letter}_{k}"), itertools.count(1))
        return [getattr(self, f"{letter}_{k}") for k in found]


def train(t: Told) -> float:
    return math.prod(b / a for a, b in zip(t.all("a"), t.all("b"), strict=True))


MESHES = {
    "a pair of gears": 1,
    "a pair of gears with an idler between them": 2,
    "a pair with two idlers in a row": 3,
    "a gear inside a ring": 0,
    "a toothed belt": 0,
    "a crossed belt": 1,
}


def sense(t: Told) -> str:
    turned = sum(MESHES[contact] for contact in t.contacts)
    others = {"clockwise": "anticlockwise", "anticlockwise": "clockwise"}
    return others[t.first] if turned % 2 else str(t.first)


def other_source(t: Told) -> str:
    meshes = {"a gear inside a ring": 0, "a pair of gears": 1, "a pair with one idler": 2, "a pair with two idlers": 3}
    first, second = (meshes[words] for words in t.through)
    return "yes" if (first + second) % 2 else "no"


def nearest(t: Told, count: int) -> float:
    """The ratio nearest to what is wanted that so many wheels of the bag come to."""
    rows = [math.prod(p[k + 1] / p[k] for k in range(0, count, 2)) for p in itertools.permutations(t.bag, count)]
    best: float = min(rows, key=lambda ratio: abs(ratio - t.G))
    return best


def twice(t: Told) -> str:
    return {"ratio": "half, double", "half": "double, half", "motor": "same, double", "wheel": "double, half"}[t.change]


def slope(t: Told) -> str:
    angle = math.atan(t.s)
    drive, pull = t.T * t.b / t.a / (t.D / 2), t.m * G * math.sin(angle)
    if min(drive, t.mu * t.m * G * math.cos(angle)) >= pull:
        return "starts"
    return "torque" if drive < pull else "grip"


def wall(t: Told) -> str:
    return "spin" if t.T * t.b / t.a / (t.D / 2) > t.mu * t.m * G else "stall"


def pack(t: Told) -> float:
    if hasattr(t, "V_c"):
        return float(t.n * t.V_c)
    return float(t.k * t.Q_c) if hasattr(t, "Q_c") else float(t.n / t.k * t.R_c)


def holes(t: Told) -> str:
    apart = t.m * (t.a + t.b) / 2
    x, y = min(t.ways, key=lambda way: abs(math.hypot(*way) * t.p - apart))
    return f"{x} {y}"


def belt(t: Told) -> float:
    """By halving: the distance at which the belt is as long as it is."""
    first, second = t.a * t.p / (2 * math.pi), t.b * t.p / (2 * math.pi)

    def length(apart: float) -> float:
        lean = math.asin(abs(second - first) / apart)
        return float(2 * apart * math.cos(lean) + math.pi * (first + second) + 2 * lean * abs(second - first))

    low, high = float(abs(second - first)) + 1e-9, float(t.n * t.p)
    for _ in range(60):
        middle = (low + high) / 2
        low, high = (middle, high) if length(middle) < t.n * t.p else (low, middle)
    return float(low)


def stack(t: Told) -> str:
    """The step that may stand at the motor with the other behind it, and hold."""
    holds = {
        "A": t.T * t.i_A <= t.R_A and t.T * t.i_A * t.i_B <= t.R_B,
        "B": t.T * t.i_B <= t.R_B and t.T * t.i_A * t.i_B <= t.R_A,
    }
    (rows,) = [step for step, well in holds.items() if well]
    return rows


def slips(t: Told) -> str:
    if t.by == "diameter":
        return "A" if t.d_A < t.d_B else "B"
    bends = {
        key: math.asin((getattr(t, f"D_{key}") - getattr(t, f"d_{key}")) / 2 / getattr(t, f"c_{key}")) for key in "AB"
    }
    return max(bends, key=lambda key: bends[key])


def scatter(t: Told) -> str:
    """By every way to deal the runs anew."""
    a, b = t.heaps["A"], t.heaps["B"]
    both, seen = [*a, *b], abs(sum(a) / len(a) - sum(b) / len(b)) - 1e-9
    deals = list(itertools.combinations(range(len(both)), len(a)))
    found = 0
    for deal in deals:
        one = [both[k] for k in deal]
        rest = (sum(both) - sum(one)) / len(b)
        found += abs(sum(one) / len(a) - rest) >= seen
    if found / len(deals) > 0.1:
        return "open"
    return "A" if sum(a) / len(a) < sum(b) / len(b) else "B"


ORACLES: dict[str, Callable[[Told], Any]] = {
    "ratio": lambda t: t.b / t.a,
    "turns": lambda t: t.n * t.b / t.a,
    "taller": lambda t: "A" if t.b_A / t.a_A < t.b_B / t.a_B else "B",
    "other_way_round": lambda t: 1 / t.x,
    "mark_driver": lambda t: f"drive.branches[0].stages[{t.k - 1}] driver",
    "speed_or_pull": lambda t: "pull" if train(t) > 1 else "speed",
    "last_wheel": sense,
    "other_source": other_source,
    "idler_changes": lambda t: t.b / t.a,
    "idler_or_compound": lambda t: t.c * t.b / (t.a * t.e),
    "compound": train,
    "planetary_steps": lambda t: math.prod(t.all("i")),
    "third_stage": lambda t: t.G / train(t),
    "bag_pair": lambda t: nearest(t, 2),
    "bag_two_pairs": lambda t: nearest(t, 4),
    "rare_wheel": lambda t: t.G,
    "counted_held": lambda t: t.n_m / (t.n_w / 2),
    "counted_both": lambda t: t.n_m / t.n_w,
    "v_pulley": lambda t: (t.D_o - 2 * t.y) / (t.d_o - 2 * t.y) if hasattr(t, "D_o") else t.d_o - 2 * t.y,
    "runs_smaller": lambda t: "A" if t.d_A - 2 * t.y_A < t.d_B - 2 * t.y_B else "B",
    "road_speed": lambda t: t.n / t.G * math.pi * t.D,
    "roll_per_turn": lambda t: math.pi * t.D * t.a / t.b,
    "wheel_counter": lambda t: t.n * math.pi * t.D,
    "scale_speed": lambda t: t.v_m * t.N,
    "swap_speed": lambda t: t.v_1 * (t.z_2 / t.z_1) * (t.y_1 / t.y_2),
    "wheel_torque": lambda t: t.T * train(t) * t.e,
    "rim_force": lambda t: 2 * t.T / t.D,
    "twice": twice,
    "start_slope": slope,
    "spin_or_stall": wall,
    "free_speed": lambda t: t.K * (t.n * t.V_c if hasattr(t, "n") else t.V),
    "series_parallel": pack,
    "sag": lambda t: t.V - t.R * t.I,
    "start_current": lambda t: t.V / (t.R_m + t.R_b),
    "which_controller": lambda t: f"{min(entry for entry in t.offered if entry > t.V / (t.R_m + t.R_b)):g}",
    "shove": lambda t: t.k * t.I**2 * t.R,
    "centres": lambda t: t.m * abs(t.b + t.a) / 2,
    "on_holes": holes,
    "belt_reaches": belt,
    "stack_order": stack,
    "slips_first": slips,
    "more_than_scatter": scatter,
    "how_many_runs": lambda t: "part" if t.asked == "difference" else "square",
}
"""How the answer of each kind follows from what is given; of `find_mistake` it is that of the sum in it."""
