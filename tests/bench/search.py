"""./ydro bench search: how long the search takes over 10⁴ to 10⁸ combinations, on one core and on two."""

from __future__ import annotations

import argparse
import resource
import time
from collections import Counter
from typing import Any

import numpy as np

from tests.core.designs import changed
from ydrometer.search import answer, read_request
from ydrometer.search.block import smallest
from ydrometer.search.choices import slots, trunk_from
from ydrometer.search.drives import drives_of
from ydrometer.search.outcome import Outcome
from ydrometer.search.request import SearchRequest
from ydrometer.search.run import pieces, search, sizes

TEETH = (12, 14, 15, 16, 18, 20, 21, 24, 28, 30, 32, 35, 36, 40, 42, 45, 48, 54, 56, 60, 64, 70, 72, 80, 84, 90, 96,
         100, 105, 108, 110, 112, 120, 125, 126)  # fmt: skip
SIZES = {"10^4": (6, 5, 6), "10^5": (9, 7, 9), "10^6": (13, 11, 13), "10^7": (20, 15, 20), "10^8": (29, 22, 30)}
"""How many gears, pulleys and sprockets make about so many combinations."""
GOAL_S, GOAL_LARGEST_S, GOAL_GB = 4.0, 15.0, 1.5
AT_ONCE = 20_000


def request(gears: int, pulleys: int, sprockets: int, *, masses: bool = False) -> dict[str, Any]:
    """Two layouts of three stages, three targets, a price limit; every part invented by its tooth count."""
    bins = (
        ("gear", gears, {"module": "1 mm"}),
        ("pulley", pulleys, {"pitch": "5 mm"}),
        ("sprocket", sprockets, {"pitch": "6.35 mm"}),
    )
    parts = [
        {
            "id": f"{kind[0]}{t}",
            "kind": kind,
            "teeth": t,
            "owned": t % 3,
            "price": round(t / 9.0, 2),
            "mass": f"{2 * t} g",
            **size,
        }
        for kind, count, size in bins
        for t in TEETH[:count]
    ]
    base = changed({"run": {"distance": "25 m"}, "drive.branches.0.controller": {"current_limit": "60 A"}})
    base["targets"] = [
        {"measure": "top_speed", "at_least": "7 m/s"},
        {"measure": "pushing_force", "at_least": "110 N"},
        {"measure": "time_to_distance", "at_most": "4 s"},
    ]
    layouts = [
        {"stages": [{"kind": kind} for kind in kinds]}
        for kinds in (("gear", "gear", "belt"), ("gear", "chain", "belt"))
    ]
    return {
        "format": "ydrometer-search",
        "version": 1,
        "design": base,
        "parts": parts,
        "layouts": layouts,
        "limits": {"price_at_most": 60},
        "keep": 50,
        "add_part_masses": masses,
    }


def hardest() -> dict[str, Any]:
    """As many combinations with nearly as many distinct drives as a request may have: every fourth tooth count."""
    made = request(*SIZES["10^7"])
    kinds: Counter[str] = Counter()
    for part in made["parts"]:
        part["teeth"] = 12 + 4 * kinds[part["kind"]]
        kinds[part["kind"]] += 1
    return made


def timed(asked: SearchRequest, processes: int) -> tuple[float, Outcome]:
    """Seconds, and what was found."""
    begun = time.perf_counter()
    outcome = search(asked, processes)
    return time.perf_counter() - begun, outcome


def distinct(asked: SearchRequest, number: int = 0) -> int:
    """Distinct drives among all combinations of a layout."""
    layout = asked.body.layouts[number]
    made = drives_of(slots(asked, layout), trunk_from(layout))
    return len(made.drive.mass) if made else 0


def peak_gb() -> float:
    """The largest resident set so far, of this process and of its children together."""
    kinds = (resource.RUSAGE_SELF, resource.RUSAGE_CHILDREN)
    return sum(resource.getrusage(kind).ru_maxrss for kind in kinds) / 1e6


def main() -> None:
    """Print the table."""
    options = argparse.ArgumentParser()
    options.add_argument("--without-largest", action="store_true", help="leave 10^8 out")
    chosen = options.parse_args()
    smallest([np.arange(3)], 1)
    search(read_request(request(4, 3, 4)))
    print("combinations            counted      one core    two cores   times     per 10x")
    before = None
    for name, size in SIZES.items():
        if name == "10^8" and chosen.without_largest:
            continue
        asked = read_request(request(*size))
        one, found = timed(asked, 1)
        two, again = timed(asked, 2)
        assert [key for key, _ in found.best] == [key for key, _ in again.best]
        growth = f"{one / before:6.1f}" if before else ""
        print(
            f"{name:12} {len(pieces(asked)):4} pieces {found.combinations:12,} {one:8.2f} s {two:10.2f} s "
            f"{one / two:6.2f}   {growth}"
        )
        before = one
    ten = read_request(request(*SIZES["10^7"]))
    print(
        f"  (goal: 10^7 in at most {GOAL_S:g} s, 10^8 in {GOAL_LARGEST_S:g} s, and {GOAL_GB:g} GB on two cores; "
        f"peak so far {peak_gb():.2f} GB; two cores at least 1.6 times one; "
        f"{distinct(ten):,} distinct drives in its first layout)"
    )
    hard = read_request(hardest())
    seconds, found = timed(hard, 2)
    drives_ = sum(distinct(hard, number) for number in range(len(hard.body.layouts)))
    print(
        f"{sum(sizes(hard)):,} combinations, {found.combinations:,} within the limits, of {drives_:,} distinct "
        f"drives, two cores: {seconds:.2f} s, peak so far {peak_gb():.2f} GB"
    )
    heavy, _ = timed(read_request(request(*SIZES["10^6"], masses=True)), 2)
    print(f"10^6 with the masses of the parts added, two cores: {heavy:.2f} s")
    begun = time.perf_counter()
    found_all = answer(read_request(request(7, 5, 6)))
    print(
        f"{found_all['combinations']:,} of {AT_ONCE:,} at most, answered whole, with designs and nearest changes: "
        f"{1e3 * (time.perf_counter() - begun):.0f} ms   (goal: 500 ms in the page)"
    )


if __name__ == "__main__":
    main()
