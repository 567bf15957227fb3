"""The command line: read, call, print."""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Callable, Sequence
from pathlib import Path

from ydrometer import design
from ydrometer.errors import DocumentError, Fault

MANY = 20
"""Designs from which on compiled kernels answer sooner, though they take a moment to load."""
USAGE = """usage: ydrometer evaluate DESIGN.json...   print the measures of each design, one JSON document a line
       ydrometer schema                    print the JSON Schema of a design file
       ydrometer selfcheck                 work out cases known in closed form, and print the errors"""


def main(arguments: Sequence[str]) -> int:
    """Run one command; returns the exit status: 0, or 2 where the input is at fault."""
    command = COMMANDS.get(arguments[0]) if arguments else None
    if command is None or (command is _evaluate) != (len(arguments) > 1):
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
    many = len(documents) >= MANY or any(v.spread for document in documents for v in document.values.values())
    if not many:
        # A design is worked out sooner than a compiler is loaded; it is read when motion is first imported.
        os.environ.setdefault("YDROMETER_INTERPRET", "1")
    from ydrometer import answer  # noqa: PLC0415

    for document in documents:
        print(json.dumps(answer.result(document), ensure_ascii=False, allow_nan=False))
    return 0


def _read(name: str) -> design.Document:
    try:
        with Path(name).open("rb") as file:
            data = file.read(design.LARGEST + 1)
    except OSError as error:
        raise DocumentError([Fault("$", f"cannot read {name}: {error.strerror}", "give a design file")]) from None
    return design.read(design.load(data))


def _schema(_: Sequence[str]) -> int:
    print(json.dumps(design.schema(), indent=1, ensure_ascii=False))
    return 0


def _selfcheck(_: Sequence[str]) -> int:
    os.environ.setdefault("YDROMETER_INTERPRET", "1")
    from ydrometer import selfcheck  # noqa: PLC0415

    rows = selfcheck.rows()
    for row in rows:
        print(f"{row.name:56} {row.found:16.10g} {row.exact:16.10g}  {row.error:8.1e}  {'ok' if row.holds else 'OFF'}")
    failed = sum(not row.holds for row in rows)
    print(f"{len(rows)} cases, {failed} off by more than {selfcheck.ALLOWED:g}")
    return 1 if failed else 0


COMMANDS: dict[str, Callable[[Sequence[str]], int]] = {
    "evaluate": _evaluate,
    "schema": _schema,
    "selfcheck": _selfcheck,
}
