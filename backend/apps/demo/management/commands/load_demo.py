"""``manage.py load_demo``: the demo scenario, into an empty database only."""

from __future__ import annotations

import sys
from typing import Any

from apps.demo.services import holds_more, is_empty, load, sign_ins, wipe
from apps.demo.year.services import load_year
from django.core.management.base import BaseCommand, CommandError, CommandParser


class Command(BaseCommand):
    """Load the demo scenario."""

    help = "Load the demo scenario into an empty database."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the flags."""
        parser.add_argument("--fresh", action="store_true", help="throw everything away first")
        parser.add_argument("--yes", action="store_true", help="with --fresh: do not ask, whatever is in it")
        parser.add_argument("--year", action="store_true", help="with a year of closed jobs behind it")
        parser.add_argument("--sign-ins", action="store_true", help="print who can sign in, and do nothing else")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        if options["sign_ins"]:
            for role, name, password in sign_ins():
                self.stdout.write(f"  {role:<11} {name:<6} {password}")
            return
        if options["fresh"] and not is_empty():
            more = holds_more()
            if more and not options["yes"] and not _is_meant(more):
                raise CommandError("Nothing was thrown away.")
            wipe()
        if is_empty():
            load()
            if options["year"]:
                load_year()


def _is_meant(more: list[str]) -> bool:
    """Ask whoever sits at the terminal; nobody there means no."""
    if not sys.stdin.isatty():
        return False
    sys.stderr.write(f"This database holds more than the demo: {', '.join(more)}. Throw all of it away? Write “yes”: ")
    sys.stderr.flush()
    return sys.stdin.readline().strip().lower() == "yes"
