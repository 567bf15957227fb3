"""Runs on the server: logged once, changed with care, learnt from, sent by instruments."""

from __future__ import annotations

import io
from typing import Any
from unittest import mock
from uuid import uuid4

from openpyxl import Workbook

from server.api.heavy import aside
from server.designs.actions import add_vehicle, save_revision
from server.designs.thinning import thin
from server.pieces.models import HeldFile
from server.runs.log_files import read_file
from server.runs.models import Run
from tests.core.designs import PLAIN, changed
from tests.server.people import send_in_pieces, small_parts
from tests.server.runs_case import TIMED, TIMED_PLAN, RunsCase
from ydrometer.trials import runs_file


class Log(RunsCase):
    def test_a_run_is_kept_with_its_design_and_beside_its_prediction(self) -> None:
        answer = self.log().json()
        self.assertEqual((answer["words"], answer["revision"], answer["version"]), ("Time over 10 m", 1, 1))
        self.assertAlmostEqual(answer["measured"], 2.91)
        self.assertAlmostEqual(answer["off"], answer["measured"] / answer["predicted"] - 1.0)
        self.assertEqual([one["id"] for one in self.as_("viewer").get(self.address()).json()["runs"]], [answer["id"]])

    def test_the_bench_shows_the_last_run_of_each_vehicle(self) -> None:
        self.log({"kind": "push", "readings": ["90 N"]})
        answer = self.log().json()
        (row,) = self.as_("viewer").get(f"/api/workshops/{self.workshop.id}/runs/").json()
        self.assertEqual(
            (row["vehicle"], row["count"], row["words"], row["off"]),
            (str(self.vehicle.id), 2, "Time over 10 m", answer["off"]),
        )

    def test_sent_twice_it_is_one_run(self) -> None:
        again = {"id": str(uuid4()), "document": TIMED}
        answers = [self.as_("editor").post(self.address(), again, format="json") for _ in range(2)]
        self.assertEqual([answer.status_code for answer in answers], [201, 201])
        self.assertEqual(Run.objects.count(), 1)

    def test_a_case_gets_warm_over_the_day_of_its_design(self) -> None:
        thermal = {
            "winding_capacity": "45 J/K",
            "winding_to_case": "1.1 K/W",
            "case_capacity": "310 J/K",
            "case_to_air": "3.2 K/W",
        }
        day = [{"do": "runs", "count": 4, "every": "30 s"}]
        warm = changed({"drive.branches.0.source.thermal": thermal, "loads": {"day": day}})
        run = self.log({"kind": "case_temperature", "readings": ["31 degC"]}, design=warm)
        self.assertEqual((run.status_code, run.json()["document"]["day"]), (201, day))
        self.assertEqual(
            self.log({"kind": "case_temperature", "readings": ["31 degC"]}).json()["faults"][0]["path"], "day"
        )

    def test_what_was_changed_since_the_run_before_is_said(self) -> None:
        self.assertEqual(self.log().json()["changed"], [])
        driver = "drive.branches.0.stages.0.driver_teeth"
        both = self.log(design=changed({driver: 20, "vehicle.mass": "15 kg"})).json()
        self.assertEqual(both["changed"], ["driver gear 15 → 20", "mass 14 kg → 15 kg"])

    def test_compared_designs_have_what_was_measured_beside_them(self) -> None:
        self.log({"kind": "push", "readings": ["101 N", "103 N"]})
        body = {"documents": [PLAIN, changed({"vehicle.mass": "15 kg"})], "vehicle": str(self.vehicle.id)}
        answer = self.as_("viewer").post("/api/compare/", body, format="json").json()
        place = next(k for k, row in enumerate(answer["rows"]) if row["measure"] == "pushing_force")
        self.assertEqual([column["values"][place]["measured"] for column in answer["columns"]], [102.0, None])
        self.assertEqual(self.as_("stranger").post("/api/compare/", body, format="json").status_code, 404)

    def test_what_cannot_be_read_is_told_by_path_and_nothing_is_kept(self) -> None:
        answer = self.log({**TIMED, "readings": ["2.9 s", "fast"], "distance": "-1 m"})
        self.assertEqual(answer.status_code, 400)
        self.assertEqual({one["path"] for one in answer.json()["faults"]}, {"readings[1]", "distance"})
        self.assertFalse(Run.objects.exists())

    def test_an_older_state_overwrites_nothing(self) -> None:
        answer = self.log().json()
        address = self.address(f"runs/{answer['id']}/")
        left_out = {**TIMED, "left_out": [{"reading": 2, "why": "slipped at the start"}]}
        first = self.as_("editor").patch(address, {"base": 1, "document": left_out}, format="json")
        self.assertEqual((first.status_code, first.json()["version"]), (200, 2))
        self.assertAlmostEqual(first.json()["measured"], 2.93)
        second = self.as_("owner").patch(address, {"base": 1, "put_away": True}, format="json")
        self.assertEqual(second.status_code, 409)
        self.assertEqual(second.json()["theirs"]["document"], left_out)
        self.assertFalse(Run.objects.get().put_away)

    def test_it_keeps_its_design_when_revisions_are_thinned(self) -> None:
        self.log()
        self.save("editor", 1, changed({"vehicle.mass": "12 kg"}))
        self.vehicle.revisions.filter(number=1).delete()
        thin(self.vehicle)
        again = self.log(tried=self.vehicle.tried.get().pk)
        self.assertEqual((again.status_code, again.json()["revision"]), (201, 1))
        self.assertEqual(self.log(tried=2**40).status_code, 404)
        shown = self.as_("viewer").get(self.address("learnt/")).json()
        self.assertEqual(shown["runs"][0]["stale"], ["mass 14 → 12 kg"])

    def test_a_design_that_comes_along_and_the_same_one_saved_are_one(self) -> None:
        self.log(design=changed({"drive.stages.0.driver_teeth": 20}))
        self.save("editor", 1, changed({"drive.stages.0.driver_teeth": 20, "notes": "tried before it was saved"}))
        self.log()
        self.assertEqual(self.vehicle.tried.count(), 1)
        self.assertEqual(self.log(design={"format": "nonsense"}).status_code, 400)


