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
from tests.drills.visitor import Visitor
from tests.figures import percentile

HEAD = b"POST /api/live/ HTTP/1.1\r\nHost: localhost\r\nContent-Length: 100\r\n\r\n{"
USERS, SEARCHERS, LASTING_S = 100, 3, 30.0
UNREAD, PIPELINED, LET_GO_S = 30, 90, 26.0
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
    asked = bodies()
    users = [Visitor(port, limit=30.0).sign_up(f"user-{uuid.uuid4().hex[:10]}") for _ in range(10)]
    vehicles = [users[number % len(users)].add_vehicle(changed()) for number in range(USERS)]
    waits: dict[str, list[float]] = {"figures": [], "saving": [], "looking": []}
    wrong: list[int] = []
    stop = time.monotonic() + LASTING_S

    def work(number: int) -> None:
        visitor, vehicle = Visitor(port, limit=30.0), vehicles[number]
        visitor.cookies = dict(users[number % len(users)].cookies)
        time.sleep(EVERY_S * number / USERS)
        n, base = 0, 1
        while time.monotonic() < stop:
            n += 1
            begun = time.monotonic()
            found = [("figures", visitor.send("POST", "/api/live/", asked[n % len(asked)]))]
            if n % 3 == number % 3:
                found.append(("looking", visitor.send("GET", f"/api/vehicles/{vehicle}/newest/")))
            if n % 2 == number % 2:
                save = {"base": base, "document": changed({"notes": str(n)})}
                found.append(("saving", visitor.send("POST", f"/api/vehicles/{vehicle}/revisions/", save)))
                base += found[-1][1].status == 201
            for kind, answer in found:
                waits[kind].append(1e3 * answer.taken)
                if answer.status not in (200, 201, 409):
                    wrong.append(answer.status)
            time.sleep(max(0.0, EVERY_S - (time.monotonic() - begun)))

    def search(number: int) -> None:
        visitor = Visitor(port, limit=60.0)
        visitor.cookies = dict(users[number].cookies)
        workshop = visitor.workshop()
        whole = request(9, 7, 9, masses=False)
        changes = [{"id": part["id"], "base": 0, "document": part} for part in whole.pop("parts")]
        visitor.send("POST", f"/api/workshops/{workshop}/parts/", {"changes": changes})
        while time.monotonic() < stop:
            answer = visitor.send("POST", f"/api/workshops/{workshop}/searches/", {"request": whole, "vehicle": None})
            while answer.status == 201 and time.monotonic() < stop:
                state = visitor.send("GET", f"/api/searches/{answer.json['search']['id']}/")
                if state.status == 200 and state.json["search"]["state"] not in ("waiting", "running"):
                    break
                time.sleep(0.5)
            time.sleep(0.2)

    threads = [threading.Thread(target=work, args=(n,)) for n in range(USERS)]
    threads += [threading.Thread(target=search, args=(n,)) for n in range(SEARCHERS)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    waits["all"] = [wait for found in waits.values() for wait in found]
    for kind, found in waits.items():
        lines = f"p95 of {kind}, {USERS} users beside {SEARCHERS} searchers ({len(found)} requests)"
        yield at_most("load", lines, percentile(found, 0.95), 200, " ms")
    yield equal("load", "answers that were none", len(wrong), 0)
