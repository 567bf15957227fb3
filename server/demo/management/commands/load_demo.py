from typing import Any

from django.core.management.base import BaseCommand

from server.demo.load import VEHICLES, WORKSHOP, load
from server.workshops.models import Workshop


class Command(BaseCommand):
    help = "Put the demo's workshop into its first state; other workshops are not touched."

    def add_arguments(self, parser: Any) -> None:
        parser.add_argument("--if-missing", action="store_true", help="leave an existing demo as it is")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["if_missing"] and Workshop.objects.filter(id=WORKSHOP).exists():
            return
        load()
        self.stdout.write(f"{len(list(VEHICLES.iterdir()))} vehicles loaded")
