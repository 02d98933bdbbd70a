"""A shop goes out and comes in again as it was; what cannot be taken in is named, and nothing of it is kept."""

import hashlib
import io
import json
import shutil
import zipfile
from pathlib import Path

import pytest
from apps.demo.services import wipe
from apps.drives.models import Sheet
from apps.exchange.sending import send_shop
from apps.exchange.tables import TABLES
from apps.jobs.models import Job
from apps.people.models import User
from apps.shelf.models import Order
from apps.shop.models import Shop
from django.apps import apps
from django.conf import settings
from jsonschema import Draft202012Validator
from spindle.errors import CaseError
from spindle.formats.archive import MANIFEST, ArchiveReader

from .archives import edited, members, sent, take

pytestmark = pytest.mark.usefixtures("forgets_sheets")

LEFT_OUT = {
    "day_jobways", "day_sheetways", "day_weekplan", "day_calendaraddress", "jobs_presence", "jobs_outlook", "jobs_wantedlook", "owner_page_ownerpage",
    "people_signedin", "people_secondfactor", "record_kept", "record_replayed", "writing_usedkey", "jobs_tapeline",
}  # fmt: skip
"""Secrets, sessions, and what is worked out anew; a tape stands in its job."""
CLOSED = "K-0101"


def kept_of_jobs():
    own = [f.attname for f in Job._meta.concrete_fields if f.attname not in ("id", "sheet_id", "returns_id")]
    return list(Job.objects.order_by("tag").values(*own))


def counts():
    return {m: m.objects.count() for m in apps.get_models() if m.__module__.startswith("apps.")}


@pytest.fixture
def shop(db):
    """The demo's archive, made while the demo is there."""
    return sent()


@pytest.fixture
def elsewhere(shop, tmp_path, monkeypatch):
    """An empty house with its own folders; the archive comes from another."""
    for name in ("PHOTOS", "SOUNDS"):
        monkeypatch.setattr(settings, name, tmp_path / name)
    wipe()
    return tmp_path


def test_a_shop_comes_in_as_it_went_out(db, tmp_path, monkeypatch):
    archive, jobs, users = sent(), kept_of_jobs(), User.objects.count()
    monkeypatch.setattr(settings, "PHOTOS", tmp_path / "photos")
    monkeypatch.setattr(settings, "SOUNDS", tmp_path / "sounds")
    wipe()
    taken = take(archive)
    assert members(sent()) == members(archive)
    assert kept_of_jobs() == jobs
    assert taken.added["jobs"] == len(jobs)
    assert taken.added["people"] == users
    assert len([f for f in tmp_path.glob("*/*/*") if f.suffix in (".jpg", ".wav")]) == taken.added["photos"] + taken.added["sounds"] > 0
    assert not taken.missing


def test_the_same_archive_once_more_changes_nothing(shop):
    before = counts()
    taken = take(shop)
    assert not taken.added.total()
    assert taken.alike["jobs"] == Job.objects.count()
    assert counts() == before


def test_every_table_goes_out_or_is_left_out_for_a_reason():
    ours = {m._meta.db_table for m in apps.get_models() if m.__module__.startswith("apps.")}
    assert {t.model._meta.db_table for t in TABLES} == ours - LEFT_OUT


def test_every_row_is_as_the_schema_says(shop):
    told = json.loads((Path(__file__).parents[2] / "docs" / "formats" / "shop.schema.json").read_text(encoding="utf-8"))
    rows = ArchiveReader(shop)
    for table in TABLES:
        check = Draft202012Validator({**told["$defs"][table.name], "$defs": told["$defs"]})
        assert [e.message for _, row in rows.rows(table.name) for e in check.iter_errors(row)] == []
    with zipfile.ZipFile(shop) as archive:
        Draft202012Validator(told).validate(json.loads(archive.read(MANIFEST)))


def test_no_password_goes_out_and_nobody_comes_in_with_one(shop, elsewhere):
    assert not any(b"password" in content or b"pbkdf2" in content or b"argon2" in content for content in members(shop).values())
    take(shop)
    assert not any(user.has_usable_password() for user in User.objects.all())


