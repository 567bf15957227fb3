from __future__ import annotations

from typing import Any

from django.test import TransactionTestCase
from rest_framework.test import APIClient

from server.designs.actions import name_revision, save_revision
from server.designs.models import Revision, Vehicle
from server.workshops.actions import create_workshop
from tests.core.designs import GEAR, PLAIN, changed
from tests.server.people import WorkshopCase, beginning


class Vehicles(WorkshopCase):
    def vehicles(self) -> str:
        return f"/api/workshops/{self.workshop.id}/vehicles/"

    def test_a_name_is_enough_to_start(self) -> None:
        answer = self.as_("editor").post(self.vehicles(), beginning("Dunlin"), format="json").json()
        loaded = self.as_("viewer").get(f"/api/vehicles/{answer['id']}/").json()
        self.assertEqual(loaded["name"], "Dunlin")
        self.assertEqual(loaded["revision"]["number"], 1)
        self.assertEqual(loaded["revision"]["author"], "editor")
        live = self.as_("viewer").post("/api/live/", {"document": loaded["revision"]["document"]}, format="json")
        self.assertEqual(live.json()["state"], "ok")

    def test_an_imported_design_comes_back_letter_for_letter(self) -> None:
        document = changed({"notes": 'tyres: 3 1/4", “soft”', "vehicle.wheel_diameter": "3 1/4 in"})
        answer = self.as_("editor").post(self.vehicles(), {"document": document}, format="json").json()
        loaded = self.as_("editor").get(f"/api/vehicles/{answer['id']}/").json()
        self.assertEqual(loaded["revision"]["document"], document)

    def test_a_faulty_import_is_refused_with_every_fault(self) -> None:
        document = changed({"vehicle.mass": "much", f"{GEAR}.driver_teeth": 2})
        answer = self.as_("editor").post(self.vehicles(), {"document": document}, format="json")
        self.assertEqual(answer.status_code, 400)
        paths = [fault["path"] for fault in answer.json()["faults"]]
        self.assertEqual(paths, ["vehicle.mass", "drive.branches[0].stages[0].driver_teeth"])
        self.assertEqual(Vehicle.objects.count(), 1)

    def test_either_a_name_or_a_document(self) -> None:
        self.assertEqual(self.as_("editor").post(self.vehicles(), {}, format="json").status_code, 400)

    def test_put_away_and_taken_back(self) -> None:
        address = f"/api/vehicles/{self.vehicle.id}/"
        for away in (True, False):
            self.as_("editor").patch(address, {"put_away": away}, format="json")
            (card,) = self.as_("viewer").get(self.vehicles()).json()
            self.assertEqual(card["put_away"], away)
            self.assertEqual(card["document"], PLAIN)


class Copies(WorkshopCase):
    def copy(self, person: str, **to: Any) -> Any:
        return self.as_(person).post(f"/api/vehicles/{self.vehicle.id}/copies/", to, format="json")

    def test_a_copy_has_a_name_of_its_own_and_the_named_revisions(self) -> None:
        owner = self.people["owner"]
        name_revision(owner, self.vehicle.revisions.get(), "First")
        save_revision(owner, self.vehicle, 1, changed({f"{GEAR}.driver_teeth": 13}))
        save_revision(owner, self.vehicle, 2, changed({f"{GEAR}.driver_teeth": 12}))
        answer = Vehicle.objects.get(pk=self.copy("editor").json()["id"])
        self.assertEqual(answer.name, f"{self.vehicle.name}, copy")
        self.assertEqual([(r.number, r.name) for r in answer.revisions.order_by("number")], [(1, "First"), (2, "")])
        newest = answer.revisions.first()
        assert newest is not None
        self.assertEqual(newest.document, {**changed({f"{GEAR}.driver_teeth": 12}), "name": answer.name})
        self.assertEqual(self.copy("editor").json()["name"], f"{self.vehicle.name}, copy 2")

    def test_a_named_design_that_comes_back_costs_nothing_that_came_after_it(self) -> None:
        owner, newest = self.people["owner"], changed({f"{GEAR}.driver_teeth": 12})
        first = self.vehicle.revisions.get()
        for number, document in enumerate((newest, first.document, newest), start=1):
            save_revision(owner, self.vehicle, number, document)
        for number, name in ((1, "First"), (3, "First again")):
            name_revision(owner, self.vehicle.revisions.get(number=number), name)
        answer = Vehicle.objects.get(pk=self.copy("editor").json()["id"])
        kept = [(r.name, r.document) for r in answer.revisions.order_by("number")]
        documents = [{**one, "name": answer.name} for one in (first.document, newest)]
        self.assertEqual(kept, [("First again", documents[0]), ("", documents[1])])

    def test_it_goes_where_one_may_change_things(self) -> None:
        mine = create_workshop(self.people["viewer"], "Mine")
        self.assertEqual(self.copy("viewer").status_code, 403)
        self.assertEqual(self.copy("viewer", workshop=str(mine.id)).json()["workshop"], str(mine.id))
        self.assertEqual(self.copy("editor", workshop=str(mine.id)).status_code, 404)


