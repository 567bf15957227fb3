"""./ydro bench options: a search as a user meets it, in the page at once and through workers in the background."""

from __future__ import annotations

import time
from typing import Any

from ops.checks import TEST
from ops.serving import launch_worker
from ops.watching import end
from tests.bench.serving import BENCH, LOG, demo
from tests.browser.driving import Page
from tests.figures import percentile

PORT = 8771
RUNS = 20
POLL_S = 0.25
"""Often enough to see the end, seldom enough to leave both cores to the workers."""
GOAL_MS = 400.0
GOAL_TIMES = 1.6
PIECES_LAYOUT = [
    {"kind": "gear", "ratio": [1.5, 6]},
    {"kind": "chain", "ratio": [1, 6]},
    {"kind": "belt", "ratio": [1.2, 6]},
]
"""Some ten pieces of a million combinations of the demo bin."""
CLICK = """
const done = arguments[0];
const before = document.querySelector("[data-found]");
const begun = performance.now();
const watch = new MutationObserver(() => {
  const now = document.querySelector("[data-found]");
  if (!now || now === before) return;
  watch.disconnect();
  requestAnimationFrame(() => {
    const painted = new MessageChannel();
    painted.port1.onmessage = () => done(performance.now() - begun);
    painted.port2.postMessage(null);
  });
});
watch.observe(document.body, { childList: true, subtree: true });
document.querySelector("[data-search]").click();
"""
ASK = """
const [address, body, done] = arguments;
const token = document.cookie.split("; ").find((entry) => entry.startsWith("csrftoken=")).slice(10);
const headers = { "X-CSRFToken": token, "Content-Type": "application/json" };
const asked = body ? { method: "POST", headers, body: JSON.stringify(body) } : {};
fetch(address, asked).then((answer) => answer.json()).then(done);
"""


def sandpiper(page: Page) -> None:
    """Gears narrowed by their teeth, and every belt."""
    page.click("[data-layouts] button[aria-expanded]")
    for member, teeth in (("driver", "12-18"), ("driven", "48-64")):
        page.find(f"input[aria-label='{member} teeth, stage 1']").send_keys(teeth, "\n")
    time.sleep(1.5)  # the count follows what was typed


def in_the_page(page: Page, vehicle: str) -> None:
    """From the click to the options painted; Turnstone with all of its own layout, three speeds and an engine."""
    page.open("/")
    page.click(f"[data-vehicle={vehicle}] a")
    page.click("nav a[href$=options]")
    page.find("[data-search]:not([disabled])")
    if vehicle == "Sandpiper":
        sandpiper(page)
    combinations = f"{vehicle}: {page.text('[data-search]')}"
    page.driver.set_script_timeout(60)
    times = [_searched(page) for _ in range(RUNS + 3)][3:]
    spread = "  ".join(
        f"{name} {percentile(times, share):.0f}"
        for name, share in (("min", 0.0), ("median", 0.5), ("p90", 0.9), ("p95", 0.95), ("max", 1.0))
    )
    print(f"{combinations}, from the click to the options painted, ms: {spread}   (goal {GOAL_MS:g})")


def _searched(page: Page) -> float:
    """One search; nobody asks for the next one before the list is whole."""
    page.wait(lambda: not page.all("[data-following]"), "the rest of the list")
    return float(page.driver.execute_async_script(CLICK))


def asked(page: Page, address: str, body: Any = None) -> Any:
    """An answer of the API."""
    return page.driver.execute_async_script(ASK, address, body)


def through_workers(page: Page, env: dict[str, str]) -> None:
    """The same large search with one worker and with two."""
    page.open("/")
    page.find("[data-vehicle]")
    workshop = asked(page, "/api/workshops/")[0]["id"]
    vehicle = asked(page, f"/api/workshops/{workshop}/vehicles/")[0]
    request = {"format": "ydrometer-search", "version": 1, "design": vehicle["document"], "keep": 50}
    small = {**request, "layouts": [{"stages": PIECES_LAYOUT[:2]}]}
    large = {**request, "layouts": [{"stages": PIECES_LAYOUT}]}
    took = []
    for count in (1, 2):
        workers = [launch_worker(env, LOG) for _ in range(count)]
        try:
            lasting(page, workshop, small)  # kernels loaded, requests known
            lasting(page, workshop, small)
            seconds, total = lasting(page, workshop, large)
        finally:
            for worker in workers:
                end(worker)
        took.append(seconds)
        print(f"{total:,} combinations through {count} worker{'s' if count > 1 else ''}: {seconds:.2f} s")
    print(f"two workers: {took[0] / took[1]:.2f} times one   (goal {GOAL_TIMES:g})")


def lasting(page: Page, workshop: str, request: Any) -> tuple[float, int]:
    """Seconds from asking to the answer, and how many combinations it was."""
    begun = time.perf_counter()
    one = asked(page, f"/api/workshops/{workshop}/searches/", {"request": request})["search"]
    while one["state"] in ("waiting", "running"):
        time.sleep(POLL_S)
        one = asked(page, f"/api/workshops/{workshop}/searches/")[0]
    assert one["state"] == "done", one
    return time.perf_counter() - begun, int(one["combinations"])


def main() -> None:
    """Print both."""
    with demo(PORT) as base:
        page = Page(base)
        try:
            page.visit_demo()
            in_the_page(page, "Sandpiper")
            in_the_page(page, "Turnstone")
            through_workers(page, TEST.env(BENCH.database))
        finally:
            page.close()


if __name__ == "__main__":
    main()
