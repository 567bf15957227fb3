"""A code with which somebody who forgot their password chooses a new one."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import DatabaseError

from server.accounts.models import User
from server.entrance import resets


class Command(BaseCommand):
    help = "Print a code with which an account chooses a new password, once and within a day."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name")

    def handle(self, *args: Any, **options: Any) -> None:
        try:
            user = User.objects.filter(username__iexact=options["name"], is_active=True).first()
        except DatabaseError:
            raise CommandError("there is no own data of this version yet: ./ydro start makes it") from None
        if user is None or not user.has_usable_password():
            names = ", ".join(User.objects.filter(is_active=True).values_list("username", flat=True)[:20])
            raise CommandError(f'there is no account named "{options["name"]}"; there are: {names or "none"}')
        self.stdout.write(resets.make(user))
