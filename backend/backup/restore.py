"""``python -m backup.restore FILE [--yes]``: a whole shop out of one file, looked through before anything is touched, what was there kept aside."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from typing import Final

import psycopg
from backup.archive import DUMP, FOLDERS, SECRET, BackupError, Manifest, unpack
from backup.database import counts, others, replace
from backup.save import save

BACKEND: Final = Path(__file__).resolve().parents[1]
_NOT_CONTENT: Final = ("django_", "axes_", "auth_", "day_")
"""Tables that say nothing of whether anybody has used a database."""


def restore(url: str, state: Path, source: Path, may_replace: Callable[[str], bool]) -> tuple[Manifest, Path | None]:
    """Restore a backup, and return what it held and where what was there before was kept, None if there was nothing.

    Raises
    ------
    BackupError
        If the file is damaged or newer than this version, somebody is connected, or ``may_replace`` says no: nothing is touched then.
    """
    with tempfile.TemporaryDirectory(dir=state, prefix="restore-") as folder:
        fresh = Path(folder)
        manifest = unpack(source, fresh)
        newer = sorted(set(manifest.migrations) - _known_migrations())
        if newer:
            raise BackupError(f"It was made by a newer version of Tidy Spindle ({newer[0]}): bring this one up to date first.")
        if others(url):
            raise BackupError("Somebody is connected to the database: stop the server first (Ctrl-C at ./start).")
        before = _keep_aside(url, state, may_replace)
        with psycopg.connect(url) as connection:
            server = connection.info.server_version // 10_000
        replace(url, fresh / DUMP, manifest.rows, server)
        _put_files(fresh, state)
    _bring_up_to_date(url, state)
    return manifest, before


def _known_migrations() -> set[str]:
    """Return every migration that this version has, Django's own included."""
    asked = [sys.executable, str(BACKEND / "manage.py"), "showmigrations", "--plan", "--no-color"]
    told = subprocess.run(asked, check=True, capture_output=True, text=True).stdout
    return {line.split("]", 1)[1].strip().split(" ")[0] for line in told.splitlines() if "]" in line}


def _keep_aside(url: str, state: Path, may_replace: Callable[[str], bool]) -> Path | None:
    with psycopg.connect(url) as connection:
        held = {name: n for name, n in counts(connection).items() if n and not name.startswith(_NOT_CONTENT)}
    if not held:
        return None
    if not may_replace(f"{held.get('jobs_job', 0)} jobs, {held.get('people_user', 0)} people"):
        raise BackupError("Nothing was restored.")
    kept = state / f"before-restore-{datetime.now(UTC):%Y%m%d-%H%M%S}.tar"
    save(url, state, kept)
    return kept


def _put_files(fresh: Path, state: Path) -> None:
    """Put folders and key in the place of those that are there; the former ones go with the temporary folder."""
    for name in FOLDERS:
        (fresh / name).mkdir(exist_ok=True)
        if (state / name).exists():
            (state / name).rename(fresh / f"former-{name}")
        (fresh / name).rename(state / name)
    if (fresh / SECRET).exists():
        (fresh / SECRET).chmod(0o600)
        shutil.move(fresh / SECRET, state / SECRET)


def _bring_up_to_date(url: str, state: Path) -> None:
    """Bring an older database up to this version."""
    env = {**os.environ, "DATABASE_URL": url, "SPINDLE_STATE": str(state)}
    for task in (["migrate", "-v0"], ["rebuild_jobs"]):
        done = subprocess.run([sys.executable, str(BACKEND / "manage.py"), *task], check=False, capture_output=True, text=True, env=env)
        if done.returncode:
            said = done.stderr.strip().splitlines()
            raise BackupError(f"It is restored, and could not be brought up to this version ({said[-1] if said else task[0]}). Restore what was kept before.")


def _ask(held: str) -> bool:
    sys.stdout.write(f"There is a shop here already: {held}. It is kept in a backup of its own before it is replaced.\nType yes to go on: ")
    sys.stdout.flush()
    return sys.stdin.readline().strip() == "yes"


def main(arguments: list[str]) -> int:
    """Run."""
    files = [a for a in arguments if a != "--yes"]
    if len(files) != 1 or len(arguments) > 2:
        sys.stderr.write("./restore FILE [--yes]\n")
        return 2
    try:
        may = (lambda _: True) if "--yes" in arguments else _ask
        made, before = restore(os.environ["DATABASE_URL"], Path(os.environ["SPINDLE_STATE"]), Path(files[0]), may)
    except (BackupError, psycopg.Error) as error:
        sys.stderr.write(f"restore: {str(error).splitlines()[0]}\n")
        return 1
    sys.stdout.write(f"Restored as of {made.made_at}: {made.rows.get('jobs_job', 0)} jobs, {len(made.members) - 1} files.\n")
    if before is not None:
        sys.stdout.write(f"What was here before is in {before}.\n")
    return 0


if __name__ == "__main__":
    raise SystemExit(main(sys.argv[1:]))
