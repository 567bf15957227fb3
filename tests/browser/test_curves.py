"""The charts of the Line and what stands in their place: one cursor, a picked moment, tables, comparison."""

from __future__ import annotations

import time
from pathlib import Path

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.case import DRIVER, BrowserCase
from tests.browser.driving import Page


class Curves(BrowserCase):
    def test_one_cursor_runs_through_all_and_picks_a_moment(self) -> None:
        page = self.page(1280, 1100)
        self.sandpiper(page)
        page.wait(lambda: len(page.all("[data-cursor]")) == 3, "three charts")
        run = page.all("[data-cursor=time]")[0]
        ActionChains(page.driver).move_to_element_with_offset(run, -40, 0).perform()
        page.wait(lambda: len(page.all("[data-cursor] .hairline")) == 3, "the cursor in all three")
        run.click()
        page.wait(lambda: "m/s" in page.text("[aria-label^='Moment'] option:checked"), "the picked moment")
        before = page.text("[data-shaft='0']")
        force = page.find("[data-cursor=speed]")
        page.driver.execute_script("arguments[0].focus()", force)
        force.send_keys(Keys.PAGE_UP, Keys.PAGE_UP, Keys.ENTER)
        page.wait(lambda: page.text("[data-shaft='0']") != before, "the figures at another moment")

    def test_a_chart_as_a_table(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.wait(lambda: len(page.all("[data-chart]")) == 3, "three charts")
        page.click("section[aria-label^=Force] button")
        page.wait_text("section[aria-label^=Force] table", "resistance")
        self.assertGreater(len(page.all("section[aria-label^=Force] tbody tr")), 10)


class Lower(BrowserCase):
    def tab(self, page: Page, name: str) -> None:
        page.click(f"#tab-{name}")

    def test_the_table_of_pairs_takes_one_and_is_saved(self) -> None:
        page = self.page()
        self.sandpiper(page)
        self.tab(page, "pairs")
        page.wait(lambda: len(page.all("[data-pairs] td")) == 81, "nine by nine pairs")
        page.wait_text("[data-pairs] td[aria-current]", "7.47")
        page.click_button("Save as CSV")
        saved = Path(page.profile.name) / "pairs.csv"
        page.wait(saved.exists, "the file")
        self.assertIn("15,56,7.46667", saved.read_text())
        page.click("[data-pair='14 56']")
        page.wait(lambda: self.teeth() == 14, "the pair to be taken")

    def test_turned_down_or_geared(self) -> None:
        page = self.page()
        self.sandpiper(page)
        self.tab(page, "ways")
        page.wait_text("[data-ways]", "Turned down in software")
        page.wait_text("[data-ways]", "Nearest with one wheel")
        page.type_into("Compare at a top speed of", "5")
        page.wait_text("[data-ways] h2", "5.00 m/s")
        page.type_into("Compare at a top speed of", "quick")
        page.wait_text("[data-ways] [role=alert]", "give")

    def test_a_revision_is_kept_compared_and_put_back(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.find(DRIVER).send_keys(Keys.ARROW_DOWN)
        page.wait(lambda: self.teeth() == 14, "the change to be saved")
        self.tab(page, "compare")
        page.wait_text("[data-save]", "saved")
        page.find("[aria-label='Name of this state']").send_keys("One tooth less", Keys.ENTER)
        page.wait_text("[data-revisions]", "driver gear 15 → 14")
        first = page.find("[data-revision='1'] input")
        first.click()
        page.wait(lambda: len(page.all("[data-compare] thead th")) == 2, "two columns")
        page.wait_text("[data-compare] table", "driver gear 14 →")
        page.click("[aria-label='Put on the bench: As first built']")
        page.wait(lambda: self.teeth() != 14, "the first one to be back")

    def test_the_speed_clocked_with_the_mark(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.find(DRIVER).send_keys("m", Keys.ARROW_UP)
        page.wait_text("[data-labels]", "16")
        page.type_into("Clocked with the mark", "9")
        page.wait_text("[data-clocked]", "9.60 m/s")

    def test_a_phone_can_read_it_all(self) -> None:
        page = self.page(390, 844)
        self.sandpiper(page)
        time.sleep(0.5)
        wide = page.driver.execute_script("return document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 392)
        more = page.find("[aria-label='One tooth more']").size
        self.assertGreaterEqual(min(more["width"], more["height"]), 44)
        for name in ("pairs", "ways", "compare"):
            self.tab(page, name)
            time.sleep(0.3)
            self.assertLessEqual(page.driver.execute_script("return document.documentElement.scrollWidth"), 392)
