"""What is written of a part put right and counted; a unit that its owner leaves."""

import pytest
from apps.shelf.models import Part


def correct(browser, tag, key="correct-0001", **told):
    return browser.post(f"/shelf/parts/{tag}/correct", key=key, **told)


def test_what_is_written_of_a_part_is_put_right_and_its_trail_keeps_what_stood_there(bram):
    before = Part.objects.get(tag="P-0012")
    told = correct(bram, "P-0012", count=before.count + 2, place="B7").json()
    assert (told["count"], told["place"], told["piece_cents"]) == (before.count + 2, "B7", before.piece_cents)
    said = {m["text"] for m in told["trail"]}
    assert {f"counted: {before.count + 2} here (was {before.count})", f"lies: B7 (was {before.place})"} <= said
    assert correct(bram, "P-0012", count=before.count + 2, place="B7").json()["trail"] == told["trail"]


def test_counting_the_same_again_says_that_somebody_looked(bram):
    count_now = Part.objects.get(tag="P-0012").count
    assert correct(bram, "P-0012", count=count_now).json()["trail"][0]["text"] == f"counted: {count_now} here"


@pytest.mark.parametrize(("tag", "told", "status"), [("K-0102-A", {"count": 1}, 409), ("P-9999", {"count": 1}, 404), ("P-0012", {"count": -1}, 422)])
def test_what_is_no_stock_is_not_counted(bram, tag, told, status):
    assert correct(bram, tag, **told).status_code == status


def test_the_counter_corrects_nothing_on_the_shelf(nia):
    assert correct(nia, "P-0012", count=1).status_code == 403


def test_a_unit_that_its_owner_leaves_is_a_donor_by_one_press(bram):
    assert bram.ask("K-0108", "leave_unit", by_name="Odo").status_code == 409  # it was repaired
    bram.ask("K-0107", "propose", repair="")
    bram.ask("K-0107", "mains", state="out")
    for stage in ("isolate", "agree", "repair", "prove"):
        bram.ask("K-0107", "advance", stage=stage)
    job = bram.ask("K-0107", "leave_unit", by_name="Odo").json()
    assert (job["collected_by"], job["missing"]) == ("Odo", [])
    donor = next(d for d in bram.get("/shelf/donors").json() if d["origin"].startswith("K-0107"))
    assert (donor["origin"], donor["variant"]) == ("K-0107, left by Odo", "VM-S41")
    assert bram.ask("K-0107", "leave_unit", by_name="Odo").status_code == 409
    assert len(bram.get("/shelf/suppliers").json()) > 0
