"""What the shelf is to others: tags and labels, the workbench of a job, swap plans, and which drive is really in a unit."""

import io

import pytest
from apps.reports.labels import Layout, labels_pdf
from pypdf import PdfReader
from spindle.drives.matching import Verdict
from spindle.errors import SpindleError

from .conftest import AGREE

LAST, JOB = "P-0001", "K-0104"
LEADS = [
    ("k-0104", "/bench/K-0104"),
    ("P-0001", "/shelf/parts/P-0001"),
    ("D-0002", "/shelf/donors/D-0002"),
    ("O-0009", "/shelf/coming"),
    ("K-0102-A", "/shelf/parts/K-0102-A"),
]


@pytest.mark.parametrize(("tag", "path"), LEADS)
def test_every_tag_leads_to_its_thing(bram, tag, path):
    assert bram.get(f"/tags/{tag}").json()["path"] == path
    assert bram.get(f"/labels/{tag}").content.startswith(b"<svg")


@pytest.mark.parametrize(("layout", "n", "pages"), [(Layout(), 24, 1), (Layout(skip=1), 24, 2), (Layout(4, 12), 1, 1)])
def test_labels_fill_sheet_after_sheet(db, layout, n, pages):
    assert len(PdfReader(io.BytesIO(labels_pdf([LAST] * n, layout))).pages) == pages


@pytest.mark.parametrize(("tags", "layout"), [([], Layout()), (["X-1"], Layout()), ([LAST], Layout(9, 9)), ([LAST], Layout(skip=24))])
def test_labels_that_cannot_be_are_refused(db, tags, layout):
    with pytest.raises(SpindleError):
        labels_pdf(tags, layout)


def test_the_workbench_knows_the_shelf_and_compares_the_levels(bram):
    bench = bram.get(f"/jobs/{JOB}/workbench").json()
    mine = {s["tag"]: s for s in bench["sources"]}
    assert mine[LAST]["verdict"] == Verdict.TRANSFERS
    assert mine["O-0009"]["wait_days"] < mine["O-0009"]["most_days"]
    assert next(s for s in bench["sources"] if s["item"] == "D-0001 drive board")["repairs"] == []
    ranks = [r["rank"] for r in bench["levels"]]
    assert {"pickup", "deck", "whole"} <= set(ranks)
    assert all(r["p_lasts_year"] < r["p_success"] for r in bench["levels"])


PLANS = [("drive", 200, "Drive board"), ("pickup", 200, ""), ("board", 200, ""), ("chip", 409, "")]


@pytest.mark.parametrize(("level", "status", "moves"), PLANS)
def test_a_swap_plan_is_read_in_the_job(bram, level, status, moves):
    answer = bram.get(f"/jobs/{JOB}/swap-plan?level={level}")
    assert answer.status_code == status
    if status == 200:
        assert moves in [*answer.json()["moves"], ""]
        assert answer.json()["back"] or answer.json()["purpose"] == "test"


def test_a_unit_whose_label_lies_is_told_apart_and_its_sheet_changed(bram):
    job = bram.get("/jobs/K-0112").json()
    assert (job["drive"]["variant"], job["identity"][0]["variant"], job["identity"][0]["is_ours"]) == ("BW-T9", "BW-T14", False)
    assert bram.ask("K-0112", "identify", looks={}, sheet_id=job["identity"][0]["sheet_id"]).status_code == 200
    job = bram.get("/jobs/K-0112").json()
    assert (job["drive"]["variant"], job["identity"][0]["is_ours"]) == ("BW-T14", True)


def test_a_sheet_without_what_the_tape_speaks_of_is_refused(bram):
    unpaired = next(s for s in bram.get("/sheets").json() if s["drive"]["variant"] == "TQ-17")
    bram.ask(JOB, "take_part", part="P-0003", repair="replace_fuse")
    answer = bram.ask(JOB, "identify", looks={}, sheet_id=unpaired["id"])
    assert (answer.status_code, answer.json()["params"]["reason"]) == (409, "repair")
    assert bram.get(f"/jobs/{JOB}").json()["drive"]["variant"] == "VM-S41"


def test_another_loader_family_is_refused_once_the_tape_has_answers(bram):
    lid = next(s for s in bram.get("/sheets").json() if s["drive"]["variant"] == "KD-L1")
    assert bram.ask(JOB, "identify", looks={}, sheet_id=lid["id"]).json()["params"]["reason"] == "family"


@pytest.mark.parametrize(("repair", "waits"), [("replace_supply", True), ("clean_lens", False), ("", False)])
def test_before_a_job_waits_for_a_part_the_looks_that_pay_are_named(bram, repair, waits):
    bram.ask(AGREE, "propose", repair=repair)
    found = bram.get(f"/jobs/{AGREE}/workbench").json()["together"]
    assert (found is not None) == waits
    if found:
        assert [x["saves_cents"] for x in found["looks"]] == sorted((x["saves_cents"] for x in found["looks"]), reverse=True)
        assert found["one_parcel_cents"] > found["two_parcels_cents"] or not found["second"]
