from typing import Any

from django.core.management.base import BaseCommand
from django.db.migrations.loader import MigrationLoader


class Command(BaseCommand):
    help = "Print the migrations that this version has, an application and a name a line; needs no database."

    def handle(self, *args: Any, **options: Any) -> str:
        return "\n".join(" ".join(key) for key in sorted(MigrationLoader(None).disk_migrations))
