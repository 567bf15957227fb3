"""What is published of the format and of the kernels: the schema, the self-check, both ways of running."""

import json
import os
import subprocess
import sys
import unittest
from pathlib import Path
from typing import Any

import jsonschema
from hypothesis import given, settings

from tests.core.designs import changed, whole_documents
from ydrometer.base.errors import DocumentError
from ydrometer.document import design
from ydrometer.files import selfcheck
from ydrometer.files.answer import result

ROOT = Path(__file__).parents[2]
CASES = ROOT / "tests" / "core" / "cases"
VALIDATOR = jsonschema.Draft202012Validator(design.schema())


class Schema(unittest.TestCase):
    def test_it_is_one(self) -> None:
        jsonschema.Draft202012Validator.check_schema(design.schema())

    def test_what_is_read_fits_it(self) -> None:
        files = [*CASES.glob("*.json"), *(ROOT / "server" / "demo" / "vehicles").glob("*/*.json")]
        for file in files:
            if "expected" not in file.name:
                with self.subTest(file.name):
                    VALIDATOR.validate(json.loads(file.read_text()))

    @settings(max_examples=40, deadline=None)
    @given(raw=whole_documents())
    def test_what_is_drawn_fits_it(self, raw: dict[str, Any]) -> None:
        VALIDATOR.validate(raw)

    def test_what_does_not_fit_is_not_read(self) -> None:
        faulty: tuple[dict[str, Any], ...] = (
            {"vehicle.colour": "red"},
            {"vehicle.mass": -1},
            {"vehicle.driven": "sideways"},
            {"drive.branches.0.stages.0.driver_teeth": 2},
            {"drive.stages": [{"kind": "magic"}]},
            {"targets.0.measure": "beauty"},
            {"drive.branches": []},
            {"version": 2},
        )
        for changes in faulty:
            with self.subTest(changes):
                raw = changed(changes)
                self.assertFalse(VALIDATOR.is_valid(raw))
                with self.assertRaises(DocumentError):
                    design.read(raw)


class SelfCheck(unittest.TestCase):
    def test_every_case_holds(self) -> None:
        rows = selfcheck.rows()
        self.assertGreater(len(rows), 20)
        for row in rows:
            with self.subTest(row.name):
                self.assertTrue(row.holds, f"{row.found} for {row.exact}")


class BothWays(unittest.TestCase):
    """The same functions compiled and as plain Python."""

    def test_they_agree(self) -> None:
        files = [str(CASES / f"{name}.json") for name in ("06-panel", "08-two-speeds", "10-mixed-branches")]
        environment = {**os.environ, "YDROMETER_INTERPRET": "1", "PYTHONPATH": str(ROOT)}
        command = [sys.executable, "-m", "ydrometer", "evaluate", *files]
        printed = subprocess.run(command, env=environment, capture_output=True, text=True, check=True).stdout
        for line, file in zip(printed.splitlines(), files, strict=True):
            plain, compiled = json.loads(line), result(design.read(json.loads(Path(file).read_text())))
            for name, entry in compiled["measures"].items():
                other = plain["measures"][name]["value"]
                if isinstance(entry["value"], float):
                    self.assertAlmostEqual(other, entry["value"], delta=1e-9 * abs(entry["value"]), msg=name)
                elif name != "overall_ratio" and not isinstance(entry["value"], list):
                    self.assertEqual(other, entry["value"], name)

    def test_the_commands(self) -> None:
        for arguments, starts in (
            (["schema"], "{"),
            (["selfcheck"], "motor alone"),
        ):
            command = [sys.executable, "-m", "ydrometer", *arguments]
            environment = {**os.environ, "PYTHONPATH": str(ROOT)}
            done = subprocess.run(command, env=environment, capture_output=True, text=True, check=True)
            self.assertTrue(done.stdout.startswith(starts))
