"""Docstrings that name arguments name those that are there; works and standards that they name are listed."""

import ast
import importlib
import inspect
import pkgutil
import re
import unittest
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import ydrometer

SOURCES = Path(ydrometer.__path__[0])
REFERENCES = " ".join((SOURCES.parent / "docs" / "references.md").read_text().split())
STANDARD = re.compile(r"\b(?:ISO|DIN|IEC|IEEE|RFC) [0-9][0-9-]*[0-9]\b")
WORK = re.compile(r"\b([A-Z][a-z]+(?: and (?:[A-Z][a-z]+|others))?), ([A-Z][\w'-]+(?: [A-Za-z'-]+){1,3})")
"""Authors and the beginning of a title."""
NO_AUTHORS = {"Branch", "Permutation"}
"""Words that look like an author and belong to the names or the title of a work."""
ARGUMENT = re.compile(r"^ {4,12}([a-z_0-9]+(?:, [a-z_0-9]+)*): ", re.MULTILINE)


def public_functions() -> Iterator[tuple[str, Any]]:
    for module in pkgutil.walk_packages(ydrometer.__path__, "ydrometer."):
        if not module.name.endswith("__main__"):
            loaded = importlib.import_module(module.name)
            for name, thing in vars(loaded).items():
                if inspect.isfunction(thing) and thing.__module__ == module.name and not name.startswith("_"):
                    yield f"{module.name}.{name}", thing


def texts() -> Iterator[str]:
    """All that stands in quotes in the core, each in one line."""
    for file in sorted(SOURCES.rglob("*.py")):
        for node in ast.walk(ast.parse(file.read_text())):
            if isinstance(node, ast.Constant) and isinstance(node.value, str) and len(node.value) > 20:
                yield " ".join(node.value.split())


class References(unittest.TestCase):
    def test_each_standard_is_listed_with_its_edition(self) -> None:
        named = {number for text in texts() for number in STANDARD.findall(text)}
        self.assertGreater(len(named), 10)
        self.assertEqual({number for number in named if f"| {number} |" not in REFERENCES}, set())

    def test_each_work_is_listed_with_its_edition(self) -> None:
        named = {work for text in texts() for work in WORK.findall(text) if work[0] not in NO_AUTHORS}
        self.assertGreater(len(named), 10)
        listed = REFERENCES.lower()
        self.assertEqual({work for work in named if f"| {', '.join(work)}".lower() not in listed}, set())


class Docstrings(unittest.TestCase):
    def test_every_public_function_has_one(self) -> None:
        self.assertEqual([name for name, function in public_functions() if not function.__doc__], [])

    def test_documented_arguments_are_those_of_the_signature(self) -> None:
        for name, function in public_functions():
            text = inspect.getdoc(function) or ""
            if "Args:" not in text:
                continue
            section = re.split(r"\n(?:Returns|Raises):", text.split("Args:")[1])[0]
            named = [part for match in ARGUMENT.findall(section) for part in match.split(", ")]
            with self.subTest(name):
                self.assertEqual(named, list(inspect.signature(function).parameters))
