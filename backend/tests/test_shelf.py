"""The shelf: stock that moves with jobs, the race for the last part, custody that is never stock, donors, orders, tags."""

import threading
import uuid

import pytest
from apps.drives.selectors import fits_of_unit, full_sheet
from apps.jobs.models import Custody, Job, Taking, Want
from apps.jobs.scarce import all_scarce
from apps.jobs.selectors import away
from apps.jobs.services.writing import JobCommand, write
from apps.people.models import User
from apps.shelf.models import Part
from apps.shelf.offers import offers_for, stock_for
from apps.shelf.selectors import donors, expected_orders, search_parts, short_kinds, stock
from django.db import IntegrityError, connection, transaction
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from spindle.diagnosis.given.economy import Economy
from spindle.errors import GoneError
from spindle.job.kinds.part import TakePart

TODAY = timezone.localdate()
LAST, JOB, OTHER = "P-0001", "K-0104", "K-0114"


def key():
    return str(uuid.uuid4())


def count(tag):
    return Part.objects.get(tag=tag).count


def taken(browser, tag=JOB):
    return next(p for p in browser.get(f"/jobs/{tag}").json()["diagnosis"]["swaps"]["parts"] if p["is_taken"])


def test_taking_moves_stock_and_putting_back_restores_it_with_what_was_seen(bram):
    assert bram.ask(JOB, "take_part", part=LAST, repair="replace_pickup").status_code == 200
    assert (count(LAST), Want.objects.filter(job__tag=JOB).exists()) == (0, False)
    answer = bram.ask(JOB, "put_back", line=taken(bram)["line"], seen={"reads": True})
    assert answer.status_code == 200
    part = bram.get(f"/shelf/parts/{LAST}").json()
    assert (part["count"], part["health"], part["works"], part["checks"][0]["unit"]) == (1, "proven", ["reads"], JOB)
    assert Want.objects.get(job__tag=JOB).repair == "replace_pickup"


def test_striking_the_line_puts_it_back_and_letting_it_stand_again_takes_it_anew(bram):
    bram.ask(JOB, "take_part", part=LAST, repair="replace_pickup")
    line = taken(bram)["line"]
    bram.ask(JOB, "strike", line=line, why="wrong drawer")
    assert count(LAST) == 1
    bram.ask(JOB, "restore", line=line)
    assert (count(LAST), taken(bram)["line"]) == (0, line)


def test_a_trial_with_a_part_of_the_shelf_takes_it(bram):
    change = {"repair": "replace_pickup", "item": LAST, "health": "new"}
    bram.ask(OTHER, "mains", state="live")
    assert bram.ask(OTHER, "trial", changes=[change], result="clean").status_code == 200
    assert (count(LAST), Taking.objects.get(part__tag=LAST).job.tag) == (0, OTHER)


def test_what_was_taken_and_not_fitted_holds_the_unit_back(bram):
    bram.ask("K-0108", "take_part", part="P-0012", repair="replace_spindle_motor")
    assert any("P-0012" in m["text"] for m in bram.get("/jobs/K-0108").json()["missing"])


def test_the_second_hand_at_the_last_part_is_told_who_has_it_and_what_else_fits(bram):
    bram.ask(JOB, "take_part", part=LAST, repair="replace_pickup")
    answer = bram.ask("K-0102", "take_part", part=LAST, repair="replace_pickup")
    problem = answer.json()
    assert (answer.status_code, problem["code"], problem["params"]["holders"][0]["job"]) == (409, "gone", JOB)
    assert "Bram Tewell has it for K-0104" in problem["title"]
    assert "O-0009" in problem["params"]["others"]


def test_two_at_once_take_the_last_one_once(demo):
    jobs = {tag: Job.objects.get(tag=tag) for tag in (JOB, OTHER)}
    user, start, outcomes = User.objects.get(username="bram"), threading.Barrier(2), []

    def take(tag):
        start.wait()
        try:
            write(JobCommand(user, tag, key(), jobs[tag].version), TakePart(LAST, "replace_pickup"), lambda shown: shown)
            outcomes.append("taken")
        except GoneError as error:
            outcomes.append(error.params["holders"][0]["job"])
        finally:
            connection.close()

    threads = [threading.Thread(target=take, args=(tag,)) for tag in jobs]
    [t.start() for t in threads]
    [t.join() for t in threads]
    assert (count(LAST), Taking.objects.count()) == (0, 2)
    assert sorted(outcomes)[1] == "taken"
    assert sorted(outcomes)[0] in jobs


@pytest.mark.parametrize("change", [{"count": -1}, {"is_owned": True, "count": 1}])
def test_the_database_itself_refuses_less_than_nothing_and_custody_as_stock(db, change):
    with pytest.raises(IntegrityError), transaction.atomic():
        Part.objects.filter(tag=LAST).update(**change)


