"""The house rules that a reader cannot see at a glance: what is known of a kind of stage stands in its own folder."""

from __future__ import annotations

import ast
import dataclasses
from collections.abc import Iterator
from functools import cache
from pathlib import Path
from unittest import TestCase

from ydrometer.base.reading import key_of
from ydrometer.document.stages import KINDS, Stage
from ydrometer.parts.kinds import KINDS as PARTS

CORE = Path(__file__).parents[2] / "ydrometer"
KIND_FOLDER = CORE / "document" / "stages"
WRITE_DOCUMENTS = (
    "document/template.py",
    "files/selfcheck.py",
    "command/warm.py",
    "practice/",
    "starting/",
)
"""Modules that write out whole designs as examples: they name kinds as a builder does."""
OTHER_THINGS = {
    ("build/progress.py", "friction"): "a kind of step",
    ("drawing/wheels.py", "bevel"): "a form of wheel",
    ("base/tables/uncertainties.py", "friction"): "the table of usual uncertainties by key",
    ("base/tables/uncertainties.py", "creep"): "the same",
    ("loads/balance.py", "friction"): "friction of a motor",
    ("loads/heat.py", "friction"): "the same",
    ("base/tables/measures.py", "ratios"): "how a measure is written",
    ("evaluation/result.py", "ratios"): "the same",
    ("motion/measures.py", "speeds"): "a module",
    ("parts/columns.py", "ratios"): "what a cell holds",
    ("parts/cells.py", "ratios"): "what a cell holds",
    ("parts/names.py", "ratios"): "the same",
    ("screens/loads.py", "torque_rating"): "its words where it is wanted",
    ("working/measures.py", "ratios"): "a function",
}
"""Where a word that is also the key of a kind means something else."""


@cache
def modules() -> list[tuple[str, ast.Module]]:
    """The modules of the core outside the kinds' folder, with their paths in it."""
    files = {file.relative_to(CORE).as_posix(): file for file in sorted(CORE.rglob("*.py"))}
    return [
        (place, ast.parse(file.read_text()))
        for place, file in files.items()
        if KIND_FOLDER not in file.parents and not place.startswith(WRITE_DOCUMENTS)
    ]


def keys_of_kinds() -> set[str]:
    """Names of kinds, and keys of their fields, which no part of a bin and no hook of a stage has."""
    fields = {key_of(f) for kind in KINDS.values() for f in dataclasses.fields(kind)}  # type: ignore[arg-type]
    # What a bought box says is made of the kinds themselves.
    of_parts = {key_of(f) for kind in PARTS.values() if kind.kind != "gearbox" for f in dataclasses.fields(kind)}
    of_all = {*dir(Stage), *Stage.__annotations__}
    return (set(KINDS) | fields) - set(PARTS) - of_parts - of_all - {"ratio", "max_speed", "make"}


class Kinds(TestCase):
    def test_no_module_outside_their_folder_imports_one(self) -> None:
        of_kinds = {kind.__module__ for kind in KINDS.values()}
        found = [
            (place, node.module)
            for place, tree in modules()
            for node in ast.walk(tree)
            if isinstance(node, ast.ImportFrom) and node.module in of_kinds
        ]
        self.assertEqual(found, [])

    def test_no_module_outside_their_folder_knows_a_key_of_one(self) -> None:
        keys = keys_of_kinds()
        self.assertLessEqual({"planetary", "cycloidal", "driver_teeth", "reductions", "lobes", "belt_teeth"}, keys)
        found = {
            (place, word)
            for place, tree in modules()
            for node in ast.walk(tree)
            for word in _words(node)
            if word in keys
        }
        self.assertEqual(found - set(OTHER_THINGS), set())
        self.assertEqual(set(OTHER_THINGS) - found, set(), "no longer there: take it out of the list")


def _words(node: ast.AST) -> Iterator[str]:
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        yield node.value
    elif isinstance(node, ast.Attribute):
        yield node.attr
