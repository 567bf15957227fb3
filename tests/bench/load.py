"""./ydro bench api: the evaluation endpoint under an open load; whoever is late does not slow down who comes next."""

from __future__ import annotations

import copy
import http.client
import json
import threading
import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from typing import Any

from tests.bench.serving import demo
from tests.bench.ui import percentile
from tests.core.designs import PLAIN

RATE = 40.0
"""Requests a second."""
LASTING = 20.0
GOAL_MS = 60.0
PORT = 8769
WORKERS = 24


class Client(threading.local):
    """A connection of each thread's own, signed in once."""

    def __init__(self) -> None:
        self.connection = http.client.HTTPConnection("127.0.0.1", PORT, timeout=20)
        self.headers: dict[str, str] = {}

    def sign_in(self) -> None:
        """As the demo's visitor."""
        self.send("GET", "/api/session/", None)
        cookies = self.cookies("POST", "/api/demo/")
        self.headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in cookies.items()),
                        "X-CSRFToken": cookies["csrftoken"]}  # fmt: skip

    def cookies(self, method: str, path: str) -> dict[str, str]:
        """What an answer sets."""
        self.connection.request("GET", "/api/session/")
        first = self.connection.getresponse()
        first.read()
        found = parse_cookies(first)
        self.connection.request(method, path, headers={"Cookie": f"csrftoken={found['csrftoken']}",
                                                       "X-CSRFToken": found["csrftoken"]})  # fmt: skip
        answer = self.connection.getresponse()
        answer.read()
        return found | parse_cookies(answer)

    def send(self, method: str, path: str, body: Any) -> int:
        """One request; returns the status."""
        text = None if body is None else json.dumps(body)
        self.connection.request(method, path, text, {**self.headers, "Content-Type": "application/json"})
        answer = self.connection.getresponse()
        answer.read()
        return answer.status


def parse_cookies(answer: http.client.HTTPResponse) -> dict[str, str]:
    """Names and values of all cookies set."""
    pairs = [line.split(";")[0].partition("=") for line in answer.headers.get_all("Set-Cookie") or []]
    return {name: value for name, _, value in pairs}


def bodies() -> list[dict[str, Any]]:
    """A design as the page asks, one tooth more each time."""
    made = []
    for teeth in range(12, 28):
        document = copy.deepcopy(PLAIN)
        document["drive"]["branches"][0]["stages"][0]["driver_teeth"] = teeth
        made.append({"document": document, "selected": {"path": "drive.branches[0].stages[0]", "member": "driver"}})
    return made


def under_load(headers: dict[str, str], send: Callable[[Client, int], int]) -> tuple[list[float], list[str]]:
    """Waiting times in ms from when each request was due, and what went wrong."""
    client, late, failures = Client(), [], []

    def one(number: int, due: float) -> None:
        client.headers = headers
        try:
            status = send(client, number)
            if status != 200:
                failures.append(str(status))
        except OSError as error:
            failures.append(repr(error))
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
        client = Client()
        client.sign_in()
        kinds: dict[str, Callable[[Client, int], int]] = {
            "evaluation": lambda c, n: c.send("POST", "/api/live/", asked[n % len(asked)]),
            "who is signed in": lambda c, n: c.send("GET", "/api/session/", None),
        }
        found = {name: under_load(client.headers, send) for name, send in kinds.items()}
    print(f"{RATE:g} requests a second for {LASTING:g} s, open loop, from when each was due to its answer, ms:")
    for name, (late, failures) in found.items():
        shown = "  ".join(f"p{share * 100:g} {percentile(late, share):.0f}" for share in (0.5, 0.9, 0.95, 0.99))
        print(f"  {name:18} {shown}  max {max(late):.0f}   {len(failures)} errors {failures[:3]}")
    print(f"  (goal: evaluation p95 at most {GOAL_MS:g} ms; the other shows what this machine adds by itself)")


if __name__ == "__main__":
    main()
