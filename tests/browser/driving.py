"""A real browser on the real page, at an exact size."""

from __future__ import annotations

import json
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import Any, TypeVar

from selenium import webdriver
from selenium.common.exceptions import (
    ElementClickInterceptedException,
    StaleElementReferenceException,
    TimeoutException,
)
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

T = TypeVar("T")
PATIENCE = 60
"""Seconds a condition may take; the machines are noisy."""

FLAGS = (
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-dev-shm-usage",
)
AXE = Path(__file__).parents[2] / "frontend" / "node_modules" / "axe-core" / "axe.min.js"


class Page:
    """One browser window and what a user does in it."""

    def __init__(self, base: str, width: int = 1280, height: int = 800) -> None:
        self.base = base
        self.profile = tempfile.TemporaryDirectory(ignore_cleanup_errors=True)
        options = webdriver.ChromeOptions()
        for flag in (*FLAGS, f"--user-data-dir={self.profile.name}"):
            options.add_argument(flag)
        options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
        options.add_experimental_option("prefs", {"download.default_directory": self.profile.name})
        self.driver = webdriver.Chrome(options=options, service=webdriver.ChromeService("/usr/bin/chromedriver"))
        self.size(width, height)

    def size(self, width: int, height: int) -> None:
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": width < 500}
        self.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
        # A new tab has no focus of its own, and then tells no field of it.
        self.driver.execute_cdp_cmd("Emulation.setFocusEmulationEnabled", {"enabled": True})

    def renew(self, base: str, width: int, height: int) -> Page:
        """As a browser that was never here: a new tab, and nothing kept of what was."""
        old = self.driver.window_handles
        self.driver.switch_to.new_window("tab")
        new = self.driver.current_window_handle
        for handle in old:
            self.driver.switch_to.window(handle)
            self.driver.close()
        self.driver.switch_to.window(new)
        # Only now: a tab may keep something while it closes.
        self.driver.execute_cdp_cmd("Storage.clearCookies", {})
        self.driver.execute_cdp_cmd("Storage.clearDataForOrigin", {"origin": self.base, "storageTypes": "all"})
        self.complaints()
        self.base = base
        self.size(width, height)
        return self

    def close(self) -> None:
        self.driver.quit()
        self.profile.cleanup()

    def leave(self) -> None:
        """Go where nothing asks the server any more."""
        self.offline(False)
        self.driver.get("about:blank")

    def open(self, path: str) -> None:
        self.driver.get(self.base + path)

    def find(self, css: str) -> WebElement:
        return self.wait(lambda: next(iter(self.driver.find_elements(By.CSS_SELECTOR, css)), None), css)

    def all(self, css: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def button(self, text: str) -> WebElement:
        path = f"//button[normalize-space(.)='{text}']"
        return self.wait(lambda: next(iter(self.driver.find_elements(By.XPATH, path)), None), text)

    def wait(self, condition: Callable[[], T | None], what: str = "") -> T:
        waiting = WebDriverWait(
            self.driver,
            PATIENCE,
            poll_frequency=0.05,
            ignored_exceptions=[StaleElementReferenceException, ElementClickInterceptedException],
        )
        return waiting.until(lambda _: condition() or False, f"waited in vain for {what or condition}")

    def click(self, css: str) -> None:
        """Scroll there as a user would, and click."""
        self._click(lambda: self.find(css), css)

    def follow(self, css: str) -> None:
        """Click a link until it leads on: one that moves just then is missed."""
        before = self.driver.current_url

        def led_on() -> bool:
            if self.driver.current_url == before:
                self.click(css)
            return self.driver.current_url != before

        self.wait(led_on, f"{css} to lead on")

    def click_button(self, text: str) -> None:
        """The same for a button that says this."""
        self._click(lambda: self.button(text), text)

    def _click(self, found: Callable[[], WebElement], what: str) -> None:
        """Click; again where it was painted anew or moved away meanwhile."""

        def clicked() -> bool:
            element = found()
            self.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", element)
            element.click()
            return True

        self.wait(clicked, what)

    def press(self, css: str, *keys: str) -> None:
        """Put the focus there, and press keys; again where it was painted anew before the first of them."""

        def pressed() -> bool:
            element = self.find(css)
            self.driver.execute_script("arguments[0].focus()", element)
            if self.driver.switch_to.active_element != element:
                return False
            element.send_keys(*keys)
            return True

        self.wait(pressed, f"the focus on {css}")

    def text(self, css: str) -> str:
        return str(self.find(css).text)

    def wait_text(self, css: str, wanted: str) -> None:
        try:
            self.wait(lambda: any(wanted in e.text for e in self.all(css)), f"{wanted!r} in {css}")
        except TimeoutException as late:
            there = [element.text for element in self.all(css)]
            alerts = [element.text for element in self.all("[role=alert], [role=status]")]
            raise AssertionError(f"no {wanted!r} in {css}: {there}; told meanwhile: {alerts}") from late

    def gauge(self, measure: str) -> str:
        return self.text(f"[data-gauge={measure}] [data-value]")

    def type_into(self, label: str, text: str) -> WebElement:
        field = self.find(f'[data-field="{label}"] input, input[aria-label="{label}"]')
        self.driver.execute_script("arguments[0].focus()", field)
        field.send_keys(Keys.CONTROL, "a", Keys.NULL, text, "\n")
        return field

    def take_cookie(self, name: str, value: str) -> None:
        """As if the server had given it."""
        self.driver.execute_cdp_cmd("Network.setCookie", {"name": name, "value": value, "url": self.base})

    def visit_demo(self) -> None:
        self.open("/")
        self.click_button("Visit the Saltmarsh Workshop")
        self.find("[data-vehicle]")

    def offline(self, off: bool) -> None:
        """Cut the connection, or give it back."""
        self.driver.execute_cdp_cmd("Network.enable", {})
        where = {"offline": off, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
        self.driver.execute_cdp_cmd("Network.emulateNetworkConditions", where)

    def axe(self) -> list[dict[str, Any]]:
        """Violations of WCAG 2.2 AA and of good practice, as axe-core finds them.

        A colour that is still changing has a contrast that nobody gets to read, so all that ends by itself ends first.
        """
        self.driver.execute_script(AXE.read_text())
        found = self.driver.execute_async_script(
            "const done = arguments[0];"
            "const ends = a => Number.isFinite(a.effect?.getComputedTiming().endTime);"
            "const changing = document.getAnimations().filter(ends);"
            "Promise.allSettled(changing.map(a => a.finished))"
            ".then(() => axe.run(document, {resultTypes: ['violations']}))"
            ".then(r => done(JSON.stringify(r.violations)))"
        )
        violations: list[dict[str, Any]] = json.loads(found)
        return violations

    def complaints(self) -> list[str]:
        """What the browser's console has complained about."""
        return [entry["message"] for entry in self.driver.get_log("browser") if entry["level"] == "SEVERE"]
