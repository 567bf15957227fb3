"""The practice rig: does what is ordered, as time goes by, until it is stopped."""

from typing import Any

from django.core.management.base import BaseCommand

from server.config.lifeline import die_with_parent
from server.runs.rig import work


class Command(BaseCommand):
    help = "Do what is ordered of practice rigs."

    def handle(self, *args: Any, **options: Any) -> None:
        die_with_parent()
        work()