class Saving(WorkshopCase):
    def test_a_save_adds_a_revision(self) -> None:
        answer = self.save("editor", 1, changed({f"{GEAR}.driver_teeth": 14, "name": "Second"}))
        self.assertEqual((answer.status_code, answer.json()["number"]), (201, 2))
        self.assertEqual(Revision.objects.get(vehicle=self.vehicle, number=1).document, PLAIN)
        self.vehicle.refresh_from_db()
        self.assertEqual(self.vehicle.name, "Second")
        listed = self.as_("viewer").get(f"/api/vehicles/{self.vehicle.id}/revisions/").json()
        self.assertEqual([(r["number"], r["author"]) for r in listed], [(2, "editor"), (1, "owner")])

    def test_saving_the_same_again_adds_none(self) -> None:
        self.assertEqual(self.save("editor", 1, PLAIN).json()["number"], 1)

    def test_a_page_that_never_got_the_answer_may_save_once_more(self) -> None:
        changed_ = changed({f"{GEAR}.driver_teeth": 14})
        numbers = [self.save("editor", 1, changed_).json()["number"] for _ in range(2)]
        self.assertEqual(numbers, [2, 2])

    def test_a_stale_save_gets_both_versions_and_writes_nothing(self) -> None:
        first, second = changed({f"{GEAR}.driver_teeth": 14}), changed({f"{GEAR}.driver_teeth": 16})
        self.save("owner", 1, first)
        answer = self.save("editor", 1, second)
        self.assertEqual(answer.status_code, 409)
        body = answer.json()
        self.assertEqual(body["yours"], second)
        self.assertEqual((body["theirs"]["number"], body["theirs"]["author"]), (2, "owner"))
        self.assertEqual(body["theirs"]["document"], first)
        self.assertEqual(Revision.objects.filter(vehicle=self.vehicle).count(), 2)
        self.assertEqual(self.save("editor", 2, second).status_code, 201)

    def test_a_faulty_document_is_never_written(self) -> None:
        answer = self.save("editor", 1, changed({"vehicle.mass": "-1 kg"}))
        self.assertEqual(answer.status_code, 400)
        self.assertEqual(Revision.objects.count(), 1)


class Live(WorkshopCase):
    def live(self, body: Any, kind: str = "application/json") -> Any:
        return self.as_("viewer").generic("POST", "/api/live/", body, content_type=kind)

    def ask(self, **body: Any) -> Any:
        return self.as_("viewer").post("/api/live/", body, format="json").json()

    def test_everything_a_screen_shows(self) -> None:
        shown = self.ask(document=PLAIN, mark=changed({f"{GEAR}.driver_teeth": 14}))
        self.assertEqual([w["teeth"] for w in shown["view"]["line"]["rows"][0]["wheels"]], [15, 56, 18, 36])
        self.assertEqual(shown["mark"]["line"]["rows"][0]["wheels"][0]["teeth"], 14)
        self.assertEqual(shown["gauges"][0]["measure"], "top_speed")
        self.assertGreater(shown["gauges"][0]["value"], shown["gauges"][0]["mark"])

    def test_the_sweep_is_asked_for_by_itself(self) -> None:
        body = {"document": PLAIN, "path": "drive.branches[0].stages[0]", "member": "driver"}
        swept = self.as_("viewer").post("/api/sweep/", body, format="json").json()
        self.assertEqual([c["size"] for c in swept["columns"]], list(range(9, 22)))
        gone = self.as_("viewer").post("/api/sweep/", {**body, "member": "lid"}, format="json")
        self.assertEqual(gone.status_code, 400)
        self.assertIn("no wheel", gone.json()["detail"])

    def test_what_is_looked_at_may_be_said(self) -> None:
        shown = self.ask(
            document=PLAIN,
            picked=2.0,
            longest=3.0,
            told=4.2,
            selected={"path": "drive.branches[0].stages[0]", "member": "driver"},
        )
        self.assertEqual([flow["moment"] for flow in shown["flows"]][-1], "picked")
        self.assertIn("you were told 4.2", shown["told"])

    def test_other_answers_about_a_design(self) -> None:
        client = self.as_("viewer")
        grid = client.post(
            "/api/grid/",
            {"document": PLAIN, "path": "drive.stages[0]", "drivers": [18, 20], "drivens": [36]},
            format="json",
        ).json()
        self.assertEqual([len(row) for row in grid["cells"]], [1, 1])
        pair = client.post("/api/compare/", {"documents": [PLAIN, PLAIN]}, format="json").json()
        self.assertEqual(len(pair["columns"]), 2)
        down = client.post("/api/turned-down/", {"document": PLAIN, "speed": "5 m/s"}, format="json").json()
        self.assertEqual(down["wanted"], 5.0)
        for speed in ("quick", "-1 m/s"):
            answer = client.post("/api/turned-down/", {"document": PLAIN, "speed": speed}, format="json")
            self.assertEqual(answer.json()["faults"][0]["path"], "speed")

    def test_a_faulty_document_is_told_fault_by_fault(self) -> None:
        answer = self.as_("viewer").post("/api/live/", {"document": changed({"vehicle.mass": "x"})}, format="json")
        self.assertEqual(answer.status_code, 400)
        self.assertEqual(answer.json()["faults"][0]["path"], "vehicle.mass")

    def test_hostile_bodies_are_refused_in_words(self) -> None:
        for body in (
            b"[" * 100_000,
            b'{"document": NaN}',
            b"\xff\xfe",
            b'{"document": "\\ud800"}',
            b"null",
            b"[]",
            b'{"document": 5}',
            b'{"document": {"vehicle": ' + b'{"a":' * 60 + b"1" + b"}" * 62,
        ):
            with self.subTest(body[:20]):
                answer = self.live(body)
                self.assertEqual(answer.status_code, 400)
                self.assertTrue(answer.json()["detail"])
        self.assertEqual(self.live(b"a=1", "application/x-www-form-urlencoded").status_code, 415)

    def test_the_vocabulary_converts(self) -> None:
        entries = {d["name"]: d for d in APIClient().get("/api/vocabulary/").json()["dimensions"]}
        self.assertAlmostEqual(entries["speed"]["inch"]["factor"], 0.44704)
        self.assertEqual(entries["torque"]["metric"]["symbol"], "N·m")


