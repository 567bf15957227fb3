"""Practice as a learner walks through it, and a class with its teacher and a pupil on a phone."""

from __future__ import annotations

from typing import Any

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from server.demo.load import WORKSHOP
from server.designs.models import Vehicle
from server.practice.models import Learnt, Pupil
from server.workshops.models import Membership
from tests.browser.case import BrowserCase
from tests.browser.driving import Page
from tests.server.people import PASSWORD
from ydrometer.base import units
from ydrometer.practice import Exercise, exercise
from ydrometer.practice.posed import NumberAsked, PicksAsked


def drawn(page: Page) -> Exercise:
    """The exercise that is shown."""
    shown = page.find("[data-exercise]")
    level, seed, system = str(shown.get_attribute("data-drawn")).split()
    return exercise(str(shown.get_attribute("data-exercise")), int(level), int(seed), system)


def give(page: Page, drawn_exercise: Exercise, answer: Any) -> None:
    """Answer as a learner does: typed, chosen, clicked in the drawing or picked from the bag."""
    ask = drawn_exercise.posed.ask
    if isinstance(ask, NumberAsked):
        field = page.find("[data-answer]")
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(f"{answer / units.scale(ask.unit, ask.dimension)[0]:.5g}", Keys.ENTER)
        return
    if isinstance(ask, PicksAsked):
        for teeth in answer:
            page.click(f"[data-pick='{teeth}']")
    elif page.all("[data-wheel-asked]"):
        page.click(f"[data-wheel='{answer}']")
    elif page.all("[data-arrow]"):
        page.find(f"[data-arrow='{answer}']").send_keys(Keys.ENTER)
    else:
        page.click(f"[data-choice='{answer}']")
    page.click_button("Check it")


class Alone(BrowserCase):
    def test_mistakes_by_name_hints_the_next_and_the_line(self) -> None:
        page = self.page()
        self.visit(page)
        page.click("header a[href='/practice']")
        for idea in ("ratio", "driver and driven", "from a bag", "turning sense"):
            page.click(f"[data-idea='{idea}']")
            self.shown(page, idea)
            self.one(page, drawn(page))
        self.assertEqual(page.axe(), [])
        self.assertFalse(Learnt.objects.exists())
        page.click_button("Open it on the Line")
        page.wait_text("[data-strip]", "A scratch vehicle")
        page.click_button("Keep it on the bench")
        page.wait(lambda: Vehicle.objects.filter(name__startswith="Exercise", scratch=False).exists(), "it to be kept")

    def shown(self, page: Page, idea: str) -> None:
        page.wait(lambda: drawn(page).idea == idea, idea)

    def one(self, page: Page, drawn_exercise: Exercise) -> None:
        """First a usual mistake, then a hint, then right."""
        mistake = drawn_exercise.posed.mistakes[0]
        give(page, drawn_exercise, mistake.answer)
        page.wait_text("[data-said=mistake]", mistake.name)
        page.click("[data-hint-button]")
        page.wait_text("[data-hints]", drawn_exercise.posed.hints[0])
        if isinstance(drawn_exercise.posed.ask, PicksAsked):
            picked: Any = mistake.answer
            for teeth in picked:
                page.click(f"[data-pick='{teeth}']")
        give(page, drawn_exercise, drawn_exercise.posed.answer)
        page.find("[data-said=right]")
        page.find("[data-solved] [data-value]")

    def test_what_is_kept_of_an_account_and_nothing_of_nobody(self) -> None:
        page = self.page(390, 844)
        page.open("/practice?idea=speed")
        self.assertEqual(drawn(page).idea, "speed")
        self.assertEqual(page.axe(), [])
        page.click("header a[href='/']")
        page.click_button("I am new here")
        page.find("#entry-name").send_keys("learner")
        page.find("#entry-password").send_keys(PASSWORD)
        page.click_button("Make the account")
        page.wait_text("main", "The bench is empty")
        page.open("/practice?idea=speed")
        give(page, made := drawn(page), made.posed.answer)
        page.find("[data-idea=speed][data-grasp=sure]")
        page.click("[data-next]")
        self.shown(page, "ratio")
        self.assertLessEqual(page.driver.execute_script("return document.documentElement.scrollWidth"), 390)


