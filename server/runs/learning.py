"""What the runs of a vehicle show: worked out once, and kept until a run comes or the design changes."""

from __future__ import annotations

from typing import Any

import orjson
from django.db.models import Count, Max, Sum

from server.api.heavy import aside
from server.api.renderers import dumped
from server.config.page import version
from server.designs.models import Vehicle
from server.runs import history
from server.runs.models import LearntAnswer
from ydrometer.screens.learnt import learnt


def learnt_of(vehicle: Vehicle) -> dict[str, Any]:
    """What its runs show, as JSON has it."""
    stamp = _stamp(vehicle)
    kept = LearntAnswer.objects.filter(vehicle=vehicle, stamp=stamp).first()
    if kept is not None:
        return dict(kept.answer)
    answer: dict[str, Any] = orjson.loads(dumped(aside(learnt, *history.of(vehicle))))
    LearntAnswer.objects.update_or_create(vehicle=vehicle, defaults={"stamp": stamp, "answer": answer})
    return answer


def _stamp(vehicle: Vehicle) -> str:
    """Something that changes with the runs, with the design, and with the rules by which it is worked out."""
    runs = vehicle.runs.aggregate(count=Count("pk"), changes=Sum("version"), newest=Max("made_at"))
    design = vehicle.revisions.values_list("pk", flat=True).first()
    return f"{version()} {design} {runs['count']} {runs['changes']} {runs['newest']}"
