"""Backup while people work, restore elsewhere with every row and file the same, and nothing touched by what is damaged."""

import json
import os
import subprocess
import sys
import tarfile
import threading
from pathlib import Path

import psycopg
import pytest
from backup.archive import DUMP, MANIFEST, BackupError, Manifest, digest_of, unpack, write_archive
from backup.database import counts
from backup.restore import restore
from backup.save import save
from psycopg import sql
from spindle.formats.archive import ArchiveReader

ROOT = Path(__file__).parents[2]
FIRST = Path(__file__).parent / "first-version.tar"
URL, _, _ = os.environ["DATABASE_URL"].rpartition("/")


class House:
    """A database and a folder of its own."""

    def __init__(self, name, folder):
        self.url, self.state, self._name = f"{URL}/{name}", folder, sql.Identifier(name)
        folder.mkdir()
        self.drop()
        with psycopg.connect(os.environ["DATABASE_URL"], autocommit=True) as admin:
            admin.execute(sql.SQL("CREATE DATABASE {}").format(self._name))

    def drop(self):
        with psycopg.connect(os.environ["DATABASE_URL"], autocommit=True) as admin:
            admin.execute(sql.SQL("DROP DATABASE IF EXISTS {} WITH (FORCE)").format(self._name))

    def manage(self, *task):
        env = {**os.environ, "DATABASE_URL": self.url, "SPINDLE_STATE": str(self.state)}
        subprocess.run([sys.executable, str(ROOT / "backend" / "manage.py"), *task], check=True, capture_output=True, env=env)

    def held(self):
        """Every row of every table, and every file."""
        with psycopg.connect(self.url) as c:
            rows = {t: sorted(c.execute(sql.SQL("SELECT t::text FROM {} t").format(sql.Identifier(t))).fetchall()) for t in counts(c)}
        return rows, {str(f.relative_to(self.state)): f.read_bytes() for n in ("photos", "sounds") for f in (self.state / n).glob("*/*")}


@pytest.fixture(scope="module")
def houses(tmp_path_factory):
    made = [House(f"backup_{os.getpid()}_{n}", tmp_path_factory.mktemp("house") / "state") for n in (1, 2)]
    made[0].manage("migrate", "-v0")
    made[0].manage("load_demo")
    yield made
    for house in made:
        house.drop()


def always(_held):
    return True


def writing(url, begun, stop):
    """Write pairs until told to stop: each pair in one transaction."""
    with psycopg.connect(url) as c:
        while not stop.is_set():
            for table in ("pair_a", "pair_b"):
                c.execute(sql.SQL("INSERT INTO {} VALUES (1)").format(sql.Identifier(table)))
            c.commit()
            begun.set()


def test_elsewhere_every_row_and_file_is_the_same(houses, tmp_path):
    full, other = houses
    made = save(full.url, full.state, tmp_path / "b.tar")
    assert made.rows["jobs_job"] == 14
    assert made.missing == ()
    assert (tmp_path / "b.tar").stat().st_mode & 0o777 == 0o600
    _, before = restore(other.url, other.state, tmp_path / "b.tar", always)
    assert before is None
    assert other.held() == full.held()
    assert (other.state / "secret-key").read_bytes() == (full.state / "secret-key").read_bytes()


def test_while_people_write_it_is_one_moment_and_what_was_there_is_kept_aside(houses, tmp_path):
    full, other = houses
    with psycopg.connect(full.url) as c:
        c.execute("CREATE TABLE pair_a (n int); CREATE TABLE pair_b (n int)")
    begun, stop = threading.Event(), threading.Event()
    writer = threading.Thread(target=writing, args=(full.url, begun, stop))
    writer.start()
    begun.wait(10)
    try:
        made = save(full.url, full.state, tmp_path / "b.tar")
    finally:
        stop.set()
        writer.join()
    assert made.rows["pair_a"] == made.rows["pair_b"] > 0
    was = other.held()
    _, before = restore(other.url, other.state, tmp_path / "b.tar", always)
    assert len(other.held()[0]["pair_a"]) == made.rows["pair_a"]
    restore(other.url, other.state, before, always)
    assert other.held() == was


def test_a_full_shop_is_asked_about_and_no_leaves_it(houses, tmp_path):
    full, other = houses
    photo = next((full.state / "photos").glob("*/*"))
    photo.rename(tmp_path / "lost.jpg")
    made = save(full.url, full.state, tmp_path / "b.tar")
    (tmp_path / "lost.jpg").rename(photo)
    assert made.missing == (str(photo.relative_to(full.state)),)
    was, said = other.held(), []
    with pytest.raises(BackupError, match="Nothing was restored"):
        restore(other.url, other.state, tmp_path / "b.tar", said.append)
    assert said == ["14 jobs, 3 people"]
    assert other.held() == was


def test_while_somebody_is_connected_nothing_is_restored(houses, tmp_path):
    full, other = houses
    save(full.url, full.state, tmp_path / "b.tar")
    with psycopg.connect(other.url), pytest.raises(BackupError, match="stop the server"):
        restore(other.url, other.state, tmp_path / "b.tar", always)


