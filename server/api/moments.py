"""Moments of what was kept elsewhere."""

from __future__ import annotations

from datetime import datetime

from django.db.models import Model


def date_back(row: Model, field: str, moment: datetime | None) -> None:
    """Date a row that has just been written: then, where that is known and lies before.

    Args:
        row: dated as it was written.
        field: its moment.
        moment: None where nobody knows it.
    """
    if moment is not None and moment < getattr(row, field):
        setattr(row, field, moment)
        row.save(update_fields=[field])
