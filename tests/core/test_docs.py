"""Docstrings that name arguments name those that are there."""

import importlib
import inspect
import pkgutil
import re
import unittest
from collections.abc import Iterator
from typing import Any

import ydrometer

ARGUMENT = re.compile(r"^ {4,12}([a-z_0-9]+(?:, [a-z_0-9]+)*): ", re.MULTILINE)


def public_functions() -> Iterator[tuple[str, Any]]:
    for module in pkgutil.walk_packages(ydrometer.__path__, "ydrometer."):
        if not module.name.endswith("__main__"):
            loaded = importlib.import_module(module.name)
            for name, thing in vars(loaded).items():
                if inspect.isfunction(thing) and thing.__module__ == module.name and not name.startswith("_"):
                    yield f"{module.name}.{name}", thing


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
