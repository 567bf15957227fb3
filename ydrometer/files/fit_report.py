"""What `./ydro fit` prints: where the shafts stand, the numbers of each stage, what clashes, the ways to place all."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from ydrometer.base.tables.dimensions import DIMENSIONS
from ydrometer.document.design import Document
from ydrometer.fit.clashes import clashes
from ydrometer.fit.flanges import made_adapters
from ydrometer.fit.sections import sections
from ydrometer.fit.setting_up import set_ups
from ydrometer.fit.settings import StageSettings, settings
from ydrometer.fit.setup import Setup
from ydrometer.fit.ways import Ways, ways

FORMAT = "ydrometer-fit"


def report(document: Document) -> dict[str, Any]:
    """The answer as JSON; all lengths in m.

    Args:
        document: a design as read; the ways are looked for where it has a plate.
    """
    first, *others = set_ups(document.design)
    answer = {"format": FORMAT, "version": 1, **_plate(first)}
    answer["elsewhere"] = [path for setup in others for path in (setup.plane.behind, *setup.plane.stages)]
    if others:
        answer["behind"] = [{"stage": setup.plane.behind, **_plate(setup)} for setup in others]
    if first.mounting.adapters:
        answer["adapters"] = [asdict(adapter) for adapter in made_adapters(first.mounting)]
    return answer


def _plate(setup: Setup) -> dict[str, Any]:
    """What stands on one plate."""
    plate: dict[str, Any] = {
        "shafts": [
            {"shaft": path, "name": setup.plane.named(path), "at": list(stand.at), "by": stand.by}
            | ({} if stand.other is None else {"other": list(stand.other)})
            | ({} if stand.setting is None else {"setting": stand.setting, "short": stand.short})
            for path, stand in setup.stands.items()
        ],
        "stages": [_stage(entry) for entry in settings(setup)],
        "clashes": [asdict(clash) for clash in clashes(setup)],
        "stacks": [
            {"shaft": s.shaft, "gaps": s.gaps, "error": s.error, "overlap": s.overlap, "protrudes": s.protrudes}
            for s in sections(setup.mounting, setup.stock)
        ],
    }
    if setup.mounting.plate is not None:
        plate["placements"] = _placements(setup)
    return plate


def _stage(entry: StageSettings) -> dict[str, Any]:
    sizes = {s.name: {"value": s.value, "unit": DIMENSIONS[s.dimension or "ratio"].si} for s in entry.settings}
    return {"path": entry.path, "kind": entry.kind, "sizes": sizes}


def _placements(setup: Setup) -> dict[str, Any]:
    try:
        return _ways(ways(setup))
    except ValueError as error:  # two shafts in slots that are tied to each other
        return {**_ways(Ways([], 0, False, [])), "refused": str(error)}


def _ways(answers: Ways) -> dict[str, Any]:
    best, helps = ([asdict(entry) for entry in entries] for entries in (answers.ways, answers.helps))
    return {"count": answers.count, "more": answers.more, "best": best, "helps": helps}
