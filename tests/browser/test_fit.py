"""Fit as a builder goes through it: the clash seen and solved, shafts moved by hand and key, spacers, templates."""

from __future__ import annotations

import io
import re
from pathlib import Path
from typing import Any

from ezdxf import recover
from pypdfium2 import PdfDocument
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.case import BrowserCase
from tests.browser.driving import Page

AXLE = "[data-shaft='drive.stages[0]']"
JACK = "[data-shaft='drive.branches[0].stages[0]']"
MOTOR = "[data-shaft='drive.branches[0].source']"


class Fit(BrowserCase):
    def fit(self, page: Page, vehicle: str = "Sandpiper") -> None:
        self.visit(page, vehicle, "fit")
        page.find("[data-plan] [data-shaft]")

    def shafts(self) -> dict[str, Any]:
        return {entry["shaft"]: entry for entry in self.newest()["fit"]["shafts"]}

    def tab(self, page: Page, words: str) -> None:
        path = f"//*[@role='tablist'][@aria-label='Fit']//button[.='{words}']"
        page.driver.find_element(By.XPATH, path).click()

    def test_the_clash_is_told_and_another_length_solves_it(self) -> None:
        page = self.page()
        self.fit(page)
        page.wait_text("[data-clashes='1']", "belt of 84 teeth: too short by 4.43 mm")
        page.wait_text("nav", "1 clash")
        self.assertEqual(page.axe(), [])
        self.tab(page, "Ways to place it")
        page.click("[data-find-places]")
        page.wait_text("[data-help]", "another length: 80 teeth")
        page.click("[data-help] button")
        page.wait_text("[data-clashes='0']", "Goes together")
        page.wait_text("nav", "no clash")
        page.wait(lambda: self.newest()["drive"]["stages"][0]["belt_teeth"] == 80, "the length to be saved")
        # The Line knows as well, and undo takes all of it back at once.
        page.click_button("Undo")
        page.find("[data-clashes='1']")
        page.click("nav a[href$=line]")
        page.wait_text("[data-chip-clash]", "fit")

    def test_shafts_walk_from_hole_to_hole_and_are_dragged(self) -> None:
        page = self.page()
        self.fit(page)
        page.press(AXLE, Keys.ARROW_LEFT)
        page.wait_text("[data-clashes] ol", "132.00 mm apart")
        page.press(AXLE, Keys.SHIFT + Keys.ARROW_LEFT)
        page.wait_text("[data-clashes] ol", "0.10 mm off the nearest hole")
        page.wait(lambda: self.shafts()["drive.stages[0]"]["at"] == ["251.9 mm", "48 mm"], "the place to be saved")
        grip = page.find(AXLE)
        before = grip.location["y"]
        ActionChains(page.driver).click_and_hold(grip).move_by_offset(0, -30).move_by_offset(0, -30).release().perform()
        page.wait(lambda: page.find(AXLE).location["y"] < before - 20, "the shaft to follow")
        at = page.wait(lambda: (found := self.shafts()["drive.stages[0]"]["at"])[1] != "48 mm" and found, "a new hole")
        self.assertTrue(all(float(place.split()[0]) % 12 == 0 for place in at), at)
        page.click_button("Undo")
        page.wait(lambda: self.shafts()["drive.stages[0]"]["at"][1] == "48 mm", "the drag to be undone as one")

    def test_the_lines_selection_carries_over_and_a_slot_shows_where_it_stands(self) -> None:
        page = self.page()
        self.fit(page)
        page.find("[data-shaft-panel='drive.branches[0].source'] [data-slot-travel]")
        page.wait_text("[data-slot-travel]", "10.45 mm from start")
        page.wait_text("[data-numbers]", "paper strip that leaves it")
        page.wait_text("[data-choices]", "15 teeth")
        page.press(JACK, "t")
        page.wait_text("[data-plan-table]", "shaft of the 56-tooth gear")
        page.click("nav a[href$=line]")
        page.find("[data-stop='drive.branches[0].stages[0] driven']")

    def test_one_key_fills_the_gaps_along_a_shaft(self) -> None:
        page = self.page()
        self.fit(page)
        page.press(JACK, "")
        self.tab(page, "Section along the shaft")
        page.wait_text("[data-section]", "Gap of 7.5 mm where it is widest")
        page.press(JACK, "f")
        page.wait_text("[data-section]", "Full: nothing moves along the shaft")
        items = page.wait(
            lambda: len(found := self.shafts()["drive.branches[0].stages[0]"]["stack"]["items"]) > 4 and found,
            "the spacers to be saved",
        )
        self.assertEqual([item["width"] for item in items if item.get("spacer")], ["5 mm", "2 mm", "0.5 mm", "0.5 mm"])

    def test_a_slot_too_short_to_put_the_belt_on_is_told_until_the_longer_belt_is_taken(self) -> None:
        page = self.page()
        self.fit(page, "Turnstone")
        page.wait_text("[data-clashes='1']", "of the slot left to put it on")
        page.type_into("belt length", "950 mm")
        page.wait_text("[data-clashes='0']", "Goes together")

    def test_from_no_plate_to_a_template(self) -> None:
        page = self.page()
        self.visit(page)
        page.click("a[href$='/new']")
        page.click("[data-start=empty]")
        page.type_into("Name", "Plover")
        page.click("[data-begin]")
        page.click("nav a[href$=fit]")
        page.click("[data-no-plate] button")
        page.wait_text("nav", "clash")
        self.tab(page, "Plate and frame")
        page.type_into("holes across", "10")
        page.type_into("holes up", "6")
        self.tab(page, "Templates")
        folder = Path(page.profile.name)
        files = {s: folder / f"plover-plate.{s}" for s in ("dxf", "svg", "pdf")}
        for suffix, file in files.items():
            page.click(f"[data-template={suffix}]")
            page.wait_text("[data-made]", f"{file.name}: 60 holes")
            # Where drawing took long, the browser wants to be asked again.
            page.click(f"[data-save='{file.name}']")
        page.wait(lambda: all(file.exists() for file in files.values()), "three files")
        document, _ = recover.read(io.BytesIO(files["dxf"].read_bytes()))
        holes = [e for e in document.modelspace() if e.dxf.layer == "HOLES"]
        self.assertEqual(len(holes), 60)
        self.assertRegex(files["svg"].read_text(), re.compile(r'width="[\d.]+mm"'))
        self.assertEqual(len(PdfDocument(files["pdf"])), 1)

    def test_measuring_from_shaft_to_shaft(self) -> None:
        page = self.page()
        self.fit(page)
        page.click_button("Measure")
        page.find("[data-measure]")
        places = [page.find(css).rect for css in (JACK, AXLE)]
        for place in places:
            self.click_at(page, place["x"] + place["width"] / 2, place["y"] + place["height"] / 2)
        page.wait_text("[data-plan]", "144 mm")

    def click_at(self, page: Page, x: float, y: float) -> None:
        for kind in ("mousePressed", "mouseReleased"):
            at = {"type": kind, "x": x, "y": y, "button": "left", "clickCount": 1}
            page.driver.execute_cdp_cmd("Input.dispatchMouseEvent", at)

    def test_dark_and_narrow_without_violations(self) -> None:
        page = self.page()
        self.fit(page, "Dunlin")
        page.size(390, 844)
        page.find("[data-plan] [data-shaft]")
        self.assertEqual(page.axe(), [])
        page.size(1280, 800)
        for words in ("Section along the shaft", "Plate and frame", "Templates"):
            self.tab(page, words)
            self.assertEqual(page.axe(), [], words)
