"""Many at once: connections that say nothing, and people who work while others search."""

from __future__ import annotations

import re
import socket
import statistics
import threading
import time
import uuid
from collections.abc import Iterator

from tests.bench.load import bodies
from tests.bench.search import request
from tests.core.designs import changed
from tests.drills.report import Row, at_most, equal
from tests.drills.visitor import Answer, Visitor
from tests.figures import percentile

HEAD = b"POST /api/live/ HTTP/1.1\r\nHost: localhost\r\nContent-Length: 100\r\n\r\n{"
USERS, SEARCHERS, LASTING_S = 100, 3, 30.0
UNREAD, PIPELINED, LET_GO_S = 30, 90, 26.0
MANY, PUPILS = 300, 40
SLOWER = 20.0
"""Times that an answer may take longer in a crowd than alone, on however slow a machine."""
EVERY_S = 5.0
"""Each user presses a key so often, saves at every second one, and hears of others at every third."""


def half_open(port: int) -> Iterator[Row]:
    """Connections that begin a request and never end it."""
    for count in (16, 400):
        held = []
        for _ in range(count):
            held.append(socket.create_connection(("127.0.0.1", port)))
            held[-1].sendall(HEAD)
        visitor = Visitor(port)
        waits = [visitor.send("GET", "/api/session/").taken for _ in range(20)]
        yield at_most("half-open", f"longest answer beside {count} of them", 1e3 * max(waits), 1000, " ms")
        for connection in held:
            connection.settimeout(30.0)
        begun = time.monotonic()
        for connection in held:
            try:
                connection.recv(1000)
            except OSError:
                break
            connection.close()
        yield at_most("half-open", f"until all {count} are closed", time.monotonic() - begun, 30, " s")


def unread(port: int) -> Iterator[Row]:
    """Connections that ask for the largest file of the page many times over, and read nothing."""
    visitor = Visitor(port)
    page = visitor.send("GET", "/").text.decode()
    files = {path: len(visitor.send("GET", path).text) for path in re.findall(r'(?:src|href)="(/static/[^"]+)"', page)}
    request = f"GET {max(files, key=lambda path: files[path])} HTTP/1.1\r\nHost: localhost\r\n\r\n".encode()
    idle = statistics.median(visitor.send("GET", "/healthz").taken for _ in range(20))
    held = []
    for _ in range(UNREAD):
        held.append(socket.create_connection(("127.0.0.1", port)))
        held[-1].sendall(request * PIPELINED)
    time.sleep(2.0)
    waits = [visitor.send("GET", "/healthz").taken for _ in range(40)]
    about = f"beside {UNREAD} that asked {PIPELINED} times and read nothing"
    yield at_most("unread", f"{about}, p95 of an answer, times an idle one", percentile(waits, 0.95) / idle, 20)
    time.sleep(LET_GO_S)
    # What the system has kept can still be read; then comes the end.
    yield equal("unread", f"of them still open after {LET_GO_S:g} s", sum(_open(connection) for connection in held), 0)


def _open(connection: socket.socket) -> bool:
    """Whether the other side has not let a connection go."""
    connection.settimeout(2.0)
    try:
        while connection.recv(1 << 20):
            pass
    except TimeoutError:
        return True
    except OSError:
        pass
    return False


def load(port: int) -> Iterator[Row]:
    """People at their designs, beside some who search all the time."""
    crowd = AtWork(port, USERS)
    about = f"{USERS} users beside {SEARCHERS} searchers"
    for kind, found in crowd.waits.items():
        if found:
            lines = f"p95 of {kind}, {about} ({len(found)} requests)"
            yield at_most("load", lines, percentile(found, 0.95), 200, " ms")
    yield equal("load", "answers that were none", len(crowd.wrong), 0)


def many(port: int) -> Iterator[Row]:
    """Three times as many, and a class; against what the same answers take alone."""
    alone, crowd = AtWork(port, 4, searchers=0, pupils=1), AtWork(port, MANY, pupils=PUPILS)
    about = f"{MANY} users, {SEARCHERS} searchers, {PUPILS} pupils"
    for kind, found in crowd.waits.items():
        lines = f"p95 of {kind}, {about} ({len(found)} requests), times alone"
        yield at_most("crowd", lines, percentile(found, 0.95) / percentile(alone.waits[kind], 0.95), SLOWER)
    yield equal("crowd", "answers that were none", len(crowd.wrong), 0)