def test_an_older_versions_database_is_brought_up_to_date(houses, tmp_path):
    full, other = houses
    full.manage("migrate", "day", "zero", "-v0")
    made = save(full.url, full.state, tmp_path / "b.tar")
    full.manage("migrate", "-v0")
    assert not any(m.startswith("day.") for m in made.migrations)
    restore(other.url, other.state, tmp_path / "b.tar", always)
    with psycopg.connect(other.url) as c:
        assert counts(c)["day_weekplan"] == 0


def test_the_first_versions_shop_is_restored_and_every_tape_of_it_is_read(houses, tmp_path):
    """``first-version.tar`` is the demo of the first version that ran, saved from its own database: nine jobs of one loader family."""
    _, other = houses
    made, _ = restore(other.url, other.state, FIRST, always)
    other.manage("rebuild_jobs")
    other.manage("export_shop", str(tmp_path / "shop.zip"))
    with (tmp_path / "shop.zip").open("rb") as file:
        jobs = [row for _, row in ArchiveReader(file).rows("jobs")]
    assert (len(jobs), sum(len(job["lines"]) for job in jobs)) == (made.rows["jobs_job"], made.rows["jobs_tapeline"]) == (9, 238)
    with psycopg.connect(other.url) as c:
        assert c.execute("SELECT tag FROM jobs_job WHERE waits_for LIKE 'This job cannot be read%' OR kept_as = 0").fetchall() == []


def test_a_dump_that_does_not_fit_its_manifest_changes_nothing(houses, tmp_path):
    full, other = houses
    save(full.url, full.state, tmp_path / "b.tar")
    (tmp_path / "in").mkdir()
    manifest = unpack(tmp_path / "b.tar", tmp_path / "in")
    wrong = Manifest(manifest.made_at, manifest.server, manifest.migrations, {**manifest.rows, "jobs_job": 99}, {DUMP: manifest.members[DUMP]})
    write_archive(tmp_path / "w.tar", wrong, {DUMP: tmp_path / "in" / DUMP})
    was = other.held()
    with pytest.raises(BackupError, match="rows are missing"):
        restore(other.url, other.state, tmp_path / "w.tar", always)
    assert other.held() == was


# --- files alone


@pytest.fixture
def small(tmp_path):
    """A backup with one file in it, and what its manifest says."""
    content = tmp_path / "content"
    content.write_bytes(b"x" * 5_000)
    manifest = Manifest("now", "15.1", ("jobs.0001",), {}, {DUMP: digest_of(content)})
    write_archive(tmp_path / "small.tar", manifest, {DUMP: content})
    return tmp_path / "small.tar", manifest, content


def rewritten(file, change):
    """The same file with its manifest changed."""
    with tarfile.open(file) as tar:
        told = json.loads(tar.extractfile(MANIFEST).read())
        (file.parent / "m").write_text(json.dumps({**told, **change}), encoding="utf-8")
        (file.parent / "d").write_bytes(tar.extractfile(DUMP).read())
    with tarfile.open(file, "w") as tar:
        tar.add(file.parent / "m", MANIFEST)
        tar.add(file.parent / "d", DUMP)


DAMAGES = {
    "flipped": lambda f, raw: f.write_bytes(raw.replace(b"xxxx", b"xxyx", 1)),
    "cut off": lambda f, raw: f.write_bytes(raw[:3_000]),
    "cut between": lambda f, raw: f.write_bytes(raw[: raw.index(b"database.dump\0")]),
    "empty": lambda f, _: f.write_bytes(b""),
    "another file": lambda f, _: f.write_bytes(b"PK\3\4" + b"\0" * 2_000),
    "another format": lambda f, _: rewritten(f, {"format": "else"}),
    "a newer format": lambda f, _: rewritten(f, {"version": 9}),
    "a manifest that lacks": lambda f, _: rewritten(f, {"members": None}),
    "a file from outside": lambda f, _: rewritten(f, {"members": {"../evil": [1, "x"], DUMP: [5000, "x"]}}),
    "more than it says": lambda f, _: rewritten(f, {"members": {}}),
}


@pytest.mark.parametrize("damage", DAMAGES)
def test_what_is_damaged_is_refused_before_anything_is_touched(small, tmp_path, damage):
    file, _, _ = small
    DAMAGES[damage](file, file.read_bytes())
    with pytest.raises(BackupError):
        unpack(file, tmp_path / "into")
    assert not (tmp_path / "evil").exists()


def test_what_is_whole_is_read(small, tmp_path):
    file, manifest, content = small
    assert unpack(file, tmp_path / "into") == manifest
    assert (tmp_path / "into" / DUMP).read_bytes() == content.read_bytes()


def test_nothing_is_written_over_and_half_a_file_has_no_name(small, tmp_path):
    _, manifest, _ = small
    with pytest.raises(BackupError, match="is there already"):
        save("", tmp_path, small[0])
    with pytest.raises(BackupError, match="could not be written"):
        write_archive(tmp_path / "half.tar", manifest, {DUMP: tmp_path / "gone"})
    assert not [f for f in tmp_path.iterdir() if "half" in f.name]
