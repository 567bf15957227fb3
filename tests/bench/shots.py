"""./ydro shots: one picture of each main view, from the demo, into docs/screenshots."""

from __future__ import annotations

import time
from pathlib import Path

from tests.bench.serving import demo
from tests.bench.ui import open_six_stages
from tests.browser.driving import Page
from tests.drills.visitor import Visitor
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.practice import exercise
from ydrometer.practice.posed import NumberAsked

FOLDER = Path(__file__).parents[2] / "docs" / "screenshots"
SETTLE = 1.2
"""Seconds for fonts and charts; a picture cannot be waited for otherwise."""


def main() -> None:
    """Take them all."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with demo(8767) as base:
        page = Page(base)
        try:
            page.visit_demo()
            for station in STATIONS:
                station(page)
        finally:
            page.close()


def shot(page: Page, name: str) -> None:
    """One picture, once all is painted."""
    time.sleep(SETTLE)
    page.driver.save_screenshot(str(FOLDER / f"{name}.png"))


def vehicle(page: Page, name: str) -> None:
    """The Line of a demo vehicle."""
    page.open("/")
    page.click(f"[data-vehicle={name}] a")
    page.find("[data-series]")


def bench(page: Page) -> None:
    page.find("[data-vehicle] svg")
    shot(page, "bench")


def begin(page: Page) -> None:
    page.click("a[href$='/new']")
    page.find("[data-start=board] svg")
    shot(page, "begin")


def line(page: Page) -> None:
    vehicle(page, "Sandpiper")
    shot(page, "line")
    page.click("[data-gauge=time_to_distance] button")
    page.find("[data-working] [data-between]")
    shot(page, "working")


def options(page: Page) -> None:
    """Of two stages narrowed to what is answered at once: nobody waits for a worker here."""
    vehicle(page, "Sandpiper")
    page.click("nav a[href$=options]")
    page.click("[data-layouts] button[aria-expanded]")
    for end, teeth in (("driver", "12-18"), ("driven", "48-64")):
        field = page.find(f"input[aria-label='{end} teeth, stage 1']")
        field.send_keys(teeth, "\n")
    page.click("[data-layouts] button[aria-expanded]")
    time.sleep(SETTLE)
    page.click("[data-search]:not([disabled])")
    page.find("[data-headline]")
    page.driver.execute_script("document.querySelector('main').scrollTo(0, 0)")
    shot(page, "options")


def fit(page: Page) -> None:
    """The plan with its clash."""
    vehicle(page, "Sandpiper")
    page.click("nav a[href$=fit]")
    page.press("[data-shaft='drive.branches[0].stages[0]']", "")
    page.find("[data-numbers]")
    shot(page, "fit")


def loads(page: Page) -> None:
    vehicle(page, "Sandpiper")
    page.click("nav a[href$=loads]")
    page.find("[data-bars]")
    shot(page, "loads")


def runs(page: Page) -> None:
    """The log with its curve; what was learnt."""
    vehicle(page, "Knot")
    page.click("nav a[href$=runs]")
    page.find("[data-unknowns]")
    shot(page, "runs")
    page.driver.execute_script("document.querySelector('[data-better]').scrollIntoView()")
    shot(page, "learnt")


def building(page: Page) -> None:
    """The parts list; the next step on a phone, with what is loose."""
    vehicle(page, "Sandpiper")
    page.click("nav a[href$=parts]")
    page.find("[data-money]")
    shot(page, "parts-list")
    page.size(390, 844)
    page.click("nav a[href$=build]")
    page.find("[data-ledger='2']")
    shot(page, "build-phone")
    page.size(1280, 800)


def parts(page: Page) -> None:
    page.open("/parts?kind=gear")
    page.find("tr[data-part]")
    shot(page, "parts")


def tables(page: Page) -> None:
    """What stands under the drawing: the pairs, and designs side by side."""
    for tab in ("pairs", "compare"):
        vehicle(page, "Dunlin")
        page.click(f"#tab-{tab}")
        page.find("[data-pairs] td, [data-revision='1']")
        for entry in page.all("[data-revision='1'] input, [data-compare] label:first-of-type > input")[:2]:
            entry.click()
        page.driver.execute_script("document.querySelector('main').scrollTo(0, 330)")
        shot(page, tab)


def branches(page: Page) -> None:
    open_six_stages(page)
    page.find("[data-series]")
    shot(page, "line-branches")


def brief(page: Page) -> None:
    vehicle(page, "Dunlin")
    page.click("nav a[href$=brief]")
    page.find("[data-target=top_speed]")
    page.find("[data-band]")
    shot(page, "brief")


def workshop(page: Page) -> None:
    page.open("/")
    page.click("a[href^='/workshops/']")
    page.find("[data-usage]")
    shot(page, "workshop")


def practice(page: Page) -> None:
    """A usual mistake, answered by its name."""
    page.open("/practice?idea=idlers")
    shown = page.find("[data-exercise]")
    level, seed, system = str(shown.get_attribute("data-drawn")).split()
    made = exercise(str(shown.get_attribute("data-exercise")), int(level), int(seed), system)
    mistake = made.posed.mistakes[0]
    page.find("[data-answer]").send_keys(f"{mistake.answer:.4g}", "\n")
    page.wait_text("[data-said]", mistake.name)
    shot(page, "practice")


NICKNAMES = ("Wren", "Tern", "Rook", "Jay", "Plover", "Dipper")


def class_(page: Page) -> None:
    """A class at work, as its teacher sees it; the last one, for the browser is the teacher's then."""
    port = int(page.base.rsplit(":", 1)[1])
    teacher = Visitor(port).sign_up("heron")
    body = {"name": "Tuesday, first hour", "ideas": ["ratio", "idlers", "speed"], "levels": [1], "count": 9}
    made = teacher.send("POST", f"/api/workshops/{teacher.workshop()}/sets/", body).json
    for number, nickname in enumerate(NICKNAMES):
        pupil = Visitor(port)
        pupil.send("GET", "/api/session/")
        pupil.send("POST", "/api/class/joining/", {"code": made["code"], "nickname": nickname})
        for place in range(3 + number % 4):
            answer(pupil, place, wrong=(number + 2 * place) % 5 == 0)
    page.driver.delete_all_cookies()
    for name, value in teacher.cookies.items():
        page.driver.add_cookie({"name": name, "value": value})
    page.open(f"/sets/{made['id']}")
    page.find("[data-pupil=Dipper]")
    shot(page, "class")


def answer(pupil: Visitor, place: int, *, wrong: bool) -> None:
    """Answer right, or with a usual mistake."""
    shown = pupil.send("GET", f"/api/class/exercises/{place}/").json
    posed = exercise(shown["kind"], shown["level"], shown["seed"], shown["units"]).posed
    given = posed.mistakes[0].answer if wrong else posed.answer
    si = DIMENSIONS[posed.ask.dimension].si if isinstance(posed.ask, NumberAsked) else ""
    typed = f"{given:.6g} {si}" if isinstance(given, float) else given
    pupil.send("POST", f"/api/class/exercises/{place}/", {"answer": typed})


STATIONS = (
    bench,
    begin,
    line,
    options,
    fit,
    loads,
    runs,
    building,
    parts,
    tables,
    branches,
    brief,
    workshop,
    practice,
    class_,
)

if __name__ == "__main__":
    main()
