"""What somebody gets who belongs to no workshop but their own."""

from __future__ import annotations

import uuid
from collections.abc import Iterator

from tests.core.designs import changed
from tests.drills.report import Row, equal
from tests.drills.visitor import Visitor

SECRET = "Nobody else may read this"
BEGINNING = {"beginning": {"start": "empty", "answers": {"name": "Mine"}}}


def drill(port: int) -> Iterator[Row]:
    """Every address of an owner's things, with every verb, by a stranger and by nobody."""
    owner = Visitor(port).sign_up(f"owner-{uuid.uuid4().hex[:6]}")
    workshop, vehicle = owner.workshop(), owner.add_vehicle(changed({"name": SECRET}))
    stranger, nobody = Visitor(port).sign_up(f"stranger-{uuid.uuid4().hex[:6]}"), Visitor(port)
    nobody.send("GET", "/api/session/")
    places = [
        f"workshops/{workshop}/{rest}"
        for rest in (
            "",
            "members/",
            "members/1/",
            "vehicles/",
            "parts/",
            "parts/export/csv/",
            "searches/",
            "usage/",
            "searches/survey/",
            "fit/",
            "fit/places/",
            "fit/template/svg/",
            "inverse/",
            "invitations/",
            "leaving/",
            "closing/",
            "parts/bulk/",
            "parts/file/",
            "parts/fits/",
        )
    ] + [f"vehicles/{vehicle}/{rest}" for rest in ("", "newest/", "revisions/", "revisions/1/")]
    asked = leaked = 0
    for visitor in (stranger, nobody):
        for place in places:
            for verb in ("GET", "POST", "PATCH", "PUT", "DELETE"):
                body = {"document": changed(), "base": 1, "name": "x", "request": {}, "role": "owner", "put_away": True}
                answer = visitor.send(verb, f"/api/{place}", None if verb == "GET" else body)
                asked += 1
                leaked += 200 <= answer.status < 300 or SECRET.encode() in answer.text
    yield equal("stranger", f"of {asked} requests, answered or told anything", leaked, 0)
    name = owner.send("GET", "/api/session/").json["username"]
    bait = stranger.send("POST", "/api/workshops/", {"name": "!"}).json["id"]
    stranger.send("POST", f"/api/workshops/{bait}/invitations/", {"username": name, "role": "owner"})
    owner.send("POST", f"/api/workshops/{owner.workshop()}/vehicles/", BEGINNING)
    seen = stranger.send("GET", f"/api/workshops/{bait}/vehicles/").json
    yield equal("stranger", "vehicles of somebody invited, unasked, that land with the stranger", len(seen), 0)
