"""A workshop goes out as one file and comes in again with all that is in it; what is no archive changes nothing."""

from __future__ import annotations

import io
import zipfile
from datetime import UTC, datetime, timedelta
from typing import Any
from unittest import mock
from uuid import uuid4

from django.utils import timezone

from server.api.limits import MOST_PHOTOS, MOST_RUNS
from server.archive.models import Archive
from server.archive.work import work
from server.builds.actions import keep_template
from server.builds.models import Photo
from server.demo.load import load
from server.designs import lessons
from server.designs.actions import name_revision, save_revision
from server.designs.models import Revision, Vehicle
from server.pieces.models import HeldFile
from server.practice import actions as practice
from server.practice import racing
from server.practice.models import PupilAnswer
from server.runs.actions import NewRun, log_runs, present_design
from server.runs.models import Origin, Run
from server.runs.plans import save_plan
from server.workshops.models import Membership, Role, Workshop
from tests.core.designs import PLAIN, changed
from tests.server.archives import archive, everything, packed, picture
from tests.server.people import WorkshopCase, send_in_pieces, small_parts
from tests.server.test_permissions import A_SET, PLAN, RACE

OWN = [{"id": "paint", "title": "Paint it"}]
LONG_AGO = datetime(2026, 3, 1, 9, tzinfo=UTC)
TOGETHER = {"paths": ["vehicle.grip"], "values": [0.7], "factors": [[0.1, 0.2]]}


