"""./ydro bench fit: dragging a shaft, checks after a step, and the placing solver."""

from __future__ import annotations

import time
from functools import partial

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.bench.serving import demo
from tests.bench.ui import DRAGGED, FRAMES, GOAL_FRAMES, spread
from tests.bench.watching import answered, watch
from tests.browser.driving import Page
from tests.core.designs import changed
from tests.figures import percentile
from ydrometer.document import design
from ydrometer.fit import placing
from ydrometer.fit.along import Reach
from ydrometer.fit.problem import PlacedPair, PlacedShaft, Problem
from ydrometer.screens.mounted import mounted

AXLE = "[data-shaft='drive.stages[0]']"
STEPS = 60
SOLVED = 10
LOOKED = 200
GOAL_SETTLED_MS = 70.0
GOAL_SOLVED_S = 1.0


def settled(page: Page) -> list[float]:
    """Milliseconds from an arrow key to what clashes then, painted."""
    watch(page, "Arrow", "[data-clashes]")
    page.press(AXLE, "")
    for step in range(STEPS):
        page.find(AXLE).send_keys(Keys.ARROW_UP if step % 2 else Keys.ARROW_DOWN)
        page.wait(partial(answered, page, step + 1), "an answer")
    return [float(ms) for ms in page.driver.execute_script("return window.__settled")][5:]


def dragged(page: Page) -> list[float]:
    """Milliseconds between the frames while a shaft is dragged to and fro across the plate."""
    grip = page.find(AXLE)
    chain = ActionChains(page.driver, duration=16).click_and_hold(grip)
    page.driver.execute_script(FRAMES)
    chain.perform()
    begun = time.perf_counter()
    while time.perf_counter() - begun < DRAGGED:
        move = ActionChains(page.driver, duration=16)
        for by in (-6, -6, -6, -6, 6, 6, 6, 6):
            move.move_by_offset(by, by // 2)
        move.perform()
    ActionChains(page.driver).release().perform()
    frames = page.driver.execute_script("window.__ticking = false; return window.__frames")
    return [float(ms) for ms in frames][2:]


def solved() -> list[float]:
    """Seconds for 40 by 12 holes, three free shafts and 30 belt lengths, all placements."""
    holes = tuple((0.012 * i, 0.012 * j) for j in range(12) for i in range(40))
    fixed = PlacedShaft("motor", ((0.06, 0.06),))
    free = tuple(PlacedShaft(name, holes) for name in ("one", "two", "three"))
    gears = (Reach(0.06, 0.0601, 0.06),)
    belts = tuple(Reach(c - 3e-4, c + 3e-4, c, f"{n}") for n in range(30) for c in [0.08 + 0.0025 * n])
    plate = Problem(
        (fixed, *free),
        (PlacedPair("motor", "one", gears), PlacedPair("one", "two", belts), PlacedPair("two", "three", gears)),
    )
    took = []
    for _ in range(SOLVED):
        begun = time.perf_counter()
        placed = placing.placements(plate).placements
        took.append(time.perf_counter() - begun)
    print(f"placements found: {len(placed)}")
    return took


def looked() -> list[float]:
    """Milliseconds for the core to place, check and draw a design."""
    document = design.read({**changed({}), "fit": {"plate": {"hole_pitch": "12 mm", "across": 40, "up": 12}}})
    took = []
    for _ in range(LOOKED):
        begun = time.perf_counter()
        mounted(document)
        took.append(1e3 * (time.perf_counter() - begun))
    return took


def main() -> None:
    """Print all."""
    print(f"plan, checks and numbers in the core, ms: {spread(looked())}")
    took = solved()
    print(f"placing solver, s: median {percentile(took, 0.5):.3f}  max {max(took):.3f}   (goal {GOAL_SOLVED_S:g})")
    with demo(8772) as base:
        page = Page(base)
        try:
            page.visit_demo()
            page.click("[data-vehicle=Sandpiper] a")
            page.click("nav a[href$=fit]")
            page.find(AXLE)
            print(f"arrow key to clashes painted, ms: {spread(settled(page))}   (goal {GOAL_SETTLED_MS:g})")
            frames = dragged(page)
            rate = 1e3 * len(frames) / sum(frames)
            print(f"dragging: {rate:.0f} frames a second, ms between: {spread(frames)}   (goal {GOAL_FRAMES})")
        finally:
            page.close()


if __name__ == "__main__":
    main()
