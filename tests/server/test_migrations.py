"""Migrations that mend data: what was there is put right, and nothing else is touched."""

from __future__ import annotations

from datetime import UTC, datetime
from importlib import import_module
from uuid import uuid4

from django.apps import apps
from django.utils import timezone

from server.accounts.models import User
from server.builds.models import StepEntry
from tests.server.people import WorkshopCase


class Mended(WorkshopCase):
    def test_moments_before_our_time(self) -> None:
        at = [datetime(3, 1, 1, tzinfo=UTC), datetime(2026, 3, 1, tzinfo=UTC)]
        wrong, right = (StepEntry.objects.create(id=uuid4(), vehicle=self.vehicle, step="a", at=one) for one in at)
        import_module("server.builds.migrations.0004_moments_of_our_time").mend(apps, None)
        for entry in (wrong, right):
            entry.refresh_from_db()
        self.assertEqual((wrong.at, right.at), (wrong.came_at, at[1]))
        self.assertLess(wrong.at, timezone.now())

    def test_names_that_differ_in_case_alone(self) -> None:
        """As far as the constraint lets two of them be: the first keeps its name."""
        tell_apart = import_module("server.accounts.migrations.0004_names_without_case").tell_apart
        before = list(User.objects.values_list("username", flat=True))
        tell_apart(apps, None)
        self.assertEqual(list(User.objects.values_list("username", flat=True)), before)
