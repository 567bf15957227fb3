"""The Line, used as a builder uses it."""

from selenium.webdriver.common.keys import Keys

from tests.browser.case import DRIVER, BrowserCase
from tests.browser.driving import Page


class Line(BrowserCase):
    def standing(self, page: Page, measure: str) -> str:
        return str(page.find(f"[data-gauge={measure}]").get_attribute("data-standing"))

    def test_one_tooth_less_meets_the_push_and_stays_tomorrow(self) -> None:
        page = self.page()
        self.sandpiper(page)
        self.assertEqual(self.standing(page, "pushing_force"), "misses")
        before = page.find("[data-labels]").text, page.gauge("top_speed")
        circle = page.find(DRIVER).get_attribute("r")
        page.find(DRIVER).send_keys(Keys.ARROW_DOWN)
        page.wait(lambda: self.standing(page, "pushing_force") == "tight", "the push to be met")
        self.assertNotEqual((page.find("[data-labels]").text, page.gauge("top_speed")), before)
        self.assertLess(float(page.find(DRIVER).get_attribute("r") or 0), float(circle or 0))
        self.assertEqual(page.find("[data-teeth]").get_attribute("value"), "14")
        page.wait_text("[data-save]", "saved")
        page.wait(lambda: self.teeth() == 14, "the revision to be written")
        page.driver.refresh()
        page.wait_text("[data-labels]", "14")
        self.assertEqual(self.standing(page, "pushing_force"), "tight")
        self.assertEqual(page.complaints(), [])

    def test_undo_redo_and_typing(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.type_into("Teeth", "20")
        page.wait_text("[data-labels]", "20")
        page.click_button("Undo")
        page.wait_text("[data-labels]", "15")
        page.find("body").send_keys(Keys.CONTROL, Keys.SHIFT, "z")
        page.wait_text("[data-labels]", "20")

    def test_nonsense_is_told_kept_and_not_saved(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.type_into("Teeth", "many")
        page.wait_text("[data-panel] [role=alert]", "give a whole number from 5 to 1000")
        self.assertEqual(page.find("[data-teeth]").get_attribute("value"), "many")
        page.wait_text("[data-save]", "not saved yet")
        page.driver.refresh()
        # The figures are those of the last design that could be read; what was typed is still there.
        page.wait_text("[data-panel] [role=alert]", "give a whole number from 5 to 1000")
        self.assertEqual(page.find("[data-teeth]").get_attribute("value"), "many")
        self.assertEqual(self.teeth(), 15)

    def test_the_sweep_shows_sizes_around_and_takes_one(self) -> None:
        page = self.page()
        self.sandpiper(page)
        sizes = [str(teeth) for teeth in range(9, 22)]
        page.wait(lambda: [cell.text for cell in page.all("[data-sweep] thead th")][1:] == sizes, "thirteen sizes")
        page.click("[aria-label='Take 14 teeth']")
        page.wait_text("[data-labels]", "14")
        page.wait(lambda: page.all("[data-sweep] thead th")[7].text == "14", "the sweep to move along")

    def test_the_mark_keeps_the_old_beside_the_new(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.find(DRIVER).send_keys("m")
        page.find("[data-mark]")
        page.find(DRIVER).send_keys(Keys.ARROW_UP)
        page.wait_text("[data-gauge=pushing_force] [data-change]", "−")
        page.wait_text("[data-gauge=top_speed] [data-change]", "+")
        page.wait_text("[data-chart^=Force]", "mark")
        page.click_button("Drop it")
        page.wait(lambda: not page.all("[data-mark]"), "the mark to go")

    def test_tab_walks_from_wheel_to_wheel(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.driver.execute_script("arguments[0].focus()", page.find("[aria-label='Motor and supply']"))
        walked = []
        for _ in range(4):
            page.driver.switch_to.active_element.send_keys(Keys.TAB)
            walked.append(page.driver.switch_to.active_element.get_attribute("aria-label"))
        self.assertEqual(walked, ["driver gear", "driven gear", "driver pulley", "driven pulley"])
        page.wait_text("[data-panel] h2", page.driver.switch_to.active_element.get_attribute("aria-label") or "")

    def test_the_charts_are_drawn_at_size(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.wait(lambda: len(page.all("[data-series]")) >= 7, "seven lines in three charts")
        widths = "return [...document.querySelectorAll('[data-series]')].map(p => p.getBoundingClientRect().width)"
        page.wait(lambda: min(page.driver.execute_script(widths)) > 100, "lines of a size that can be seen")

    def test_motor_stage_and_supply_are_edited_beside_the_drawing(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.driver.execute_script("arguments[0].focus()", page.find("[aria-label='Motor and supply']"))
        page.type_into("Controller's current limit", "30")
        page.wait(lambda: self.standing(page, "pushing_force") != "misses", "more current to push harder")
        page.wait(lambda: self.newest()["drive"]["branches"][0]["controller"]["current_limit"] == "30 A")
        page.driver.execute_script("arguments[0].focus()", page.find(DRIVER))
        page.click("[aria-label='Add a stage after this'] option[value=chain]")
        page.wait_text("[data-panel] h2", "Roller chain")
        page.wait(lambda: len(page.all("[data-shaft]")) == 4, "one more shaft")
        page.click_button("Remove this stage")
        page.wait(lambda: len(page.all("[data-shaft]")) == 3, "the shaft to go")

    def test_backwards_is_told_and_mended(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("[aria-label='Add a stage after this'] option[value=gear]")
        page.wait_text("[data-turning]", "would run backwards")
        page.click("[data-turning] [aria-label^='Do this: Swap two leads']")
        page.wait(lambda: not page.all("[data-turning]"), "it to run forwards")
