from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.db import connection
from django.db.migrations.executor import MigrationExecutor


class Command(BaseCommand):
    help = (
        "Bring each app of the database to a migration, forward or back: to the newest where none is named. "
        "What was done is printed, one migration a line."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("targets", nargs="*", help="app.migration, or app.zero")
        parser.add_argument("--list", action="store_true", help="only print how far each app is")

    def handle(self, *args: Any, **options: Any) -> None:
        executor = MigrationExecutor(connection)
        leaves = executor.loader.graph.leaf_nodes()
        if options["list"]:
            for app in sorted({app for app, _ in leaves}):
                done = [name for label, name in executor.loader.applied_migrations if label == app]
                self.stdout.write(f"{app}.{max(done, default='zero')}")
            return
        named = [tuple(target.split(".", 1)) for target in options["targets"]]
        wanted = [(app, None if name == "zero" else name) for app, name in named] or leaves
        plan = executor.migration_plan(wanted)
        executor.migrate(wanted, plan)
        for migration, backwards in plan:
            self.stdout.write(f"{'back' if backwards else 'done'}: {migration.app_label}.{migration.name}")
