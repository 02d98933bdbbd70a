"""``manage.py prepare``: everything between the code and a server that can be used, in one go: schema, demo, what is kept beside tapes, clearing."""

from __future__ import annotations

from typing import Any

from apps.demo.services import sign_ins
from django.core.management import call_command
from django.core.management.base import BaseCommand, CommandParser


class Command(BaseCommand):
    """Bring the database up to date, and fill it with the demo if it is empty."""

    help = "Migrate, load the demo into an empty database, make anew what lists keep of jobs, and clear what is kept for a stated time only."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the flags."""
        parser.add_argument("--fresh", action="store_true", help="throw everything away first, and ask if it is more than the demo")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        call_command("migrate", verbosity=0)
        call_command("load_demo", fresh=options["fresh"])
        call_command("rebuild_jobs")
        call_command("clear_old")
        for role, name, password in sign_ins():
            self.stdout.write(f"  {role:<11} {name:<6} {password}")