class Learnt(RunsCase):
    def test_what_was_learnt_goes_into_the_design_and_narrows_the_readout(self) -> None:
        for readings in (["2.91 s", "2.95 s"], ["2.89 s", "2.93 s"]):
            self.log({**TIMED, "readings": readings})
        self.log({"kind": "tow", "readings": ["5.2 N", "5.1 N", "5.3 N"]})
        shown = self.as_("editor").post(self.address("learnt/")).json()
        self.assertEqual(shown["degrees"], 3)
        self.assertIn("vehicle.rolling_resistance", shown["values"])
        document = changed({path.replace("[", ".").replace("]", ""): value for path, value in shown["values"].items()})
        ask = {"document": document, "vehicle": str(self.vehicle.id)}
        wide, narrow = (
            self.as_("viewer").post("/api/uncertainties/", one, format="json").json()["gauges"]
            for one in ({"document": document}, ask)
        )
        widths = [
            [g["high"] - g["low"] for g in gauges if g["measure"] == "time_to_distance"] for gauges in (wide, narrow)
        ]
        self.assertLess(widths[1][0], widths[0][0])
        self.assertEqual(self.as_("stranger").post("/api/uncertainties/", ask, format="json").status_code, 404)

    def test_a_run_put_away_teaches_nothing_and_is_still_in_the_log(self) -> None:
        answer = self.log().json()
        self.as_("editor").patch(self.address(f"runs/{answer['id']}/"), {"base": 1, "put_away": True}, format="json")
        self.assertEqual(self.as_("viewer").get(self.address("learnt/")).json()["runs"], [])
        page = self.as_("viewer").get(self.address()).json()
        self.assertEqual((len(page["runs"]), page["count"], page["away"]), (1, 0, 1))

    def test_what_they_show_is_worked_out_once_until_a_run_comes(self) -> None:
        self.log()
        with mock.patch("server.runs.learning.aside", side_effect=aside) as working:
            first, again = (self.as_("viewer").get(self.address("learnt/")).json() for _ in range(2))
            self.assertEqual((first, working.call_count), (again, 1))
            self.log()
            self.assertEqual(len(self.as_("viewer").get(self.address("learnt/")).json()["runs"]), 2)
            save_revision(self.people["owner"], self.vehicle, 1, changed({"vehicle.mass": "15 kg"}))
            self.as_("viewer").get(self.address("learnt/"))
            self.assertEqual(working.call_count, 3)

    def test_the_log_comes_in_pages(self) -> None:
        for _ in range(5):
            self.log()
        with mock.patch("server.runs.api.A_PAGE", 2):
            pages: list[dict[str, Any]] = []
            last = ""
            while not pages or pages[-1]["older"]:
                pages.append(self.as_("viewer").get(self.address(), {"before": last}).json())
                last = pages[-1]["runs"][-1]["id"]
        self.assertEqual([len(page["runs"]) for page in pages], [2, 2, 1])
        moments = [run["made_at"] for page in pages for run in page["runs"]]
        self.assertEqual((len(set(moments)), moments), (5, sorted(moments, reverse=True)))
        self.assertEqual(self.as_("viewer").get(self.address(), {"before": "x"}).status_code, 400)

    def test_the_file_is_one_that_calibrate_reads(self) -> None:
        self.log()
        self.log(design=changed({"drive.stages.0.driver_teeth": 20}))
        read = runs_file.read(self.as_("viewer").get(self.address("runs/file/")).json())
        self.assertEqual((len(read.runs), len(read.designs)), (2, 3))


