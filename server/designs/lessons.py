"""What runs have taught about a design: how its fitted values vary together."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import Any

from server.accounts.models import User
from server.api.moments import date_back
from server.designs.models import Lesson, Vehicle
from server.workshops.access import EDITORS, allowed
from ydrometer.evaluation.uncertainty import Together


@allowed(EDITORS)
def keep(
    user: User, vehicle: Vehicle, together: dict[str, Any], runs: Iterable[str], learnt_at: datetime | None = None
) -> Lesson:
    """Keep how values vary together that are put into a design, the runs that they rest on, and when it was learnt
    where that was not now.
    """
    lesson = Lesson.objects.create(vehicle=vehicle, together=together, runs=list(runs), author=user)
    date_back(lesson, "learnt_at", learnt_at)
    return lesson


def together(vehicle: Vehicle) -> Together | None:
    """How the values that were last put into the design vary together; None where none were."""
    newest = vehicle.lessons.first()
    return Together.of(newest.together) if newest else None