def test_figures_of_the_shop_come_into_an_empty_house_alone(shop):
    take(edited(shop, "shop", lambda row: row.update(name="Another")))
    assert Shop.objects.get().name != "Another"
    wipe()
    take(edited(shop, "shop", lambda row: row.update(name="Another")))
    assert Shop.objects.get().name == "Another"


def test_an_archive_from_before_a_field_was_there_is_taken_with_its_default(shop):
    old = []
    told = edited(shop, "orders", lambda row: row.pop("came") and old.append(row["tag"]))
    wipe()
    take(told)
    assert Order.objects.get(tag=old[0]).came == 0


@pytest.mark.parametrize(
    ("table", "edit", "where", "what"),
    [
        ("parts", lambda r: r.pop("lot"), "parts.jsonl, line 1/lot", "is missing"),
        ("parts", lambda r: r.update(colour="red"), "parts.jsonl, line 1/colour", "unknown key"),
        ("parts", lambda r: r.update(count="many"), "parts.jsonl, line 1/count", "expected int, got a text"),
        ("parts", lambda r: r.update(count=True), "parts.jsonl, line 1/count", "expected int"),
        ("parts", lambda r: r.update(count=10**30), "parts.jsonl, line 1/count", "less than or equal"),
        ("parts", lambda r: r.update(count=-1), "parts.jsonl, line 1", "does not fit"),
        ("parts", lambda r: r.update(health="fine"), "parts.jsonl, line 1/health", "is none of"),
        ("parts", lambda r: r.update(at="2026-01-01T00:00:00"), "parts.jsonl, line 1/at", "without its time zone"),
        ("parts", lambda r: r.update(at="yesterday"), "parts.jsonl, line 1/at", "invalid format"),
        ("parts", lambda r: r.update(lot="x" * 41), "parts.jsonl, line 1/lot", "at most 40"),
        ("parts", lambda r: r.update(kind=["switch", "none"]), "parts.jsonl, line 1/kind", "neither here nor before it"),
        ("parts", lambda r: r.update(kind="switch"), "parts.jsonl, line 1/kind", "as a list"),
        ("parts", lambda r: r.update(kind=None), "parts.jsonl, line 1/kind", "must not be null"),
        ("kinds", lambda r: r.update(min_count=-1), "kinds.jsonl, line 1/min_count", "greater than or equal"),
        ("people", lambda r: r.update(role="king"), "people.jsonl, line 1/role", "is none of"),
        ("people", lambda r: r.update(username="ida"), "people.jsonl, line 3", "stands twice: ida"),
        ("jobs", lambda r: r.pop("lines"), "jobs.jsonl, line 1/lines", "expected a list"),
        ("jobs", lambda r: r.update(tag="X-1"), "jobs.jsonl, line 1/tag", "no tag of ours"),
        ("parts", lambda r: r.update(tag="P-1b"), "parts.jsonl, line 1/tag", "no tag of ours"),
        ("jobs", lambda r: r["lines"][0].update(kind="drive", body={"sheet": 3}), "jobs.jsonl, line 1/lines/0/body/sheet", "as a list"),
        ("jobs", lambda r: r["lines"][0].update(kind="drive", body={"sheet": ["no", 1]}), "jobs.jsonl, line 1/lines/0/body/sheet", "neither here"),
        ("jobs", lambda r: r["lines"].pop(0), "jobs.jsonl, line 1/lines/0", "expected line 1"),
        ("jobs", lambda r: r["lines"][0].update(body=[]), "jobs.jsonl, line 1/lines/0", "an object as its body"),
        ("jobs", lambda r: r["lines"][0].update(kind="wish"), "jobs.jsonl, line 1/lines", "nobody here knows"),
        ("jobs", lambda r: r["lines"][0].update(by=["nobody"]), "jobs.jsonl, line 1/lines/0/by", "neither here"),
        ("jobs", lambda r: r.update(condition={"dust": 1}), "jobs.jsonl, line 1", "cannot be read: expected an object of texts"),
        ("sheets", lambda r: r.update(facts={"family": "none"}), "sheets.jsonl, line 1", "cannot be read"),
        ("sheets", lambda r: r.update(tables=[]), "sheets.jsonl, line 1", "cannot be read"),
        ("consoles", lambda r: r.update(tables={"no": []}), "consoles.jsonl, line 1", "cannot be read"),
        ("sounds", lambda r: r.update(heard={}), "sounds.jsonl, line 1", "cannot be read"),
        ("shop", lambda r: r.update(opening="always"), "shop.jsonl, line 1", "cannot be read"),
        ("shop", lambda r: r.update(without_iron=9), "shop.jsonl, line 1", "cannot be read"),
        ("shop", lambda r: r.update(lacks_words=["wand"]), "shop.jsonl, line 1", "cannot be read"),
        ("parts", lambda r: r.update(works=["flies"]), "parts.jsonl, line 1", "no function 'flies'"),
        ("sayings", lambda r: r.update(works=["flies"]), "sayings.jsonl, line 1", "no function 'flies'"),
        ("donors", lambda r: r.update(gone=["all"]), "donors.jsonl, line 1", "expected an object of texts"),
        ("photos", lambda r: r.update(width="wide"), "photos.jsonl, line 1/width", "expected int"),
    ],
)  # fmt: skip
def test_a_bad_row_is_named_and_nothing_is_kept(shop, elsewhere, table, edit, where, what):
    with pytest.raises(CaseError, match=what) as caught:
        take(edited(shop, table, edit))
    assert caught.value.place == where
    assert not any(n for m, n in counts().items())
    assert not list(elsewhere.glob("*/*/*.*"))


