"""Practice alone and in a class: what is kept of whom, who sees what, and what is forgotten."""

from __future__ import annotations

from datetime import timedelta
from typing import Any
from unittest import mock
from uuid import uuid4

from django.utils import timezone
from rest_framework.test import APIClient

from server.accounts import patience
from server.designs.actions import save_revision
from server.designs.models import Vehicle
from server.practice import actions
from server.practice.models import ExerciseSet, Learnt, Pupil, PupilAnswer
from server.runs.actions import NewRun, log_run, present_design
from server.workshops.actions import close_workshop, open_again
from tests.core.designs import changed
from tests.server.people import WorkshopCase
from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.practice import IDEAS, Exercise
from ydrometer.practice.posed import NumberAsked

WHICH = {"kind": "ratio", "level": 2, "seed": 7, "units": "metric"}
SET = {"name": "Tuesday", "ideas": ["speed", "ratio"], "levels": [2, 1], "count": 5}


def right(drawn_exercise: Exercise) -> Any:
    """What a learner would give who is right."""
    answer = drawn_exercise.posed.answer
    if isinstance(drawn_exercise.posed.ask, NumberAsked):
        return f"{answer:.6g} {_si(drawn_exercise)}"
    return list(answer) if isinstance(answer, tuple) else answer


def _si(drawn_exercise: Exercise) -> str:
    assert isinstance(drawn_exercise.posed.ask, NumberAsked)
    return DIMENSIONS[drawn_exercise.posed.ask.dimension].si


class Alone(WorkshopCase):
    def post(self, person: str, address: str, body: dict[str, Any]) -> Any:
        return self.as_(person).post(f"/api/practice/{address}", body, format="json")

    def test_nothing_is_kept_of_those_who_are_not_signed_in(self) -> None:
        self.assertEqual(self.post("nobody", "", {**WHICH, "went": "well"}).json()["ideas"][0]["grasp"], "new")
        self.people["stranger"].set_unusable_password()
        self.people["stranger"].save()
        self.post("stranger", "", {**WHICH, "went": "well"})
        self.assertFalse(Learnt.objects.exists())

    def test_the_map_knows_what_went_how(self) -> None:
        for went, standing, level in (("missed", "shaky", 1), ("well", "sure", 1), ("well", "sure", 2)):
            answer = self.post("viewer", "", {**WHICH, "went": went}).json()
            self.assertEqual((answer["ideas"][0]["grasp"], answer["ideas"][0]["level"]), (standing, level))
        self.assertEqual((answer["ideas"][0]["right"], answer["ideas"][0]["wrong"]), (2, 1))
        self.assertEqual([idea["idea"] for idea in answer["ideas"]], list(IDEAS))
        self.assertEqual(answer["next"], "driver and driven")
        self.assertEqual(self.as_("viewer").get("/api/practice/").json()["ideas"][0]["right"], 2)
        self.assertEqual(self.as_("editor").get("/api/practice/").json()["ideas"][0]["right"], 0)

    def test_an_exercise_comes_without_its_answer_and_is_judged(self) -> None:
        shown = self.post("nobody", "exercise/", WHICH).json()
        self.assertEqual(shown["ask"]["kind"], "number")
        self.assertFalse({"answer", "mistakes", "working"} & shown.keys())
        self.assertEqual(self.post("nobody", "judge/", {**WHICH, "answer": "8.444"}).json()["verdict"], "right")
        turned = self.post("nobody", "judge/", {**WHICH, "answer": "0.1184"}).json()
        self.assertEqual(turned["mistake"], "ratio turned over")
        solved = self.post("nobody", "solved/", WHICH).json()
        self.assertEqual((solved["words"], len(solved["working"]["steps"])), ("8.444", 1))

    def test_nonsense_is_told(self) -> None:
        for body, status in (
            ({**WHICH, "kind": "knots"}, 400),
            ({**WHICH, "seed": -1}, 400),
            ({**WHICH, "answer": {"a": 1}}, 400),
            ({**WHICH, "answer": "many"}, 400),
            ({**WHICH, "answer": [1.5]}, 400),
            ({**WHICH, "answer": "x" * 300}, 400),
        ):
            with self.subTest(body):
                self.assertEqual(self.post("nobody", "judge/", body).status_code, status)

    def test_on_the_line_it_is_a_scratch_vehicle_that_goes_unless_it_is_kept(self) -> None:
        body = {**WHICH, "workshop": str(self.workshop.id)}
        first, second = (self.post("editor", "open/", body).json()["id"] for _ in range(2))
        bench = f"/api/workshops/{self.workshop.id}/vehicles/"
        self.assertEqual(len(self.as_("editor").get(bench).json()), 1)
        kept = self.as_("editor").patch(f"/api/vehicles/{second}/", {"keep": True}, format="json")
        self.assertFalse(kept.json()["scratch"])
        self.assertEqual(len(self.as_("editor").get(bench).json()), 2)
        Vehicle.objects.update(created_at=timezone.now() - timedelta(days=2))
        self.post("editor", "open/", body)
        self.assertFalse(Vehicle.objects.filter(pk=first).exists())
        self.assertTrue(Vehicle.objects.filter(pk=second).exists())


