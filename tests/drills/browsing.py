"""In a browser: several tabs and people at one vehicle, and a bin with thousands of parts."""

from __future__ import annotations

import re
import subprocess
import time
import uuid
from collections.abc import Iterator

from ops.places import PYTHON, ROOT
from tests.browser.driving import Page
from tests.drills.report import Row, at_most, equal
from tests.drills.visitor import PASSWORD, Visitor
from tests.figures import percentile

PARTS = 5000
TIMES = 5


def tabs(port: int) -> Iterator[Row]:
    """The paths of tests/browser/test_together, each by itself."""
    command = [
        str(PYTHON),
        "manage.py",
        "test",
        "tests.browser.test_together",
        "--noinput",
        "-t",
        ".",
        "--settings=server.config.testing",
    ]
    done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False)
    ran = re.search(r"Ran (\d+) tests?", done.stderr)
    lost = sum(int(n) for n in re.findall(r"(?:failures|errors)=(\d+)", done.stderr))
    yield equal("tab", f"of {ran[1] if ran else 0} paths with tabs, merging, leaving and signing in, lost", lost, 0)


def parts(port: int) -> Iterator[Row]:
    """From the address of a bin with 5,000 gears to a row that can be typed in."""
    name = f"hoarder-{uuid.uuid4().hex[:6]}"
    owner = Visitor(port).sign_up(name)
    changes = [
        {"id": f"g{n}", "base": 0, "document": {"id": f"g{n}", "kind": "gear", "teeth": 10 + n % 90, "module": "1 mm"}}
        for n in range(PARTS)
    ]
    answer = owner.send("POST", f"/api/workshops/{owner.workshop()}/parts/", {"changes": changes})
    yield equal("parts", f"{PARTS} put in at once are answered", answer.status, 200)
    page = Page(f"http://127.0.0.1:{port}")
    try:
        page.open("/")
        page.find("#entry-name").send_keys(name)
        page.find("#entry-password").send_keys(PASSWORD, "\n")
        page.find("[data-starts], a[href$='/new']")
        taken = [first_use(page) for _ in range(TIMES)]
        rows = len(page.all("tr[data-part]"))
    finally:
        page.close()
    yield at_most("parts", f"{PARTS} in the page, to first use, median of {TIMES}", percentile(taken, 0.5), 1.5, " s")
    yield at_most("parts", "rows in the page", rows, 150)


def first_use(page: Page) -> float:
    """Seconds from the address to a row that takes the focus."""
    begun = time.perf_counter()
    page.open("/parts")
    page.find("tr[data-part] input:not([type=checkbox])").click()
    return time.perf_counter() - begun
