"""Loads as a builder goes through it: what is over, what would settle the rest, the day and its heat."""

from __future__ import annotations

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.support.ui import Select

from tests.browser.case import BrowserCase


class Loads(BrowserCase):
    def test_from_the_sentence_to_a_day_of_ones_own(self) -> None:
        page = self.page()
        self.visit(page, "Sandpiper")
        page.wait_text("nav a[href$=loads]", "%")
        page.click("nav a[href$=loads]")
        page.wait_text("[data-sentence]", "presses its flanks")
        page.wait_text("[data-turn]", "turns on the spot")
        self.assertEqual(page.axe(), [])
        page.wait_text("[data-part='toothed belt'] [data-use]", "148 %")
        page.click("[data-part='toothed belt']")
        page.wait_text("[data-check=belt_jump]", "65.6 N of 44.2 N")
        page.wait_text("[data-help]", "tension 69 N: 0.96")
        page.find("[data-part='toothed belt']").send_keys("1")
        page.wait_text("[data-check=belt_jump]", "65.6 N of 68.2 N")
        page.wait(lambda: page.all("[data-part='toothed belt'] [data-mark]"), "the mark that was set")
        page.click_button("Undo")
        page.wait_text("[data-part='toothed belt'] [data-use]", "148 %")
        page.click("[data-check=belt_jump] [data-ask]")
        page.wait_text("[data-working]", "what the slack run loses")
        page.wait_text("[data-working] [data-value]", "148 %")
        page.click("[aria-label='Close the working']")
        page.wait(lambda: not page.all("[data-working]"), "the working to close")
        page.find("[data-bars] button").send_keys("t")
        page.wait_text("[data-loads-table]", "over its limit")
        Select(page.find("select[aria-label=Moment]")).select_by_visible_text("top speed")
        page.wait(lambda: page.text("[data-part='toothed belt'] [data-use]") != "148 %", "the uses at top speed")

    def test_what_is_not_known_is_settled_on_the_spot(self) -> None:
        page = self.page()
        self.visit(page, "Knot", "loads")
        page.wait_text("[data-sentence]", "warms its winding")
        page.wait_text("[data-rest]", "more rest between heats is needed")
        page.wait_text("[data-part=controller]", "wants peak current")
        page.click("[data-part=controller]")
        page.wait(
            lambda: "not given" in (page.driver.switch_to.active_element.get_attribute("placeholder") or ""),
            "the field that settles it under the hand",
        )
        page.type_into("peak current", "8 A")
        page.wait_text("[data-part=controller] [data-use]", "%")
        page.click("nav a[href$=line]")
        page.wait(lambda: page.all("[data-chip-load=near]"), "how its gears stand, in the strip of the Line")
        page.click("nav a[href$=loads]")

    def test_turning_on_the_spot_is_told_where_the_line_is_made(self) -> None:
        page = self.page()
        self.visit(page, "Sandpiper")
        for station, place in (("line", "[role=note]"), ("brief", "[data-cautions]")):
            page.click(f"nav a[href$={station}]")
            page.wait_text(place, "Turning on the spot draws")

    def test_a_day_is_stretched_typed_and_a_target_asks_for_it(self) -> None:
        page = self.page()
        self.visit(page, "Knot", "brief")
        Select(page.find("[aria-label='Add a target']")).select_by_visible_text("Let the winding get to … over the day")
        page.wait_text("[data-readout]", "Hottest winding of the day")
        page.click("nav a[href$=loads]")
        page.wait_text("[data-phase=rest] [data-lasts]", "2 min")
        edge = page.find("[data-edge='2']")
        ActionChains(page.driver).drag_and_drop_by_offset(edge, 60, 0).perform()
        page.wait(lambda: page.text("[data-phase=rest] [data-lasts]") != "2 min", "a longer rest")
        page.click_button("Undo")
        page.wait_text("[data-phase=rest] [data-lasts]", "2 min")
        page.click("[data-phase=shove] button")
        page.type_into("for", "5 s")
        page.wait_text("[data-phase=shove] [data-lasts]", "5 s")
        rest = len(page.all("[data-phase]"))
        page.click_button("Add a block")
        page.wait(lambda: len(page.all("[data-phase]")) == rest + 1, "another block")
        page.click_button("Undo")
        page.wait(lambda: len(page.all("[data-phase]")) == rest, "the block to go")

    def test_on_a_phone(self) -> None:
        page = self.page(390, 844)
        self.visit(page, "Dunlin", "loads")
        page.wait_text("[data-sentence]", "distance in which it has to stop")
        self.assertEqual(page.axe(), [])
        width = page.driver.execute_script("return document.documentElement.scrollWidth")
        self.assertLessEqual(width, 390)
