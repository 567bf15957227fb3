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
        request = {"format": "ydrometer-search", "version": 1, "design": PLAIN, "parts": gears,
                   "layouts": [{"stages": [{"kind": "gear"}]}]}  # fmt: skip
        status, out, err = self.run_main("search", self.file("request.json", request))
        self.assertEqual((status, err), (0, ""))
        found = json.loads(out)
        self.assertEqual((found["format"], found["combinations"]), ("ydrometer-options", 6))
        self.assertEqual(found["options"][0]["design"]["format"], "ydrometer-design")

    def test_a_faulty_request_prints_nothing_out(self) -> None:
        status, out, err = self.run_main("search", self.file("request.json", {"format": "x"}))
        self.assertEqual((status, out), (2, ""))
        self.assertIn("layouts: missing", err)
        self.assertEqual(self.run_main("search")[0], 2)
