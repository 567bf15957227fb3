"""From an empty bin to an adopted option, and what goes wrong on the way."""

from __future__ import annotations

import re
from pathlib import Path
from unittest import mock

from openpyxl import load_workbook
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from server.demo.load import WORKSHOP
from server.designs.models import Vehicle
from server.parts.books import write
from server.parts.models import BinBook, Part
from server.searches import actions
from server.searches.models import Search
from tests.browser.at_work import at_work
from tests.browser.case import DRIVER, BrowserCase
from tests.browser.driving import Page

FAULTY = "kind,teeth,module [mm],price\ngear,17,1,3.5\ngear,4,1,3\nbolt,3,,\ngear,19,1 kg,4\n"
GOOD = "kind,teeth,pitch [mm],owned\npulley,18,5,2\npulley,36,5,2\n"


def write_books() -> None:
    """As a worker does."""
    for book in BinBook.objects.filter(data=None):
        write(book.pk)


class Journey(BrowserCase):
    def empty(self) -> None:
        Part.objects.filter(workshop=WORKSHOP).delete()

    def options(self, page: Page) -> None:
        self.sandpiper(page)
        page.click("nav a[href$=options]")
        page.find("[data-layouts]")

    def file(self, page: Page, text: str, name: str = "parts.csv") -> None:
        file = Path(page.profile.name) / name
        file.write_text(text)
        page.driver.find_element(By.CSS_SELECTOR, "[data-import] input[type=file]").send_keys(str(file))

    def test_from_an_empty_bin_to_an_adopted_option(self) -> None:
        self.empty()
        page = self.page()
        self.options(page)
        page.follow("[data-empty-bin] a")
        page.wait_text("main", "No gears yet")
        self.fill(page)
        page.open("/")
        page.click("[data-vehicle=Sandpiper] a")
        page.click("nav a[href$=options]")
        page.click("[data-search]:not([disabled])")
        page.wait_text("[data-headline]", "0\nof")
        page.wait_text("[data-why]", "miss pushing force")
        page.wait_text("[data-addition]", "would meet every target")
        page.wait_text("[data-nearest]", "The nearest misses")
        self.assertEqual(page.axe(), [])
        parts = Part.objects.count()
        page.click("[data-nearest] button")
        page.wait(lambda: not page.text("[data-headline]").startswith("0\n"), "something that meets all")
        self.assertEqual(Part.objects.count(), parts + 1)
        page.wait_text("[data-options]", "loads")
        page.wait_text("[data-worst-words]", "what")
        self.adopt(page)

    def fill(self, page: Page) -> None:
        """In bulk, from a list with faults and then without."""
        page.click_button("Add many gears")
        lines = page.find("#bulk")
        lines.send_keys("module 1: 15x2 16x2 18x2 fish")
        page.wait_text("[data-faults]", "fish")
        lines.send_keys(Keys.BACKSPACE * 4, "56x2 30")
        page.wait_text("[data-bulk]", "gear-30-module-1-mm")
        page.click_button("Put 5 into the bin")
        page.wait(lambda: len(page.all("tr[data-part]")) == 6, "five gears and the next row")
        page.click_button("Read a list")
        self.file(page, FAULTY)
        page.wait_text("[data-import]", "3 faults. Nothing was written")
        told = [row.text.split("\n")[0] for row in page.all("[data-faults] tbody tr")]
        self.assertEqual([line.split()[:2] for line in told], [["3", "teeth"], ["4", "kind"], ["5", "module"]])
        self.file(page, GOOD)
        page.wait_text("[data-import]", "2 new")
        page.click_button("Put them into the bin")
        page.wait(lambda: Part.objects.count() == 7, "seven parts to be saved")

    def adopt(self, page: Page) -> None:
        push, before = page.gauge("pushing_force"), self.newest()
        page.press("[role=listbox]", "p")
        page.wait_text("[data-pinned]", "option 1")
        page.press("[role=listbox]", Keys.ENTER)
        page.wait(lambda: page.gauge("pushing_force") != push, "another push")
        page.wait(lambda: page.find("[data-gauge=pushing_force]").get_attribute("data-standing") != "misses")
        page.wait_text("[data-gauge=pushing_force] [data-change]", "+")
        page.wait(lambda: self.newest() != before, "the option to be saved as a revision")
        page.click_button("Undo")
        page.wait(lambda: self.newest() == before, "the design before it")

    def test_a_part_is_typed_mended_undone_and_found_again_after_a_reload(self) -> None:
        self.empty()
        page = self.page()
        self.visit(page)
        page.open("/parts?kind=gear")
        self.type(page, "teeth of the next gear", "3")
        page.wait_text("tr.faults", "5 to 1000")
        self.type(page, "teeth of gear 3 1", "14")
        page.wait_text("tr.faults", "module")
        page.driver.refresh()
        self.type(page, "module of gear 14 1", "1")
        page.wait(lambda: Part.objects.count() == 1, "the gear to be saved")
        self.assertEqual(page.all("tr.faults"), [])
        self.type(page, "owned of gear 14 1", "3")
        page.wait(lambda: Part.objects.get().document["owned"] == 3, "three to be saved")
        page.click_button("Undo")
        page.wait(lambda: Part.objects.get().document["owned"] == 1, "one again")
        self.assertEqual(page.axe(), [])

    def type(self, page: Page, label: str, text: str) -> None:
        page.press(f"input[aria-label='{label}']", Keys.CONTROL, "a", Keys.CONTROL, text, Keys.TAB)

    def test_somebody_elses_change_is_not_overwritten(self) -> None:
        first, second = self.page(), self.page()
        for page in (first, second):
            self.visit(page)
            page.open("/parts?kind=panel")
            page.find("tr[data-part]")
        label = "owned of light panel, 5 W"
        self.type(first, label, "7")
        panel = Part.objects.filter(ref="light-panel-5-w")
        first.wait(lambda: panel.get().document["owned"] == 7, "seven to be saved")
        self.type(second, label, "8")
        second.find("[role=alertdialog]")
        self.assertEqual(panel.get().document["owned"], 7)
        second.click_button("Save yours over theirs")
        second.wait(lambda: panel.get().document["owned"] == 8, "eight to be saved")

    def test_the_lists_go_out(self) -> None:
        page = self.page()
        self.visit(page)
        page.open("/parts?kind=gear")
        page.find("tr[data-part]")
        page.driver.find_element(By.LINK_TEXT, "XLSX").click()
        file = Path(page.profile.name) / "parts.xlsx"
        with at_work(write_books):
            page.wait(file.exists, "the file")
        self.assertIn("Gears", load_workbook(file).sheetnames)


