"""``python -m backup.save FILE``: the whole shop in one file, while people work."""

from __future__ import annotations

import os
import sys
import tempfile
from datetime import UTC, datetime
from pathlib import Path

import psycopg
from backup.archive import DUMP, FOLDERS, SECRET, BackupError, Manifest, digest_of, write_archive
from backup.database import counts, dump, moment

KEPT_BY = {"photos": ("photos_photo", ".jpg"), "sounds": ("sounds_sound", ".wav")}
"""Which table names the files of a folder, and how they end."""


def save(url: str, state: Path, target: Path) -> Manifest:
    """Write a backup. The database is dumped as it is at one moment; files are written before a row names them, so they are taken after it.

    Raises
    ------
    BackupError
        If there is such a file already, or it cannot be written.
    """
    if target.exists():
        raise BackupError(f"{target} is there already: nothing was written over it.")
    if not target.parent.is_dir():
        raise BackupError(f"There is no folder {target.parent}.")
    with tempfile.TemporaryDirectory(dir=state, prefix="backup-") as folder, moment(url) as (connection, snapshot):
        server = connection.info.server_version
        dumped = Path(folder) / DUMP
        dump(url, snapshot, server // 10_000, dumped)
        sources = {DUMP: dumped, **_files(state)}
        manifest = Manifest(
            made_at=datetime.now(UTC).isoformat(timespec="seconds"),
            server=f"{server // 10_000}.{server % 10_000}",
            migrations=_migrations(connection),
            rows=counts(connection),
            members={name: digest_of(file) for name, file in sources.items()},
            missing=_missing(connection, sources),
        )
        write_archive(target, manifest, sources)
    return manifest


def _files(state: Path) -> dict[str, Path]:
    found = {f"{f.relative_to(state)}": f for name in FOLDERS for f in sorted((state / name).glob("*/*")) if f.suffix in (".jpg", ".wav")}
    return {SECRET: state / SECRET, **found} if (state / SECRET).exists() else found


def _migrations(connection: psycopg.Connection) -> tuple[str, ...]:
    return tuple(f"{app}.{name}" for app, name in connection.execute("SELECT app, name FROM django_migrations ORDER BY app, name"))


def _missing(connection: psycopg.Connection, sources: dict[str, Path]) -> tuple[str, ...]:
    named = []
    for folder, (table, suffix) in KEPT_BY.items():
        if connection.execute("SELECT to_regclass(%s)", [table]).fetchone() == (None,):
            continue  # the shop of an older version: this one is backed up before it is upgraded
        named += [f"{folder}/{h[:2]}/{h}{suffix}" for (h,) in connection.execute(f"SELECT hash FROM {table} ORDER BY hash")]
    return tuple(name for name in named if name not in sources)


def main(arguments: list[str]) -> int:
    """Run."""
    if len(arguments) != 1:
        sys.stderr.write("./backup FILE\n")
        return 2
    try:
        made = save(os.environ["DATABASE_URL"], Path(os.environ["SPINDLE_STATE"]), Path(arguments[0]))
    except (BackupError, psycopg.Error) as error:
        sys.stderr.write(f"backup: {str(error).splitlines()[0]}\n")
        return 1
    files, rows = len(made.members) - 1, sum(made.rows.values())
    sys.stdout.write(
        f"{arguments[0]}: {made.rows.get('jobs_job', 0)} jobs, {rows} rows, {files} files. Keep it where nobody else reads it: owners' names are in it.\n"
    )
    if made.missing:
        sys.stderr.write(f"backup: {len(made.missing)} files that the database names are not on this disk any more; they are not in it\n")
    return 0


if __name__ == "__main__":
    raise SystemExit(main(sys.argv[1:]))
