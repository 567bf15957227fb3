from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

from server.config.migrations import first_unknown, waiting
from server.demo.load import repair


class Command(BaseCommand):
    help = (
        "Bring the database up to this version, and the demo into the demo's. A database that a newer version "
        "has written is left as it is, and the first migration unknown here is printed."
    )

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--fresh", action="store_true", help="keep nothing of what visitors of the demo have made")

    def handle(self, *args: Any, **options: Any) -> str | None:
        executor = MigrationExecutor(connection)
        ahead = first_unknown(executor.loader.applied_migrations)
        if ahead:
            return ahead
        if waiting(executor):
            call_command("migrate", interactive=False, verbosity=0)
        if settings.DEMO:
            repair(fresh=options["fresh"])
        return None
