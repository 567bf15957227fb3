"""A worker: compiled kernels first, then jobs until it is stopped."""

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand

from server.config.lifeline import die_with_parent
from ydrometer.command import warm


class Command(BaseCommand):
    help = "Go through large searches, one piece after another, on one core."

    def handle(self, *args: Any, **options: Any) -> None:
        die_with_parent()
        warm.warm()
        call_command("procrastinate", "worker")
