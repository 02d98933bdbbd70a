"""The house around the jobs: its clock and money, what is kept for how long, dates that teach, bodies that cannot be, and who points at whom."""

import ast
import hashlib
import re
import uuid
from datetime import UTC, date, datetime, timedelta
from graphlib import TopologicalSorter
from pathlib import Path

import pytest
from apps.drives.models import Saying
from apps.drives.selectors import full_sheet
from apps.jobs.folding import value_of
from apps.jobs.models import Job, TapeLine
from apps.jobs.selectors import economy_of
from apps.jobs.world import ShopWorld
from apps.people.models import User
from apps.shelf.models import Donor, Order, Part
from apps.shelf.offers import offers_for
from apps.shop.models import Shop, check_zone
from apps.shop.selectors import the_shop
from apps.shop.services.figures import clear_once_a_day
from apps.writing.clearing import KEPT_DAYS, clear_old
from apps.writing.models import UsedKey
from django.apps import apps as installed
from django.core.exceptions import ValidationError
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone

from .conftest import AGREE, ANSWER, FRESH, NOTED

NOW = datetime(2026, 3, 2, 3, 0, tzinfo=UTC)
HERE = Path(__file__).parents[1]


def key():
    return str(uuid.uuid4())


@pytest.mark.parametrize(("zone", "day"), [("UTC", 2), ("Etc/GMT+8", 1), ("Etc/GMT-1", 2)])
def test_days_are_the_shops_own_also_west_of_greenwich(monkeypatch, zone, day):
    monkeypatch.setattr("django.utils.timezone.now", lambda: NOW)
    shop = Shop(time_zone=zone)
    assert (shop.today().day, shop.day_of(NOW).day) == (day, day)


def test_a_promise_is_counted_by_the_shops_own_days(db, monkeypatch):
    monkeypatch.setattr("django.utils.timezone.now", lambda: NOW)
    row = Job.objects.select_related("sheet").get(tag=FRESH)
    row.promised_on = date(2026, 3, 2)
    assert [economy_of(value_of(row), Shop(time_zone=zone)).promise_days for zone in ("UTC", "Etc/GMT+8")] == [0, 1]


def test_a_zone_that_nobody_knows_is_refused():
    with pytest.raises(ValidationError):
        check_zone("Mars/Base")


def test_money_is_the_shops_on_every_line(bram):
    Shop.objects.update(currency="GBP")
    bram.ask(NOTED, "amend", limit_cents=4_200)
    assert "£" in bram.ask(NOTED, "amend", limit_cents=5_000).json()["tape"][-1]["text"]
    assert "€" not in bram.get(f"/jobs/{AGREE}").content.decode()
    assert "£58.43 is over the £25.00" in bram.get(f"/jobs/{AGREE}").json()["missing"][0]["text"]


def test_what_is_shown_in_money_moves_by_no_remark(bram):
    before = bram.get(f"/jobs/{FRESH}/outlook").json()
    bram.ask(FRESH, "remark", text="rang")
    assert bram.get(f"/jobs/{FRESH}/outlook").json() == before


@pytest.mark.parametrize(("days", "is_gone"), [(KEPT_DAYS - 1, False), (KEPT_DAYS + 1, True)])
def test_used_keys_are_kept_for_a_stated_time(bram, days, is_gone):
    bram.ask(FRESH, "remark", key="an-old-key", text="x")
    now = timezone.now() + timedelta(days=days)
    clear_old(now)
    assert UsedKey.objects.filter(key="an-old-key").exists() is not is_gone


def test_it_is_cleared_once_a_day(db):
    now = timezone.now() + timedelta(days=90)
    left = []
    for _ in range(2):
        UsedKey.objects.create(key="an-old-key", digest="x", by=User.objects.first(), at=timezone.now())
        clear_once_a_day(now, the_shop())
        left.append(UsedKey.objects.count())
    assert left == [0, 1]


def test_a_sheet_imported_twice_with_one_key_is_one_replay(bram):
    raw = bram.get("/sheets/OP-L3/file").content.replace(b"OP-L3", b"OP-L8")
    answers = [bram.client.post("/api/sheet-files", {"key": "one-and-the-same", "file": SimpleUploadedFile("a", raw)}) for _ in range(2)]
    assert [(a.status_code, a.json()["version"]) for a in answers] == [(200, 1), (200, 1)]


