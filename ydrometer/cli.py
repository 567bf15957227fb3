"""The command line: read, call, print."""

from __future__ import annotations

import json
import sys
from collections.abc import Callable, Sequence
from pathlib import Path

from ydrometer import design
from ydrometer.errors import DocumentError, Fault
from ydrometer.evaluate import evaluate, result

USAGE = "usage: ydrometer evaluate DESIGN.json..."


def main(arguments: Sequence[str]) -> int:
    """Run one command; returns the exit status: 0, or 2 where the input is at fault."""
    command = COMMANDS.get(arguments[0]) if arguments else None
    if command is None or len(arguments) < 2:
        print(USAGE, file=sys.stderr)
        return 2
    return command(arguments[1:])


def _evaluate(names: Sequence[str]) -> int:
    documents: list[design.Document] = []
    faults: list[str] = []
    for name in names:
        prefix = f"{name}: " if len(names) > 1 else ""
        try:
            documents.append(_read(name))
        except DocumentError as error:
            faults += [f"{prefix}{fault}" for fault in error.faults]
    if faults:
        print("\n".join(faults), file=sys.stderr)
        return 2
    for document in documents:
        print(json.dumps(result(evaluate([document])), ensure_ascii=False, allow_nan=False))
    return 0


def _read(name: str) -> design.Document:
    try:
        with Path(name).open("rb") as file:
            data = file.read(design.LARGEST + 1)
    except OSError as error:
        raise DocumentError([Fault("$", f"cannot read {name}: {error.strerror}", "give a design file")]) from None
    return design.read(design.load(data))


COMMANDS: dict[str, Callable[[Sequence[str]], int]] = {"evaluate": _evaluate}
