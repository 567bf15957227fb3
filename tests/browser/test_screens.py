"""Bench, Brief, accounts and small screens."""

from __future__ import annotations

import json
from pathlib import Path

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from server.archive.models import Archive, ArchiveState
from server.archive.work import work
from server.demo.load import WORKSHOP
from server.designs.models import Vehicle
from tests.browser.at_work import at_work
from tests.browser.case import DRIVER, BrowserCase
from tests.browser.driving import Page
from tests.core.designs import PLAIN, changed
from tests.server.people import PASSWORD


def work_on_archives() -> None:
    """As a worker does."""
    for archive in Archive.objects.filter(state__in=(ArchiveState.WAITING, ArchiveState.WORKING)):
        work(archive.pk)


class Bench(BrowserCase):
    def test_a_new_user_from_empty_bench_to_figures(self) -> None:
        page = self.page()
        page.open("/")
        page.click_button("I am new here")
        page.find("#entry-name").send_keys("newcomer")
        page.find("#entry-password").send_keys("1234")
        page.click_button("Make the account")
        page.wait_text("#entry-password-complaint", "too short")
        page.find("#entry-password").clear()
        page.find("#entry-password").send_keys(PASSWORD)
        page.click_button("Make the account")
        page.wait_text("main", "The bench is empty")
        page.find("[data-start=sled] svg")
        self.assertEqual(page.axe(), [])
        page.click("[data-start=board]")
        self.begin_with_a_label(page)
        self.check_what_matters_most(page)
        page.click("header a[href='/']")
        page.find("[data-from-demo]")
        page.click_button("Knot")
        page.wait_text("header h1", "Knot")
        page.wait(lambda: page.gauge("top_speed"), "the demo's Knot on a bench of one's own")
        page.click_button("Sign out")
        page.button("Sign in")

    def begin_with_a_label(self, page: Page) -> None:
        """The few questions, one answer of which cannot be read at first."""
        page.type_into("Name", "Plover")
        page.type_into("Mass, all of it", "85")
        Select(page.find("[data-field=Motor] select")).select_by_visible_text("I only know the label")
        page.type_into("Speed constant on its label", "fast")
        self.assertEqual(page.axe(), [])
        page.click("[data-begin]")
        page.wait_text("[data-field='Speed constant on its label'] [role=alert]", "a speed constant such as")
        page.type_into("Speed constant on its label", "170")
        page.click("[data-begin]")
        page.wait_text("header h1", "Plover")
        page.wait(lambda: page.gauge("top_speed"), "figures")

    def check_what_matters_most(self, page: Page) -> None:
        """From the list of assumed values to a field, whose typical values are taken by one key."""
        page.wait_text("[data-check-first]", "check first the grip")
        page.click("[data-check-first] button")
        page.click("[data-guess='vehicle.rolling_resistance'] button")
        page.wait_text("[data-typical]", "polyurethane wheel on dry asphalt")
        page.driver.switch_to.active_element.send_keys(Keys.ARROW_DOWN)
        page.driver.switch_to.active_element.send_keys(Keys.ARROW_DOWN)
        page.wait_text("[data-path='vehicle.rolling_resistance']", "typical of air-filled tyre on dry asphalt")
        self.assertEqual(page.axe(), [])
        page.wait(lambda: "Plover, Brief" in page.driver.title, "the window to say what it shows")

    def test_a_design_goes_out_as_a_file_and_comes_in_again(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click_button("Export")
        file = Path(page.profile.name) / "sandpiper.json"
        page.wait(file.exists, "the file")
        self.assertEqual(json.loads(file.read_text()), self.newest())
        copy = file.with_name("copy.json")
        copy.write_text(json.dumps({**self.newest(), "name": "Sandpiper again"}))
        page.open("/")
        page.find("[data-vehicle]")
        page.driver.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(copy))
        page.wait_text("header h1", "Sandpiper again")
        self.assertEqual(Vehicle.objects.filter(name="Sandpiper again").count(), 1)

    def beginning(self, page: Page, address: str) -> str:
        """Of what stands at an address the first five characters."""
        fetched = "fetch(arguments[0]).then(r => r.text()).then(t => arguments[1](t.slice(0, 5)))"
        return str(page.driver.execute_async_script(fetched, address))

    def test_a_workshop_goes_out_as_a_file_and_comes_in_as_another(self) -> None:
        page = self.page()
        self.visit(page)
        page.open(f"/workshops/{WORKSHOP}")
        with at_work(work_on_archives):
            page.click_button("Save the archive")
            file = Path(page.profile.name) / "Saltmarsh Workshop.zip"
            page.wait(file.exists, "the archive")
            page.find("[aria-label='Archive file']").send_keys(str(file))
            page.wait(lambda: len(page.all("[aria-label=Workshop] option")) == 2, "a second workshop to stand at")
        page.wait(lambda: len(page.all("[data-vehicle]")) == 5, "its vehicles")
        page.click("[data-vehicle=Dunlin] a")
        sheet = str(page.find("header a[href*=sheet]").get_attribute("href"))
        page.wait(lambda: self.beginning(page, sheet) == "%PDF-", "the sheet, once the server has room for it")

    def test_a_faulty_file_is_told_line_by_line(self) -> None:
        page = self.page()
        self.visit(page)
        file = Path(page.profile.name) / "faulty.json"
        file.write_text(json.dumps(changed({"vehicle.mass": "much", "vehicle.driven": "sideways"}, PLAIN)))
        page.driver.find_element(By.CSS_SELECTOR, "input[type=file]").send_keys(str(file))
        page.wait_text("[role=alert]", "vehicle.mass")
        page.wait_text("[role=alert]", "vehicle.driven")

    def test_a_copy_is_made_and_a_vehicle_put_away_and_back(self) -> None:
        page = self.page()
        self.visit(page)
        page.click("[aria-label='More for Knot']")
        page.click("[data-value='copy 5a17a45b-0000-4000-8000-00000000d3a0']")
        page.wait_text("header h1", "Knot, copy")
        page.click("header a[href='/']")
        page.wait(lambda: len(page.all("[data-vehicle]")) == 6, "the copy on the bench")
        page.click("[aria-label='More for Knot']")
        page.find("[role=menu]")
        self.assertEqual(page.axe(), [])
        page.click("[data-value=away]")
        page.wait(lambda: len(page.all("[data-vehicle]")) == 5, "Knot to go")
        page.click("[data-drawer] summary")
        page.click("[aria-label='Take back: Knot']")
        page.wait(lambda: not Vehicle.objects.filter(put_away=True).exists(), "Knot to come back")


