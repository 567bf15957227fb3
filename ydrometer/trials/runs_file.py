"""The runs file: designs by name, what was measured with them, and what is asked of it."""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from ydrometer.base import reading
from ydrometer.base.errors import DocumentError
from ydrometer.base.quantities import Schema, quantity_definition
from ydrometer.base.seen import Reading, printable, shown
from ydrometer.base.strict_json import refuse_unsafe
from ydrometer.document import design
from ydrometer.document.design import Document
from ydrometer.document.sources import Engine
from ydrometer.document.supply import Panel
from ydrometer.trials.kinds import KINDS, Coast
from ydrometer.trials.trial import Trial
from ydrometer.trials.unknowns import NAMES

FORMAT = "ydrometer-runs"
VERSION = 1
MOST_RUNS, MOST_DESIGNS = 5000, 50
AUTO = "auto"
THE_ONE = "this one"
"""Name of the design of a run that is read by itself."""


def _read_ground(raw: Any, path: str, seen: Reading) -> Any:
    return raw if isinstance(raw, str) else seen.fault(path, f"{shown(raw)} given", "give the name of a ground")


_GROUND = reading.Reader(_read_ground, lambda: {"type": "string"})


@dataclass(frozen=True, slots=True, kw_only=True)
class AskedPrediction:
    """A design whose measures are asked for, and the ground it is to run on; that of most runs where it is not said."""

    design: str = reading.text(longest=200)
    ground: str | None = reading.field_of(_GROUND, None)


_ASKED = reading.object_reader(AskedPrediction)


def _read_asked(raw: Any, path: str, seen: Reading) -> Any:
    return AskedPrediction(design=raw) if isinstance(raw, str) else _ASKED(raw, path, seen)


def _read_fit(raw: Any, path: str, seen: Reading) -> Any:
    if raw == AUTO:
        return AUTO
    names = raw if isinstance(raw, list | tuple) else [None]
    if not all(isinstance(name, str) and name in NAMES for name in names):
        return seen.fault(path, f"{shown(raw)} given", f'give "{AUTO}" or names out of {", ".join(NAMES)}')
    return tuple(names)


@dataclass(frozen=True, slots=True, kw_only=True)
class _Body:
    """The file without its designs, runs and what it asks: those are read one by one, so that each fault is told."""

    format: str = reading.choice((FORMAT,))
    version: int = reading.whole(VERSION, VERSION)
    fit: Any = reading.field_of(
        reading.Reader(_read_fit, lambda: {"anyOf": [{"const": AUTO}, {"type": "array", "items": {"enum": [*NAMES]}}]}),
        AUTO,
    )
    same_ground: bool = reading.flag()


_RUNS = reading.list_reader(reading.kind_reader(KINDS), most=MOST_RUNS)
_ASK = reading.list_reader(
    reading.Reader(_read_asked, lambda: {"anyOf": [{"type": "string"}, _ASKED.schema()]}), most=MOST_DESIGNS
)
APART = {"designs", "runs", "ask"}


@dataclass(frozen=True, slots=True)
class RunsFile:
    """A runs file as read.

    Attributes:
        designs: by name, as read. raw: the same as they came. runs: in their order. fit: "auto", or names of unknowns.
        ask: designs whose measures are wanted. same_ground: whether all ground counts as one.
    """

    designs: Mapping[str, Document]
    raw: Mapping[str, Any]
    runs: tuple[Trial, ...]
    fit: Any
    ask: tuple[AskedPrediction, ...]
    same_ground: bool

    def ground(self, run: Trial) -> str:
        """The ground of a run, empty where all of it is one."""
        return "" if self.same_ground else run.ground


def named(name: str) -> str:
    """A design in a path: designs.plain, designs["18 teeth"]."""
    return f"designs.{name}" if re.fullmatch(r"\w+", name) else f'designs["{printable(name)}"]'


def schema() -> Schema:
    """The JSON Schema of a runs file; its designs have one of their own."""
    body = reading.object_schema(_Body)
    designs = {"type": "object", "minProperties": 1, "maxProperties": MOST_DESIGNS}
    body["properties"] |= {"designs": designs, "runs": _RUNS.schema(), "ask": _ASK.schema()}
    body["required"] = [*body["required"], "designs"]
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Ydrometer runs",
        **body,
        "$defs": {"quantity": quantity_definition()},
    }


