"""./ydro bench build: parts, steps and plan in the core, a tick in the page and at the other one, a booklet."""

from __future__ import annotations

import json
import time
from collections.abc import Callable
from datetime import datetime
from functools import cache, partial
from pathlib import Path
from typing import Any

from ops.places import PAGE
from tests.bench.serving import demo
from tests.bench.ui import spread
from tests.bench.watching import answered, watch
from tests.browser.driving import Page
from ydrometer.build.bin import bin_of
from ydrometer.build.book import read_book
from ydrometer.document import design
from ydrometer.drawing import draw_line
from ydrometer.files.booklet import Content, booklet
from ydrometer.parts import files, sheet
from ydrometer.screens.build_shown import Site, build_shown, steps_for
from ydrometer.screens.parts_shown import BenchKnown, parts_shown

DEMO = Path(__file__).parents[2] / "server" / "demo"
NOW = datetime(2027, 5, 3, 12)
TIMES, TICKS = 30, 24
GOAL_CORE_MS, GOAL_TICK_MS, GOAL_OTHER_MS, GOAL_BOOKLET_S, STEPS = 20.0, 100.0, 2000.0, 5.0, 80


@cache
def bin_() -> list[dict[str, Any]]:
    """The demo's bin."""
    found = [
        table for file in sorted((DEMO / "parts").iterdir()) for table in files.tables_in(file.name, file.read_bytes())
    ]
    return sheet.parts_of(found)[0]


def timed(work: Callable[[], object]) -> list[float]:
    """Milliseconds that something takes, after a first time."""
    work()
    took = []
    for _ in range(TIMES):
        begun = time.perf_counter()
        work()
        took.append(1e3 * (time.perf_counter() - begun))
    return took


def core() -> None:
    """Each demo design."""
    for folder in sorted((DEMO / "vehicles").iterdir()):
        document = design.read(json.loads(max(folder.glob("*.json")).read_text()))
        bench = BenchKnown(bin_of(bin_()), book=read_book({"event": "2027-06-12T09:00", "people": 2}))
        steps = len(steps_for(document, bench))
        print(f"{folder.name}: parts list, ms: {spread(timed(partial(parts_shown, document, bench)))}")
        rows = spread(timed(partial(steps_for, document, bench)))
        print(f"{folder.name}: {steps} steps, ms: {rows}   (goal {GOAL_CORE_MS:g} each)")
        print(
            f"{folder.name}: all of the station with its plan, ms: "
            f"{spread(timed(partial(build_shown, document, Site(bench, NOW))))}"
        )


def paper() -> None:
    """A booklet of 80 steps, as the first one that a worker writes, and as a later one."""
    document = design.read(json.loads((DEMO / "vehicles" / "1-sandpiper" / "2.json").read_text()))
    rows = len(steps_for(document, BenchKnown(bin_of(bin_()))))
    own = [{"id": f"own-{k}", "title": f"Own step {k}"} for k in range(STEPS - rows)]
    site = Site(BenchKnown(bin_of(bin_()), book=read_book({"steps": own})), NOW)
    content = Content(
        "Sandpiper", build_shown(document, site), parts_shown(document, site.bench), draw_line(document.design)
    )
    for which in ("first", "second"):
        begun = time.perf_counter()
        booklet(content, PAGE / "dist" / "assets")
        took = time.perf_counter() - begun
        print(f"booklet of {len(content.build.steps)} steps, {which}, s: {took:.2f}   (goal {GOAL_BOOKLET_S:g})")


def station(page: Page) -> None:
    """Sandpiper's build."""
    page.visit_demo()
    page.click("[data-vehicle=Sandpiper] a")
    page.click("nav a[href$=build]")
    page.find("[data-tick]")


def ticks(page: Page, other: Page) -> None:
    """From a tick to its step painted, and until it is seen in another browser."""
    watch(page, "", "[data-build]")
    seen = []
    for number in range(TICKS):
        page.click("[data-tick]")
        begun = time.perf_counter()
        page.wait(partial(answered, page, number + 1), "a tick painted")
        done = int(page.find("[data-done]").get_attribute("data-done") or 0)
        other.wait(partial(_done, other, done), "it at the other one")
        seen.append(1e3 * (time.perf_counter() - begun))
    took = [float(ms) for ms in page.driver.execute_script("return window.__settled")][2:]
    print(f"tick to painted, ms: {spread(took)}   (goal {GOAL_TICK_MS:g})")
    print(f"tick to the other browser, ms: {spread(seen)}   (goal {GOAL_OTHER_MS:g})")


def _done(page: Page, done: int) -> bool:
    return int(page.find("[data-done]").get_attribute("data-done") or 0) >= done


def main() -> None:
    """Print all."""
    core()
    paper()
    with demo(8775) as base:
        pages = [Page(base, 390, 844), Page(base)]
        try:
            for page in pages:
                station(page)
            ticks(*pages)
        finally:
            for page in pages:
                page.close()


if __name__ == "__main__":
    main()
