"""What the core answers to the page, written out for the page's own tests: they never stand against made-up data."""

from __future__ import annotations

import copy
import json
import sys
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import orjson

from tests.core.designs import PLAIN, SIX_STAGES, changed
from ydrometer.document import design
from ydrometer.fit.stock import stock_of
from ydrometer.questions.grid import grid
from ydrometer.screens.build_shown import Site, build_shown
from ydrometer.screens.live import Wish, look
from ydrometer.screens.loads import loads_shown
from ydrometer.screens.mounted import mounted
from ydrometer.screens.parts_shown import BenchKnown
from ydrometer.screens.step_entries import Entry
from ydrometer.screens.sweeps import sweep_of
from ydrometer.screens.vocabulary import vocabulary
from ydrometer.search import read_request
from ydrometer.search.options import Options, options_of
from ydrometer.search.run import search

MOUNTED: dict[str, Any] = {
    **PLAIN,
    "fit": {
        "plate": {"hole_pitch": "12 mm", "across": 26, "up": 8, "hole": "5 mm"},
        "shafts": [
            {
                "shaft": "drive.branches[0].source",
                "mount": "slot",
                "slot": {"start": ["74 mm", "48 mm"], "end": ["92 mm", "48 mm"]},
            },
            {
                "shaft": "drive.branches[0].stages[0]",
                "mount": "fixed",
                "at": ["120 mm", "48 mm"],
                "diameter": "8 mm",
                "stack": {
                    "between": "30 mm",
                    "items": [{"name": "gear", "width": "10 mm"}, {"name": "pulley", "width": "16 mm"}],
                },
            },
            {"shaft": "drive.stages[0]", "mount": "holes", "at": ["264 mm", "48 mm"]},
        ],
    },
}
"""The belt is too short for where the axle stands, and a stack leaves a gap."""
SPACERS = [{"kind": "spacer", "id": "s", "thickness": "2 mm", "bore": "8 mm", "owned": 4}]
WEAK = {"drive.branches.0.stages.0.width": "5 mm", "drive.branches.0.stages.0.driven_material": "acetal"}
"""A gear whose teeth carry too much."""
TAUT = {"fit.shafts.2.mount": "fixed", "fit.shafts.2.at": ["261.78 mm", "48 mm"]}
"""Where the belt goes around: what Fit finds no clash in can be built."""
STAGE = "drive.branches[0].stages[0]"
TEETH = (12, 15, 18, 30, 48)
NOON = datetime(2026, 5, 9, 12, tzinfo=UTC)
DIGITS = 9
"""So many are the same on every machine."""


def answers() -> dict[str, Any]:
    """By name, each as it goes over the wire."""
    forwards = changed({"drive.branches.0.source.reversed": True})
    document = {
        "vocabulary": vocabulary(),
        "plain": look(forwards, changed({"drive.branches.0.stages.0.driver_teeth": 14}), Wish((STAGE, "driver"))),
        "backwards": look(copy.deepcopy(PLAIN)),
        "six": look(SIX_STAGES, None, Wish(longest=3.0)),
        "sweep": sweep_of(forwards, STAGE, "driver"),
        "grid": grid(design.read(forwards), STAGE, [14, 15], [48, 56]),
        "options": _options(forwards),
        "mounted": mounted(design.read(MOUNTED), stock_of(SPACERS)),
        "loads": loads_shown(design.read(changed(WEAK, MOUNTED))),
        "build": _build(changed(TAUT, MOUNTED)),
        "documents": {"plain": forwards, "six": SIX_STAGES, "mounted": MOUNTED},
    }
    plain: dict[str, Any] = orjson.loads(orjson.dumps(document))
    return {name: _rounded(value) for name, value in plain.items()}


def _build(raw: dict[str, Any]) -> dict[str, Any]:
    """A build before anything is done, and what of it the core says after each tick: always of what is next."""
    document = design.read(raw)
    shown = [build_shown(document, Site(BenchKnown(), NOON))]
    entries: list[Entry] = []
    while shown[-1].next:
        at, step = NOON + timedelta(days=len(shown)), next(s for s in shown[0].steps if s.id == shown[-1].next[0])
        entries.append(Entry(step.id, "done", at, "ada", made_from=tuple(step.made_from)))
        shown.append(build_shown(document, Site(BenchKnown(), at, tuple(entries))))
    after = [
        {
            "ticked": entry.step,
            "held": {step.id: step.held for step in then.steps if step.held},
            "loose": then.loose,
            "next": then.next,
        }
        for entry, then in zip(entries, shown[1:], strict=True)
    ]
    other = design.read(changed({"drive.branches.0.stages.0.driver_teeth": 17}, raw))
    touched = build_shown(other, Site(BenchKnown(), at, tuple(entries)))
    return {"shown": shown[0], "after": after, "touched": touched}


def _options(document: dict[str, Any]) -> Options:
    """Of a small bin, some of it owned."""
    gears = [
        {"id": f"g{z}", "kind": "gear", "teeth": z, "module": "1 mm", "owned": z % 3, "price": z / 8} for z in TEETH
    ]
    body = {
        "format": "ydrometer-search",
        "version": 1,
        "design": document,
        "parts": gears,
        "layouts": [{"stages": [{"kind": "gear"}, {"kind": "gear"}]}],
        "keep": 30,
    }
    request = read_request(body)
    return options_of(request, search(request))


def _rounded(value: Any) -> Any:
    if isinstance(value, float):
        return float(f"{value:.{DIGITS}g}")
    if isinstance(value, dict):
        return {key: _rounded(entry) for key, entry in value.items()}
    return [_rounded(entry) for entry in value] if isinstance(value, list) else value


if __name__ == "__main__":
    Path(sys.argv[1]).write_text(json.dumps(answers(), ensure_ascii=False, indent=1) + "\n")
