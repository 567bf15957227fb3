"""Building as it goes: on a phone in the pit, two at once, without a connection, with the design changed meanwhile."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from django.utils import timezone
from icalendar import Calendar
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from server.accounts.models import User
from server.builds.actions import NewEntry, say_of_steps
from server.builds.booklets import write
from server.builds.models import Booklet, BookletState, StepEntry
from server.builds.site import Clock, present, site_of
from server.demo.load import VISITOR
from server.designs.models import Vehicle
from tests.browser.at_work import at_work
from tests.browser.case import DRIVER, BrowserCase
from tests.browser.driving import Page
from ydrometer.screens.build_shown import build_shown


def write_booklets() -> None:
    """As a worker does."""
    for booklet in Booklet.objects.filter(state=BookletState.WAITING):
        write(booklet.pk)


class Building(BrowserCase):
    def station(self, page: Page, vehicle: str, station: str, wanted: str) -> None:
        self.visit(page, vehicle, station)
        page.find(wanted)

    def entries(self) -> Any:
        return StepEntry.objects.filter(vehicle__name="Sandpiper").order_by("came_at")

    def do_all_but(self, last: str) -> None:
        """Whatever else there is to do is done by somebody, who cannot wait for what cures, up to one step."""
        vehicle, user = Vehicle.objects.get(name="Sandpiper"), User.objects.get(username=VISITOR)
        clock, document = Clock(None), present(vehicle)
        steps = build_shown(document, site_of(vehicle, clock)).steps
        left = [step for step in steps[: [s.id for s in steps].index(last)] if not step.done or step.once_more]
        new = [
            NewEntry(uuid4(), s.id, "done", timezone.now(), about=s.about, title=s.title, reason="cured in the sun")
            for s in left
        ]
        self.assertEqual(say_of_steps(user, vehicle, new, document, clock), [])

    def test_two_in_the_pit_down_to_the_signature(self) -> None:
        phone, other = self.page(390, 844), self.page()
        self.do_all_but("drive.branches[0].stages[0]:tighten")
        self.station(phone, "Sandpiper", "build", "[data-ledger='3']")
        self.assertEqual(phone.axe(), [])
        self.assertLessEqual(phone.driver.execute_script("return document.documentElement.scrollWidth"), 390)
        self.assertGreater(phone.find("[data-drawing] svg").rect["width"], 200)
        self.station(other, "Sandpiper", "build", "[data-ledger='3']")
        self.assertEqual(other.axe(), [])
        first = phone.text("[data-title]")
        self.assertIn("ighten the motor", first)
        self.tick(phone)
        phone.find("[data-ledger='2']")
        other.find("[data-ledger='2']")
        self.assertNotEqual(phone.text("[data-title]"), first)
        phone.find("[data-value-field]").send_keys("0.05")
        self.tick(phone)
        other.wait(lambda: other.text("[data-title]") == phone.text("[data-title]"), "the same next step")
        self.tick(other)
        other.wait_text("[data-ledger]", "Nothing is loose")
        phone.wait_text("[data-ledger]", "Nothing is loose")
        self.without_connection(phone)
        self.held_back(phone)
        self.changed_meanwhile(phone, other)
        self.do_all_but("vehicle:sign_off")
        phone.wait_text("[data-title]", "Sign it off")
        phone.wait_text("[data-looks]", "cured in the sun")
        phone.click("[data-tick]")
        phone.wait_text("[data-finished]", "Signed off by")
        self.assertEqual(phone.axe(), [])

    def without_connection(self, phone: Page) -> None:
        """Ticks are kept on the device, and each is written down once."""
        before = self.entries().count()
        phone.offline(True)
        for number in (1, 2):
            self.tick(phone)
            phone.find(f"[data-waiting='{number}']")
        # A station that was never opened is there all the same, and takes readings.
        phone.click("nav a[href$=runs]")
        phone.find("[aria-label='Reading 1']")
        phone.wait_text("header [role=status]", "The server does not answer")
        phone.driver.find_element("link text", "Bench").click()
        phone.wait_text("[data-unsent]", "2 ticks")
        phone.click("[data-unsent] a")
        phone.find("[data-waiting='2']")
        phone.find("[data-tick]")
        phone.offline(False)
        phone.wait(lambda: not phone.all("[data-waiting]"), "the ticks to be sent")
        self.assertEqual(self.entries().count(), before + 2)

    def tick(self, page: Page) -> None:
        """Tick the step that is shown, once it stands still; another one comes."""
        title = page.text("[data-title]")
        page.click("[data-tick]")
        page.wait(lambda: page.text("[data-title]") != title, "the next step")

    def held_back(self, phone: Page) -> None:
        """Power before its time is held back with words, and what would help is one touch away."""
        phone.driver.execute_script(
            "[...document.querySelectorAll('button.step')].find(b => b.textContent.includes('full throttle')).click()"
        )
        phone.wait_text("[data-held]", "Not yet:")
        phone.click("[data-held] button.link")
        phone.wait(lambda: "full throttle" not in phone.text("[data-title]"), "the step that would help")
        phone.click_button("back to the next step")

    def changed_meanwhile(self, phone: Page, other: Page) -> None:
        """One tooth less: what was done for the old pinion is asked about, and nothing is lost."""
        done = self.entries().count()
        other.click("nav a[href$=line]")
        other.find(DRIVER).send_keys(Keys.ARROW_DOWN)
        other.wait(lambda: self.teeth() == 14, "the change to be saved")
        phone.wait_text("[data-steps]", "now 14-tooth gear")
        phone.driver.execute_script(
            "[...document.querySelectorAll('button.step')].find(b => b.textContent.includes('on the motor shaft')"
            " && b.textContent.includes('once more')).click()"
        )
        phone.wait_text("[data-once-more]", "Done for 15-tooth gear")
        phone.click_button("Done once more")
        phone.wait(lambda: self.entries().count() == done + 1, "it to be written down")
        self.assertEqual(self.entries().last().about, "14-tooth gear")

    def test_days_calendar_looking_after_and_booklet(self) -> None:
        page = self.page()
        self.station(page, "Turnstone", "build", "[data-ledger]")
        page.click_button("Days")
        page.wait_text("[data-plan-sentence]", "Late by")
        page.wait_text("[data-reliefs]", "orders that are here in 2 days")
        self.assertEqual(page.axe(), [])
        address = page.find("a[href*=calendar]").get_attribute("href") or ""
        file = page.driver.execute_async_script(
            "const done = arguments[1]; fetch(arguments[0]).then(a => a.text()).then(done)", address
        )
        self.assertGreater(len(Calendar.from_ical(file).walk("VEVENT")), 5)
        page.click_button("Look after")
        page.wait_text("[data-inspections]", "No inspection yet")
        self.assertEqual(page.axe(), [])
        page.click_button("Something was found")
        page.find("[aria-label='In words']").send_keys("a bolt of the box")
        page.click_button("Keep this inspection")
        page.wait_text("[data-inspections]", "loosened: a bolt of the box")
        with at_work(write_booklets):
            page.click_button("Booklet (PDF)")
            page.find("[data-booklet=done]")
        self.assertTrue(bytes(Booklet.objects.get(vehicle__name="Turnstone").data or b"").startswith(b"%PDF"))

    def test_own_steps_schools_and_what_is_said_of_a_step(self) -> None:
        page = self.page()
        self.station(page, "Sandpiper", "build", "[data-ledger='2']")
        page.click_button("Add a step of your own")
        page.find("[data-own-steps] input").send_keys("Engrave the number", Keys.ENTER)
        page.wait_text("[data-steps]", "Engrave the number")
        page.click_button("Not now, because …")
        page.find("[data-because] input").send_keys("no light", Keys.ENTER)
        page.wait_text("[data-steps]", "not now: no light")
        Select(page.find("[data-schools] select")).select_by_value("lock nuts")
        page.wait(lambda: "locker" not in page.text("[data-steps]"), "no step with locker")

    def test_parts_from_needed_to_here(self) -> None:
        page = self.page()
        self.station(page, "Sandpiper", "parts", "[data-money]")
        page.wait_text("[data-sentence]", "things are in the bin. To buy: bearing")
        self.assertEqual(page.axe(), [])
        page.wait_text("[data-money]", "32.5")
        page.find("[data-money] input").send_keys("30", Keys.ENTER)
        page.wait_text("[data-budget=over]", "over the budget of 30 by 2.5")
        page.click("[data-line-panel] button:not([disabled])")
        page.wait_text("[data-who]", "ordered: saltmarsh-visitor")
        Select(page.find("[aria-label^='State of retaining']")).select_by_value("here")
        page.wait(lambda: page.all("[data-state=here] [aria-label^='State of retaining']"), "it to be here")
        page.find("[aria-label=What]").send_keys("frame")
        page.find("[aria-label='Price of one']").send_keys("12", Keys.ENTER)
        page.wait_text("[data-parts-list]", "frame")
        page.wait_text("[data-money]", "44.5")
        page.find("[data-mass] input").send_keys("15 kg", Keys.ENTER)
        page.wait_text("[data-mass-words]", "0.8 kg heavier than the design has")
        page.click_button("Put into the design")
        page.wait(lambda: self.newest()["vehicle"]["mass"]["value"] == "15 kg", "the mass in the design")
        page.driver.execute_script(
            "[...document.querySelectorAll('a')].find(a => a.textContent === 'Order list of the bench').click()"
        )
        page.wait_text("[data-orders]", "Turnstone")
        self.assertEqual(page.axe(), [])