class AtWork:
    """People at work for a while: how long they wait, ms by kind of request, and statuses that were none.

    Args:
        port: of the server.
        users: at their designs, on ten accounts.
        searchers: who search all the time.
        pupils: who answer exercises.
    """

    def __init__(self, port: int, users: int, searchers: int = SEARCHERS, pupils: int = 0) -> None:
        self.port, self.users, self.bodies = port, users, bodies()
        self.accounts = [Visitor(port, limit=30.0).sign_up(f"user-{uuid.uuid4().hex[:10]}") for _ in range(10)]
        self.vehicles = [self.accounts[number % 10].add_vehicle(changed()) for number in range(users)]
        self.code = self.make_a_set() if pupils else ""
        self.waits: dict[str, list[float]] = {"figures": [], "saving": [], "looking": [], "answers": []}
        self.wrong: list[int] = []
        self.stop = time.monotonic() + LASTING_S
        threads = [threading.Thread(target=self.work, args=(n,)) for n in range(users)]
        threads += [threading.Thread(target=self.search, args=(n,)) for n in range(searchers)]
        threads += [threading.Thread(target=self.learn, args=(n, EVERY_S * n / pupils)) for n in range(pupils)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.waits["all"] = [wait for found in self.waits.values() for wait in found]

    def make_a_set(self) -> str:
        """The code of a set of exercises."""
        wanted = {"name": "Crowd", "ideas": ["ratio"], "levels": [1], "count": 2, "own_numbers": True}
        teacher = self.accounts[0]
        return str(teacher.send("POST", f"/api/workshops/{teacher.workshop()}/sets/", wanted).json["code"])

    def visitor(self, number: int, limit: float) -> Visitor:
        """One of the accounts, on a connection of their own."""
        visitor = Visitor(self.port, limit=limit)
        visitor.cookies = dict(self.accounts[number % 10].cookies)
        return visitor

    def note(self, kind: str, answer: Answer, *known: int) -> None:
        """Count an answer; `known` are statuses besides that are answers here."""
        self.waits[kind].append(1e3 * answer.taken)
        if answer.status not in (200, 201, 409, *known):
            self.wrong.append(answer.status)

    def work(self, number: int) -> None:
        """Type, save at every second key, look at every third."""
        visitor, vehicle = self.visitor(number, 30.0), self.vehicles[number]
        time.sleep(EVERY_S * number / self.users)
        n, base = 0, 1
        while time.monotonic() < self.stop:
            n += 1
            begun = time.monotonic()
            self.note("figures", visitor.send("POST", "/api/live/", self.bodies[n % len(self.bodies)]))
            if n % 3 == number % 3:
                self.note("looking", visitor.send("GET", f"/api/vehicles/{vehicle}/newest/"))
            if n % 2 == number % 2:
                save = {"base": base, "document": changed({"notes": str(n)})}
                answer = visitor.send("POST", f"/api/vehicles/{vehicle}/revisions/", save)
                self.note("saving", answer)
                base += answer.status == 201
            time.sleep(max(0.0, EVERY_S - (time.monotonic() - begun)))

    def search(self, number: int) -> None:
        """Ask for one large search after the other."""
        visitor = self.visitor(number, 60.0)
        workshop = visitor.workshop()
        whole = request(9, 7, 9, masses=False)
        changes = [{"id": part["id"], "base": 0, "document": part} for part in whole.pop("parts")]
        visitor.send("POST", f"/api/workshops/{workshop}/parts/", {"changes": changes})
        while time.monotonic() < self.stop:
            answer = visitor.send("POST", f"/api/workshops/{workshop}/searches/", {"request": whole, "vehicle": None})
            while answer.status == 201 and time.monotonic() < self.stop:
                state = visitor.send("GET", f"/api/searches/{answer.json['search']['id']}/")
                if state.status == 200 and state.json["search"]["state"] not in ("waiting", "running"):
                    break
                time.sleep(0.5)
            time.sleep(0.2)

    def learn(self, number: int, after_s: float) -> None:
        """Join the class and answer."""
        time.sleep(after_s)
        visitor = Visitor(self.port, limit=30.0)
        visitor.send("GET", "/api/session/")
        visitor.send("POST", "/api/class/joining/", {"code": self.code, "nickname": f"Wren {number}"})
        while time.monotonic() < self.stop:
            # Of an exercise with choices a number is no answer, which is judged and told too.
            self.note("answers", visitor.send("POST", "/api/class/exercises/0/", {"answer": "2.5"}), 400)
            time.sleep(EVERY_S)
