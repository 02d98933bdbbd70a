"""``manage.py drop_second_factor NAME``: for who has lost the device and the paper."""

from __future__ import annotations

from typing import Any

from apps.people.models import User
from apps.people.second_factor import drop
from django.core.management.base import BaseCommand, CommandError, CommandParser


class Command(BaseCommand):
    """Switch somebody's second factor off."""

    help = "Switch the second factor of somebody off who has lost the device and the paper: at the machine itself, for nobody else can know who asks."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        parser.add_argument("name")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        user = User.objects.filter(username=options["name"]).first()
        if user is None:
            raise CommandError(f"Nobody here signs in as {options['name']}.")
        self.stdout.write("Off." if drop(user) else "There was none.")
