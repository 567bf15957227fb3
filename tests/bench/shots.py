"""./ydro shots: one picture of each main view, from the demo, into docs/screenshots."""

from __future__ import annotations

import time
from pathlib import Path

from tests.bench.serving import demo
from tests.bench.ui import open_six_stages
from tests.browser.driving import Page

FOLDER = Path(__file__).parents[2] / "docs" / "screenshots"
SETTLE = 1.2
"""Seconds for fonts and charts; a picture cannot be waited for otherwise."""


def main() -> None:
    """Take them all."""
    FOLDER.mkdir(parents=True, exist_ok=True)
    with demo(8767) as base:
        page = Page(base)

        def shot(name: str) -> None:
            time.sleep(SETTLE)
            page.driver.save_screenshot(str(FOLDER / f"{name}.png"))

        try:
            page.visit_demo()
            page.find("[data-vehicle] svg")
            shot("bench")
            page.find("[data-vehicle=Sandpiper] a").click()
            page.find(".recharts-line path")
            shot("line")
            page.click("[data-gauge=time_to_distance] button")
            page.find("[data-working] [data-between]")
            shot("working")
            page.open("/")
            page.find("[data-vehicle=Turnstone] a").click()
            page.find(".recharts-line path")
            page.driver.execute_script("arguments[0].focus()", page.find("[aria-label='Engine and clutch']"))
            shot("line-engine")
            for tab in ("pairs", "compare"):
                page.open("/")
                page.find("[data-vehicle=Dunlin] a").click()
                page.click(f"#tab-{tab}")
                page.find("[data-pairs] td, [data-revision='1']")
                for entry in page.all("[data-revision='1'] input, [data-compare] label:first-of-type > input")[:2]:
                    entry.click()
                page.driver.execute_script("document.querySelector('main').scrollTo(0, 330)")
                shot(tab)
            open_six_stages(page)
            page.find(".recharts-line path")
            shot("line-branches")
            page.open("/")
            page.find("[data-vehicle=Dunlin] a").click()
            page.find("nav a[href$=brief]").click()
            page.find("[data-target=top_speed]")
            page.find("[data-band]")
            shot("brief")
        finally:
            page.close()


if __name__ == "__main__":
    main()
