"""What is written of a part put right and counted; a unit that its owner leaves."""

import csv
import io
import uuid

import pytest
from apps.shelf.models import Movement, Order, Part
from django.core.files.uploadedfile import SimpleUploadedFile


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


def listed(browser, text, key=None):
    file = SimpleUploadedFile("shelf.csv", text.encode())
    return browser.client.post("/api/shelf/list", {"key": key or str(uuid.uuid4()), "file": file})


def table(browser):
    return browser.get("/shelf/list.csv").content.decode()


def with_row(browser, tag, **cells):
    rows = list(csv.DictReader(io.StringIO(table(browser))))
    next(row for row in rows if row["tag"] == tag).update(cells)
    out = io.StringIO()
    writer = csv.DictWriter(out, rows[0].keys())
    writer.writeheader()
    writer.writerows(rows)
    return out.getvalue()


def test_a_list_that_comes_back_as_it_went_out_changes_nothing(bram):
    Part.objects.filter(tag="P-0012").update(lot="=1+1", place="-3")
    before = list(Part.objects.values()), Movement.objects.count()
    assert "'=1+1" in table(bram)
    answer = listed(bram, table(bram)).json()
    assert (answer["new"], answer["put_right"]) == (0, 0)
    assert answer["same"] == Part.objects.filter(is_owned=False).count()
    assert (list(Part.objects.values()), Movement.objects.count()) == before


def test_a_list_puts_counts_drawers_and_prices_right_once(bram):
    text, key = with_row(bram, "P-0012", count="7", place="Drawer 9", piece="3.25"), str(uuid.uuid4())
    told = [listed(bram, text, key).json() for _ in range(2)]
    part = Part.objects.get(tag="P-0012")
    assert (part.count, part.place, part.piece_cents) == (7, "Drawer 9", 325)
    assert told[0] == told[1]
    assert told[0]["put_right"] == 1
    assert Movement.objects.filter(tag="P-0012", text__startswith="counted: 7 here").count() == 1


def test_a_list_that_was_saved_before_somebody_took_a_part_does_not_put_it_back(bram):
    untouched, touched = table(bram), with_row(bram, "P-0012", count="7")
    correct(bram, "P-0012", count=3, place="B7")
    assert listed(bram, untouched).json()["put_right"] == 0
    answer = listed(bram, touched)
    assert (answer.status_code, answer.json()["params"]["place"].split(", ")[1]) == (422, "saved")
    assert "count 3, place B7. Save the list anew" in answer.json()["title"]
    part = Part.objects.get(tag="P-0012")
    assert (part.count, part.place) == (3, "B7")


def test_a_row_without_a_tag_comes_onto_the_shelf(bram):
    answer = listed(bram, "level,code,count,health,place,piece\r\nswitch,LV-9,12,new,Drawer 2,0.40\r\n").json()
    part = Part.objects.select_related("kind").latest("pk")
    assert answer == {"new": 1, "put_right": 0, "same": 0}
    assert (part.kind.code, part.count, part.place, part.piece_cents, part.health) == ("LV-9", 12, "Drawer 2", 40, "new")


@pytest.mark.parametrize(
    ("text", "place"),
    [
        ("level,code,count,health\r\nswitch,A,1,new\r\nswitch,B,many,new\r\n", "line 3, count"),
        ("level,code,count,health\r\nswitch,A,1,new\r\nswitch,B,0,new\r\n", "row 3, count"),
        ("level,code,count,health\r\nswitch,A,1,new\r\nnowhere,B,1,new\r\n", "line 3, level"),
        ("level,code,count,health\r\nswitch,A,1,new\r\nswitch,=B,1,new\r\n", "line 3, code"),
        ("tag,level,code,count,health\r\n,switch,A,1,new\r\nP-9999,switch,B,1,new\r\n", "row 3, tag"),
        ("tag,level,code,count,health\r\n,switch,A,1,new\r\nP-0012,switch,other,1,new\r\n", "row 3, level"),
        ("tag,level,code,count,health,lot\r\nP-0004,switch,VK-1,1,new,a\r\nP-0004,switch,VK-1,2,new,b\r\n", "row 2, tag"),
        ("level,code\r\nswitch,A\r\n", "line 1"),
        ("", "line 1"),
    ],
)
def test_a_bad_list_says_where_and_changes_nothing(bram, text, place):
    before = list(Part.objects.values())
    answer = listed(bram, text)
    assert answer.status_code == 422
    assert answer.json()["params"]["place"] == place
    assert list(Part.objects.values()) == before


def test_the_counter_takes_no_list_and_orders_go_out_whole(nia):
    assert listed(nia, table(nia)).status_code == 403
    orders = list(csv.DictReader(io.StringIO(nia.get("/shelf/orders.csv").content.decode())))
    assert [o["tag"] for o in orders] == list(Order.objects.order_by("pk").values_list("tag", flat=True))
