"""The database by its server's own tools: a dump of one moment while people work, and a whole replacement in one transaction."""

from __future__ import annotations

import os
import re
import shutil
import subprocess
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import psycopg
from backup.archive import BackupError
from psycopg import sql

_AS_NUMBER = re.compile(r"/(\d+)/bin$")


def tool(name: str, server: int) -> str:
    """Return where a tool of the server's is, as new as the server or newer.

    Raises
    ------
    BackupError
        If none is installed.
    """
    places = sorted((int(m[1]), p) for p in Path("/usr/lib/postgresql").glob("*/bin") if (m := _AS_NUMBER.search(str(p))) and (p / name).exists())
    newest = next((str(p / name) for version, p in reversed(places) if version >= server), None) or shutil.which(name)
    if newest is None:
        raise BackupError(f"{name} of PostgreSQL {server} is not installed: apt-get install postgresql-client")
    return newest


@contextmanager
def moment(url: str) -> Iterator[tuple[psycopg.Connection, str]]:
    """Yield a connection that sees the database as it is now for as long as it is open, and the name by which others see the same."""
    with psycopg.connect(url, autocommit=False) as connection:
        connection.isolation_level = psycopg.IsolationLevel.REPEATABLE_READ
        connection.read_only = True
        row = connection.execute("SELECT pg_export_snapshot()").fetchone()
        yield connection, str(row[0]) if row else ""


def dump(url: str, snapshot: str, server: int, file: Path) -> None:
    """Dump the database as a snapshot sees it."""
    _run([tool("pg_dump", server), "--format=custom", "--no-owner", "--no-privileges", f"--snapshot={snapshot}", f"--file={file}", f"--dbname={url}"])


def replace(url: str, file: Path, rows: dict[str, int], server: int) -> None:
    """Put what a dump holds in the place of everything that the database holds, in one transaction: all of it with the rows that it should have, or nothing.

    Raises
    ------
    BackupError
        If anything fails: the database is as it was then.
    """
    script = file.with_suffix(".sql")
    counted = [
        sql.SQL("DO $$ BEGIN IF (SELECT count(*) FROM {}) <> {} THEN RAISE EXCEPTION 'rows are missing'; END IF; END $$;")
        .format(sql.Identifier("public", name), sql.Literal(n))
        .as_string()
        for name, n in rows.items()
    ]
    _run([tool("pg_restore", server), "--no-owner", "--no-privileges", "--exit-on-error", f"--file={script}", str(file)])
    before, after = file.with_name("before.sql"), file.with_name("after.sql")
    before.write_text("DROP SCHEMA public CASCADE;\nCREATE SCHEMA public;\n", encoding="utf-8")
    after.write_text("\n".join(["SET search_path = public;", *counted]), encoding="utf-8")
    scripts = [f"--file={s}" for s in (before, script, after)]
    _run([tool("psql", server), "--no-psqlrc", "--quiet", "--single-transaction", "--set=ON_ERROR_STOP=1", *scripts, f"--dbname={url}"])


def counts(connection: psycopg.Connection) -> dict[str, int]:
    """Return the rows of every table."""
    names = connection.execute("SELECT tablename FROM pg_tables WHERE schemaname = 'public' ORDER BY 1").fetchall()
    found = {}
    for (name,) in names:
        row = connection.execute(sql.SQL("SELECT count(*) FROM {}").format(sql.Identifier("public", name))).fetchone()
        found[name] = int(row[0]) if row else 0
    return found


def others(url: str) -> int:
    """Return how many others are connected to the database."""
    with psycopg.connect(url) as connection:
        asked = "SELECT count(*) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid() AND backend_type = 'client backend'"
        row = connection.execute(asked).fetchone()
        return int(row[0]) if row else 0


def _run(command: list[str]) -> None:
    env = {**os.environ, "LC_ALL": "C.UTF-8", "PGOPTIONS": "-c client_min_messages=warning"}
    done = subprocess.run(command, check=False, capture_output=True, text=True, env=env)
    if done.returncode:
        said = [line for line in done.stderr.splitlines() if line.strip()]
        raise BackupError(f"{Path(command[0]).name} failed: {said[0] if said else 'it did not say why'}")