@pytest.mark.parametrize(
    ("table", "edit", "where"),
    [
        ("parts", lambda r: r.update(count=r["count"] + 1), "parts.jsonl, line 1/count"),
        ("sheets", lambda r: r.update(console="Other"), "sheets.jsonl, line 1/console"),
        ("jobs", lambda r: r.update(complaint="Other"), "jobs.jsonl, line 1/complaint"),
        ("jobs", lambda r: r["lines"].pop(), "jobs.jsonl, line 1/lines"),
    ],
)
def test_what_contradicts_what_is_here_is_refused(shop, table, edit, where):
    before = counts()
    with pytest.raises(CaseError, match="here already, and otherwise") as caught:
        take(edited(shop, table, edit))
    assert caught.value.place == where
    assert counts() == before


def test_names_and_roles_of_who_is_known_here_stay(shop):
    take(edited(shop, "people", lambda row: row.update(role="manager", first_name="Other")))
    assert not User.objects.filter(first_name="Other").exists()


def test_a_newer_version_of_a_sheet_comes_in_beside_the_one_in_use(shop):
    now = Sheet.objects.order_by("pk").first()
    assert take(edited(shop, "sheets", lambda row: row.update(version=99))).added["sheets"] == 1
    assert list(Sheet.objects.filter(variant=now.variant, is_current=True)) == [now]


def test_a_picture_that_is_none_is_refused_and_no_file_stays(shop, elsewhere):
    content = b"<script>alert(1)</script>"
    name = hashlib.sha256(content).hexdigest()
    raw = edited(shop, "photos", lambda row: row.update(hash=name))
    with zipfile.ZipFile(raw, "a") as more:
        told = json.loads(more.read(MANIFEST))
        told["members"][f"photos/{name}.jpg"] = {"sha256": name, "size": len(content)}
        more.writestr(f"photos/{name}.jpg", content)
    with zipfile.ZipFile(raw) as old, zipfile.ZipFile(out := io.BytesIO(), "w") as new:
        for member in {i.filename for i in old.infolist()} - {MANIFEST}:
            new.writestr(member, old.read(member))
        new.writestr(MANIFEST, json.dumps(told))
    with pytest.raises(CaseError, match="no picture as it is kept here") as caught:
        take(out)
    assert caught.value.place == f"photos/{name}.jpg"
    assert not [f for f in elsewhere.glob("*/*/*") if f.is_file()]


def test_a_file_that_is_gone_is_said_on_both_sides(shop, elsewhere):
    for folder in ("PHOTOS", "SOUNDS"):
        shutil.rmtree(Path(getattr(settings, folder)), ignore_errors=True)
    take(shop)
    shutil.rmtree(Path(settings.PHOTOS))
    gone = send_shop(out := io.BytesIO()).missing
    assert [name.split("/")[0] for name in gone] == ["photos"] * len(gone) != []
    assert take(out).missing == list(gone)
