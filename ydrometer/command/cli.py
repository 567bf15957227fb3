"""The command line: read, call, print."""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Any, TypeVar

from ydrometer.base import strict_json
from ydrometer.base.errors import DocumentError, Fault
from ydrometer.document import design

T = TypeVar("T")
MANY = 20
"""Designs from which on compiled kernels answer sooner, though they take a moment to load."""
MOST_RUNS_FILE = 16 * strict_json.LARGEST
"""Bytes of a runs file, which holds many designs."""
MOST_BIN_FILE = 8 * strict_json.LARGEST
"""Bytes of a bin file, as of a search request."""
USAGE = """usage: ydrometer evaluate DESIGN.json...   print the measures of each design, one JSON document a line
       ydrometer search REQUEST.json       look through all combinations of parts, and print the best
       ydrometer fit DESIGN.json...        print where its shafts stand, what clashes, and the ways to place them,
                                           one JSON document a line
       ydrometer limits DESIGN.json...     print what each part has to stand, one JSON document a line
       ydrometer calibrate RUNS.json...    print what test runs teach, one JSON document a line
       ydrometer parts DESIGN.json [--bin BIN.json]
                                           print what it needs, what of it the bin has, and what has to be made
       ydrometer build DESIGN.json [--bin BIN.json] [--event 2027-06-12T09:00] [--people 2] [--hours 2,2,2,2,2,6,6]
                                           print the steps that make it, and the days to an event
       ydrometer practice --kind KIND [--level 2] [--seed 7] [--units inch]
                                           print an exercise with its answer; --list prints all kinds
       ydrometer schema [parts|build]      print the JSON Schema of a design file
       ydrometer selfcheck                 work out cases known in closed form, and print the errors"""


def main(arguments: Sequence[str]) -> int:
    """Run one command; returns the exit status: 0, or 2 where the input is at fault."""
    command = COMMANDS.get(arguments[0]) if arguments else None
    if command is None or not _fits(command, len(arguments) - 1):
        print(USAGE, file=sys.stderr)
        return 2
    try:
        return command(arguments[1:])
    except DocumentError as error:
        print("\n".join(error.lines()), file=sys.stderr)
        return 2


def _fits(command: Callable[[Sequence[str]], int], files: int) -> bool:
    """Designs come one or more at a time, requests alone, the rest takes none."""
    return (
        files > 0
        if command in (_evaluate, _limits, _calibrate)
        else files == 1
        if command is _search
        else files > 0
        if command in (_fit, _parts, _build, _practice)
        else files <= 1
        if command is _schema
        else files == 0
    )


def _search(names: Sequence[str]) -> int:
    from ydrometer import search  # noqa: PLC0415  # with it comes the compiler

    request = search.read_request(_load(names[0], search.LARGEST, "a search request"))
    answer = search.answer(request, processes=os.cpu_count() or 1)
    print(json.dumps(answer, ensure_ascii=False, allow_nan=False))
    return 0


def _limits(names: Sequence[str]) -> int:
    documents = _read_all(names)
    if len(documents) < MANY:
        os.environ.setdefault("YDROMETER_INTERPRET", "1")
    from ydrometer.files.limits_report import report  # noqa: PLC0415  # it is said now whether to compile

    known = dict(zip(names, documents, strict=True))
    for printed in _each(names, lambda name: report(known[name])):
        print(json.dumps(printed, ensure_ascii=False, allow_nan=False))
    return 0


def _calibrate(names: Sequence[str]) -> int:
    # Read when motion is first imported.
    os.environ.setdefault("YDROMETER_THREADS", str(os.cpu_count() or 1))
    from ydrometer.files.calibration_report import report  # noqa: PLC0415  # with it comes the compiler
    from ydrometer.trials import runs_file  # noqa: PLC0415

    files = _each(names, lambda name: runs_file.read(_load(name, MOST_RUNS_FILE, "a runs file")))
    for file in files:
        print(json.dumps(report(file), ensure_ascii=False, allow_nan=False))
    return 0


def _evaluate(names: Sequence[str]) -> int:
    documents = _read_all(names)
    many = len(documents) >= MANY or any(v.uncertainty for document in documents for v in document.values.values())
    if not many:
        # A design is worked out sooner than a compiler is loaded; it is read when motion is first imported.
        os.environ.setdefault("YDROMETER_INTERPRET", "1")
    from ydrometer.files import answer  # noqa: PLC0415

    for document in documents:
        print(json.dumps(answer.result(document), ensure_ascii=False, allow_nan=False))
    return 0


