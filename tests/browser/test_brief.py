"""Side view, measuring aids, doubts, workings and sources, as somebody at the bench uses them."""

from __future__ import annotations

from functools import partial
from typing import Any

from selenium.webdriver.common.keys import Keys

from server.designs.models import Revision
from tests.browser.case import BODY, BrowserCase
from tests.browser.driving import Page

ENGINE = "[aria-label='Engine and clutch']"


class Working(BrowserCase):
    def test_every_value_can_be_asked_where_it_comes_from(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("[data-gauge=top_speed] button")
        page.find("[data-working=top_speed] [data-between]")
        body = page.text("[data-working]")
        for words in ("Plain estimate", "friction in the stages", "measured: rolled 3 turns, 1178 mm", "assumed"):
            self.assertIn(words, body)
        self.assertEqual(page.axe(), [])
        page.click("[aria-label='Another number'] option[value=pushing_force]")
        page.wait_text("[data-working=pushing_force]", "104 N")
        page.find("[data-working]").send_keys(Keys.ESCAPE)
        page.wait(lambda: not page.all("[data-working]"), "the drawer to close")


class Vehicle(BrowserCase):
    def test_wheels_and_centre_of_mass_on_the_side_view(self) -> None:
        page = self.page()
        self.sandpiper(page, "brief")
        page.click("[aria-label='front wheels, driven']")
        page.find("[aria-label='front wheels, not driven']")
        page.wait(lambda: self.newest()["vehicle"]["driven"] == "rear", "rear drive to be saved")
        handle = page.find("[aria-label^='Centre of mass']")
        page.driver.execute_script("arguments[0].focus()", handle)
        handle.send_keys(Keys.SHIFT, Keys.ARROW_RIGHT)
        page.wait(lambda: self.newest()["vehicle"]["cg_ahead_of_rear"] not in ("200 mm", ""), "the mass to move")
        page.click_button("Undo")
        page.wait(lambda: self.newest()["vehicle"]["cg_ahead_of_rear"] == "200 mm", "it to move back")

    def test_a_measured_value_is_kept_with_how_it_was_measured(self) -> None:
        page = self.page()
        self.sandpiper(page, "brief")
        page.click("[aria-label='Measure a value'] option[value=rolled_distance]")
        for placeholder, text in (("1178 mm", "1200 mm"), ("3", "3")):
            page.find(f"[data-aid] input[placeholder='{placeholder}']").send_keys(text)
        page.wait_text("[data-found]", "127 mm")
        page.click_button("Use as rolling diameter")
        page.wait_text("[data-field='Rolling diameter, loaded']", "rolled 3 turns, 1200 mm")
        page.wait(lambda: self.newest()["vehicle"]["wheel_diameter"]["origin"] == "measured", "it to be saved")

    def test_what_is_worth_measuring_first(self) -> None:
        page = self.page()
        self.sandpiper(page, "brief")
        page.wait_text("[data-doubts]", "Measure the")
        page.wait(lambda: page.all("[data-band]"), "bands at the gauges")
        page.click("[data-doubts] input")
        page.wait(lambda: "Measure the" not in page.text("[data-doubts]"), "the doubt to be left out")


class Source(BrowserCase):
    def open(self, page: Page, name: str) -> None:
        self.visit(page, name)
        page.find("[data-drawing]")

    def drive(self, name: str) -> Any:
        return Revision.objects.filter(vehicle__name=name).order_by("-number")[0].document["drive"]

    def holds(self, kind: str) -> bool:
        return f"'{kind}'" in str(self.newest()["drive"])

    def choose(self, page: Page, css: str) -> None:
        page.driver.execute_script("arguments[0].focus()", page.find(css))

    def test_an_engine_by_its_points_moved_and_typed(self) -> None:
        page = self.page()
        self.open(page, "Turnstone")
        self.choose(page, ENGINE)
        point = page.find("[aria-label^='Point 1']")
        page.driver.execute_script("arguments[0].focus()", point)
        point.send_keys(Keys.ARROW_UP)
        source = lambda: self.drive("Turnstone")["branches"][0]["source"]["torque_curve"]  # noqa: E731
        page.wait(lambda: source()[0][1] != "7.4 N*m", "the point to move")
        field = page.find("[data-panel] textarea")
        field.clear()
        field.send_keys("1600 7\n3600 8\n3900 0", Keys.TAB)
        page.wait(lambda: source() == [["1600 rpm", "7 N*m"], ["3600 rpm", "8 N*m"], ["3900 rpm", "0 N*m"]], "points")

    def test_a_motor_becomes_an_engine_and_the_supply_goes(self) -> None:
        page = self.page()
        self.sandpiper(page)
        self.choose(page, "[aria-label='Motor and supply']")
        page.click("[data-panel] option[value=engine]")
        page.find(ENGINE)
        page.wait(lambda: "supply" not in self.newest()["drive"], "the supply to go")
        page.click_button("Undo")
        page.wait(lambda: "supply" in self.newest()["drive"], "the motor to come back")

    def test_a_pack_by_its_cells(self) -> None:
        page = self.page()
        self.open(page, "Dunlin")
        self.choose(page, "[aria-label='Motor and supply']")
        before = page.gauge("top_speed")
        page.type_into("Cells in series", "12")
        page.wait(lambda: page.gauge("top_speed") != before, "a lower top speed")

    def test_a_stage_of_each_kind_can_be_put_in(self) -> None:
        page = self.page()
        self.sandpiper(page)
        for kind in ("planetary", "v_belt", "bevel", "worm", "speeds"):
            page.click(BODY)
            page.click(f"[aria-label='Add a stage after this'] option[value={kind}]")
            page.wait(partial(self.holds, kind), kind)
        self.assertEqual(page.complaints(), [])