class Class(WorkshopCase):
    def setUp(self) -> None:
        rows = self.as_("owner").post(f"/api/workshops/{self.workshop.id}/sets/", SET, format="json")
        self.assertEqual(rows.status_code, 201, rows.content)
        self.set = ExerciseSet.objects.get(pk=rows.json()["id"])

    def pupil(self, nickname: str) -> APIClient:
        client = APIClient()
        joined = client.post(
            "/api/class/joining/", {"code": self.set.code.lower(), "nickname": nickname}, format="json"
        )
        self.assertEqual(joined.status_code, 200, joined.content)
        return client

    def answer(self, client: APIClient, place: int, given: Any) -> Any:
        return client.post(f"/api/class/exercises/{place}/", {"answer": given}, format="json").json()

    def live(self) -> Any:
        return self.as_("owner").get(f"/api/sets/{self.set.pk}/").json()

    def test_ideas_and_levels_come_in_turn(self) -> None:
        self.assertEqual([entry["level"] for entry in self.set.plan], [1, 2, 1, 1, 2])
        ideas = [exercise["idea"] for exercise in self.live()["exercises"]]
        self.assertEqual(ideas, ["ratio"] * 3 + ["speed"] * 2)
        self.assertRegex(self.set.code, "^[A-HJ-NP-Z]{6}$")

    def test_the_teacher_sees_how_far_each_is_and_which_mistakes_are_made(self) -> None:
        wren, tern = self.pupil("Wren"), self.pupil("Tern")
        made = actions.of_set(self.set, 3)
        wrong = made.posed.mistakes[0]
        typed = f"{wrong.answer:.6g} {_si(made)}"
        self.assertEqual(self.answer(wren, 3, typed)["mistake"], wrong.name)
        self.assertEqual(self.answer(tern, 3, typed)["mistake"], wrong.name)
        self.assertEqual(self.answer(wren, 3, right(made))["verdict"], "right")
        class_state = self.live()
        self.assertEqual(class_state["mistakes"], [{"name": wrong.name, "count": 2}])
        self.assertEqual((class_state["exercises"][3]["right"], class_state["exercises"][3]["tried"]), (1, 2))
        self.assertEqual([pupil["done"][3] for pupil in class_state["pupils"]], ["right", wrong.name])
        mine = wren.get("/api/class/").json()
        self.assertEqual([exercise["right"] for exercise in mine["exercises"]], [False] * 3 + [True, False])

    def test_a_pupil_sees_nothing_else(self) -> None:
        wren = self.pupil("Wren")
        for address in (f"sets/{self.set.pk}/", f"workshops/{self.workshop.id}/vehicles/", "workshops/"):
            self.assertEqual(wren.get(f"/api/{address}").status_code, 401)
        self.assertEqual(wren.get("/api/class/exercises/9/").status_code, 404)
        self.assertNotIn("answer", wren.get("/api/class/exercises/0/").json())
        wren.delete("/api/class/")
        self.assertEqual(wren.get("/api/class/").status_code, 204)
        self.assertEqual(wren.get("/api/class/exercises/0/").status_code, 404)

    def test_a_closed_workshop_is_closed_for_pupils_too(self) -> None:
        wren = self.pupil("Wren")
        close_workshop(self.people["owner"], self.workshop, self.workshop.name)
        self.assertEqual(wren.get("/api/class/").status_code, 204)
        self.assertEqual(wren.get("/api/class/exercises/0/").status_code, 404)
        open_again(self.people["owner"], self.workshop)
        self.assertEqual(wren.get("/api/class/").status_code, 200)

    def test_each_their_own_numbers_or_all_the_same(self) -> None:
        words = {self.pupil(name).get("/api/class/exercises/4/").json()["words"] for name in ("Wren", "Tern")}
        self.assertEqual(len(words), 1)
        ExerciseSet.objects.update(own_numbers=True)
        words = {self.pupil(name).get("/api/class/exercises/4/").json()["words"] for name in ("Rook", "Jay")}
        self.assertEqual(len(words), 2)

    def test_names_are_told_apart_and_wrong_codes_wait(self) -> None:
        self.pupil("Wren")
        again = {"code": self.set.code, "nickname": "wren"}
        self.assertEqual(APIClient().post("/api/class/joining/", again, format="json").status_code, 400)
        wrong = {"code": "QQQQQQ", "nickname": "Owl"}
        with mock.patch.object(patience, "CLASS", patience.Limit("class", free=3, first_s=60.0, most_s=60.0)):
            codes = [APIClient().post("/api/class/joining/", wrong, format="json").status_code for _ in range(5)]
        self.assertEqual(codes, [400, 400, 429, 429, 429])

    def test_the_wall_and_the_sheet(self) -> None:
        wall = f"/api/sets/{self.set.pk}/wall/1/"
        shown = self.as_("owner").get(wall).json()
        self.assertEqual(shown["words"], self.live()["exercises"][1]["words"])
        self.assertTrue(self.as_("owner").post(wall).json()["words"])
        sheet = self.as_("owner").get(f"/api/sets/{self.set.pk}/sheet/")
        self.assertEqual((sheet["Content-Type"], sheet.content[:5]), ("application/pdf", b"%PDF-"))

    def test_pupils_are_forgotten_by_a_button_after_ninety_days_and_with_the_set(self) -> None:
        self.answer(self.pupil("Wren"), 0, right(actions.of_set(self.set, 0)))
        self.as_("owner").delete(f"/api/sets/{self.set.pk}/pupils/")
        self.assertFalse(Pupil.objects.exists() or PupilAnswer.objects.exists())
        self.pupil("Wren")
        self.assertEqual(actions.forget_old(), 0)
        Pupil.objects.update(joined_at=timezone.now() - timedelta(days=91))
        self.assertEqual(actions.forget_old(), 1)
        self.pupil("Tern")
        self.as_("owner").delete(f"/api/sets/{self.set.pk}/")
        self.assertFalse(ExerciseSet.objects.exists() or Pupil.objects.exists())