class Searching(BrowserCase):
    def test_a_long_search_shows_its_progress_and_can_be_cancelled(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("nav a[href$=options]")
        with mock.patch.object(actions, "AT_ONCE", 0):
            page.click("[data-search]:not([disabled])")
            page.wait_text("[data-progress]", "begins")
        page.click_button("Cancel")
        page.wait_text("main", "Cancelled")
        self.assertEqual(Search.objects.get().state, "cancelled")

    def test_what_a_worker_has_found_comes_by_itself(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("nav a[href$=options]")
        with mock.patch.object(actions, "AT_ONCE", 0):
            page.click("[data-search]:not([disabled])")
            page.find("[data-progress]")
        one = Search.objects.get()
        for piece in one.pieces.all():
            actions.go_through_piece(one.pk, piece.number)
        page.wait_text("[data-headline]", "meet every target")
        page.wait_text("nav", "meet all")
        page.press("[data-field-of-options] [tabindex]", Keys.ARROW_RIGHT)
        page.find("[data-chosen]")

    def test_what_goes_on_the_plate_brings_its_length_and_places_along(self) -> None:
        page = self.page()
        self.visit(page, "Sandpiper", "options")
        page.click("[data-layouts] button[aria-expanded]")
        for member, teeth in (("driver", "12-18"), ("driven", "48-64")):
            page.find(f"input[aria-label='{member} teeth, stage 1']").send_keys(teeth, "\n")
        page.wait(lambda: re.sub(r"\D", "", page.text("[data-search]")) == "15120", "the narrowed count")
        page.click("[data-search]")
        page.wait_text("[data-ways]", "16 ways, from 18")
        page.click("[data-other-ways] button")
        page.wait(lambda: len(page.all("[data-other-ways] li")) > 3, "other ways to the same")
        for words in ("only belts and chains at hand", "only what goes on this plate"):
            page.driver.find_element("xpath", f"//label[contains(., '{words}')]/input").click()
        page.wait(lambda: re.sub(r"\D", "", page.text("[data-search]")) not in ("", "15120"), "fewer of them")
        found = page.text("[data-headline]")
        page.click("[data-search]")
        page.wait(lambda: page.text("[data-headline]") != found, "what goes on the plate")
        page.click_button("Put on the bench")
        page.wait(
            lambda: (
                [s.get("belt_teeth") is not None for s in self.newest()["drive"]["branches"][0]["stages"]]
                == [False, True]
            ),
            "the length to be saved",
        )
        page.click("nav a[href$=fit]")
        page.find("[data-plan] [data-shaft='drive.branches[0].stages[1]']")
        page.wait_text("[data-clashes]", "clash")
        self.assertNotRegex(page.text("[data-clashes]"), "apart|near to the belly pan|not have")

    def test_the_question_turned_round(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("nav a[href$=options]")
        page.find("[data-search]:not([disabled])")
        page.click_button("The question turned round")
        page.click("[aria-label='Measure'] option[value=pushing_force]")
        field = page.find("[data-turned-round] input")
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys("110 N", Keys.ENTER)
        page.wait_text("[data-solved]", "and more")
        page.wait_text("[data-solved]", "14 : 56 teeth")
        self.assertEqual(page.axe(), [])


class TheLine(BrowserCase):
    def test_arrows_walk_the_bin_and_with_alt_all_sizes(self) -> None:
        Part.objects.filter(workshop=WORKSHOP, document__kind="gear", document__teeth__in=[13, 14, 17]).delete()
        page = self.page()
        self.sandpiper(page)
        page.press(DRIVER, Keys.NULL)
        page.wait_text("select[aria-label='From the bin'] option", "15")
        page.press(DRIVER, Keys.ARROW_DOWN)
        page.wait(lambda: self.teeth() == 12, "the next smaller one in the bin")
        alt = ActionChains(page.driver).key_down(Keys.ALT).send_keys(Keys.ARROW_UP).key_up(Keys.ALT)
        page.find(DRIVER)
        alt.perform()
        page.wait(lambda: self.teeth() == 13, "one tooth more")
        page.wait_text("[data-panel]", "not in the bin")

    def test_a_motor_of_the_bin_comes_with_its_controller(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.press("[aria-label='Motor and supply']", Keys.NULL)
        page.click("[aria-label='Take a motor of the bin'] option[value='48-v-motor-95-rpm-v']")
        page.wait(lambda: self.newest()["drive"]["branches"][0]["source"]["name"] == "48 V motor, 95 rpm/V")
        self.assertEqual(self.newest()["drive"]["branches"][0]["controller"]["current_limit"], "90 A")
        self.assertEqual(Vehicle.objects.filter(name="Sandpiper").count(), 1)
