"""Writing an archive: the whole shop as it is at one moment, while people work, or one job with all that is its own."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import IO, Any, Final

from apps.drives.models import Sheet
from apps.exchange.rows import Names, written
from apps.exchange.tables import FILES, JOB, LINE, NAMES_A_SHEET, TABLES, Table
from apps.jobs.models import Job, TapeLine
from apps.photos.selectors import files as photos
from apps.sounds.selectors import files as sounds
from apps.writing.files import Files
from django.db import connection, models, transaction
from django.utils import timezone
from spindle.errors import NotFoundError
from spindle.formats.archive import ArchiveWriter, Manifest

KEPT_IN: Final = {"photos": photos, "sounds": sounds}


@dataclass(frozen=True)
class Sent:
    """What was written, and which files are not where they were put."""

    manifest: Manifest
    missing: tuple[str, ...]


def send_shop(out: IO[bytes]) -> Sent:
    """Write everything that a shop has in the open format."""
    with _one_moment():
        return _send(out, "shop", None)


def send_job(out: IO[bytes], job: Job) -> Sent:
    """Write one job, and those after which it came back: tapes, photos, recordings, sheets, and who worked on them by name."""
    with _one_moment():
        jobs = [job]
        while jobs[-1].returns is not None:
            jobs.append(jobs[-1].returns)
        return _send(out, job.tag, jobs)


def _send(out: IO[bytes], of: str, jobs: list[Job] | None) -> Sent:
    writer, names, missing = ArchiveWriter(out, of, timezone.now().isoformat(timespec="seconds")), Names(), []
    for table in TABLES:
        if jobs is not None and table.of_jobs is None:
            continue
        rows = None if jobs is None or table.of_jobs is None else table.of_jobs(jobs)
        writer.rows(table.name, _told(table, names, rows))
        if table.name in FILES:
            missing += _send_files(writer, table.name, rows)
    return Sent(writer.close(), tuple(missing))


def _told(table: Table, names: Names, rows: models.QuerySet[Any] | None) -> Iterator[dict[str, Any]]:
    return ({**row, "lines": tape_of(row["tag"], names)} for row in written(table, names, rows)) if table is JOB else written(table, names, rows)


def tape_of(tag: str, names: Names) -> list[dict[str, Any]]:
    """Return the tape of a job as it goes out: a sheet is named by variant and version, for its number is only ours."""
    found = []
    for line in written(LINE, names, TapeLine.objects.filter(job__tag=tag).order_by("number")):
        if line["kind"] == NAMES_A_SHEET:
            line["body"] = {**line["body"], "sheet": list(names.name(Sheet, line["body"]["sheet"]))}
        found.append(line)
    return found


def _send_files(writer: ArchiveWriter, name: str, rows: models.QuerySet[Any] | None) -> list[str]:
    kept: Files = KEPT_IN[name]()
    missing, table = [], next(t for t in TABLES if t.name == name)
    for known in (table.model._default_manager.all() if rows is None else rows).order_by("pk").values_list("hash", flat=True).iterator(chunk_size=1_000):
        try:
            writer.file(f"{name}/{known}{FILES[name]}", kept.read(known))
        except NotFoundError:
            missing.append(f"{name}/{known}{FILES[name]}")
    return missing


@contextmanager
def _one_moment() -> Iterator[None]:
    """Read everything as it is at one moment, whatever people write meanwhile."""
    is_first = not connection.in_atomic_block
    with transaction.atomic():
        if is_first:
            with connection.cursor() as cursor:
                cursor.execute("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY")
        yield
