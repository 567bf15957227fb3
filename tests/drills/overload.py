"""More heavy work at once than can be done: nobody's process is ended for it, and who comes too late is told so."""

from __future__ import annotations

import statistics
import time
import uuid
from collections import Counter
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor

from tests.core.designs import changed
from tests.core.lines import PLATE
from tests.drills import site
from tests.drills.report import Row, at_most, equal
from tests.drills.visitor import Answer, Visitor
from tests.figures import percentile

BODIES, LINES, TEMPLATES = 8, 99_000, 12
SLOWER = 60.0
"""Times that a bare answer may be slower than on an idle server: two cores do eight things."""


def drill(port: int) -> Iterator[Row]:
    """Long instrument files and templates, all at once, by one account."""
    owner = Visitor(port, limit=60.0).sign_up(f"heavy-{uuid.uuid4().hex[:8]}")
    workshop = owner.workshop()
    lines = [f'{{"t": {k}, "rpm": 900}}' for k in range(LINES)]
    design = changed({"fit": {"plate": PLATE}})
    template = f"/api/workshops/{workshop}/fit/template/pdf/"
    asked: list[Callable[[Visitor], Answer]] = [
        *[lambda visitor: visitor.send("POST", "/api/instruments/lines/", {"lines": lines, "more": {}})] * BODIES,
        *[lambda visitor: visitor.send("POST", template, {"document": design})] * TEMPLATES,
    ]
    while owner.send("POST", template, {"document": design}).status == 503:
        time.sleep(0.5)  # the processes for heavy work are warmed after the start
    before = site.web()
    idle = statistics.median(owner.send("GET", "/healthz").taken for _ in range(30))
    with ThreadPoolExecutor(len(asked)) as pool:
        answers = [pool.submit(ask, like(owner)) for ask in asked]
        waits = []
        while not all(answer.done() for answer in answers):
            waits.append(Visitor(port, limit=60.0).send("GET", "/healthz").taken)
        statuses = Counter(answer.result().status for answer in answers)
    about = f"{BODIES} files of {LINES:,} lines and {TEMPLATES} templates at once"
    yield equal("overload", f"{about}: processes that were ended", len(set(before) - set(site.web())), 0)
    others = {status: count for status, count in statuses.items() if status not in (200, 503)}
    yield equal("overload", f"answers besides 200 and 503 (of these {dict(sorted(statuses.items()))})", others, {})
    yield at_most(
        "overload", "p95 of a bare answer meanwhile, times an idle one", percentile(waits, 0.95) / idle, SLOWER
    )
    again = owner.send("POST", template, {"document": design})
    yield equal("overload", "afterwards a template is made", again.status, 200)


def like(visitor: Visitor) -> Visitor:
    """The same person on a connection of their own."""
    other = Visitor(visitor.port, limit=60.0)
    other.cookies = dict(visitor.cookies)
    return other
