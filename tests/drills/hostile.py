"""Requests and files made to take long or much."""

from __future__ import annotations

import base64
import io
import json
import threading
import uuid
from collections.abc import Iterator
from typing import Any

from openpyxl import Workbook

from tests.core.designs import changed
from tests.drills import site
from tests.drills.report import Row, at_most, equal
from tests.drills.visitor import Answer, Visitor

MOST_S = 3.0
MOST_MB = 1200.0


def drill(port: int) -> Iterator[Row]:
    """Each by itself, with a look at memory meanwhile."""
    visitor = Visitor(port, limit=120.0).sign_up(f"hostile-{uuid.uuid4().hex[:6]}")
    workshop = visitor.workshop()
    visitor.send("GET", f"/api/workshops/{workshop}/parts/export/csv/")  # the process beside is ready after this
    peak = [0.0]
    done = threading.Event()

    def watch() -> None:
        while not done.wait(0.05):
            peak[0] = max(peak[0], site.memory())

    watching = threading.Thread(target=watch)
    watching.start()
    failed = 0
    for what, method, path, body in asked(workshop):
        answer: Answer = visitor.send(method, path, body)
        failed += answer.status == 0 or answer.status >= 500
        yield at_most(
            "file", f"{what} (answered {answer.status}, {len(answer.text) / 1e6:.2f} MB)", answer.taken, MOST_S, " s"
        )
    done.set()
    watching.join()
    yield equal("file", "of these, not answered or 500", failed, 0)
    yield at_most("file", "memory of all processes at most", peak[0], MOST_MB, " MB")


def asked(workshop: str) -> Iterator[tuple[str, str, str, Any]]:
    """What it is, verb, address, body."""
    live, vehicles, parts = "/api/live/", f"/api/workshops/{workshop}/vehicles/", f"/api/workshops/{workshop}/parts/"
    blanks = "±" + " " * 60_000 + "a"
    yield "a quantity of 60,000 blanks", "POST", live, {"document": changed({"vehicle.mass": blanks})}
    yield "300,000 unknown keys", "POST", live, {"document": changed() | {f"k{n}": n for n in range(300_000)}}
    yield (
        "a target of 10^400",
        "POST",
        vehicles,
        raw({"targets": [{"measure": "top_speed", "at_least": 0}]}, b"1" + b"0" * 400),
    )
    yield "a mass of 5e-324", "POST", live, {"document": changed({"vehicle.mass": 5e-324})}
    heads = ";".join(["a" + " " * 900 + "b"] * 10) + "\nx\n"
    yield "headings of 900 blanks", "POST", f"{parts}file/", file("a.csv", heads.encode())
    lines = "kind,teeth," + ",".join(f"a{n}" for n in range(20)) + "\n"
    lines += "gear,abc," + ",".join(["z" * 15] * 20) + "\n"
    faulty = lines + ("gear,abc," + ",".join(["z" * 15] * 20) + "\n") * 5700
    yield "a faulty CSV of 1.9 MB", "POST", f"{parts}file/", file("a.csv", faulty.encode()[:1_900_000])
    equal_parts = "kind,teeth,module\n" + "gear,15,1\n" * 5000
    yield "5,000 equal parts by CSV", "POST", f"{parts}file/", file("a.csv", equal_parts.encode())
    yield "an XLSX of 60,000 rows of shared texts", "POST", f"{parts}file/", file("a.xlsx", book())
    named = {"id": "g", "kind": "gear", "teeth": 12, "module": "1 mm", "name": "a\u0001b"}
    yield "a control character in a name", "POST", parts, {"changes": [{"id": "g", "base": 0, "document": named}]}
    for across in (60, 77, 200):
        fit = {"plate": {"hole_pitch": "12 mm", "across": across, "up": across, "hole": "5 mm"}}
        for kind in ("pdf", "dxf"):
            body = {"document": {**changed(), "fit": fit}}
            yield (
                f"a template of {across} × {across} holes as {kind}",
                "POST",
                f"/api/workshops/{workshop}/fit/template/{kind}/",
                body,
            )


def raw(changes: dict[str, Any], number: bytes) -> bytes:
    """A document with a number that no JSON library would write."""
    return json.dumps({"document": changed(changes)}).encode().replace(b'"at_least": 0', b'"at_least": ' + number)


def file(name: str, data: bytes) -> dict[str, str]:
    return {"name": name, "data": base64.b64encode(data).decode(), "kind": "gear"}


def book() -> bytes:
    made = Workbook()
    sheet = made.active
    sheet.append(["kind", "teeth", "module"])
    for n in range(60_000):
        sheet.append(["gear", f"t{n}", f"x{n}"])
    out = io.BytesIO()
    made.save(out)
    return out.getvalue()
