"""From a key to what a place shows then, painted: watched by the page itself."""

from __future__ import annotations

from tests.browser.driving import Page

WATCH = """
const [key, place] = arguments;
window.__settled = [];
let begun = 0;
document.addEventListener(key ? "keydown" : "click", (event) => {
  if (!key || event.key.startsWith(key)) begun = performance.now();
}, true);
new MutationObserver(() => {
  const since = begun;
  if (!since) return;
  begun = 0;
  requestAnimationFrame(() => {
    const painted = new MessageChannel();
    painted.port1.onmessage = () => window.__settled.push(performance.now() - since);
    painted.port2.postMessage(null);
  });
}).observe(document.querySelector(place), { childList: true, subtree: true, characterData: true });
"""


def watch(page: Page, key: str, place: str) -> None:
    """Note in the page how long it takes from a key, told by the beginning of its name, until a place has changed.

    Without a key it is from a click.
    """
    page.driver.execute_script(WATCH, key, place)


def answered(page: Page, count: int) -> bool:
    """Whether so many keys have been answered."""
    return bool(page.driver.execute_script("return window.__settled.length") >= count)
