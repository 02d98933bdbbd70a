"""``manage.py prepare``: everything between the code and a server that can be used, in one go: schema, demo or a shop of one's own, clearing."""

from __future__ import annotations

import secrets
from io import StringIO
from typing import Any

from apps.demo.services import holds_more, is_empty, published_sign_ins, sign_ins, wipe
from apps.shop.services.staff import first_person
from django.conf import settings
from django.core.management import CommandError, call_command
from django.core.management.base import BaseCommand, CommandParser


class Command(BaseCommand):
    """Bring the database up to date, and fill it with the demo if it is empty."""

    help = "Migrate, load the demo into an empty database, make anew what lists keep of jobs, and clear what is kept for a stated time only."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the flags."""
        parser.add_argument("--fresh", action="store_true", help="throw everything away first, and ask if it is more than the demo")
        parser.add_argument("--own", default="", metavar="NAME", help="no demo: a shop of one's own, where NAME signs in first")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        call_command("migrate", verbosity=0)
        if options["own"]:
            self._begin_own(options["own"].strip().lower())
        elif not settings.IS_REAL:
            call_command("load_demo", fresh=options["fresh"], year=True)
        elif is_empty():
            raise CommandError("Nobody works here yet: begin once with ./start --real --own NAME.")
        call_command("rebuild_jobs")
        call_command("clear_old")
        for swept in ("sweep_photos", "sweep_sounds"):
            call_command(swept, verbosity=0, stdout=StringIO())
        published = published_sign_ins()
        for role, name, password in sign_ins():
            if name in published:
                self.stdout.write(f"  {role:<11} {name:<6} {password}")

    def _begin_own(self, name: str) -> None:
        if not name.isidentifier():
            raise CommandError(f"“{name}” cannot be a sign-in name: letters, digits and _ alone, as in “nia”.")
        if not is_empty():
            if holds_more():
                raise CommandError(f"This database is in use ({', '.join(holds_more())}): nothing was thrown away. Start it without --own.")
            wipe()
        password = "-".join(secrets.token_hex(2) for _ in range(4))
        first_person(name, password)
        self.stdout.write(f"  Sign in as {name} with the password {password}; it has to be changed then, and is not shown again.")
