"""What was here before and comes back, who is found by what is typed, who must act, and what was taken in by mistake."""

import io
import uuid
from datetime import timedelta
from urllib.parse import quote

import pytest
from apps.drives.models import Sheet
from apps.jobs.folding import value_of
from apps.jobs.models import Job, Presence, Want
from apps.jobs.selectors import job_row
from apps.jobs.services.rebuilding import rebuild
from apps.shelf.models import Part
from apps.shop.selectors import the_shop
from django.utils import timezone
from pypdf import PdfReader

from .conftest import AGREE, FRESH, HAND_BACK, NOTED, REPAIR, SEEN

CLOSED = "K-0101"
BASE = {"supply": "own", "limit_cents": None, "promised_on": None, "condition": {}, "complaint": "Again."}


def take_in(browser, **more):
    sheet = Sheet.objects.get(variant="VM-S41").pk
    return browser.post(
        "/jobs", **{"key": str(uuid.uuid4()), "sheet_id": sheet, "owner_name": "Reading room, copy 7", "owner_contact": "desk 2", **BASE, **more}
    )


def found(browser, words):
    return [(f["kind"], f["key"]) for f in browser.get(f"/search?q={words}").json()]


@pytest.mark.parametrize(
    ("words", "first"),
    [("k-0103", ("Job", "K-0103")), ("K103", ("Job", "K-0103")), ("0103", ("Job", "K-0103")), ("Odile", ("Job", "K-0102")), ("quill", ("Job", "K-0106")),
     ("Vessmark Orlo", ("Job", "K-0109")), ("vesmark orlo", ("Job", "K-0109")), ("VM-S41", ("Drive sheet", "VM-S41")), ("P-0012", ("Part", "P-0012")),
     ("p12", ("Part", "P-0012")), ("D-0003", ("Donor", "D-0003")), ("zzz", None)],
)  # fmt: skip
def test_what_people_type_finds_it(bram, words, first):
    things = found(bram, words)
    assert (first in things[:8]) if first else things == []
    assert things == [] or first == things[0] or first[0] == "Job" or first[1].lower() != words.lower()


def test_every_word_has_to_be_there_and_a_complaint_by_its_stem(bram):
    Job.objects.filter(tag=FRESH).update(complaint="Clicking, then silence", owner_contact="+44 (0)55 50 142")
    assert found(bram, "clicks silence")[0] == ("Job", FRESH)
    assert found(bram, "clicks zebra") == []
    assert found(bram, "55 50142")[0] == ("Job", FRESH)


