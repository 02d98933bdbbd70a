"""``manage.py export_shop FILE [--job TAG]``, as ``./spindle export``."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from apps.exchange.sending import send_job, send_shop
from apps.jobs.selectors import job_row
from django.core.management.base import BaseCommand, CommandError, CommandParser
from spindle.errors import SpindleError


class Command(BaseCommand):
    """Write the shop, or one job, into an open archive."""

    help = "Write the whole shop, or one job, into one ZIP in the open format (docs/formats/shop.md), while people work."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        parser.add_argument("file", type=Path)
        parser.add_argument("--job", metavar="TAG", help="this job alone, with its tape, photos, recordings and sheet")

    def handle(self, *args: Any, **options: Any) -> None:
        """Run."""
        file: Path = options["file"]
        if file.exists():
            raise CommandError(f"{file} is there already: nothing was written over it.")
        if not file.parent.is_dir():
            raise CommandError(f"There is no folder {file.parent}.")
        new = file.with_name(f".{file.name}.new")
        try:
            with new.open("xb") as out:
                sent = send_job(out, job_row(options["job"])) if options["job"] else send_shop(out)
            new.replace(file)
        except (SpindleError, OSError) as error:
            raise CommandError(str(error)) from error
        finally:
            new.unlink(missing_ok=True)
        rows = sum(m.rows or 0 for m in sent.manifest.members.values())
        files = sum(m.rows is None for m in sent.manifest.members.values())
        self.stdout.write(f"{file}: {rows} rows and {files} files.")
        for name in sent.missing:
            self.stderr.write(f"  missing here, so missing there: {name}")
