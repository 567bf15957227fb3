from typing import Any

from django.core.management.base import BaseCommand
from django.db import connection
from django.db.migrations.recorder import MigrationRecorder

OURS = ("accounts", "workshops", "designs")


class Command(BaseCommand):
    help = "Print the migrations of ours that this database has seen, one a line."

    def handle(self, *args: Any, **options: Any) -> None:
        for app, name in sorted(MigrationRecorder(connection).applied_migrations()):
            if app in OURS:
                self.stdout.write(f"{app}.{name}")
