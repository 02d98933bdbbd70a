"""A drive that nobody has a sheet of: begun at the counter, or like another; and one that nobody takes in any more."""

import uuid

import pytest
from apps.drives.models import Sheet
from apps.writing.models import Trace

from .conftest import FRESH, Browser

BARE = {"maker": "Halden", "console": "Tarn 2", "family": "tray", "classes": ["film_dvd", "game_dvd"]}


def begin(browser, **told):
    return browser.post("/sheets", key=str(uuid.uuid4()), **told)


@pytest.fixture(params=["nia", "bram"])
def anybody(request, db):
    return Browser(request.param)


NOTES = {"owner_name": "Wenna", "owner_contact": "", "complaint": "", "supply": "", "limit_cents": None, "promised_on": None, "condition": {}}


@pytest.mark.parametrize("named", [[], ["burnt_dvd"]])
def test_burnt_discs_are_spoken_of_where_a_sheet_names_them(bram, named):
    sheet = begin(bram, **{**BARE, "classes": [*BARE["classes"], *named]}).json()
    shown = bram.post("/jobs", key=str(uuid.uuid4()), sheet_id=sheet["id"], **NOTES).json()["classes"]
    assert [c["question"]["id"] for c in shown if "burnt" in c["question"]["id"]] == named
    assert not next(c for c in shown if c["question"]["id"] == "game_bd")["is_supported"]


def test_a_unit_that_nobody_knows_is_taken_in_and_advised_on(anybody):
    sheet = begin(anybody, **BARE).json()
    assert (sheet["drive"]["variant"], sheet["drive"]["pairing"], sheet["drive"]["revision"]) == ("unnamed-1", "unknown", "?")
    job = anybody.post("/jobs", key=str(uuid.uuid4()), sheet_id=sheet["id"], **NOTES).json()
    assert job["drive"]["console"] == "Tarn 2"
    assert job["diagnosis"]["suspects"][0]["p"] > 0


def test_each_without_a_name_gets_one_of_its_own(nia):
    assert [begin(nia, **BARE).json()["drive"]["variant"] for _ in range(2)] == ["unnamed-1", "unnamed-2"]


def test_the_same_press_begins_one_sheet(nia):
    press = {"key": str(uuid.uuid4()), **BARE}
    first, again = nia.post("/sheets", **press), nia.post("/sheets", **press)
    assert (first.status_code, again.json()["id"]) == (200, first.json()["id"])
    assert nia.post("/sheets", **press | {"console": "Tarn 3"}).json()["code"] == "key_reused"


def test_a_likeness_says_of_every_value_that_it_was_not_seen(bram):
    sheet = begin(bram, maker="Vessmark", console="Orlo 4", variant="VM-S99", like="VM-S41").json()
    old = bram.get("/sheets/VM-S41").json()
    said = {row["said"] for rows in sheet["document"]["tables"].values() for row in rows}
    assert said == {"copied from VM-S41, not seen"}
    assert set(sheet["document"]["sources"]) == {"*"}
    assert sheet["document"]["sources"]["*"]["confidence"] == "doubtful"
    assert sheet["document"]["drive"]["fuse_rating"] == old["document"]["drive"]["fuse_rating"]
    assert not sheet["document"]["drive"].get("reference_times")


@pytest.mark.parametrize(
    ("more", "status", "place"),
    [({"variant": "VM-S41"}, 422, "variant"), ({"console": " "}, 422, "console"), ({"classes": []}, 422, "/classes"),
     ({"classes": ["wax"]}, 422, "/classes"),      ({"like": "ZZ-1"}, 404, None), ({"family": ""}, 422, "/drive/family")],
)  # fmt: skip
def test_a_beginning_that_makes_no_sense_is_refused_and_says_where(bram, more, status, place):
    count = Sheet.objects.count()
    answer = begin(bram, **{**BARE, **more})
    assert (answer.status_code, answer.json()["params"].get("place")) == (status, place)
    assert Sheet.objects.count() == count


def test_a_retired_sheet_is_taken_in_no_more_and_its_jobs_keep_it(bram):
    def variants():
        return {s["drive"]["variant"] for s in bram.get("/sheets").json()}

    for is_retired in (True, False):
        answer = bram.post("/sheets/VM-S41/retired", key=str(uuid.uuid4()), is_retired=is_retired)
        assert answer.json()["is_retired"] is is_retired
        assert ("VM-S41" in variants()) is not is_retired
        assert bram.get(f"/jobs/{FRESH}").json()["drive"]["variant"] == "VM-S41"
    assert [t.now for t in Trace.objects.filter(about="sheet VM-S41").order_by("pk")] == [True, False]


def test_the_counter_begins_sheets_and_changes_none(nia):
    begin(nia, **BARE, variant="HL-1")
    document = nia.get("/sheets/HL-1").json()["document"]
    assert nia.post("/sheets/HL-1", key=str(uuid.uuid4()), based_on=1, document=document).status_code == 403
    assert nia.post("/sheets/HL-1/retired", key=str(uuid.uuid4()), is_retired=True).status_code == 403