class Files(RunsCase):
    def test_what_was_saved_is_opened_again_without_doubles(self) -> None:
        self.log()
        self.log({"kind": "push", "readings": ["90 N"]}, design=changed({"vehicle.mass": "15 kg"}))
        saved = self.as_("viewer").get(self.address("runs/file/")).json()
        elsewhere = add_vehicle(self.people["owner"], self.workshop, PLAIN)
        where = f"/api/vehicles/{elsewhere.id}/runs/file/"
        for _ in range(2):
            self.assertEqual(self.as_("editor").post(where, {"file": saved}, format="json").status_code, 201)
        self.assertEqual([run.words for run in elsewhere.runs.all()], ["Time over 10 m", "Push at a wall"])
        self.assertEqual({run.origin for run in elsewhere.runs.all()}, {"file"})
        broken = {**saved, "runs": [saved["runs"][0], {**saved["runs"][1], "readings": []}]}
        self.assertEqual(self.as_("editor").post(where, {"file": broken}, format="json").status_code, 400)


class Plans(RunsCase):
    def plan(self, *teeth: int, **more: Any) -> dict[str, Any]:
        gearings = [
            {"name": f"{n} teeth", "design": changed({"drive.branches.0.stages.0.driver_teeth": n})} for n in teeth
        ]
        return {"format": "ydrometer-plan", "version": 1, "gearings": gearings, "measures": [TIMED_PLAN], **more}

    def save(self, name: str, base: int, document: dict[str, Any]) -> Any:
        return self.as_(name).put(self.address("plan/"), {"base": base, "document": document}, format="json")

    def test_a_plan_is_dealt_kept_and_ticked_off(self) -> None:
        self.assertIsNone(self.as_("viewer").get(self.address("plan/")).json()["planned"])
        answer = self.save("editor", 0, self.plan(13, 15, 17)).json()
        steps = answer["planned"]["steps"]
        self.assertEqual([step["round"] for step in steps], [1, 1, 1, 2, 2, 2, 3, 3, 3])
        self.assertIn("would look like", answer["planned"]["drift"])
        done = self.plan(13, 15, 17, done={steps[0]["key"]: str(uuid4())})
        self.assertEqual(self.save("editor", 1, done).status_code, 200)
        late = self.save("owner", 1, self.plan(13, 15))
        self.assertEqual((late.status_code, late.json()["theirs"]), (409, done))

    def test_what_cannot_be_read_is_told(self) -> None:
        answer = self.save("editor", 0, {**self.plan(13), "measures": [{"kind": "dance"}], "rounds": 0})
        self.assertEqual({one["path"] for one in answer.json()["faults"]}, {"measures[0].kind", "rounds"})

    def test_what_could_be_tried(self) -> None:
        self.log(design=changed({"drive.branches.0.stages.0.driver_teeth": 20}))
        offered = self.as_("viewer").get(self.address("plan/choices/")).json()
        self.assertEqual(
            [(entry["name"], entry["source"]) for entry in offered],
            [("15 teeth", "as it is now"), ("20 teeth", "run before")],
        )


