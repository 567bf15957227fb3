"""./ydro bench practice: an exercise with its drawing, from an answer to what is said of it, and a class at once."""

from __future__ import annotations

import threading
import time

from selenium.webdriver.common.keys import Keys

from tests.bench.serving import demo
from tests.bench.ui import spread, wait_for_times
from tests.browser.driving import Page
from tests.drills.visitor import Visitor
from ydrometer.practice import KINDS, exercise

PORT = 8771
SEEDS = 20
GOAL_MS = 30.0
ANSWERS = 60
GOAL_SAID_MS = 100.0
PUPILS, ROUNDS = 40, 8
GOAL_CLASS_MS = 300.0
WATCH = """
window.__times = [];
let pressed = 0;
document.addEventListener("keydown", (event) => { if (event.key === "Enter") pressed = performance.now(); }, true);
new MutationObserver(() => {
  if (!pressed || !document.querySelector("[data-said]")) return;
  const begun = pressed;
  pressed = 0;
  requestAnimationFrame(() => {
    const painted = new MessageChannel();
    painted.port1.onmessage = () => window.__times.push(performance.now() - begun);
    painted.port2.postMessage(null);
  });
}).observe(document.querySelector("[data-exercise]"), { childList: true, subtree: true, attributes: true });
"""


def main() -> None:
    """Measure all three, and print them as distributions."""
    print(f"an exercise with its drawing, in the core (goal: at most {GOAL_MS:g} ms):  {spread(drawn())}")
    with demo(PORT) as base:
        print(f"an answer until it is judged and painted (goal: p95 {GOAL_SAID_MS:g} ms):  {spread(said(base))}")
        found = at_once()
        print(f"{PUPILS} pupils answering at once, {ROUNDS} times (goal: p95 {GOAL_CLASS_MS:g} ms):  {spread(found)}")


def drawn() -> list[float]:
    """Times of every kind at every level, after the first one of each."""
    times = []
    for kind in KINDS:
        for seed in range(SEEDS):
            begun = time.perf_counter()
            exercise(kind, seed % 3 + 1, seed).drawing()
            if seed:
                times.append(1e3 * (time.perf_counter() - begun))
    return times


def said(base: str) -> list[float]:
    """Times of answers that are wrong, each another one."""
    page = Page(base)
    try:
        page.open("/practice?idea=idlers")
        field = page.find("[data-answer]")
        time.sleep(1.0)
        page.driver.execute_script(WATCH)
        for count in range(ANSWERS + 3):
            field.send_keys(Keys.CONTROL, "a", Keys.NULL, f"{900 + count}", Keys.ENTER)
            wait_for_times(page, count + 1)
        return [float(one) for one in page.driver.execute_script("return window.__times")][3:]
    finally:
        page.close()


def at_once() -> list[float]:
    """Times of answers of a whole class, all sent in the same moment."""
    code = _set()
    pupils = [_pupil(code, number) for number in range(PUPILS)]
    times: list[float] = []
    for number in range(ROUNDS):
        start = threading.Barrier(PUPILS)
        threads = [threading.Thread(target=_answer, args=(pupil, number, start, times)) for pupil in pupils]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
    return times


def _set() -> str:
    teacher = Visitor(PORT).sign_up("teacher")
    body = {"name": "Class", "ideas": ["idlers", "speed"], "levels": [2], "count": ROUNDS}
    answer = teacher.send("POST", f"/api/workshops/{teacher.workshop()}/sets/", body)
    return str(answer.json["code"])


def _pupil(code: str, number: int) -> Visitor:
    pupil = Visitor(PORT)
    pupil.send("GET", "/api/session/")
    pupil.send("POST", "/api/class/joining/", {"code": code, "nickname": f"pupil {number}"})
    return pupil


def _answer(pupil: Visitor, place: int, start: threading.Barrier, times: list[float]) -> None:
    start.wait()
    begun = time.perf_counter()
    answer = pupil.send("POST", f"/api/class/exercises/{place}/", {"answer": "3.5"})
    assert answer.status == 200, answer
    times.append(1e3 * (time.perf_counter() - begun))


if __name__ == "__main__":
    main()