RACE: dict[str, Any] = {
    "format": "ydrometer-race",
    "version": 1,
    "name": "Corridor",
    "distance": "12 m",
    "lanes": 2,
    "mode": "knockout",
}


class Race(WorkshopCase):
    def setUp(self) -> None:
        entries = [{"id": "a", "name": "Reds", "vehicle": str(self.vehicle.pk)}, {"id": "b", "name": "Blues"}]
        made = self.as_("editor").post(
            f"/api/workshops/{self.workshop.id}/races/", {"document": {**RACE, "entries": entries}}, format="json"
        )
        self.assertEqual(made.status_code, 201, made.content)
        self.board = made.json()
        self.address = f"/api/races/{self.board['id']}/"

    def put(self, **changed: Any) -> Any:
        document = {**self.board["document"], **changed}
        body = {"base": self.board["version"], "document": document}
        answer = self.as_("editor").put(self.address, body, format="json")
        if answer.status_code == 200:
            self.board = answer.json()
        return answer

    def heat(self, number: int, *times: str | None) -> dict[str, Any]:
        return {"round": number, "entries": ["a", "b"], "times": list(times)}

    def test_what_could_not_be_opened_is_not_kept(self) -> None:
        heat = self.heat(1, "3.4 s", "3.5 s")
        for wrong, path in (
            ({"heats": [{**heat, "revisions": [1]}]}, "heats[0].revisions"),
            ({"heats": [heat], "lanes": 1, "mode": "everyone"}, "heats[0].entries"),
            ({"heats": [heat] * 4000}, "heats"),
        ):
            with self.subTest(path):
                answer = self.put(**wrong)
                self.assertEqual((answer.status_code, answer.json()["faults"][0]["path"]), (400, path))
        self.assertEqual(self.as_("viewer").get(self.address).json()["version"], 1)

    def test_the_last_changes_are_told(self) -> None:
        heats = [{**self.heat(1, "3.4 s", "3.5 s"), "revisions": [1 + k % 2, None]} for k in range(40)]
        save_revision(self.people["editor"], self.vehicle, 1, changed({"vehicle.mass": "15 kg"}))
        self.put(heats=heats)
        log = self.board["entries"][0]["log"]
        self.assertEqual((len(log), log[-1]["after"]), (10, 40))

    def test_predicted_beside_run_and_who_is_next(self) -> None:
        self.assertEqual(self.board["next"], {"round": 1, "entries": ["a", "b"]})
        reds, blues = self.board["entries"]
        self.assertGreater(reds["predicted"], 1.0)
        self.assertIsNone(blues["predicted"])
        run = {"kind": "distance_time", "distance": "12 m", "readings": ["3.41 s"]}
        log_run(self.people["editor"], self.vehicle, NewRun(uuid4(), run), present_design(self.vehicle))
        self.assertAlmostEqual(self.as_("viewer").get(self.address).json()["entries"][0]["last_run"], 3.41)
        self.put(heats=[self.heat(1, "3.41 s", None)])
        self.assertIsNone(self.board["next"])
        self.assertEqual([place["entry"] for place in self.board["standings"]], ["a", "b"])

    def test_what_a_team_changed_between_its_starts(self) -> None:
        self.put(heats=[self.heat(1, "3.4 s", "3.5 s")])
        self.assertEqual(self.board["document"]["heats"][0]["revisions"], [1, None])
        save_revision(self.people["editor"], self.vehicle, 1, changed({"vehicle.mass": "15 kg"}))
        self.put(heats=[*self.board["document"]["heats"], self.heat(1, "3.6 s", "3.5 s")])
        (between,) = self.board["entries"][0]["log"]
        self.assertEqual((between["before"], between["after"]), (1, 2))
        self.assertIn("mass 14 kg → 15 kg", " ".join(between["changes"]))

    def test_who_comes_late_overwrites_nothing_and_faults_are_told(self) -> None:
        self.put(name="Long corridor")
        late = self.as_("owner").put(self.address, {"base": 1, "document": {**RACE, "entries": []}}, format="json")
        self.assertEqual((late.status_code, late.json()["present"]["document"]["name"]), (409, "Long corridor"))
        self.assertEqual(self.put(lanes=99).json()["faults"][0]["path"], "lanes")
        self.assertEqual(self.put(entries=[{"id": "a", "name": "x", "vehicle": "nonsense"}]).status_code, 200)
        self.assertEqual(len(self.as_("viewer").get(f"/api/workshops/{self.workshop.id}/races/").json()), 1)
