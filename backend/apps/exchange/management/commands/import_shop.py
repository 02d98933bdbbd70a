"""``manage.py import_shop FILE``, as ``./spindle import``."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from apps.exchange.taking import take_in
from django.core.management.base import BaseCommand, CommandError, CommandParser
from spindle.errors import SpindleError
from spindle.formats.archive import ArchiveReader


class Command(BaseCommand):
    """Take an open archive in."""

    help = "Take a shop's archive, or a closed job's, in: what is not here is added, what contradicts is refused, and then nothing is changed."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        parser.add_argument("file", type=Path)

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        try:
            with options["file"].open("rb") as file:
                taken = take_in(ArchiveReader(file))
        except OSError as error:
            raise CommandError(f"{options['file']} cannot be read ({error.strerror}).") from error
        except SpindleError as error:
            raise CommandError(f"{error} Nothing was changed.") from error
        for table in taken.tables:
            self.stdout.write(f"  {table.says}: {taken.added[table.name]} added, {taken.alike[table.name]} here already")
        for name in taken.missing:
            self.stderr.write(f"  the archive has no file {name}")
