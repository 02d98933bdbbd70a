"""``manage.py load_demo``: the demo scenario, into an empty database only."""

from __future__ import annotations

from typing import Any

from apps.demo.services import is_empty, load, sign_ins, wipe
from django.core.management.base import BaseCommand, CommandParser


class Command(BaseCommand):
    """Load the demo scenario."""

    help = "Load the demo scenario into an empty database."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the flags."""
        parser.add_argument("--fresh", action="store_true", help="throw everything away first")
        parser.add_argument("--sign-ins", action="store_true", help="print who can sign in, and do nothing else")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        if options["sign_ins"]:
            for role, name, password in sign_ins():
                self.stdout.write(f"  {role:<11} {name:<6} {password}")
            return
        if options["fresh"]:
            wipe()
        if is_empty():
            load()
