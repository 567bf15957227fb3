"""The words of `ydrometer practice`: a kind, a level, a seed and units; or the list of all kinds."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from ydrometer.base.errors import DocumentError, Fault
from ydrometer.command.words import split
from ydrometer.practice import exercise
from ydrometer.practice.draw import SEEDS
from ydrometer.practice.report import kinds, report

LIST = "--list"


def answer(words: Sequence[str]) -> dict[str, Any]:
    """What is printed for these words: an exercise, or all kinds.

    Raises:
        DocumentError: with every word that is wrong.
    """
    if list(words) == [LIST]:
        return kinds()
    alone, options = split(words, ("--kind", "--level", "--seed", "--units"))
    if alone or "--kind" not in options:
        given = f'"{alone[0][:40]}" given' if alone else "missing"
        raise DocumentError([Fault("--kind", given, f"give --kind and one of what {LIST} prints")])
    faults: list[Fault] = []
    level = _whole("--level", options.get("--level", "1"), 3, faults)
    seed = _whole("--seed", options.get("--seed", "0"), SEEDS, faults)
    if faults:
        raise DocumentError(faults)
    return report(exercise(options["--kind"], level, seed, options.get("--units", "metric")))


def _whole(name: str, text: str, most: int, faults: list[Fault]) -> int:
    if text.isascii() and text.isdigit() and int(text[:12]) <= most:
        return int(text)
    faults.append(Fault(name, f'"{text[:40]}" given', f"give a whole number up to {most}"))
    return 0