def test_a_fuse_rating_that_no_fuse_has_is_refused_with_the_sheet(bram):
    document = bram.get("/sheets/VM-S41").json()["document"]
    document["drive"]["fuse_rating"] = "a thick one"
    answer = bram.post("/sheets/VM-S41", key=key(), based_on=1, document=document, why="x")
    assert (answer.status_code, answer.json()["params"]["place"]) == (422, "/drive/fuse_rating")


def test_a_donors_piece_costs_what_it_is_worth_and_is_booked_as_advised(bram):
    row = Job.objects.select_related("sheet").get(tag=AGREE)
    mine = [o for o in offers_for(full_sheet(row.sheet_id), the_shop().today()) if o.where == "donor" and o.cents]
    by_level = {o.level: o.cents for o in mine}
    assert by_level["drive"] > by_level.get("clamp", 0)
    piece = next(o for o in mine if ShopWorld(row, value_of(row), the_shop(), timezone.now()).piece(o.tag, o.level).is_here)
    answer = bram.post(f"/shelf/donors/{piece.tag}/harvest", key=key(), level=piece.level, place="B1")
    assert answer.json()["piece_cents"] == piece.cents


def days_ago(n):
    return str(the_shop().today() - timedelta(days=n))


ORDER = {"supplier": "Lantern Parts", "level": "fuse", "code": "VU-15F", "packs": 2, "pack_size": 3, "pack_cents": 100}


@pytest.mark.parametrize(("ago", "status"), [(4, 200), (-1, 422), (3 * 365 + 1, 422), (20 * 365, 422)])
def test_a_mistyped_year_of_an_order_is_refused(bram, ago, status):
    assert bram.post("/shelf/orders", key=key(), ordered_on=days_ago(ago), **ORDER).status_code == status


@pytest.mark.parametrize(("ordered", "arrived", "status"), [(30, 20, 200), (30, None, 422), (30, 40, 422), (900, 10, 422), (-1, None, 422)])
def test_the_dates_of_an_order_can_be_put_right_within_reason(bram, ordered, arrived, status):
    placed = Order.objects.filter(arrived_on__isnull=False).first()
    body = {"ordered_on": days_ago(ordered), "arrived_on": arrived if arrived is None else days_ago(arrived)}
    answer = bram.post(f"/shelf/orders/{placed.tag}/dates", key=key(), **body)
    assert answer.status_code == status
    placed.refresh_from_db()
    assert (str(placed.ordered_on) == body["ordered_on"]) is (status == 200)


LONG, HUGE = "x" * 4_000, int("9" * 400)
IMPOSSIBLE = [
    ("/fits", {"level": "wing", "code": "X", "variant": "VM-S41", "verdict": "fits", "reason": "r", "origin": "shop", "confidence": "sure", "said": ""}),
    ("/shelf/donors/D-0001/scrap", {"level": "wing", "why": "bent"}),
    ("/shelf/donors", {"variant": "VM-S41", "origin": LONG}),
    ("/shelf/donors", {"variant": "VM-S41", "bought_cents": HUGE}),
    ("/shelf/parts", {"level": "belt", "code": LONG, "count": 1}),
    ("/shelf/parts", {"level": "belt", "code": "X", "count": HUGE}),
    ("/shelf/orders", {**ORDER, "packs": HUGE, "ordered_on": "2026-03-01"}),
    ("/shelf/orders", {**ORDER, "supplier": LONG, "ordered_on": "2026-03-01"}),
    ("/jobs", {"sheet_id": HUGE, "owner_name": "x"}),
    (f"/jobs/{FRESH}/lines", {"version": HUGE, "ask": {"do": "remark", "text": "x"}}),
    (f"/jobs/{FRESH}/lines", {"version": 1, "ask": {"do": "strike", "line": HUGE}}),
    (f"/jobs/{FRESH}/lines", {"version": 1, "ask": {"do": "sing"}}),
    (f"/jobs/{FRESH}/lines", {"version": 1, "ask": {"do": "remark", "text": LONG * 10}}),
]


