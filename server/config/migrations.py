"""Whether an older or a newer version of the application has written a database, by the migrations it has seen."""

from __future__ import annotations

from collections.abc import Iterable

from django.db.migrations.executor import MigrationExecutor
from django.db.migrations.loader import MigrationLoader


def waiting(executor: MigrationExecutor) -> list[str]:
    """The migrations, "application.name", that a database has yet to see."""
    plan = executor.migration_plan(executor.loader.graph.leaf_nodes())
    return [f"{migration.app_label}.{migration.name}" for migration, _ in plan]


def first_unknown(applied: Iterable[tuple[str, str]]) -> str:
    """The first migration, "application.name", of our own applications that this version lacks; "" where it has all.

    Args:
        applied: (application, name) of what a database has seen. Applications that are not ours any more do not count.
    """
    known = set(MigrationLoader(None).disk_migrations)
    ours = {app for app, _ in known}
    return next((f"{app}.{name}" for app, name in sorted(set(applied) - known) if app in ours), "")
