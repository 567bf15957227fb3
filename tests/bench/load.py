"""./ydro bench api: the evaluation endpoint under an open load; whoever is late does not slow down who comes next."""

from __future__ import annotations

import copy
import threading
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from tests.bench.serving import demo
from tests.core.designs import PLAIN
from tests.drills.visitor import Answer, Visitor
from tests.figures import percentile

RATE = 40.0
"""Requests a second."""
LASTING = 20.0
GOAL_MS = 60.0
PORT = 8769
WORKERS = 24


def bodies() -> list[dict[str, Any]]:
    """A design as the page asks, one tooth more each time."""
    made = []
    for teeth in range(12, 28):
        document = copy.deepcopy(PLAIN)
        document["drive"]["branches"][0]["stages"][0]["driver_teeth"] = teeth
        made.append({"document": document, "selected": {"path": "drive.branches[0].stages[0]", "member": "driver"}})
    return made


def under_load(cookies: dict[str, str], send: Callable[[Visitor, int], Answer]) -> tuple[list[float], list[str]]:
    """Waiting times in ms from when each request was due, and what went wrong."""
    late: list[float] = []
    failures: list[str] = []
    own = threading.local()

    def one(number: int, due: float) -> None:
        if not hasattr(own, "visitor"):
            own.visitor = Visitor(PORT, limit=20.0)
            own.visitor.cookies = cookies
        answer = send(own.visitor, number)
        if answer.status != 200:
            failures.append(str(answer.status))
        late.append(1e3 * (time.perf_counter() - due))

    for warm in range(8):
        one(warm, time.perf_counter())
    late.clear()
    begun = time.perf_counter() + 0.5
    with ThreadPoolExecutor(WORKERS) as pool:
        for number in range(int(RATE * LASTING)):
            due = begun + number / RATE
            time.sleep(max(0.0, due - time.perf_counter()))
            pool.submit(one, number, due)
    return late, failures


def main() -> None:
    """Send, wait for all, print the distribution, beside that of requests that compute nothing."""
    asked = bodies()
    with demo(PORT):
        visitor = Visitor(PORT)
        visitor.send("GET", "/api/session/")
        visitor.send("POST", "/api/demo/")
        kinds: dict[str, Callable[[Visitor, int], Answer]] = {
            "evaluation": lambda v, n: v.send("POST", "/api/live/", asked[n % len(asked)]),
            "who is signed in": lambda v, n: v.send("GET", "/api/session/"),
        }
        rows = {name: under_load(visitor.cookies, send) for name, send in kinds.items()}
    print(f"{RATE:g} requests a second for {LASTING:g} s, open loop, from when each was due to its answer, ms:")
    for name, (late, failures) in rows.items():
        shown = "  ".join(f"p{share * 100:g} {percentile(late, share):.0f}" for share in (0.5, 0.9, 0.95, 0.99))
        print(f"  {name:18} {shown}  max {max(late):.0f}   {len(failures)} errors {failures[:3]}")
    print(f"  (goal: evaluation p95 at most {GOAL_MS:g} ms; the other shows what this machine adds by itself)")


if __name__ == "__main__":
    main()
