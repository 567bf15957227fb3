"""./ydro bench loads: what each part has to stand, in the core and after a key in the page."""

from __future__ import annotations

import json
import time
from functools import partial
from pathlib import Path
from typing import Any

from tests.bench.serving import demo
from tests.bench.ui import spread
from tests.bench.watching import answered, watch
from tests.browser.driving import Page
from ydrometer.document import design
from ydrometer.evaluation.evaluate import evaluate
from ydrometer.loads import electrical, shafts
from ydrometer.loads.limits import CHECKS, limits
from ydrometer.loads.load_case import LoadCase

CASE = Path(__file__).parents[1] / "core" / "cases" / "loads" / "01-robot.json"
TIMES = 60
KEYS = 40
GOAL_PLAIN_MS, GOAL_DAY_MS, GOAL_SETTLED_MS = 10.0, 30.0, 150.0
OF_THE_DAY = {
    electrical.winding_temperature,
    electrical.mount_softening,
    electrical.controller_continuous,
    electrical.supply_continuous,
    electrical.fuse,
}
LONG_DAY = [
    {"do": "runs", "count": 4, "every": "25 s"},
    {"do": "shove", "for": "4 s"},
    {"do": "turns", "for": "5 s"},
    {"do": "rest", "for": "5 min"},
] * 16


def timed(raw: dict[str, Any], *, heat: bool) -> list[float]:
    """Milliseconds to work all rows out, with those of the day or without."""
    document, took = design.read(raw), []
    for _ in range(TIMES):
        begun = time.perf_counter()
        evaluation = evaluate([document])
        if heat:
            rows = limits(evaluation).case
            for warmth in rows.warmth.values():
                rows.rest_needed(warmth), rows.shove_until_limit(warmth), warmth.in_moving_air
        else:
            rows = LoadCase(evaluation)
            for check in CHECKS:
                if check not in OF_THE_DAY:
                    list(check(rows))
            shafts.shafts(rows)
        took.append(1e3 * (time.perf_counter() - begun))
    return took[5:]


def settled(page: Page) -> list[float]:
    """Milliseconds from a key in a field to the bars, painted."""
    watch(page, "Enter", "[data-bars]")
    for number in range(KEYS):
        # Heats change the winding alone: its bar and its curve are painted anew.
        page.type_into("heats", "3" if number % 2 else "4")
        page.wait(partial(answered, page, number + 1), "an answer")
    return [float(ms) for ms in page.driver.execute_script("return window.__settled")][5:]


def main() -> None:
    """Print all."""
    raw = json.loads(CASE.read_text())
    print(f"without the day, in the core, ms: {spread(timed(raw, heat=False))}   (goal {GOAL_PLAIN_MS:g})")
    long = {**raw, "loads": {**raw["loads"], "day": LONG_DAY, "heats": 200}}
    print(f"a day of 64 phases and 200 heats, ms: {spread(timed(long, heat=True))}   (goal {GOAL_DAY_MS:g})")
    with demo(8773) as base:
        page = Page(base)
        try:
            page.visit_demo()
            page.click("[data-vehicle=Knot] a")
            page.click("nav a[href$=loads]")
            page.find("[data-bars]")
            print(f"key to bars painted, ms: {spread(settled(page))}   (goal {GOAL_SETTLED_MS:g})")
        finally:
            page.close()


if __name__ == "__main__":
    main()