def read(raw: Any) -> RunsFile:
    """Read a runs file from parsed JSON.

    Raises:
        DocumentError: with every fault at once.
    """
    refuse_unsafe(raw)
    seen = Reading()
    if not isinstance(raw, Mapping):
        seen.fault("", f"{shown(raw)} given", "give one runs file")
        seen.refuse()
    designs = _designs(raw.get("designs"), seen)
    body = reading.read_object(_Body, {key: value for key, value in raw.items() if key not in APART}, "", seen)
    runs: Any = _RUNS(raw.get("runs", []), "runs", seen)
    for k, run in enumerate(runs if isinstance(runs, tuple) else ()):
        for key, problem, remedy in _misfits(run, designs) if isinstance(run, Trial) else ():
            seen.fault(f"runs[{k}].{key}", problem, remedy)
    questions: Any = _ASK(raw.get("ask", []), "ask", seen)
    for k, question in enumerate(questions if isinstance(questions, tuple) else ()):
        if isinstance(question, AskedPrediction) and question.design not in designs:
            seen.fault(f"ask[{k}]", f"{shown(question.design)} given", _use(designs))
    seen.refuse()
    return RunsFile(designs, dict(raw["designs"]), runs, body.fit, questions, body.same_ground)


def read_run(raw: Any, document: Mapping[str, Any]) -> Trial:
    """Read one run of a design.

    Args:
        raw: the run as in a runs file, without its design.
        document: the design, valid.

    Raises:
        DocumentError: with every fault at once, paths beginning in the run.
    """
    return read_run_of(raw, document)[0]


def read_run_of(raw: Any, document: Mapping[str, Any]) -> tuple[Trial, Document]:
    """Read one run of a design, and the design.

    Raises:
        DocumentError: as `read_run`.
    """
    try:
        runs, read_design = read_runs_of([raw], document)
    except DocumentError as error:
        faults = [replace(fault, path=fault.path.removeprefix("runs[0]").lstrip(".")) for fault in error.faults]
        raise DocumentError(faults, error.more) from None
    return runs[0], read_design


def read_runs_of(raw: Sequence[Any], document: Mapping[str, Any]) -> tuple[tuple[Trial, ...], Document]:
    """Read runs of one design, and the design.

    Raises:
        DocumentError: with every fault at once, paths beginning with "runs".
    """
    runs = [{**run, "design": THE_ONE} if isinstance(run, Mapping) else run for run in raw]
    file = read({"format": FORMAT, "version": VERSION, "designs": {THE_ONE: document}, "runs": runs})
    return file.runs, file.designs[THE_ONE]


def _designs(raw: Any, seen: Reading) -> dict[str, Document]:
    if not isinstance(raw, Mapping) or not 1 <= len(raw) <= MOST_DESIGNS:
        seen.fault("designs", f"{shown(raw)} given", f"give 1 to {MOST_DESIGNS} designs by name")
        return {}
    designs = {}
    for name, raw_design in raw.items():
        try:
            designs[str(name)] = design.read(raw_design)
        except DocumentError as error:
            seen.take(error, named(str(name)))
    return designs


def _use(designs: Mapping[str, Document]) -> str:
    return "use one of " + ", ".join(designs)


def _misfits(run: Trial, designs: Mapping[str, Document]) -> Iterator[tuple[str, str, str]]:
    """What a run cannot be of its design."""
    if run.design not in designs:
        yield "design", f"{shown(run.design)} given" if run.design else "missing", _use(designs)
        return
    drive = designs[run.design].design.drive
    branch = getattr(run, "branch", 0)
    if branch >= len(drive.branches):
        yield "branch", f"{branch} given", f"the design has branches 0 to {len(drive.branches) - 1}"
        return
    supply, engines = run.supply or drive.supply, [isinstance(each.source, Engine) for each in drive.branches]
    if run.supply is not None and all(engines):
        yield "supply", "given for engines alone", "leave it out: nothing of the design draws on a supply"
    elif run.supply_voltage is not None and (supply is None or isinstance(supply, Panel) or all(engines)):
        what = "no supply" if supply is None else "a panel" if isinstance(supply, Panel) else "engines alone"
        yield (
            "supply_voltage",
            f"given for {what}",
            "leave it out: only a battery or bench supply has a voltage at rest",
        )
    if isinstance(run, Coast) and run.drive == "attached" and any(engines):
        yield "drive", "attached to an engine", 'engines are not turned by the wheels: give "free"'
    if engines[branch] and run.kind in ENGINELESS:
        yield "kind", f"{run.kind} of an engine", "give a run that an engine has"
    if supply is None and run.kind in ELECTRIC:
        yield "kind", f"{run.kind} without a supply", "give a run that such a drive has"


ENGINELESS = {"motor_current", "case_temperature"}
ELECTRIC = {"supply_current", "largest_current", "supply_voltage_under_load"}