def _read_all(names: Sequence[str]) -> list[design.Document]:
    return _each(names, _read)


def _each(names: Sequence[str], work: Callable[[str], T]) -> list[T]:
    """What `work` makes of each file, or every fault of all of them, each with its file where there are several."""
    results: list[T] = []
    faults: list[Fault] = []
    more = 0
    for name in names:
        prefix = f"{name}: " if len(names) > 1 else ""
        try:
            results.append(work(name))
        except DocumentError as error:
            faults += [Fault(f"{prefix}{fault.path}", fault.problem, fault.remedy) for fault in error.faults]
            more += error.more
    if faults:
        raise DocumentError(faults, more)
    return results


def _read(name: str) -> design.Document:
    return design.read(_load(name, strict_json.LARGEST, "a design file"))


def _load(name: str, largest: int, what: str) -> Any:
    try:
        with Path(name).open("rb") as file:
            data = file.read(largest + 1)
    except OSError as error:
        raise DocumentError([Fault("$", f"cannot read {name}: {error.strerror}", f"give {what}")]) from None
    return strict_json.load(data, largest=largest)


def _fit(names: Sequence[str]) -> int:
    from ydrometer.files.fit_report import report  # noqa: PLC0415  # other commands need none of it

    return _print_each(names, lambda name: report(_read(name)))


def _parts(words: Sequence[str]) -> int:
    from ydrometer.command import building  # noqa: PLC0415
    from ydrometer.files.parts_report import report  # noqa: PLC0415

    wanted = building.read_parts_words(words)
    return _print_each(wanted.designs, lambda name: report(_read(name), _bin(wanted.bin)))


def _build(words: Sequence[str]) -> int:
    os.environ.setdefault("YDROMETER_INTERPRET", "1")
    from ydrometer.command import building  # noqa: PLC0415
    from ydrometer.files.build_report import report  # noqa: PLC0415

    wanted = building.read_build_words(words)
    return _print_each(wanted.designs, lambda name: report(_read(name), _bin(wanted.bin), wanted.deadline))


def _practice(words: Sequence[str]) -> int:
    os.environ.setdefault("YDROMETER_INTERPRET", "1")
    from ydrometer.command import practising  # noqa: PLC0415

    print(json.dumps(practising.answer(words), ensure_ascii=False, allow_nan=False))
    return 0


def _bin(name: str) -> list[dict[str, Any]]:
    """The parts of a bin file; none where no name is given."""
    from ydrometer.parts.read import read_bin  # noqa: PLC0415

    return read_bin(_load(name, MOST_BIN_FILE, "a bin file")) if name else []


def _print_each(names: Sequence[str], work: Callable[[str], Any]) -> int:
    for result in _each(names, work):
        print(json.dumps(result, ensure_ascii=False, allow_nan=False))
    return 0


def _schema(words: Sequence[str]) -> int:
    from ydrometer.files import answer_schemas  # noqa: PLC0415

    schemas = {"": design.schema, "parts": answer_schemas.parts_list, "build": answer_schemas.build}
    wanted = words[0] if words else ""
    if wanted not in schemas:
        raise DocumentError([Fault("schema", f'"{wanted[:40]}" given', "give parts or build, or nothing for a design")])
    print(json.dumps(schemas[wanted](), indent=1, ensure_ascii=False))
    return 0


def _selfcheck(_: Sequence[str]) -> int:
    os.environ.setdefault("YDROMETER_INTERPRET", "1")
    from ydrometer.files import selfcheck  # noqa: PLC0415

    rows = selfcheck.rows()
    for row in rows:
        print(f"{row.name:56} {row.found:16.10g} {row.exact:16.10g}  {row.error:8.1e}  {'ok' if row.holds else 'OFF'}")
    failed = sum(not row.holds for row in rows)
    print(f"{len(rows)} cases, {failed} off by more than {selfcheck.ALLOWED:g}")
    return 1 if failed else 0


COMMANDS: dict[str, Callable[[Sequence[str]], int]] = {
    "evaluate": _evaluate,
    "search": _search,
    "fit": _fit,
    "limits": _limits,
    "calibrate": _calibrate,
    "parts": _parts,
    "build": _build,
    "practice": _practice,
    "schema": _schema,
    "selfcheck": _selfcheck,
}
