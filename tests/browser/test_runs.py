"""Runs as a builder goes through them: on the rig as planned, with a stopwatch on a phone, from lines."""

from __future__ import annotations

import tempfile
import time
from contextlib import AbstractContextManager
from typing import Any

from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from server.designs.models import Lesson
from server.runs.log_files import read_file
from server.runs.models import FileState, LogFile, Run
from server.runs.rig import Worker
from tests.browser.at_work import at_work
from tests.browser.case import BrowserCase
from tests.browser.driving import Page

PACE = 12.0
"""How much faster the rig's clock runs here."""


def rig_at_work() -> AbstractContextManager[None]:
    """The rig's process and a worker for files, with a fast clock."""
    worker = Worker(clock=lambda: PACE * time.monotonic())

    def step() -> None:
        worker.step()
        for file in LogFile.objects.filter(state=FileState.WAITING):
            read_file(file.pk)

    return at_work(step)


class Runs(BrowserCase):
    def runs(self, page: Page, vehicle: str) -> None:
        self.visit(page, vehicle, "runs")
        page.find("[data-unknowns]")

    def logged(self, vehicle: str) -> Any:
        return Run.objects.filter(vehicle__name=vehicle).order_by("made_at", "pk")

    def tick(self, page: Page, *names: str) -> None:
        for label in page.all("[data-new-plan] label.tick"):
            if label.text.split("\n")[0] in names:
                label.click()

    def test_planned_on_the_rig_learnt_used_and_a_fourth_predicted(self) -> None:
        page = self.page()
        self.runs(page, "Knot")
        page.wait_text("[data-headline]", "12 teeth is best so far, ahead of 10 teeth; 14 teeth cannot be told")
        self.assertEqual(len(page.all("[data-run][data-odd]")), 1)
        page.wait_text("[data-remarks]", "since then mass 0.52 → 0.6 kg")
        path = page.find("[data-after]").rect
        self.assertGreater(path["width"], 200)
        self.assertEqual(page.axe(), [])
        page.click_button("Plan")
        page.wait_text("[data-new-plan]", "12 teeth")
        self.tick(page, "12 teeth", "14 teeth", "11 teeth")
        Select(page.find("[data-new-plan] select")).select_by_value("1")
        page.click("[data-deal]")
        page.wait_text("[data-totals]", "about")
        self.assertEqual(page.axe(), [])
        before = self.logged("Knot").count()
        with rig_at_work():
            for done in range(1, 4):
                self.next_step_on_the_rig(page, before, done)
            page.wait_text("[data-plan]", "All of it is done")
            page.wait(lambda: len(page.all("[data-run]")) == before + 3, "the runs in the log")
            page.wait(lambda: page.find("[data-use]").is_enabled(), "what was learnt")
            wide = self.band(page)
            page.click("[data-use]")
            page.wait_text("[data-unknowns]", "in the design already, fitted to")
            page.wait(lambda: self.band(page) < wide, "a narrower band in the readout")
            page.wait(Lesson.objects.exists, "how values vary together to be kept")
            page.click_button("Practice rig")
            page.click("[data-rig-action=run]:not([disabled])")
            page.wait(lambda: self.logged("Knot").count() == before + 4, "the fourth")
        self.assertLess(abs(self.logged("Knot").last().off), 0.03)
        page.click_button("Show what is hidden")
        page.wait_text("[data-hidden]", "rolling resistance")
        page.click_button("Undo")
        page.wait(lambda: page.find("[data-use]").is_enabled(), "the guesses again")

    def next_step_on_the_rig(self, page: Page, before: int, done: int) -> None:
        page.click("[data-rig-step]:not([disabled])")
        page.find("[data-trace]")
        page.wait(lambda: self.logged("Knot").count() == before + done, "the rig's run")
        page.wait_text("[data-found]", "Time over a distance")
        page.click_button("Plan")
        page.wait(lambda: len(page.all("[data-done]")) == done, "a step ticked off")

    def band(self, page: Page) -> float:
        return float(page.find("[data-gauge=time_to_distance] [data-band]").get_attribute("width") or 0.0)

    def test_a_stopwatch_on_a_phone_without_connection(self) -> None:
        page = self.page(390, 844)
        self.runs(page, "Sandpiper")
        self.assertEqual(page.axe(), [])
        self.assertLessEqual(page.driver.execute_script("return document.documentElement.scrollWidth"), 390)
        before = self.logged("Sandpiper").count()
        page.find("[aria-label='Reading 1']").send_keys("3.41", Keys.ENTER)
        page.wait(lambda: "Reading 2" in (self.focus(page).get_attribute("aria-label") or ""), "the next field")
        self.focus(page).send_keys("3.38 s", Keys.ENTER)
        page.wait(lambda: "Reading 3" in (self.focus(page).get_attribute("aria-label") or ""), "the next field")
        page.offline(True)
        self.focus(page).send_keys(Keys.ENTER)
        page.wait_text("[data-waiting-run]", "kept on this device")
        page.driver.refresh()
        page.offline(False)
        page.open(page.driver.current_url.removeprefix(page.base))
        page.wait(lambda: self.logged("Sandpiper").count() == before + 1, "the run to be sent")
        page.wait(lambda: not page.all("[data-waiting-run]"), "nothing to wait any more")
        self.assertEqual(self.logged("Sandpiper").last().document["readings"], ["3.41 s", "3.38 s"])
        page.find("[aria-label='Reading 1']").send_keys("three", Keys.ENTER)
        page.click("[data-log-it]")
        page.wait_text("[data-readings] [role=alert]", "three")
        self.assertEqual(page.find("[aria-label='Reading 1']").get_attribute("value"), "three")
        self.assertEqual(self.logged("Sandpiper").count(), before + 1)

    def focus(self, page: Page) -> Any:
        return page.driver.switch_to.active_element

    def test_an_instruments_lines_and_a_reading_left_out(self) -> None:
        page = self.page()
        self.runs(page, "Dunlin")
        before = self.logged("Dunlin").count()
        page.click_button("Instrument")
        lines = page.find("[data-instrument] textarea")
        lines.send_keys('{"instrument": "gates"}\n{"t": 1, "gate": 1}\n{"t": 5.4, "gate": 2}\nnoise')
        page.wait_text("[data-heard] [role=alert]", "line 4")
        lines.send_keys(Keys.BACKSPACE * 5)
        page.wait_text("[data-found]", "4.4 s")
        page.wait(lambda: page.find("[data-log-lines]").is_enabled(), "the way into the log")
        page.click("[data-log-lines]")
        page.wait(lambda: self.logged("Dunlin").count() == before + 1, "the run")
        page.wait(lambda: len(page.all("[data-run]")) == before + 1, "its line in the log")
        page.click("[data-run] button.run")
        reason = page.find("[aria-label='Reading 1 counts']")
        self.assertEqual(page.axe(), [])
        Select(reason).select_by_visible_text("left out: read wrongly")
        page.click("[data-put-away]")
        page.wait(lambda: len(page.all("[data-run]")) == before, "it to be put away")
        self.assertTrue(self.logged("Dunlin").last().put_away)
        page.click_button("1 put away")
        page.wait(lambda: len(page.all("[data-run]")) == 1, "what is put away")

    def test_a_loggers_file_with_faults(self) -> None:
        page = self.page()
        self.runs(page, "Sandpiper")
        before = self.logged("Sandpiper").count()
        rows = [f"{k / 50:.2f};{min(8.5, max(0.0, 5.0 * (k / 50 - 2.0))):.2f};{k % 7}" for k in range(500)]
        rows[30] = "lost;;"
        with tempfile.NamedTemporaryFile("w", suffix=".csv") as file, rig_at_work():
            file.write("seconds;speed [m/s];channel 7\n" + "\n".join(rows) + "\n")
            file.flush()
            page.click_button("Logger file")
            page.find("[data-log-file] input[type=file]").send_keys(file.name)
            Select(page.find("[aria-label='What column 3 holds']")).select_by_value("current")
            self.assertEqual(page.axe(), [])
            page.click("[data-read-file]")
            page.wait_text("[data-file-found]", "1 run in 500 rows")
        page.wait_text("[data-file-found] summary", "1 row cannot be read")
        self.assertGreater(page.find("[data-journey]").rect["width"], 200)
        page.click("[data-log-file-runs]")
        page.wait(lambda: self.logged("Sandpiper").count() == before + 4, "its readings in the log")
        page.wait(lambda: len(page.all("[data-run]")) == before + 4, "their lines")