class Archives(WorkshopCase):
    def setUp(self) -> None:
        self.enterContext(small_parts(20_000))

    def begin(self, data: bytes, person: str = "stranger") -> dict[str, Any]:
        body = {"name": "Sent.zip", "size": len(data)}
        answer = self.as_(person).post("/api/archives/", body, format="json")
        self.assertEqual(answer.status_code, 201, answer.content)
        return dict(answer.json())

    def sent(self, data: bytes, person: str = "stranger") -> dict[str, Any]:
        begun = self.begin(data, person)
        send_in_pieces(self.as_(person), f"/api/archives/{begun['id']}/", begun, data)
        return begun

    def change(self, row: dict[str, Any], do: str, person: str = "stranger") -> Any:
        return self.as_(person).patch(f"/api/archives/{row['id']}/", {"do": do}, format="json")

    def state(self, row: dict[str, Any], person: str = "stranger") -> dict[str, Any]:
        return dict(self.as_(person).get(f"/api/archives/{row['id']}/").json())

    def open(self, data: bytes) -> dict[str, Any]:
        """An archive that was sent and worked on until it ends."""
        row = self.sent(data)
        self.assertEqual(self.change(row, "open").status_code, 200)
        while self.state(row)["state"] in ("waiting", "working"):
            work(row["id"])
        return self.state(row)

    def opened(self, data: bytes) -> Workshop:
        row = self.open(data)
        self.assertEqual((row["state"], row["faults"]), ("done", []))
        return Workshop.objects.get(pk=row["workshop"])

    def fault(self, data: bytes) -> str:
        before = Workshop.objects.count()
        row = self.open(data)
        self.assertEqual((row["state"], Workshop.objects.count(), row["workshop"]), ("failed", before, None))
        return str(row["faults"][0]["path"])

    def saved(self, workshop: Workshop, person: str = "owner") -> bytes:
        row = self.as_(person).post(f"/api/workshops/{workshop.pk}/archives/").json()
        work(row["id"])
        done = self.state(row, person)
        self.assertEqual((done["state"], done["done"]), ("done", done["steps"]))
        pieces = [
            self.as_(person).get(f"/api/archives/{row['id']}/pieces/{number}/").content
            for number in range(-(-done["size"] // done["piece"]))
        ]
        return b"".join(pieces)

    def fill(self) -> None:
        """Something of everything, none of it of today."""
        owner, vehicle = self.people["owner"], self.vehicle
        name_revision(owner, vehicle.revisions.get(), "as bought")
        for mass in (4, 5):
            save_revision(owner, vehicle, vehicle.revisions.count(), changed({"vehicle.mass": f"{mass} kg"}))
        Revision.objects.update(saved_at=LONG_AGO)
        first = present_design(vehicle)
        save_revision(owner, vehicle, 3, changed({"vehicle.grip": 0.7}))
        design, push = present_design(vehicle), {"kind": "push", "readings": ["90 N", "92 N"]}
        moments = [LONG_AGO + timedelta(minutes=k) for k in range(3)]
        runs = [
            (NewRun(uuid4(), push, Origin.RIG, moment, put_away=k == 1), design if k else first)
            for k, moment in enumerate(moments)
        ]
        log_runs(owner, vehicle, runs)
        lessons.keep(owner, vehicle, TOGETHER, [str(runs[2][0].id)], LONG_AGO)
        save_plan(owner, vehicle, 0, {**PLAN, "done": {"1": str(runs[0][0].id)}})
        Photo.objects.create(vehicle=vehicle, step="own/1", data=picture())
        Photo.objects.update(taken_at=LONG_AGO)
        keep_template(owner, self.workshop, "paint", OWN)
        entries = [{"id": "a", "name": "Ada", "vehicle": str(vehicle.pk)}, {"id": "b", "name": "Bo", "vehicle": "x"}]
        heat = {"round": 1, "entries": ["a", "b"], "times": ["4 s", None], "revisions": [2, None]}
        racing.make(owner, self.workshop, {**RACE, "entries": entries, "heats": [heat]}, LONG_AGO)
        exercise_set = practice.make_set(owner, self.workshop, {**A_SET, "own_numbers": True, "units": "metric"})
        pupil = practice.join(exercise_set.code, "Wren")
        assert pupil is not None
        PupilAnswer.objects.create(pupil=pupil, place=1, given="2.5", verdict="mistake", mistake="a")

    def test_the_demo_goes_out_and_comes_in_the_same(self) -> None:
        demo = load()
        Membership.objects.create(workshop=demo, user=self.people["viewer"], role=Role.VIEWER)
        here = self.opened(self.saved(demo, "viewer"))
        self.assertEqual((here.name, here.memberships.get().user), (demo.name, self.people["stranger"]))
        self.assertEqual(everything(here), everything(demo))
        self.assertTrue(any(vehicle.step_entries.exists() for vehicle in here.vehicles.all()))

    def test_all_of_a_workshop_comes_back_with_its_moments(self) -> None:
        self.fill()
        before = everything(self.workshop)
        with mock.patch.multiple("server.archive.pack", RUNS_A_FILE=2, REVISIONS_A_FILE=2, MOST_ROWS=1):
            here = self.opened(self.saved(self.workshop))
        after = everything(here)
        for entry in (*before["races"], *after["races"]):
            entry[1]["entries"][1]["vehicle"] = None
        self.assertEqual(after, before)
        self.assertEqual([len(before[key]) for key in ("templates", "races", "sets")], [1, 1, 1])
        self.assertNotEqual(here.exercise_sets.get().code, self.workshop.exercise_sets.get().code)

    def test_many_runs_of_many_designs(self) -> None:
        owner = self.people["owner"]
        new = []
        for k in range(60):
            save_revision(owner, self.vehicle, k + 1, changed({"vehicle.mass": f"{2 + k / 10} kg"}))
            run = {"kind": "push", "readings": [f"{90 + k} N"]}
            new.append((NewRun(uuid4(), run, made_at=LONG_AGO + timedelta(minutes=k)), present_design(self.vehicle)))
        log_runs(owner, self.vehicle, new)
        data = self.saved(self.workshop)
        files = [name for name in zipfile.ZipFile(io.BytesIO(data)).namelist() if "/runs" in name]
        self.assertEqual(len(files), 2)
        here = self.opened(data).vehicles.get()
        self.assertEqual([run.document for run in here.runs.all()], [run.document for run in self.vehicle.runs.all()])

    def test_all_that_a_vehicle_may_have_comes_back(self) -> None:
        """5,000 runs and 200 photos."""
        self.fill()
        owner, design = self.people["owner"], present_design(self.vehicle)
        runs = [
            NewRun(
                uuid4(), {"kind": "push", "readings": [f"{80 + k % 20} N"]}, made_at=LONG_AGO + timedelta(hours=1 + k)
            )
            for k in range(MOST_RUNS - 3)
        ]
        log_runs(owner, self.vehicle, [(run, design) for run in runs])
        shots = [Photo(vehicle=self.vehicle, step=f"own/{k}", data=picture()) for k in range(1, MOST_PHOTOS)]
        Photo.objects.bulk_create(shots)
        before = everything(self.workshop)["vehicles"]
        self.assertEqual([len(before[0][key]) for key in ("runs", "photos")], [5000, 200])
        here = self.opened(self.saved(self.workshop))
        self.assertEqual(everything(here)["vehicles"], before)
        self.assertTrue(all(bytes(photo.data).startswith(b"\xff\xd8") for photo in here.vehicles.get().photos.all()))

    def test_only_owners_take_sets_and_pupils_along_and_all_are_told_what_stays(self) -> None:
        self.fill()
        answer = self.as_("viewer").post(f"/api/workshops/{self.workshop.pk}/archives/").json()
        self.assertIn("Sets of exercises with their pupils: an archive that an owner saves has them.", answer["stays"])
        data = self.saved(self.workshop, "viewer")
        with zipfile.ZipFile(io.BytesIO(data)) as whole:
            self.assertFalse([name for name in whole.namelist() if name.startswith("sets")])
            self.assertIn("* Sets of exercises", whole.read("README.txt").decode())
        self.assertFalse(self.opened(data).exercise_sets.exists())

    def test_nobody_sees_it_before_all_of_it_is_there_and_it_goes_on_after_any_step(self) -> None:
        self.fill()
        before = everything(self.workshop)["vehicles"]
        row = self.sent(self.saved(self.workshop))
        self.change(row, "open")
        steps = 0
        with mock.patch("server.archive.work.AT_A_TIME_S", -1.0), mock.patch("server.archive.work.defer"):
            work(row["id"])
        self.assertEqual(self.state(row)["done"], 0)
        coming = Workshop.objects.get(coming=True)
        self.assertEqual(len(self.as_("stranger").get("/api/workshops/").json()), 1)
        self.assertEqual(self.as_("stranger").get(f"/api/workshops/{coming.pk}/").status_code, 404)
        clock = iter(range(1000))
        with mock.patch("server.archive.work.time.monotonic", lambda: 2.0 * next(clock)):
            while self.state(row)["state"] != "done":
                work(row["id"])
                steps += 1
        self.assertGreater(steps, 5)
        self.assertEqual(len(self.as_("stranger").get("/api/workshops/").json()), 2)
        self.assertEqual(everything(Workshop.objects.get(pk=self.state(row)["workshop"]))["vehicles"], before)

    def test_a_step_that_was_done_is_not_done_again(self) -> None:
        row = self.sent(self.saved(self.workshop))
        self.change(row, "open")
        with mock.patch("server.archive.work.AT_A_TIME_S", -1.0):
            work(row["id"])
        Archive.objects.update(done=1)
        stale = Archive.objects.get(pk=row["id"])
        stale.done = 0
        with mock.patch.object(Archive.objects, "select_related") as known:
            known.return_value.filter.return_value.first.return_value = stale
            work(row["id"])
        self.assertEqual(Vehicle.objects.filter(workshop__coming=True).count(), 0)

    def test_one_that_is_cancelled_leaves_nothing(self) -> None:
        row = self.sent(archive())
        self.change(row, "open")
        with mock.patch("server.archive.work._finish"):
            work(row["id"])
        self.assertTrue(Workshop.objects.filter(coming=True).exists())
        self.assertEqual(self.change(row, "cancel").json()["state"], "cancelled")
        work(row["id"])
        self.assertFalse(Workshop.objects.filter(coming=True).exists())
        self.assertIsNone(Archive.objects.get(pk=row["id"]).held)

    def test_it_is_opened_once_all_of_it_has_come(self) -> None:
        data = archive()
        row = self.begin(data)
        self.assertEqual(self.state(row)["missing"], [0])
        self.assertEqual(self.change(row, "open").status_code, 400)
        send_in_pieces(self.as_("stranger"), f"/api/archives/{row['id']}/", row, data)
        self.assertEqual(self.state(row)["missing"], [])
        self.assertEqual(self.change(row, "open").json()["state"], "waiting")
        late = self.as_("stranger").put(
            f"/api/archives/{row['id']}/pieces/0/", data, content_type="application/octet-stream"
        )
        self.assertEqual(late.status_code, 400)

    def test_whoever_has_left_no_longer_gets_it(self) -> None:
        row = self.as_("viewer").post(f"/api/workshops/{self.workshop.pk}/archives/").json()
        work(row["id"])
        address = f"/api/archives/{row['id']}/"
        Membership.objects.filter(user=self.people["viewer"]).delete()
        for rest in ("", "pieces/0/"):
            self.assertEqual(self.as_("viewer").get(address + rest).status_code, 404)

    def test_who_has_left_before_it_is_written_gets_none(self) -> None:
        row = self.as_("viewer").post(f"/api/workshops/{self.workshop.pk}/archives/").json()
        Membership.objects.filter(user=self.people["viewer"]).delete()
        work(row["id"])
        self.assertEqual(Archive.objects.get(pk=row["id"]).state, "failed")

    def test_an_archive_of_the_first_version_is_opened(self) -> None:
        runs = {"format": "ydrometer-runs", "version": 1, "designs": {"a": PLAIN}, "runs": []}
        runs["runs"] = [{"design": "a", "kind": "push", "readings": ["90 N"]}]
        build = {
            "format": "ydrometer-build",
            "version": 1,
            "book": {"steps": OWN},
            "steps": [{"step": "own/paint", "doing": "done", "at": "2026-03-01T09:00Z"}],
            "photos": [{"step": "x", "taken_at": "2026-03-01T09:00Z", "file": "a.jpg"}],
        }
        vehicle = {"put_away": True, "revisions": [{"file": "a.json", "name": "first"}], "runs": "r.json"}
        files = {"a.json": PLAIN, "r.json": runs, "b.json": build, "a.jpg": picture()}
        templates = {"templates": [{"name": "paint", "steps": OWN}]}
        here = self.opened(archive({**vehicle, "build": "b.json"}, version=1, head=templates, files=files))
        (copied,) = here.vehicles.all()
        self.assertEqual((copied.put_away, copied.revisions.get().name), (True, "first"))
        self.assertEqual(copied.runs.get().origin, Origin.FILE)
        self.assertEqual((copied.photos.get().taken_at, copied.step_entries.get().step), (LONG_AGO, "own/paint"))
        self.assertEqual((copied.build.book, here.step_templates.get().name), ({"steps": OWN}, "paint"))

    def test_nonsense_is_told_and_leaves_nothing(self) -> None:
        def of(**more: Any) -> dict[str, Any]:
            return {"files": {"revisions": ["r.json"], **more}}

        revisions = {"r.json": [{"file": "a.json"}], "a.json": PLAIN}
        self.assertEqual(self.fault(b"no zip"), "$")
        self.assertEqual(self.fault(packed({"other.txt": "x"})), "workshop.json")
        self.assertEqual(self.fault(packed({"workshop.json": {"format": "x"}})), "workshop.json")
        self.assertEqual(self.fault(packed({"workshop.json": "{"})), "workshop.json: $")
        self.assertEqual(self.fault(packed({"workshop.json": 3})), "workshop.json")
        self.assertEqual(self.fault(archive({})), "workshop.json: vehicles[0]")
        self.assertEqual(self.fault(archive(of())), "r.json")
        self.assertEqual(self.fault(archive(of(), files={"r.json": [{"file": "a.json"}]})), "a.json")
        self.assertEqual(self.fault(archive(of(), files={"r.json": [{"name": "a"}]})), "r.json: [0].file")
        heavy = changed({"vehicle.mass": "much"})
        self.assertEqual(self.fault(archive(of(), files=revisions | {"a.json": heavy})), "a.json: vehicle.mass")
        falling = {"r.json": [{"file": "a.json", "number": number} for number in (3, 2)]}
        self.assertEqual(self.fault(archive(of(), files=revisions | falling)), "a.json: number")
        for key, content, path in (
            ("runs", {"file": "x.json"}, "x.json: designs"),
            ("steps", [{"step": "x"}], "x.json: [0].doing"),
            ("steps", {"step": "x"}, "x.json"),
            ("book", {"steps": 3}, "x.json: steps"),
            ("photos", [{"step": "x", "taken_at": "2026-01-01T00:00Z", "file": "a.json"}], "a.json: $"),
            ("lessons", [{"together": {**TOGETHER, "values": []}, "runs": []}], "x.json: [0].together"),
            ("plan", {"format": "x"}, "x.json: format"),
        ):
            source = {"file": "x.json"} if key == "runs" else "x.json"
            with self.subTest(key):
                made = archive(of(**{key: [source]}), files={**revisions, "x.json": content})
                self.assertEqual(self.fault(made), path)
        self.assertEqual(self.fault(archive(head={"parts": ["p.json"]}, files={"p.json": 3})), "p.json")
        self.assertEqual(
            self.fault(archive(head={"races": ["p.json"]}, files={"p.json": [{}]})), "p.json: [0].document"
        )
        sets = {"sets": [{"set": "p.json"}]}
        self.assertEqual(self.fault(archive(head=sets, files={"p.json": [{"name": "x"}]})), "p.json: [0].plan")

    def test_what_is_too_large_or_damaged_is_told(self) -> None:
        with mock.patch("server.api.limits.ARCHIVE_FILES", 1):
            self.assertEqual(self.fault(archive()), "$")
        data = bytearray(archive(files={"parts.json": "x" * 4000}, head={"parts": ["parts.json"]}))
        at = data.index(b"xxxx")
        data[at : at + 4] = b"yyyy"
        self.assertEqual(self.fault(bytes(data)), "parts.json")

    def test_old_ones_are_forgotten_and_a_new_one_takes_the_place_of_the_last(self) -> None:
        address = f"/api/workshops/{self.workshop.pk}/archives/"
        ids = []
        for _ in range(5):
            ids.append(self.as_("owner").post(address).json()["id"])
            work(ids[-1])
        self.assertEqual([str(row.pk) for row in Archive.objects.all()], ids[:1:-1])
        self.assertEqual(HeldFile.objects.count(), 3)
        self.assertEqual(Run.objects.filter(made_at__gt=timezone.now()).count(), 0)
