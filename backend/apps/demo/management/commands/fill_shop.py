"""``manage.py fill_shop``: a big generated shop on top of the demo, for measuring and trying by hand. Not for a real shop's database."""

from __future__ import annotations

from typing import Any

from apps.demo.big_shop import Size, fill
from apps.demo.services import holds_more
from django.core.management.base import BaseCommand, CommandError, CommandParser


class Command(BaseCommand):
    """Fill the demo's shop."""

    help = "Add 50,000 parts, 5,000 donors and 10,000 jobs to a fresh demo."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the flags."""
        parser.add_argument("--seed", type=int, default=7)

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        if holds_more():
            raise CommandError("This database is no fresh demo. Load one first: manage.py load_demo --fresh")
        fill(Size(), options["seed"])
        self.stdout.write("Filled. Tags of generated things begin at 100000.")
