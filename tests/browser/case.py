"""Browser tests: the built page on a live server with the demo in it."""

from __future__ import annotations

import threading
import time
from typing import Any, ClassVar

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.signals import request_finished, request_started
from django.test import override_settings

from server.demo.load import load
from server.designs.models import Revision
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
        load()

    def page(self, width: int = 1280, height: int = 800) -> Page:
        base = self.live_server_url
        page = self.idle.pop().renew(base, width, height) if self.idle else Page(base, width, height)
        self.addCleanup(self.idle.append, page)
        # Runs first: a page that is still open asks for what is new.
        self.addCleanup(page.leave)
        return page

    def sandpiper(self, page: Page, station: str = "line") -> None:
        """Visit the demo and open its first vehicle."""
        page.visit_demo()
        page.find("[data-vehicle=Sandpiper] a").click()
        page.find(DRIVER)
        if station == "brief":
            page.find("nav a[href$=brief]").click()
            page.find("[data-target=top_speed]")

    def teeth(self) -> int:
        """As the newest revision has it."""
        return int(self.newest()["drive"]["branches"][0]["stages"][0]["driver_teeth"])

    def newest(self) -> Any:
        return Revision.objects.filter(vehicle__name__startswith="Sandpiper").order_by("-number")[0].document
