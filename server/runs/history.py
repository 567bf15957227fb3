"""The runs of a vehicle as the core wants them."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

import orjson
from django.db.models import Count, Window

from server.designs.models import Vehicle
from server.runs.models import Run, Tried
from server.workshops.models import Workshop
from ydrometer.document import design
from ydrometer.screens.learnt import KeptDesign, KeptRun
from ydrometer.trials import runs_file as format_of
from ydrometer.trials.tried import names

MOST_AT_ONCE = 300
"""Runs that are learnt from at once, the newest."""


def of(vehicle: Vehicle) -> tuple[Mapping[str, Any], list[KeptDesign], list[KeptRun]]:
    """The present design, the designs that were run, and the runs from the oldest to the newest."""
    newest = vehicle.runs.filter(put_away=False).select_related("tried").order_by("-made_at", "-pk")
    runs = list(newest[:MOST_AT_ONCE])[::-1]
    present = vehicle.revisions.values_list("document", flat=True).first()
    assert present is not None  # a vehicle is created with its first revision
    designs = {run.tried_id: run.tried for run in runs}
    recent = dict(list(designs.items())[-(format_of.MOST_DESIGNS - 1) :])
    kept = [KeptDesign(str(key), tried.document) for key, tried in recent.items()]
    return present, kept, [_kept(run) for run in runs if run.tried_id in recent]


def _kept(run: Run) -> KeptRun:
    return KeptRun(str(run.pk), str(run.tried_id), run.document)


def runs_file(vehicle: Vehicle) -> bytes:
    """All runs that are not put away as a runs file that asks for the present design.

    Where more designs were run than such a file has room for, those that were run last are in it.
    """
    runs = list(vehicle.runs.filter(put_away=False).select_related("tried").defer("tried__document"))
    newest = list(dict.fromkeys(run.tried_id for run in reversed(runs)))[: format_of.MOST_DESIGNS - 1]
    kept = list(vehicle.tried.filter(pk__in=newest))
    whole = as_file(kept, [run for run in runs if run.tried_id in newest])
    present = vehicle.revisions.values_list("document", flat=True)[0]
    whole = {**whole, "designs": {"present": present, **whole["designs"]}, "ask": ["present"]}
    return orjson.dumps(whole, option=orjson.OPT_INDENT_2)


def as_file(designs: Sequence[Tried], runs: Iterable[Run]) -> dict[str, Any]:
    """Runs of some designs as a runs file."""
    called = names([design.read(tried.document) for tried in designs])
    name_of = {tried.pk: name for tried, name in zip(designs, called, strict=True)}
    return {
        "format": format_of.FORMAT,
        "version": format_of.VERSION,
        "designs": {name_of[tried.pk]: tried.document for tried in designs},
        "runs": [{"design": name_of[run.tried_id], **run.document} for run in runs],
    }


def last_runs(workshop: Workshop) -> list[Run]:
    """The newest run of each vehicle of a workshop, with the `count` of all of them."""
    runs = Run.objects.filter(vehicle__workshop=workshop, put_away=False)
    counted = Window(Count("pk"), partition_by="vehicle")
    newest = runs.annotate(count=counted).order_by("vehicle_id", "-made_at", "-pk").distinct("vehicle_id")
    return list(newest.only("vehicle", "words", "off"))
