import contextlib
import io
import json
import tempfile
import unittest
from pathlib import Path

from tests.core.designs import PLAIN, changed
from ydrometer.command.cli import main


class Streams(unittest.TestCase):
    def setUp(self) -> None:
        self.folder = tempfile.TemporaryDirectory()
        self.addCleanup(self.folder.cleanup)

    def file(self, name: str, content: object) -> str:
        path = Path(self.folder.name) / name
        path.write_text(content if isinstance(content, str) else json.dumps(content))
        return str(path)

    def run_main(self, *arguments: str) -> tuple[int, str, str]:
        out, err = io.StringIO(), io.StringIO()
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            status = main(arguments)
        return status, out.getvalue(), err.getvalue()


class Evaluate(Streams):
    def test_one_document_a_line_in_order(self) -> None:
        names = [self.file("a.json", PLAIN), self.file("b.json", changed({"vehicle.mass": "28 kg"}))]
        status, out, err = self.run_main("evaluate", *names)
        self.assertEqual((status, err), (0, ""))
        first, second = (json.loads(line) for line in out.splitlines())
        self.assertEqual(first["format"], "ydrometer-result")
        time = "time_to_distance"
        self.assertLess(first["measures"][time]["value"], second["measures"][time]["value"])
        self.assertEqual(first["targets"][0]["wanted"], "at least 8 m/s")
        self.assertEqual(first["measures"]["motor_speed_at_top"]["unit"], "rpm")

    def test_faults_go_to_standard_error_and_nothing_else_out(self) -> None:
        bad = self.file("bad.json", changed({"vehicle.mass": "-1 kg", "vehicle.grip": "x"}))
        status, out, err = self.run_main("evaluate", bad)
        self.assertEqual((status, out), (2, ""))
        self.assertEqual(len(err.splitlines()), 2)
        self.assertTrue(err.startswith("vehicle.mass: "))

    def test_of_several_files_the_faulty_one_is_named(self) -> None:
        status, out, err = self.run_main("evaluate", self.file("a.json", PLAIN), self.file("b.json", "{"))
        self.assertEqual((status, out), (2, ""))
        self.assertRegex(err, r"b\.json: \$: not JSON")

    def test_what_cannot_be_read_or_is_not_asked_right(self) -> None:
        self.assertIn("cannot read", self.run_main("evaluate", "/nowhere.json")[2])
        for arguments in ((), ("evaluate",), ("dance",)):
            self.assertEqual(self.run_main(*arguments)[0], 2)


class Search(Streams):
    def test_a_search_prints_one_document(self) -> None:
        gears = [{"id": f"g{t}", "kind": "gear", "teeth": t, "module": "1 mm"} for t in (14, 15, 56)]
        request = {
            "format": "ydrometer-search",
            "version": 1,
            "design": PLAIN,
            "parts": gears,
            "layouts": [{"stages": [{"kind": "gear"}]}],
        }
        status, out, err = self.run_main("search", self.file("request.json", request))
        self.assertEqual((status, err), (0, ""))
        answer = json.loads(out)
        self.assertEqual((answer["format"], answer["combinations"]), ("ydrometer-options", 6))
        self.assertEqual(answer["options"][0]["design"]["format"], "ydrometer-design")

    def test_a_faulty_request_prints_nothing_out(self) -> None:
        status, out, err = self.run_main("search", self.file("request.json", {"format": "x"}))
        self.assertEqual((status, out), (2, ""))
        self.assertIn("layouts: missing", err)
        self.assertEqual(self.run_main("search")[0], 2)


class Building(Streams):
    def test_a_parts_list_is_matched_with_a_bin(self) -> None:
        part = {"kind": "gear", "id": "g15", "teeth": 15, "module": "1 mm", "owned": 2}
        names = self.file("a.json", PLAIN), "--bin", self.file("bin.json", {"parts": [part]})
        status, out, err = self.run_main("parts", *names)
        self.assertEqual((status, err), (0, ""))
        rows = {line["bin"]: line["to_buy"] for line in json.loads(out)["lines"]}
        self.assertEqual(rows["g15"], 0)

    def test_a_build_is_planned_to_its_event(self) -> None:
        words = "--event", "2999-06-12T09:00", "--people", "2", "--hours=2,2,2,2,2,6,6"
        status, out, _ = self.run_main("build", self.file("a.json", PLAIN), *words)
        plan = json.loads(out)["plan"]
        self.assertEqual((status, plan["event"], plan["late_by_days"]), (0, "2999-06-12T09:00", 0))

    def test_every_word_that_is_wrong_is_told(self) -> None:
        words = "--event", "soon", "--people", "0", "--hours", "1,2"
        status, out, err = self.run_main("build", self.file("a.json", PLAIN), *words)
        self.assertEqual((status, out), (2, ""))
        self.assertEqual([line.split(":")[0] for line in err.splitlines()], ["--event", "--people", "--hours"])
        self.assertEqual(self.run_main("parts", "--speed")[0], 2)
        self.assertIn("bin.json", self.run_main("parts", self.file("a.json", PLAIN), "--bin", "bin.json")[2])

    def test_schemas_are_printed(self) -> None:
        self.assertIn("late_by_days", self.run_main("schema", "build")[1])
        self.assertEqual(self.run_main("schema", "other")[0], 2)
