"""Browser tests: the built page on a live server with the demo in it."""

from __future__ import annotations

import threading
import time
from typing import Any, ClassVar

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.signals import request_finished, request_started
from django.test import Client, override_settings

from server.accounts.models import User
from server.demo.load import VISITOR
from server.designs.models import Revision, Vehicle
from tests.browser import demo_rows
from tests.browser.driving import Page

DRIVER = "[data-wheel='drive.branches[0].stages[0] driver']"
"""The first driver as the keyboard finds it."""
BODY = "[data-body='drive.branches[0].stages[0] driver']"
"""The same as the pointer finds it."""


class InFlight:
    """How many requests are being answered in this process."""

    def __init__(self) -> None:
        self.count = 0
        self.lock = threading.Lock()
        request_started.connect(self._begun)
        request_finished.connect(self._ended)

    def _begun(self, **_: object) -> None:
        with self.lock:
            self.count += 1

    def _ended(self, **_: object) -> None:
        with self.lock:
            self.count -= 1

    def wait_for_none(self) -> None:
        """Wait until all are answered, or for as long as none should take."""
        late = time.monotonic() + LONGEST_S
        while self.count > 0 and time.monotonic() < late:
            time.sleep(0.02)
        self.count = 0


LONGEST_S = 8.0
IN_FLIGHT = InFlight()


@override_settings(DEMO=True)
class BrowserCase(StaticLiveServerTestCase):
    """Each test begins with the demo as loaded, in a browser that forgot all; the tests of a class share browsers."""

    idle: ClassVar[list[Page]]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.idle = []

    @classmethod
    def tearDownClass(cls) -> None:
        for page in cls.idle:
            page.close()
        super().tearDownClass()

    def setUp(self) -> None:
        # Runs last: while a request is answered the database cannot be emptied.
        self.addCleanup(IN_FLIGHT.wait_for_none)
        demo_rows.put_back()

    def page(self, width: int = 1280, height: int = 800) -> Page:
        base = self.live_server_url
        page = self.idle.pop().renew(base, width, height) if self.idle else Page(base, width, height)
        self.addCleanup(self.idle.append, page)
        # Runs first: a page that is still open asks for what is new.
        self.addCleanup(page.leave)
        return page

    def visit(self, page: Page, vehicle: str = "", station: str = "line") -> None:
        """Visit the demo without clicking through its door: its bench, or a station of one of its vehicles."""
        client = Client()
        client.force_login(User.objects.get(username=VISITOR))
        page.take_cookie("sessionid", client.cookies["sessionid"].value)
        page.open(f"/vehicles/{Vehicle.objects.get(name=vehicle).pk}/{station}" if vehicle else "/")
        page.find("[data-readout]" if vehicle else "[data-vehicle]")

    def sandpiper(self, page: Page, station: str = "line") -> None:
        self.visit(page, "Sandpiper", station)
        page.find("[data-target=top_speed]" if station == "brief" else DRIVER)

    def focus_on(self, page: Page, css: str) -> Any:
        page.driver.execute_script("arguments[0].focus()", page.find(css))
        return page.driver.switch_to.active_element

    def teeth(self) -> int:
        """As the newest revision has it."""
        return int(self.newest()["drive"]["branches"][0]["stages"][0]["driver_teeth"])

    def newest(self) -> Any:
        return Revision.objects.filter(vehicle__name__startswith="Sandpiper").order_by("-number")[0].document
