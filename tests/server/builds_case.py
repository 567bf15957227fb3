"""A workshop with a vehicle that is built."""

from typing import Any
from uuid import uuid4

from django.utils import timezone

from server.designs.actions import save_revision
from server.parts.actions import Change, change_parts
from tests.core.designs import changed
from tests.server.people import WorkshopCase

GEARS = "drive.branches[0].stages[0]"
MOTOR = "drive.branches[0].source"
PINION = {"kind": "gear", "id": "g15", "teeth": 15, "module": "1 mm", "owned": 2, "price": 3.5}
PULLEY = {"kind": "pulley", "id": "p36", "teeth": 36, "pitch": "5 mm", "owned": 0, "price": 9.0}


def entry(step: str, doing: str = "done", **more: Any) -> dict[str, Any]:
    return {"id": str(uuid4()), "step": step, "doing": doing, "at": timezone.now().isoformat(), **more}


class BuildCase(WorkshopCase):
    def setUp(self) -> None:
        owner = self.people["owner"]
        save_revision(owner, self.vehicle, 1, changed({"drive.units": 1}))
        parts = [Change("g15", 0, PINION), Change("p36", 0, PULLEY)]
        change_parts(owner, self.workshop, parts)

    def get(self, person: str, rest: str = "build/", **query: str) -> Any:
        answer = self.as_(person).get(f"/api/vehicles/{self.vehicle.id}/{rest}", query)
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        return answer.json() if answer.headers["Content-Type"] == "application/json" else answer

    def post(self, person: str, rest: str, body: Any, status: int = 201) -> Any:
        answer = self.as_(person).post(f"/api/vehicles/{self.vehicle.id}/{rest}", body, format="json")
        self.assertEqual(answer.status_code, status, answer.content[:300])
        return answer.json() if answer.content else None

    def say(self, person: str, *entries: dict[str, Any]) -> list[dict[str, Any]]:
        answer: list[dict[str, Any]] = self.post(person, "build/entries/", {"entries": list(entries)})["held_back"]
        return answer

    def steps(self, person: str = "owner") -> dict[str, Any]:
        return {step["id"]: step for step in self.get(person)["shown"]["steps"]}

    def do(self, person: str, last: str) -> None:
        """Tick all steps up to one."""
        ids = list(self.steps())
        self.assertEqual(self.say(person, *(entry(id_) for id_ in ids[: ids.index(last) + 1])), [])
