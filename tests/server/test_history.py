"""Who changed what about a vehicle, and who is at it."""

from __future__ import annotations

import unittest
from datetime import UTC, datetime, timedelta
from typing import Any

from server.designs.history import Saved, sat
from server.designs.models import AtVehicle, Revision
from tests.server.people import WorkshopCase

NOON = datetime(2026, 5, 2, 12, tzinfo=UTC)


def saved(number: int, author: str, minutes: int, name: str = "") -> Saved:
    return Saved(number, author, NOON + timedelta(minutes=minutes), name)


class Sittings(unittest.TestCase):
    def numbers(self, *rows: Saved) -> list[list[int]]:
        return [[row.number for row in sitting] for sitting in sat(sorted(rows, reverse=True))]

    def test_another_person_a_pause_or_a_name_ends_one(self) -> None:
        self.assertEqual(self.numbers(), [])
        self.assertEqual(self.numbers(saved(1, "ada", 0), saved(2, "ada", 5), saved(3, "ben", 6)), [[3], [2, 1]])
        self.assertEqual(self.numbers(saved(1, "ada", 0), saved(2, "ada", 20)), [[2], [1]])
        self.assertEqual(
            self.numbers(saved(1, "ada", 0), saved(2, "ada", 1, "first"), saved(3, "ada", 2)), [[3], [2, 1]]
        )


class Histories(WorkshopCase):
    def change(self, person: str, base: int, **vehicle: Any) -> None:
        document = self.vehicle.revisions.get(number=base).document
        changed = {**document, "vehicle": {**document["vehicle"], **vehicle}}
        address = f"/api/vehicles/{self.vehicle.pk}/revisions/"
        rows = self.as_(person).post(address, {"base": base, "document": changed}, format="json")
        self.assertEqual(rows.status_code, 201)

    def entries(self, query: str = "") -> list[Any]:
        answer: list[Any] = self.as_("viewer").get(f"/api/vehicles/{self.vehicle.pk}/history/{query}").json()
        return answer

    def test_told_in_builders_words_by_sitting(self) -> None:
        self.change("owner", 1, mass="15 kg")
        self.change("owner", 2, mass="16 kg")
        self.change("editor", 3, wheel_diameter="120 mm")
        Revision.objects.filter(vehicle=self.vehicle, number=1).update(saved_at=NOON)
        newest, before, first = self.entries()
        self.assertEqual((newest["author"], newest["number"], newest["before"]), ("editor", 4, 3))
        self.assertIn("120 mm", newest["words"])
        self.assertEqual((before["author"], before["number"], before["before"]), ("owner", 3, 1))
        self.assertIn("16 kg", before["words"])
        self.assertNotIn("15 kg", before["words"])
        self.assertEqual((first["number"], first["before"], first["words"]), (1, None, "put on the bench"))
        self.assertEqual(self.entries("?before=2"), [first])

    def test_a_number_of_thousands_of_digits_is_no_number(self) -> None:
        for before in ("9" * 5000, "9" * 16, "-1", "two", "²"):
            answer = self.as_("viewer").get(f"/api/vehicles/{self.vehicle.pk}/history/?before={before}")
            self.assertEqual(answer.status_code, 400)
        self.assertEqual(self.entries("?before=999999999999999"), self.entries())

    def test_what_came_to_nothing_and_who_is_gone(self) -> None:
        mass = self.vehicle.revisions.get(number=1).document["vehicle"]["mass"]
        Revision.objects.filter(vehicle=self.vehicle).update(saved_at=NOON)
        self.change("editor", 1, mass="15 kg")
        self.change("editor", 2, mass=mass)
        self.people["editor"].delete()
        newest = self.entries()[0]
        self.assertEqual((newest["author"], newest["words"]), (None, "nothing, in the end"))

    def test_who_else_is_at_it(self) -> None:
        address = f"/api/vehicles/{self.vehicle.pk}/newest/"
        self.assertEqual(self.as_("editor").get(f"{address}?station=build").json()["others"], [])
        others = self.as_("viewer").get(f"{address}?station=line").json()["others"]
        self.assertEqual(others, [{"username": "editor", "station": "build"}])
        self.as_("editor").get(f"{address}?station=runs")
        self.assertEqual(self.as_("viewer").get(f"{address}?station=elsewhere").json()["others"][0]["station"], "runs")
        AtVehicle.objects.update(at=NOON)
        self.assertEqual(self.as_("viewer").get(address).json()["others"], [])
