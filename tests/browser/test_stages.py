"""Stages and branches of the Line: added, moved, doubled, turned into others, by hand and by key."""

from __future__ import annotations

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.case import DRIVER, BrowserCase
from tests.browser.driving import Page

DRAG = """
const [from, to] = arguments;
const data = new DataTransfer();
const fire = (element, type) => element.dispatchEvent(
    new DragEvent(type, {bubbles: true, cancelable: true, dataTransfer: data}));
fire(from, "dragstart"); fire(to, "dragover"); fire(to, "drop");
"""


class Stages(BrowserCase):
    def kinds(self) -> list[list[str]]:
        drive = self.newest()["drive"]
        return [[s["kind"] for s in stages] for stages in (drive["branches"][0]["stages"], drive.get("stages", []))]

    def shafts(self, page: Page, count: int) -> None:
        page.wait(lambda: len(page.all("[data-shaft]")) == count, f"{count} shafts")

    def test_doubled_moved_and_removed_by_key_and_undone_after_a_reload(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.press(DRIVER, "d")
        self.shafts(page, 4)
        second = "[data-wheel='drive.branches[0].stages[1] driver']"
        page.press(second, Keys.SHIFT, Keys.ARROW_RIGHT)
        page.wait(lambda: self.kinds() == [["gear"], ["gear", "belt"]], "the gear to stand in the trunk")
        page.driver.refresh()
        self.shafts(page, 4)
        page.click_button("Undo")
        page.wait(lambda: self.kinds() == [["gear", "gear"], ["belt"]], "the move to be undone")
        page.click_button("Redo")
        page.wait(lambda: self.kinds() == [["gear"], ["gear", "belt"]], "and done again")
        page.press(DRIVER, Keys.DELETE)
        page.wait(lambda: self.kinds() == [[], ["gear", "belt"]], "the first to go")

    def test_a_stage_that_is_undone_takes_nothing_with_it(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("[aria-label='Add a stage after this'] option[value=chain]")
        page.wait_text("[data-panel] h2", "Roller chain")
        page.click_button("Undo")
        self.shafts(page, 3)
        self.assertEqual(page.complaints(), [])
        page.click_button("Redo")
        self.shafts(page, 4)

    def test_another_kind_keeps_the_teeth(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("[aria-label='Change the kind'] option[value=chain]")
        page.wait_text("[data-panel] h2", "Roller chain")
        page.wait(lambda: self.kinds()[0] == ["chain"], "a chain to be saved")
        self.assertEqual(self.teeth(), 15)

    def test_a_roller_comes_with_the_fields_of_its_kind_and_is_told_to_slip(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("[aria-label='Change the kind'] option[value=friction]")
        page.wait_text("[data-panel] h2", "Friction roller: driver rim")
        page.wait(lambda: self.kinds()[0] == ["friction"], "a roller to be saved")
        page.wait_text("[data-panel]", "Of it slip")
        page.wait_text("[data-panel]", "3.00 %")
        page.type_into("Force that presses them together", "5 N")
        page.wait_text("[data-panel]", "The roller slips")
        page.type_into("Force that presses them together", "80 N")
        page.wait(lambda: "The roller slips" not in page.text("[data-panel]"), "the roller to hold")
        page.press(DRIVER, Keys.ARROW_UP)
        page.wait(lambda: self.newest()["drive"]["branches"][0]["stages"][0]["driver_diameter"] != "30 mm", "a step")
        self.assertEqual(page.complaints(), [])

    def test_swapping_shows_first_what_it_does(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.click("[data-panel] button[aria-expanded]")
        page.wait_text("[data-swap]", "0.268")
        self.assertEqual(self.teeth(), 15)
        page.click_button("Swap them")
        page.wait(lambda: self.teeth() == 56, "driver and driven to be exchanged")

    def test_a_stage_is_dragged_to_another_place(self) -> None:
        page = self.page()
        self.sandpiper(page)
        belt, gear = page.find("[data-chip='drive.stages[0]']"), page.find("[data-chip^='drive.branches']")
        page.driver.execute_script(DRAG, belt, gear)
        page.wait(lambda: self.kinds() == [["belt", "gear"], []], "the belt to come first")

    def test_the_rim_is_dragged_and_undone_as_one_step(self) -> None:
        page = self.page()
        self.sandpiper(page)
        self.focus_on(page, "[data-wheel='drive.branches[0].stages[0] driven']")
        page.wait_text("[data-panel] h2", "driven gear")
        ActionChains(page.driver).click_and_hold(page.find("[data-rim]")).move_by_offset(-9, 9).perform()
        page.find("[data-dragged]")
        ActionChains(page.driver).move_by_offset(-6, 6).release().perform()
        page.wait(lambda: int(page.find("[data-teeth]").get_attribute("value") or 0) > 60, "more teeth")
        page.click_button("Undo")
        page.wait(lambda: page.find("[data-teeth]").get_attribute("value") == "56", "all of the drag to be undone")

    def test_a_second_branch_joins_and_goes(self) -> None:
        page = self.page()
        self.sandpiper(page)
        self.focus_on(page, "[aria-label='Motor and supply']")
        page.click_button("Add a branch like this")
        page.wait_text("[data-panel] h2", "branch 2")
        self.shafts(page, 4)
        page.wait_text("[data-strip]", "branch 2")
        page.type_into("Speed constant", "500")

        def speeds() -> list[str]:
            return [branch["source"]["constants"]["kv"] for branch in self.newest()["drive"]["branches"]]

        page.wait(lambda: speeds()[1:] == ["500 rpm/V"], "the second motor to be changed")
        self.assertNotEqual(speeds()[0], "500 rpm/V")
        page.click_button("Remove this branch")
        self.shafts(page, 3)

    def test_a_branch_that_works_against_the_first_is_told(self) -> None:
        page = self.page()
        self.sandpiper(page)
        self.focus_on(page, "[aria-label='Motor and supply']")
        page.click_button("Add a branch like this")
        page.wait_text("[data-panel] h2", "branch 2")
        page.click("[aria-label='Add a stage after this'] option[value=gear]")
        page.wait_text("[data-turning]", "Branch 2 turns against branch 1")
        page.click("[data-turning] [aria-label^='Do this: Swap two leads of motor 2']")
        page.wait(lambda: not page.all("[data-turning]"), "them to pull together")

    def test_an_engine_is_helped_by_its_belt_not_by_its_leads(self) -> None:
        page = self.page()
        self.visit(page, "Turnstone")
        self.focus_on(page, "[aria-label='Engine and clutch']")
        page.click("[aria-label='Add a stage after this'] option[value=gear]")
        page.wait_text("[data-turning]", "would run backwards")
        self.assertNotIn("leads", page.text("[data-turning]"))
        page.click("[data-turning] [aria-label='Do this: Cross the V-belt.']")
        page.wait(lambda: not page.all("[data-turning]"), "it to run forwards")


class Words(BrowserCase):
    def test_the_ratio_in_words_and_the_question_about_another(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.wait_text("[data-ratio]", "56 : 15 = 3.73 : 1")
        page.wait_text("[data-ratio]", "the driven 0.268 times")
        page.find("[data-panel] input[placeholder='4.2']").send_keys("0.268")
        page.wait_text("[data-told]", "the other way round")
        page.type_into("Teeth", "14")
        page.wait_text("[data-remark]", "multiples of 14")

    def test_a_v_pulley_is_walked_by_key(self) -> None:
        page = self.page()
        self.visit(page, "Turnstone")
        pulley = page.find("[data-wheel='drive.branches[0].stages[0] driver']")
        page.wait_text("[data-sweep]", "62.0")
        pulley.send_keys(Keys.ARROW_UP)
        page.wait_text("[data-labels]", "64.0 mm")

    def test_keys_and_table(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.find(DRIVER).send_keys("t")
        page.wait_text("[data-line-table]", "Toothed belt")
        page.wait_text("[data-line-table]", "anticlockwise")
        page.find(DRIVER).send_keys("?")
        page.wait_text("[data-keys]", "Double the selected stage")
        page.click_button("Close")
        page.wait(lambda: not page.all("[data-keys]"), "the list to go")
        page.find(DRIVER).send_keys(Keys.ARROW_RIGHT)
        page.wait_text("[data-panel] h2", "driven gear")
        page.wait(lambda: "driven" in page.driver.current_url, "the address to say what is chosen")
        page.driver.refresh()
        page.wait_text("[data-panel] h2", "driven gear")

    def test_anything_is_found_by_a_few_letters(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.find("body").send_keys(Keys.CONTROL, "k")
        page.find("[data-finder] input").send_keys("working push")
        page.wait_text("[data-finder] [aria-selected=true]", "Show the working of push at a wall")
        self.assertEqual(page.axe(), [])
        page.find("[data-finder] input").send_keys(Keys.ENTER)
        page.wait_text("[data-working]", "push")
        page.click("[aria-label='Close the working']")
        page.click("[aria-label='Find anything']")
        page.find("[data-finder] input").send_keys("dunlin")
        page.wait_text("[data-finder] [aria-selected=true]", "Dunlin")
        page.find("[data-finder] input").send_keys(Keys.ENTER)
        page.wait_text("header h1", "Dunlin")
        page.find("body").send_keys("?")
        page.wait_text("[data-keys]", "Find anything")

    def test_what_else_than_a_wheel_is_swept_by_the_same_keys(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.wait(lambda: page.all("[data-sweep] table"), "the first sweep")
        self.focus_on(page, "[aria-label='Motor and supply']")
        page.wait_text("[data-sweep]", "motors a unit")
        page.driver.switch_to.active_element.send_keys(Keys.ARROW_UP)
        page.wait(lambda: self.newest()["drive"]["branches"][0]["count"] == 2, "a second motor")
        page.click("[data-sweep] [role=tab]:nth-of-type(2)")
        page.wait_text("[data-sweep]", "motor of the bin")
        page.click("[aria-label='Take outrunner, 330 rpm/V']")
        page.wait(lambda: "330" in str(self.newest()["drive"]["branches"][0]["source"]), "the other motor")
        self.focus_on(page, "[aria-label='Wheel on the ground']")
        page.wait_text("[data-sweep]", "wheel, mm")
        page.driver.switch_to.active_element.send_keys(Keys.ARROW_DOWN)
        page.wait(lambda: self.newest()["vehicle"]["wheel_diameter"] == "120 mm", "a smaller wheel")

    def test_the_end_of_the_bin_is_told(self) -> None:
        page = self.page()
        self.sandpiper(page)
        page.wait_text("[data-panel]", "owned")
        for _ in range(3):
            page.find(DRIVER).send_keys(Keys.PAGE_DOWN)
        page.wait_text("[data-end]", "in the bin; Alt ↓ for any size")
