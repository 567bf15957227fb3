from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from server.config.migrations import first_unknown


class Command(BaseCommand):
    help = "Print the first of these migrations that only a newer version has, if any; needs no database."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("applied", nargs="*", help="application.name")

    def handle(self, *args: Any, **options: Any) -> str:
        applied = (name.partition(".") for name in options["applied"])
        return first_unknown((app, name) for app, _, name in applied)