def test_an_owners_board_is_tagged_chased_and_home_before_the_unit_goes(bram):
    job = bram.get("/jobs/K-0102").json()
    assert [(c["tag"], c["is_key"]) for c in job["custody"]] == [("K-0102-A", True)]
    assert [p["tag"] for p in bram.get("/shelf/away").json()] == ["K-0102-A"]
    bram.ask("K-0108", "own_out", level="board", place="tray 9")
    assert bram.get("/jobs/K-0108").json()["missing"][0]["code"] == "custody"
    assert bram.ask("K-0108", "take_part", part="K-0102-A", repair="replace_board").json()["params"]["reason"] == "custody"
    bram.ask("K-0108", "own_back", part="K-0108-A")
    assert [m["code"] for m in bram.get("/jobs/K-0108").json()["missing"]] == ["collected"]


def test_what_the_owner_leaves_here_is_stock_only_with_a_name(bram):
    assert bram.ask("K-0102", "own_left", part="K-0102-A", by_name=" ").status_code == 422
    bram.ask("K-0102", "own_left", part="K-0102-A", by_name="Odile Marrow")
    assert count("K-0102-A") == 1
    assert "left with the shop by Odile Marrow" in bram.get("/shelf/parts/K-0102-A").json()["trail"][0]["text"]


ACTS = st.lists(st.tuples(st.sampled_from(["take", "out", "back", "release", "put_back"]), st.sampled_from([JOB, OTHER, "K-0102"])), max_size=8)


