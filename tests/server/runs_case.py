"""A workshop with a vehicle that is run."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from tests.server.people import WorkshopCase

TIMED = {
    "kind": "distance_time",
    "distance": "10 m",
    "readings": ["2.91 s", "2.95 s", "2.87 s"],
    "supply_voltage": "24 V",
}
TIMED_PLAN = {"kind": "distance_time", "distance": "10 m"}


class RunsCase(WorkshopCase):
    def address(self, rest: str = "runs/") -> str:
        return f"/api/vehicles/{self.vehicle.id}/{rest}"

    def log(self, document: dict[str, Any] = TIMED, **more: Any) -> Any:
        body = {"id": str(uuid4()), "document": document, **more}
        return self.as_("editor").post(self.address(), body, format="json")