class Brief(BrowserCase):
    def test_units_as_people_type_them(self) -> None:
        page = self.page()
        self.sandpiper(page, "brief")
        page.type_into("Rolling diameter, loaded", "3 1/2 in")
        page.wait_text("[data-field='Rolling diameter, loaded']", "88.9 mm")
        page.wait(lambda: self.newest()["vehicle"]["wheel_diameter"] == "3 1/2 in", "it to be kept as typed")
        page.type_into("Mass, battery in", "15")
        page.wait(lambda: self.newest()["vehicle"]["mass"] == "15 kg", "the unit on display to be added")
        page.click("[aria-label^='Units: metric']")
        page.wait_text("[data-gauge=top_speed]", "mph")
        page.wait_text("[data-field='Mass, battery in']", "33.1 lb")

    def test_nonsense_is_told_at_its_field(self) -> None:
        page = self.page()
        self.sandpiper(page, "brief")
        page.type_into("Mass, battery in", "heavy")
        page.wait_text("[data-field='Mass, battery in'] [role=alert]", "a mass such as 12.5 kg")
        self.assertEqual(self.newest()["vehicle"]["mass"]["value"], "14.2 kg")

    def test_a_sentence_is_changed_added_and_taken_out(self) -> None:
        page = self.page()
        self.sandpiper(page, "brief")
        page.type_into("Push at a wall, at least", "90 N")
        page.wait(
            lambda: page.find("[data-gauge=pushing_force]").get_attribute("data-standing") == "holds",
            "the push to hold",
        )
        page.click("[aria-label='Add a target'] option[value=stopping_distance]")
        page.find("[data-target=stopping_distance]")
        page.click("[aria-label='Take out: Stopping distance']")
        page.wait(lambda: not page.all("[data-target=stopping_distance]"), "the sentence to go")


class ForEverybody(BrowserCase):
    def axe(self, width: int, height: int) -> None:
        page = self.page(width, height)
        page.open("/")
        page.button("Visit the Saltmarsh Workshop")
        found = {"sign in": page.axe()}
        page.visit_demo()
        page.find("[data-vehicle] svg")
        page.wait_text("[data-vehicle=Knot] [data-last-run]", "off by")
        found["bench"] = page.axe()
        page.click("[data-vehicle=Sandpiper] a")
        page.find(DRIVER)
        page.find("[data-series]")
        for colours in ("light", "dark"):
            found[f"line, {colours}"] = page.axe()
            page.click_button("Find")
            page.find("[data-finder] input").send_keys("colours\n")
            page.wait(lambda: not page.all("[data-finder]"), "the search to go")
        page.find(DRIVER).send_keys("mt")
        page.find("[data-line-table]")
        page.click("[data-panel] button[aria-expanded]")
        page.wait_text("[data-swap]", "0.268")
        found["table and swap"] = page.axe()
        for tab, ready in (("pairs", "td"), ("ways", "td"), ("compare", "td")):
            page.click(f"#tab-{tab}")
            page.find(f"#lower {ready}")
            found[tab] = page.axe()
        page.find(DRIVER).send_keys("?")
        page.find("[data-keys]")
        found["keys"] = page.axe()
        page.click_button("Close")
        page.wait(lambda: not page.all("[data-keys]"), "the list of keys to go")
        page.driver.execute_script("arguments[0].focus()", page.find("[aria-label='Motor and supply']"))
        page.wait_text("[data-panel] h2", "Motor and supply")
        found["motor"] = page.axe()
        page.click("nav a[href$=brief]")
        page.find("[data-target=top_speed]")
        found["brief"] = page.axe()
        page.click("nav a[href$=options]")
        page.find("[data-search]:not([disabled])")
        found["options"] = page.axe()
        page.open("/parts?kind=gear")
        page.find("tr[data-part]")
        found["parts"] = page.axe()
        for address in ("/account", f"/workshops/{Vehicle.objects.all()[0].workshop_id}"):
            page.open(address)
            page.find("main h1")
            found[address] = page.axe()
        expected = {
            screen: [f"{v['id']}: {v['nodes'][0]['html'][:160]}" for v in violations]
            for screen, violations in found.items()
            if violations
        }
        self.assertEqual(expected, {})

    def test_axe_finds_nothing_at_1280(self) -> None:
        self.axe(1280, 800)

    def test_axe_finds_nothing_at_390(self) -> None:
        self.axe(390, 844)

    def test_a_phone_shows_the_readout_and_nothing_is_wider_than_it(self) -> None:
        page = self.page(390, 844)
        self.sandpiper(page)
        self.assertTrue(page.find("[data-readout]").is_displayed())
        page.click("[aria-label='One tooth less']")
        page.wait_text("[data-labels]", "14")
        wide = page.driver.execute_script("return document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)