@settings(max_examples=12, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(ACTS)
def test_nothing_in_an_owners_custody_is_ever_offered_as_stock(bram, acts):
    """Whatever order things happen in."""
    with transaction.atomic():
        for act, tag in acts:
            job = bram.get(f"/jobs/{tag}").json()
            own, mine = [c["tag"] for c in job["custody"]], [p["line"] for p in job["diagnosis"]["swaps"]["parts"] if p["is_taken"]]
            if act == "take":
                bram.ask(tag, "take_part", part=LAST, repair="replace_pickup")
            elif act == "out":
                bram.ask(tag, "own_out", level="board", place="tray")
            elif act == "put_back" and mine:
                bram.ask(tag, "put_back", line=mine[0], seen={})
            elif own and act != "put_back":
                bram.ask(tag, {"back": "own_back", "release": "own_left"}[act], part=own[0], **({"by_name": "Owner"} if act == "release" else {}))
        owned = set(Custody.objects.values_list("part__tag", flat=True))
        offered = {p.tag for p in stock()} | {p.tag for p in search_parts(only_here=False)}
        offered |= {o.tag for j in Job.objects.all() for o in offers_for(full_sheet(j.sheet_id), TODAY)}
        assert owned & offered == set()
        assert not Part.objects.filter(count__lt=0).exists()
        transaction.set_rollback(True)


def test_a_harvested_motor_keeps_its_origin_and_health_and_can_be_harvested_once(bram):
    part = bram.post("/shelf/donors/D-0003/harvest", key=key(), level="spindle_motor", place="B3").json()
    assert (part["origin"], part["health"], part["works"], part["code"]) == ("D-0003", "proven", ["spins"], "BM-1")
    assert part["checks"][0]["unit"] == "bench console BW"
    again = bram.post("/shelf/donors/D-0003/harvest", key=key(), level="spindle_motor")
    assert (again.status_code, "has no spindle motor any more" in again.json()["title"]) == (409, True)
    gone = {p["level"]: p["gone"] for p in bram.get("/shelf/donors/D-0003").json()["pieces"]}
    assert (bool(gone["deck"]), bool(gone["drive"]), gone["load_motor"]) == (True, True, "")


def test_a_piece_is_taken_straight_out_of_a_donor_and_comes_back_as_a_part(bram):
    assert bram.ask(JOB, "take_part", part="D-0001", repair="replace_drive").status_code == 200
    part = bram.get(f"/shelf/parts/{taken(bram)['item']}").json()
    assert (part["origin"], part["code"], part["count"]) == ("D-0001", "VM-S41", 0)
    assert all(p["gone"] for p in bram.get("/shelf/donors/D-0001").json()["pieces"])
    bram.ask(JOB, "put_back", line=taken(bram)["line"], seen={"reads": False})
    part = bram.get(f"/shelf/parts/{part['tag']}").json()
    assert (part["count"], part["fails"]) == (1, ["reads"])


def test_a_donor_of_another_variant_offers_what_fits_and_nothing_else(bram):
    tag = bram.post("/shelf/donors", key=key(), variant="VM-S52", bought_cents=2000).json()["tag"]
    mine = {s["level"]: s for s in bram.get(f"/jobs/{JOB}/workbench").json()["sources"] if s["tag"] == tag}
    assert mine["deck"]["verdict"] == "transfers"
    assert mine["load_motor"]["verdict"] == "fits"
    assert not {"drive", "switch_board"} & set(mine)


def test_a_donor_teaches_its_pieces_what_it_was_seen_to_do(bram):
    bram.post("/shelf/donors/D-0004/checks", key=key(), seen={"spins": True, "reads": False}, unit="K-0111")
    pieces = {p["level"]: p for p in bram.get("/shelf/donors/D-0004").json()["pieces"]}
    assert pieces["spindle_motor"]["health"] == "proven"
    assert pieces["pickup"]["functions"] == {"reads": "suspect"}
    assert pieces["drive"]["functions"]["reads"] == "fails"
    assert pieces["hub"]["functions"] == {"spins": "works"}


def test_the_scarce_part_is_proposed_with_a_reason_and_the_short_kinds_are_named(bram):
    wanted = bram.get("/shelf/wanted").json()
    pickup = next(s for s in wanted["scarce"] if s["level_name"] == "Bare pickup")
    assert (pickup["here"], pickup["wanted"], len(pickup["given"]), len(pickup["waits"])) == (1, 2, 1, 1)
    assert "mends it in" in pickup["given"][0]["reason"]
    assert {s["code"] for s in wanted["short"]} == {"VK-1", "VO-4"}


WRONG = [
    ("/shelf/parts/P-0004/scrap", {"count": 99, "why": "bent"}, 409),
    ("/shelf/parts/P-9999/scrap", {"count": 1, "why": "bent"}, 404),
    ("/shelf/parts/P-0004/scrap", {"count": 1, "why": ""}, 422),
    ("/shelf/parts", {"level": "wing", "code": "X", "count": 1}, 422),
    ("/shelf/donors", {"variant": "XX-1"}, 404),
    ("/shelf/donors/D-0001/checks", {"seen": {"sings": True}}, 422),
    ("/shelf/orders/O-0001/cancel", {"why": "late"}, 409),
    ("/shelf/minimum", {"level": "belt", "code": "NONE", "count": 3}, 404),
    ("/shelf/parts/P-9999/size", {"around_mm": 142, "section_mm": 1.2}, 404),
    ("/shelf/parts/P-0004/size", {"around_mm": 142, "section_mm": 1.2}, 422),
    ("/shelf/parts/P-0002/size", {"around_mm": 14, "section_mm": 1.2}, 422),
]


@pytest.mark.parametrize(("path", "body", "status"), WRONG)
def test_a_wrong_write_to_the_shelf_is_told_and_changes_nothing(bram, path, body, status):
    before = list(Part.objects.values_list("tag", "count"))
    assert bram.post(path, key=key(), **body).status_code == status
    assert list(Part.objects.values_list("tag", "count")) == before


def test_a_double_tap_receives_once(bram):
    body = {"key": "twice-the-same", "level": "belt", "code": "BELT-71", "count": 10, "pack_size": 10, "pack_cents": 1250}
    tags = {bram.post("/shelf/parts", **body).json()["tag"] for _ in range(2)}
    assert (len(tags), Part.objects.get(tag=tags.pop()).piece_cents) == (1, 125)


@pytest.mark.parametrize(
    ("words", "codes"), [("VL-30", {"VL-30"}), ("p-0012", {"TM-3"}), ("Drawer F", {"VU-15F", "VQ-12", "BE-9"}), ("belt", {"BELT-71"}), ("nothing", set())]
)
def test_the_shelf_is_searched_by_code_tag_place_and_name(bram, words, codes):
    assert {p["code"] for p in bram.get(f"/shelf/parts?q={words}").json()} == codes


QUERIES = [
    (2, lambda _: search_parts("Drawer")),
    (10, lambda unit: offers_for(unit, TODAY)),
    (10, lambda unit: stock_for(unit, ["replace_pickup", "replace_drive", "replace_belt"], TODAY)),
    (3, fits_of_unit),
    (8, lambda _: all_scarce(Economy(), TODAY)),
    (3, lambda _: short_kinds()),
    (2, lambda _: expected_orders(TODAY)),
    (1, lambda _: away()),
    (3, lambda _: donors()),
]


@pytest.mark.parametrize(("most", "read"), QUERIES)
def test_reading_the_shelf_asks_no_more_for_more(db, most, read, django_assert_max_num_queries):
    unit = full_sheet(Job.objects.get(tag=JOB).sheet_id)
    with django_assert_max_num_queries(most):
        read(unit)


def test_what_was_fitted_goes_home_with_the_unit(bram):
    bram.ask("K-0108", "take_part", part="P-0012", repair="replace_spindle_motor")
    bram.ask("K-0108", "mains", state="live")
    bram.ask("K-0108", "trial", changes=[{"repair": "replace_spindle_motor", "item": "P-0012", "health": "proven"}], result="clean")
    bram.unplug("K-0108")
    bram.shut("K-0108")
    bram.ask("K-0108", "collect", by_name="Wenna")
    assert bram.ask("K-0108", "advance", stage="hand_back").json()["stage"] == "closed"
    assert Taking.objects.get(part__tag="P-0012").ended == "fitted"
    assert bram.get("/shelf/parts/P-0012").json()["trail"][0]["text"] == "in K-0108"
    line = taken(bram, "K-0108")["line"]
    assert [bram.ask("K-0108", what, line=line).status_code for what in ("strike", "put_back")] == [409, 409]
    assert count("P-0012") == 0


def test_taking_another_part_leaves_what_the_job_waits_for(bram):
    bram.ask(JOB, "take_part", part="P-0003", repair="replace_fuse")
    assert Want.objects.get(job__tag=JOB).repair == "replace_pickup"