@pytest.mark.parametrize(("path", "body"), IMPOSSIBLE, ids=[f"{n} {p}" for n, (p, _) in enumerate(IMPOSSIBLE)])
def test_a_body_that_cannot_be_is_told_and_leaves_nothing(bram, path, body):
    before = (TapeLine.objects.count(), Part.objects.count(), Donor.objects.count(), Order.objects.count(), Saying.objects.count())
    answer = bram.post(path, key=key(), **body)
    assert answer.status_code in (404, 409, 422)
    assert answer.json()["title"]
    assert before == (TapeLine.objects.count(), Part.objects.count(), Donor.objects.count(), Order.objects.count(), Saying.objects.count())


@pytest.mark.parametrize("path", [f"/jobs/{AGREE}/swap-plan?level=wing", "/fits/level/wing", "/fits/part?level=wing&code=X", f"/sheets/VM-S41?version={HUGE}"])
def test_an_address_that_names_nothing_is_told(bram, path):
    assert bram.get(path).status_code in (404, 409, 422)


@pytest.mark.parametrize(("variant", "status"), [("A/B", 422), ("OP.L3 b", 200)])
def test_a_variants_name_has_to_fit_an_address(bram, variant, status):
    raw = bram.get("/sheets/OP-L3/file").content.replace(b"OP-L3", variant.encode())
    answer = bram.client.post("/api/sheet-files", {"key": key(), "file": SimpleUploadedFile("a", raw)})
    assert answer.status_code == status
    assert (bram.get(f"/sheets/{variant}").status_code == 200) is (status == 200)


def test_a_table_of_too_many_rows_is_refused_with_their_number(bram):
    raw = ("what,value,origin,confidence,said\n" + "a,b,shop,sure,\n" * 300).encode()
    answer = bram.client.post("/api/sheets/BW-T9/tables/notes", {"key": key(), "file": SimpleUploadedFile("a", raw)})
    assert answer.status_code == 422


def test_a_step_back_and_on_again_shows_no_step_that_nobody_did(bram):
    steps = lambda: [s["is_done"] for s in bram.get("/jobs/K-0105").json()["procedure"]["steps"]]  # noqa: E731
    assert any(steps())
    bram.ask("K-0105", "go_back", to="agree", why="other part")
    bram.ask("K-0105", "propose", repair="clean_lens")
    assert not any(steps() if bram.get("/jobs/K-0105").json()["procedure"] else [])
    assert bram.get("/jobs/K-0105/report.pdf").status_code == 200


def test_apps_point_at_each_other_one_way_by_imports_and_by_foreign_keys_together():
    edges = {}
    for file in (HERE / "apps").rglob("*.py"):
        if "migrations" not in file.parts:
            for node in ast.walk(ast.parse(file.read_text(encoding="utf-8"))):
                if isinstance(node, ast.ImportFrom) and (node.module or "").startswith("apps."):
                    edges.setdefault(file.relative_to(HERE / "apps").parts[0], set()).add(node.module.split(".")[1])
    for model in installed.get_models():
        for field in model._meta.get_fields():
            if field.concrete and field.is_relation and model.__module__.startswith("apps."):
                edges.setdefault(model._meta.app_label, set()).add(field.related_model._meta.app_label)
    list(TopologicalSorter({a: to - {a} for a, to in edges.items()}).static_order())


def test_a_migration_that_has_landed_is_never_edited():
    listed = (HERE / "tests" / "migrations.sha256").read_text(encoding="utf-8").splitlines()
    known = {path: digest for digest, path in map(str.split, listed)}
    now = {str(f.relative_to(HERE)): hashlib.sha256(f.read_bytes()).hexdigest() for f in (HERE / "apps").rglob("migrations/0*.py")}
    assert known == now, "add a migration, with its line here: sha256sum apps/*/migrations/0*.py (from backend/)"


def test_an_answer_can_be_given_to_a_job_in_any_case(bram):
    assert bram.post(f"/jobs/{FRESH.lower()}/lines", key=key(), version=Job.objects.get(tag=FRESH).version, ask={"do": "answer", **ANSWER}).json()["is_new"]
    assert re.fullmatch(r"K-\d+", bram.get(f"/jobs/{FRESH.lower()}").json()["tag"])
