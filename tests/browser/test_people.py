"""Who works here, from where, and what others are shown: each as the people would do it."""

from __future__ import annotations

from server.designs.models import Share, Vehicle
from tests.browser.case import BrowserCase
from tests.browser.driving import Page

PASSWORD, NEW = "rivets-and-rope-7", "gaskets-and-glue-9"


class People(BrowserCase):
    def sign_up(self, page: Page, name: str, path: str = "/") -> None:
        page.open(path)
        if path == "/":
            page.click_button("I am new here")
        page.find("#entry-name").send_keys(name)
        page.find("#entry-password").send_keys(PASSWORD)
        page.click_button("Make the account")

    def told(self, page: Page, label: str) -> str:
        """The path of a link that is told once."""
        value = page.find(f"input[aria-label='{label}']").get_attribute("value") or ""
        return value.removeprefix(page.base)

    def test_joining_forgetting_handing_over_and_going(self) -> None:
        ada, ben = self.page(), self.page(390, 844)
        self.sign_up(ada, "ada")
        ada.click("main a[href^='/workshops/']")
        self.assertEqual(ada.axe(), [])
        ada.click_button("Make a link")
        self.sign_up(ben, "ben", self.told(ada, "Link to join"))
        ben.click_button("Join")
        ben.wait(lambda: "/join" not in ben.driver.current_url, "ben to be in")
        ada.driver.refresh()
        ada.click("[aria-label='More for ben']")
        ada.click_button("They forgot their password")
        ben.open(self.told(ada, "Link for a new password of ben"))
        ben.find("#entry-new-password").send_keys(NEW)
        self.assertEqual(ben.axe(), [])
        ben.click_button("Make it mine")
        ben.click("main a[href='/']")
        ben.find("#entry-name").send_keys("ben")
        ben.find("#entry-password").send_keys(NEW)
        ben.click_button("Sign in")
        ben.find("main a[href^='/workshops/']")
        ada.click_button("Hand the workshop over")
        ada.click_button("Yes: ben owns it, I stay an editor")
        ada.wait(lambda: not ada.all("[data-member]"), "ada to be an editor")
        self.account(ada, ben)

    def account(self, ada: Page, ben: Page) -> None:
        """Signed out from elsewhere; deleted, but not while others would be left without an owner."""
        ben.open("/account")
        ben.find("[data-devices] li")
        self.assertEqual(ben.axe(), [])
        ben.find("[data-delete-account] input").send_keys(NEW)
        ben.click_button("Delete my account")
        ben.wait_text("[data-delete-account] [role=alert]", "nobody else owns it")
        ada.open("/account")
        ada.find("[data-delete-account] input").send_keys(PASSWORD)
        ada.click_button("Delete my account")
        ada.find("#entry-name")
        ben.click_button("Delete my account")
        ben.find("#entry-name")

    def test_a_design_shown_by_a_link_until_it_is_taken_back(self) -> None:
        page, stranger = self.page(), self.page(390, 844)
        page.open("/")
        page.visit_demo()
        page.click("[aria-label='More for Knot']")
        page.click("[data-value=share]")
        page.find("[data-share]")
        page.click_button("Make a link")
        path = self.told(page, "Link to the design")
        self.assertEqual(page.axe(), [])
        stranger.open(path)
        stranger.find("[data-shared=Knot] svg")
        stranger.click("[data-gauge=top_speed] button.value")
        stranger.find("[data-working=top_speed] [data-value]")
        self.assertEqual(stranger.axe(), [])
        self.assertLessEqual(stranger.driver.execute_script("return document.documentElement.scrollWidth"), 390)
        page.click("[data-share] li button")
        page.wait(lambda: not Share.objects.exists(), "the link to be taken back")
        stranger.driver.refresh()
        stranger.wait_text("body", "This link does not stand")
        page.click("[data-share] [aria-label=Close]")
        self.deleted(page)

    def deleted(self, page: Page) -> None:
        """A vehicle in the drawer goes for good in a month, unless it is taken back."""
        page.click("[aria-label='More for Knot']")
        page.click("[data-value=away]")
        page.click("[data-drawer] summary")
        page.click("[aria-label='Delete: Knot']")
        page.wait_text("[data-drawer]", "goes for good on")
        self.assertEqual(page.axe(), [])
        page.click("[aria-label='Take back: Knot']")
        page.wait(lambda: not Vehicle.objects.filter(gone_at__isnull=False).exists(), "Knot to stay")