def test_closed_jobs_are_listed_newest_first_a_page_at_a_time(bram):
    old = Job.objects.get(tag=CLOSED)
    at = timezone.now() - timedelta(days=400)
    Job.objects.bulk_create(
        Job(tag=f"K-{n}", sheet=old.sheet, owner_name="x", taken_in_at=at, stage="closed", closed_at=at + timedelta(days=(n - 2_000) // 20))
        for n in range(2_000, 2_080)
    )  # twenty of them at the same moment: none falls between two pages
    first = bram.get("/closed").json()
    second = bram.get(f"/closed?after={first[-1]['tag']}").json()
    assert {bram.get(f"/closed?after={tag}").status_code for tag in ("K-9", FRESH)} == {404}
    assert first[0]["tag"] == CLOSED
    assert [len(first), len(second), len({j["tag"] for j in [*first, *second]})] == [50, 31, 81]
    assert [j["tag"] for j in bram.get("/closed?q=reading+room").json()] == [CLOSED]


def test_a_known_owner_brings_units_and_jobs(nia):
    (owner,) = nia.get("/owners?q=reading roo").json()
    assert (owner["name"], [j["tag"] for j in owner["jobs"]]) == ("Reading room, copy 7", [CLOSED])
    assert nia.get("/owners?q=vessmark").json() == []
    assert nia.get("/owners?q=").json() == []


@pytest.mark.parametrize(("same", "days_left", "covered"), [(True, 0, True), (True, -1, False), (False, 5, False)])
def test_what_comes_back_with_the_same_fault_inside_its_guarantee_costs_nothing(bram, same, days_left, covered):
    Job.objects.filter(tag=CLOSED).update(guarantee_until=the_shop().today() + timedelta(days=days_left))
    job = take_in(bram, returns=CLOSED, is_same_fault=same).json()
    assert job["returns"] == {"tag": CLOSED, "is_covered": covered}
    assert {o["total_cents"] == 0 for o in job["agree"]["offers"]} == {covered}
    assert [j["tag"] for j in bram.get(f"/jobs/{job['tag']}/earlier").json()] == [CLOSED]
    assert bram.get(f"/jobs/{CLOSED}/earlier").json()[0]["returns"] == CLOSED


def test_a_bridge_that_an_earlier_job_left_is_known_as_the_unit_comes_back(bram):
    Job.objects.filter(tag=CLOSED).update(bridged=["bridge_switch_lid_a"])
    tag = take_in(bram, returns=CLOSED).json()["tag"]
    assert value_of(job_row(tag)).start.bridged == {"bridge_switch_lid_a"}
    assert Job.objects.get(tag=tag).bridged == ["bridge_switch_lid_a"]
    rebuild()
    assert Job.objects.get(tag=tag).bridged == ["bridge_switch_lid_a"]


def test_another_fault_after_all_is_put_right_and_the_price_with_it(bram):
    tag = take_in(bram, returns=CLOSED, is_same_fault=True).json()["tag"]
    job = bram.ask(tag, "amend", is_covered=False).json()
    assert job["tape"][-1]["text"] == "Noted at the counter: not covered by the guarantee"
    assert all(o["total_cents"] > 0 for o in job["agree"]["offers"])
    assert bram.ask(FRESH, "amend", is_covered=True).status_code == 422


@pytest.mark.parametrize(("returns", "status"), [(FRESH, 422), ("K-9999", 404)])
def test_only_a_closed_job_comes_back(nia, returns, status):
    assert take_in(nia, returns=returns).status_code == status


def test_a_guarantee_is_fixed_as_the_job_closes(bram):
    until = Job.objects.get(tag=CLOSED).guarantee_until
    assert until - the_shop().day_of(Job.objects.get(tag=CLOSED).closed_at) == timedelta(days=60)
    type(the_shop()).objects.update(guarantee_days=5)
    bram.ask(CLOSED, "remark", text="rang")
    assert Job.objects.get(tag=CLOSED).guarantee_until == until


def test_a_mistake_leaves_the_day_is_found_and_stands_again(nia):
    assert nia.ask(NOTED, "void", why="same unit twice").json()["voided"] == "same unit twice"
    assert NOTED not in nia.day()
    past = nia.get("/closed").json()[0]
    assert (past["tag"], past["outcome"], past["guarantee_until"]) == (NOTED, "Voided: same unit twice", None)
    assert past["is_void"]
    assert take_in(nia, returns=NOTED).status_code == 422
    assert nia.ask(NOTED, "unvoid").json()["stage"] == "taken_in"
    assert nia.get("/closed").json()[0]["tag"] == CLOSED


def test_what_the_eye_saw_at_the_counter_goes_with_the_job(nia):
    job = take_in(nia, looks={"loader": "slot", "lip": "felt"}).json()
    assert job["looks"] == {"loader": "slot", "lip": "felt"}
    assert job["tape"][-1]["text"] == "Looked at the drive: 2 features; it stays VM-S41 v1"
    assert take_in(nia, looks={"loader": "sideways"}).status_code == 422


def acts(browser):
    return {tag: r["acts"] for tag, r in browser.day().items()}


def test_the_day_says_who_must_act(bram):
    assert {tag: acts(bram)[tag] for tag in (NOTED, SEEN, AGREE, HAND_BACK)} == {NOTED: "counter", SEEN: "bench", AGREE: "owner", HAND_BACK: "collect"}
    Want.objects.update_or_create(
        job=Job.objects.get(tag=REPAIR), defaults={"repair": "replace_pickup", "level": "pickup", "p_success": 0.5, "since": timezone.now()}
    )
    here = Part.objects.filter(kind__level="pickup", count__gt=0)
    assert here.exists()
    assert acts(bram)[REPAIR] == "bench"
    here.update(count=0)
    assert acts(bram)[REPAIR] == "part"


@pytest.mark.parametrize(
    ("words", "held"),
    [("", True), (SEEN, True), ("olat", True), ("BRAM 100%", False), ("hand", False), (" ", True), ("bram", True), ("bram back", False), ("_", False)],
)
def test_the_day_leaves_units_that_hold_every_word_and_counts_the_house(bram, words, held):
    bram.ask(SEEN, "remark", text="mine")
    house = bram.get(f"/day?words={quote(words)}").json()
    assert (SEEN in bram.day(f"?words={quote(words)}"), house["units"]) == (held, bram.get("/day").json()["units"])
    assert all(g["count"] == len(g["rows"]) > 0 for g in house["groups"])


def test_what_is_due_today_or_late_is_counted(bram):
    Job.objects.update(promised_on=None)
    for days, tag in ((-3, SEEN), (0, AGREE), (1, REPAIR), (-3, CLOSED)):
        Job.objects.filter(tag=tag).update(promised_on=the_shop().today() + timedelta(days=days))
    assert bram.get("/day").json()["due"] == 2


def test_a_wait_that_runs_is_shown_until_it_has_passed(bram):
    Job.objects.filter(tag=SEEN).update(held_until=timezone.now() + timedelta(minutes=5))
    assert acts(bram)[SEEN] == "wait"
    Job.objects.filter(tag=SEEN).update(held_until=timezone.now() - timedelta(minutes=5))
    assert acts(bram)[SEEN] == "bench"


def test_told_paid_and_fetched_are_kept_with_who_and_how(nia):
    nia.ask(HAND_BACK, "tell_owner", means="phone", what="ready")
    nia.ask(HAND_BACK, "take_payment", cents=4500, how="cash")
    job = nia.ask(HAND_BACK, "collect", by_name=" Odo ").json()
    assert [(t["by"], t["means"], t["what"]) for t in job["told"]] == [("Nia Osk", "phone", "ready")]
    assert (job["paid"]["cents"], job["paid"]["how"], job["collected_by"], job["missing"]) == (4500, "cash", "Odo", [])
    assert nia.ask(HAND_BACK, "collect", by_name="  ").status_code == 422


def test_the_receipt_says_what_was_handed_over_and_agreed(nia):
    tag = take_in(nia, condition={"seals": "cut", "children": "yes"}, limit_cents=4500, returns=CLOSED, is_same_fault=True).json()["tag"]
    pages = PdfReader(io.BytesIO(nia.get(f"/jobs/{tag}/receipt.pdf").content)).pages
    said = " ".join(" ".join(p.extract_text() for p in pages).split())
    assert len(pages) == 1
    for words in (tag, "Again.", "€45.00", "0555 0142", "90 days", "inside its guarantee", "No day was promised"):
        assert words in said, words
    assert "hildren" not in said


def test_a_second_screen_hears_of_a_write_and_of_who_else_is_there(bram, nia, django_assert_max_num_queries):
    beat = lambda who: who.post(f"/jobs/{FRESH}/pulse").json()  # noqa: E731
    before = beat(bram)
    assert before["others"] == []
    nia.ask(FRESH, "remark", text="rang")
    beat(nia)
    with django_assert_max_num_queries(6):
        assert beat(bram) == {"version": before["version"] + 1, "others": ["Nia Osk"]}
    Presence.objects.update(at=timezone.now() - timedelta(seconds=16))
    assert beat(bram)["others"] == []
    assert bram.post("/jobs/K-9999/pulse").status_code == 404


def test_the_day_names_whoever_wrote_to_a_job_last(bram, nia):
    for browser, name in ((bram, "Bram"), (nia, "Nia")):
        browser.ask(SEEN, "remark", text=f"{name} was here")
        assert bram.day()[SEEN]["hands"].startswith(name)
