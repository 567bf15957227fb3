from typing import Any

from django.core.management.base import BaseCommand, CommandError
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor

from server.config.migrations import waiting


class Command(BaseCommand):
    help = "Print the migrations that the database waits for, one a line; nothing where it is of this version."

    def handle(self, *args: Any, **options: Any) -> None:
        try:
            late = waiting(MigrationExecutor(connection))
        except DatabaseError as error:
            raise CommandError(f"the database that DATABASE_URL names does not answer: {error}") from None
        for migration in late:
            self.stdout.write(migration)