class Page(TransactionTestCase):
    def test_any_address_is_the_page_but_the_apis_and_the_files(self) -> None:
        for address in ("/", "/vehicles/x/line", "/nowhere"):
            answer = self.client.get(address)
            self.assertContains(answer, '<div id="root">')
            self.assertIn("csrftoken", answer.cookies)
            self.assertIn("default-src 'self'", answer["Content-Security-Policy"])
        self.assertEqual(self.client.get("/api/nowhere/").status_code, 404)
        self.assertEqual(self.client.get("/static/app/nowhere.js").status_code, 404)


class Names(WorkshopCase):
    def setUp(self) -> None:
        super().setUp()
        self.address = f"/api/vehicles/{self.vehicle.id}/revisions/"

    def saved(self, base: int, changes: dict[str, Any]) -> int:
        answer = self.save("editor", base, changed(changes))
        self.assertEqual(answer.status_code, 201, answer.content)
        return int(answer.json()["number"])

    def name(self, number: int, name: str) -> dict[str, Any]:
        answer = self.as_("editor").patch(f"{self.address}{number}/", {"name": name}, format="json")
        self.assertEqual(answer.status_code, 200, answer.content)
        return dict(answer.json())

    def test_a_name_comes_with_what_was_changed_since_the_last_named_one(self) -> None:
        first = self.saved(1, {f"{GEAR}.driver_teeth": 16})
        self.assertIn("driver gear 15 → 16", self.name(first, " With sixteen ")["summary"])
        self.saved(first, {f"{GEAR}.driver_teeth": 17})
        last = self.saved(first + 1, {f"{GEAR}.driver_teeth": 18})
        lines = self.name(last, "With eighteen")
        self.assertEqual((lines["name"], lines["summary"]), ("With eighteen", "driver gear 16 → 18"))

    def test_a_name_on_two_lines_is_one(self) -> None:
        self.assertEqual(self.name(1, "before\r\nthe rain")["name"], "before the rain")

    def test_an_empty_name_takes_it_away(self) -> None:
        self.name(1, "First")
        self.assertEqual(self.name(1, "")["name"], "")

    def test_named_ones_are_listed_however_old(self) -> None:
        self.name(1, "First")
        for teeth in range(16, 16 + 25):
            self.saved(teeth - 15, {f"{GEAR}.driver_teeth": teeth})
        listed = self.as_("viewer").get(self.address).json()
        self.assertEqual(len(listed), 21)
        self.assertEqual(listed[-1]["name"], "First")

    def test_no_such_revision(self) -> None:
        self.assertEqual(
            self.as_("editor").patch(f"{self.address}99/", beginning("x"), format="json").status_code,
            404,
        )