class Class(BrowserCase):
    def test_a_set_is_made_joined_answered_seen_live_and_forgotten(self) -> None:
        teacher = self.page()
        teacher.open("/")
        teacher.click_button("I am new here")
        teacher.find("#entry-name").send_keys("teacher")
        teacher.find("#entry-password").send_keys(PASSWORD)
        teacher.click_button("Make the account")
        teacher.wait_text("main", "The bench is empty")
        workshop = Membership.objects.get(user__username="teacher").workshop_id
        teacher.open(f"/workshops/{workshop}")
        teacher.click("[data-class] a")
        teacher.find("[data-set-ideas] input")
        for label in teacher.find("[data-set-ideas]").find_elements(By.TAG_NAME, "label")[:2]:
            label.click()
        teacher.click_button("Make the set")
        code = teacher.find("[data-code]").text
        pupil = self.page(390, 844)
        pupil.open("/class")
        self.join(pupil, "QQQQQQ")
        pupil.wait_text("[role=alert]", "There is no class with this code")
        self.join(pupil, code)
        drawn_exercise = drawn(pupil)
        mistake = drawn_exercise.posed.mistakes[0]
        give(pupil, drawn_exercise, mistake.answer)
        pupil.wait_text("[data-said=mistake]", mistake.name)
        teacher.wait_text("[data-mistakes]", mistake.name)
        give(pupil, drawn_exercise, drawn_exercise.posed.answer)
        pupil.find("[data-said=right]")
        pupil.wait_text("[data-done]", "1 of 8")
        self.assertEqual(pupil.axe(), [])
        teacher.find("[data-pupil=Wren] [data-state=right]")
        self.assertEqual(teacher.axe(), [])
        pupil.driver.refresh()
        pupil.wait_text("[data-done]", "1 of 8")
        self.on_the_wall_and_forgotten(teacher)

    def join(self, page: Page, code: str) -> None:
        page.find("form input")
        for field, text in zip(page.all("form input"), (code, "Wren"), strict=True):
            field.send_keys(Keys.CONTROL, "a")
            field.send_keys(text)
        page.click_button("Join")

    def on_the_wall_and_forgotten(self, teacher: Page) -> None:
        teacher.click("[data-set-exercises] a")
        teacher.find("[data-exercise-drawing]")
        teacher.click_button("Show the answer")
        teacher.find("[data-solved] [data-value]")
        self.assertEqual(teacher.axe(), [])
        teacher.click("[data-wall] a")
        teacher.click_button("Forget all pupils")
        teacher.click_button("Yes: 1 pupil and all answers go for good")
        teacher.wait(lambda: not Pupil.objects.exists(), "the pupils to be forgotten")


class Race(BrowserCase):
    def test_teams_are_entered_run_and_one_has_won(self) -> None:
        page = self.page()
        self.visit(page)
        page.open(f"/workshops/{WORKSHOP}/races")
        page.find("form input")
        page.click_button("Make the board")
        for name, vehicle in (("", "Knot"), ("Blues", "")):
            self.enter(page, name, vehicle)
        page.wait_text("[data-lane='1']", "predicted 3.")
        page.wait_text("[data-lane='1']", "last run, 3.")
        self.assertEqual(page.axe(), [])
        page.click("[data-lane='1'] button")
        page.find("[data-lane='2'] input").send_keys("fast")
        page.click_button("Write it down")
        page.wait_text("[role=alert]", "heats[0].times[1]")
        page.find("[data-lane='2'] input").send_keys(Keys.CONTROL, "a", Keys.NULL, "3.9")
        page.click_button("Write it down")
        page.wait_text("[data-champion]", "Knot has won")
        self.assertEqual(page.axe(), [])
        page.click_button("Undo")
        page.find("[data-next-heat]")

    def enter(self, page: Page, name: str, vehicle: str) -> None:
        count = len(page.all("[data-team]"))
        page.find("[aria-label='Name of a team']").send_keys(name)
        if vehicle:
            page.wait(lambda: vehicle in page.find("[aria-label='Its vehicle']").text, vehicle)
            Select(page.find("[aria-label='Its vehicle']")).select_by_visible_text(vehicle)
        page.click_button("Enter the team")
        page.wait(lambda: len(page.all("[data-team]")) == count + 1, "the team")
