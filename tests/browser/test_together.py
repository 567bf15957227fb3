"""Several people and tabs at one vehicle, people who come and go, and what is typed when something breaks."""

from __future__ import annotations

from django.contrib.sessions.models import Session
from selenium.webdriver.common.keys import Keys

from server.accounts.models import User
from server.demo.load import VISITOR, WORKSHOP
from server.workshops.actions import create_workshop
from server.workshops.models import Membership, Role
from tests.browser.case import DRIVER, BrowserCase
from tests.browser.driving import Page

PASSWORD = "rivets-and-rope-7"


class Together(BrowserCase):
    def deaf(self, page: Page) -> None:
        """Let a page hear nothing of what others save before it saves itself."""
        page.driver.execute_cdp_cmd("Network.enable", {})
        page.driver.execute_cdp_cmd("Network.setBlockedURLs", {"urls": ["*/newest/*"]})

    def one_saves_unheard(self) -> tuple[Page, Page]:
        """Two people at one vehicle: the first has saved a pinion of 14 teeth, of which the second hears nothing."""
        first, second = self.page(), self.page()
        self.sandpiper(first)
        self.sandpiper(second)
        self.deaf(second)
        first.find(DRIVER).send_keys(Keys.ARROW_DOWN)
        first.wait(lambda: self.teeth() == 14, "the first to be saved")
        return first, second

    def sign_in(self, page: Page, name: str) -> None:
        page.open("/")
        page.find("#entry-name").send_keys(name)
        page.find("#entry-password").send_keys(PASSWORD, "\n")
        page.find("[data-starts], a[href$='/new']")

    def mass(self, page: Page, text: str) -> None:
        page.click("nav a[href$=brief]")
        page.type_into("Mass, battery in", text)

    def test_the_same_value_is_asked_about_and_nothing_is_lost(self) -> None:
        first, second = self.one_saves_unheard()
        second.find(DRIVER).send_keys(Keys.ARROW_UP)
        second.wait_text("[role=alertdialog]", "Nothing was overwritten")
        second.wait_text("[role=alertdialog]", "branch 1 › stage 1 › driver teeth")
        self.assertEqual(self.teeth(), 14)
        second.click_button("Take theirs (Undo brings yours back)")
        second.wait_text("[data-labels]", "14")
        second.click_button("Undo")
        second.wait(lambda: self.teeth() == 16, "mine to be saved on top")
        first.wait_text("[data-strip]", "it is shown now")
        first.wait_text("[data-labels]", "16")

    def test_other_values_are_brought_together(self) -> None:
        _, other = self.one_saves_unheard()
        self.mass(other, "13.5 kg")
        other.wait_text("[data-strip]", "Their changes and yours are both kept")
        other.wait(lambda: self.newest()["vehicle"]["mass"] == "13.5 kg", "both to be saved")
        self.assertEqual(self.teeth(), 14)

    def test_each_sees_the_other_and_one_takes_a_change_back(self) -> None:
        """What the other has changed since stays as it is."""
        ben = User.objects.create_user("ben", password=PASSWORD)
        Membership.objects.create(workshop_id=WORKSHOP, user=ben, role=Role.EDITOR)
        first, second = self.page(), self.page()
        self.sandpiper(first)
        second.open("/")
        second.find("#entry-name").send_keys("ben")
        second.find("#entry-password").send_keys(PASSWORD, "\n")
        second.find("[data-vehicle=Sandpiper]")
        second.driver.get(first.driver.current_url)
        second.find(DRIVER)
        first.wait_text("[data-others]", "ben is at")
        first.find(DRIVER).send_keys(Keys.ARROW_DOWN)
        second.wait_text("[data-labels]", "14")
        self.mass(second, "13.5 kg")
        first.wait_text("[data-strip]", "ben saved revision")
        first.click("#tab-compare")
        first.wait_text("[data-history]", "ben")
        self.assertEqual(first.axe(), [])
        first.click("[data-history] li:nth-child(2) button:last-child")
        first.wait(lambda: self.teeth() == 15, "the pinion of before")
        self.assertEqual(self.newest()["vehicle"]["mass"], "13.5 kg")

    def test_what_cannot_be_read_comes_back_with_its_fault_and_can_be_dropped(self) -> None:
        page = self.page()
        self.sandpiper(page)
        self.mass(page, "abc")
        page.wait_text("[data-save]", "not saved yet: one value cannot be read")
        vehicle = page.driver.current_url
        # Another tab of the same browser, after the first was closed.
        page.driver.switch_to.new_window("tab")
        first, second = page.driver.window_handles
        page.driver.switch_to.window(first)
        page.driver.close()
        page.driver.switch_to.window(second)
        page.driver.get(vehicle)
        page.wait_text("[data-field='Mass, battery in'] [role=alert]", "is not a number with a unit")
        self.assertRegex(page.gauge("top_speed"), r"\d")
        page.wait_text("[data-strip]", "Open again")
        page.click_button("Drop it (Undo brings it back)")
        page.wait(lambda: not page.all("[data-field='Mass, battery in'] [role=alert]"), "the fault to go")
        page.wait_text("[data-save]", "saved")

    def test_two_tabs_keep_what_is_typed_in_each(self) -> None:
        page = self.page()
        self.sandpiper(page)
        self.mass(page, "abc")
        vehicle = page.driver.current_url
        page.driver.switch_to.new_window("tab")
        page.driver.get(vehicle)
        field = page.find("[data-field='Mass, battery in'] input")
        self.assertNotEqual(field.get_attribute("value"), "abc")
        page.type_into("Rolling diameter, loaded", "xyz")
        page.wait_text("[data-save]", "cannot be read")
        page.driver.refresh()
        page.wait(
            lambda: "xyz" in str(page.find("[data-field='Rolling diameter, loaded'] input").get_attribute("value"))
        )
        page.driver.switch_to.window(page.driver.window_handles[0])
        page.driver.refresh()
        page.wait(
            lambda: page.find("[data-field='Mass, battery in'] input").get_attribute("value") == "abc", "its own text"
        )
        page.click_button("Sign out")
        page.wait_text("header [role=alert]", "lost by it: design changes.")
        page.click_button("Sign out all the same")
        page.find("#entry-name")
        self.assertEqual(
            page.driver.execute_script("return Object.keys(localStorage).filter(k => /draft/.test(k))"), []
        )

    def test_text_in_a_field_is_saved_when_the_page_goes(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("nav a[href$=brief]")
        field = page.find("[data-field='Mass, battery in'] input")
        page.driver.execute_script("arguments[0].focus(); arguments[0].select()", field)
        field.send_keys("13.5 kg")
        page.driver.back()
        page.wait(lambda: self.newest()["vehicle"]["mass"] == "13.5 kg", "it to be saved on going back")
        page.click("nav a[href$=brief]")
        page.type_into("Mass, battery in", "14.5 kg")
        page.driver.find_element("link text", "Bench").click()
        page.wait(lambda: self.newest()["vehicle"]["mass"] == "14.5 kg", "it to be saved on the way to the bench")

    def test_signing_in_on_the_spot_goes_on(self) -> None:
        page = self.page()
        page.visit_demo()
        page.click("[data-vehicle=Sandpiper] a")
        page.find("[data-sweep] table")
        Session.objects.all().delete()
        page.find(DRIVER).send_keys(Keys.ARROW_DOWN)
        page.wait_text("[role=dialog]", "You are signed out")
        page.click_button("Go on in the Saltmarsh Workshop")
        page.wait(lambda: self.teeth() == 14, "what was typed to be saved")
        page.wait(lambda: not page.all("[role=dialog]"), "the question to go")

    def test_somebody_is_invited_joins_by_link_and_leaves(self) -> None:
        for name in ("ada", "bo"):
            create_workshop(User.objects.create_user(name, password=PASSWORD), f"{name}'s workshop")
        visitor = User.objects.get(username=VISITOR)
        Membership.objects.filter(user=visitor).delete()
        Membership.objects.create(workshop_id=WORKSHOP, user=User.objects.get(username="ada"), role=Role.OWNER)
        ada, bo = self.page(), self.page()
        self.sign_in(ada, "ada")
        ada.open(f"/workshops/{WORKSHOP}")
        ada.click_button("Make a link")
        link = str(ada.find("[aria-label='Link to join']").get_attribute("value"))
        self.assertEqual(ada.axe(), [])
        self.sign_in(bo, "bo")
        bo.wait_text("main h1", "bo's workshop")
        bo.driver.get(link)
        bo.wait_text("main", "Join Saltmarsh Workshop?")
        bo.click_button("Join")
        bo.find("[aria-label=Workshop]")
        self.assertIn("bo's workshop", bo.text("h1"))
        bo.open(f"/workshops/{WORKSHOP}")
        bo.click_button("Leave this workshop")
        bo.click_button("Yes: leave, until somebody invites me again")
        bo.wait(lambda: not Membership.objects.filter(workshop_id=WORKSHOP, user__username="bo").exists(), "bo to go")