class LogFiles(RunsCase):
    """A logger's file, read in this process as a worker would."""

    def text(self, rows: int = 1400) -> str:
        lines = ["time [s];speed [km/h];batt amps"]
        for k in range(rows):
            at = k / 100.0 % 7.0
            speed = 0.0 if at < 2.0 else min(30.0, 20.0 * (at - 2.0))
            lines.append(f"{k / 100.0:.2f};{speed:.2f};{speed:.1f}".replace(".", ","))
        return "\n".join(lines)

    def begin(self, text: str) -> Any:
        body = {"name": "afternoon.csv", "size": len(text), "head": text[:4000]}
        return self.as_("editor").post(self.address("files/"), body, format="json").json()

    def send(self, file: Any, text: str) -> None:
        size = file["piece"]
        pieces = [text[k : k + size] for k in range(0, len(text), size)]
        for number, piece in [*enumerate(pieces), (0, pieces[0])]:
            where = self.address(f"files/{file['id']}/pieces/{number}/")
            answer = self.as_("editor").put(where, piece.encode(), content_type="application/octet-stream")
            self.assertEqual(answer.status_code, 204)

    def setUp(self) -> None:
        self.enterContext(small_parts(9000))

    def change(self, file: Any, **body: Any) -> Any:
        return self.as_("editor").patch(self.address(f"files/{file['id']}/"), body, format="json")

    def read(self, text: str, **more: Any) -> Any:
        file = self.begin(text)
        self.send(file, text)
        self.assertEqual(self.change(file, layout={**file["layout"], **more}).status_code, 200)
        read_file(file["id"])
        return self.as_("viewer").get(self.address(f"files/{file['id']}/")).json()

    def test_it_comes_in_pieces_and_runs_are_found(self) -> None:
        shown = self.read(self.text())
        self.assertEqual([c["meaning"] for c in shown["layout"]["columns"]], ["time", "speed", "current"])
        self.assertEqual((shown["state"], shown["rows"], shown["found"]["count"]), ("done", 1400, 2))
        kinds = {run["kind"]: run["readings"] for run in shown["found"]["runs"]}
        self.assertEqual(len(kinds["distance_time"]), 2)
        self.assertTrue(self.log(shown["found"]["runs"][0]).status_code, 201)
        self.assertFalse(HeldFile.objects.exists())

    def test_faulty_rows_are_counted_and_the_first_are_told(self) -> None:
        lines = self.text().split("\n")
        for k in range(100, 130):
            lines[k] = "what;ever;1"
        shown = self.read("\n".join(lines))
        self.assertEqual((shown["found"]["faulty"], len(shown["found"]["faults"])), (30, 20))
        self.assertEqual(shown["found"]["faults"][0]["path"], "line 101")

    def test_what_was_said_of_columns_is_remembered_for_the_header(self) -> None:
        text = self.text().replace("batt amps", "channel 7")
        first = self.begin(text)
        self.assertEqual(first["layout"]["columns"][2]["meaning"], "")
        columns = [*first["layout"]["columns"][:2], {"name": "channel 7", "meaning": "current", "unit": "A"}]
        self.read(text, columns=columns)
        self.assertEqual(self.begin(text)["layout"]["columns"][2]["meaning"], "current")

    def test_a_sheet_is_looked_at_once_it_has_come(self) -> None:
        book = Workbook()
        for row in self.text().split("\n"):
            cells = [cell.replace(",", ".") for cell in row.split(";")]
            book.active.append([float(c) if c[0].isdigit() else c for c in cells])
        whole = io.BytesIO()
        book.save(whole)
        body = {"name": "afternoon.xlsx", "size": len(whole.getvalue()), "head": ""}
        file = self.as_("editor").post(self.address("files/"), body, format="json").json()
        send_in_pieces(self.as_("editor"), self.address(f"files/{file['id']}/"), file, whole.getvalue())
        layout = self.change(file, do="look").json()["layout"]
        self.assertEqual([column["meaning"] for column in layout["columns"]], ["time", "speed", "current"])
        self.change(file, layout=layout)
        read_file(file["id"])
        shown = self.as_("viewer").get(self.address(f"files/{file['id']}/")).json()
        self.assertEqual((shown["state"], shown["found"]["count"]), ("done", 2))

    def test_what_is_missing_wrong_or_no_longer_wanted(self) -> None:
        text = self.text()
        file = self.begin(text)
        self.assertEqual(self.change(file, layout=file["layout"]).status_code, 400)
        self.send(file, text)
        wrong = {**file["layout"], "columns": [{"name": "t", "meaning": "weather", "unit": ""}]}
        self.assertEqual(self.change(file, layout=wrong).json()["faults"][0]["path"], "columns[0].meaning")
        self.assertEqual(self.change(file, do="cancel").json()["state"], "cancelled")
        self.assertFalse(HeldFile.objects.exists())
        words = {"name": "a.txt", "size": 30, "head": "only words here, and no numbers"}
        self.assertEqual(self.as_("editor").post(self.address("files/"), words, format="json").status_code, 400)
