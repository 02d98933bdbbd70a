"""The tape: append-only, written once per key, refused when stale, exact when struck."""

import pytest
from apps.jobs.models import Job, TapeLine
from django.db import Error, connection, transaction
from spindle.formats.case_file import read_case

from .conftest import ANSWER, FRESH, HAND_BACK, RATTLE, SEEN


def suspects(answer):
    return {s["id"]: s["p"] for s in answer.json()["diagnosis"]["suspects"]}


def lines(tag):
    return TapeLine.objects.filter(job__tag=tag).count()


@pytest.mark.parametrize(
    "sql", ["UPDATE jobs_tapeline SET kind = 'remark'", "DELETE FROM jobs_tapeline", "SET LOCAL spindle.may_wipe = 'no'; TRUNCATE jobs_tapeline"]
)
def test_the_database_refuses_to_change_or_delete_a_line(db, sql):
    with transaction.atomic(), connection.cursor() as cursor:
        cursor.execute("SET LOCAL spindle.may_wipe = 'no'")
        with pytest.raises(Error, match="append-only"):
            cursor.execute(sql)
        transaction.set_rollback(True)


def test_an_answer_is_logged_with_who_and_when_and_moves_the_suspects(bram):
    before = suspects(bram.get(f"/jobs/{FRESH}"))
    answer = bram.ask(FRESH, "answer", **ANSWER)
    last = answer.json()["tape"][-1]
    assert (last["text"], last["by"]) == ("Spins up once and holds", "Bram Tewell")
    assert suspects(answer) != before


def test_a_double_tap_writes_once(bram):
    version, key, count = Job.objects.get(tag=FRESH).version, "double-tap-1", lines(FRESH)
    first, second = (bram.ask(FRESH, "answer", key=key, version=version, **ANSWER) for _ in range(2))
    assert (first.status_code, second.status_code) == (200, 200)
    assert lines(FRESH) == count + 1
    assert first.json()["version"] == second.json()["version"]


def test_a_key_used_for_something_else_is_refused(bram):
    bram.ask(FRESH, "answer", key="same-key-1", **ANSWER)
    answer = bram.ask(FRESH, "remark", key="same-key-1", text="other")
    assert (answer.status_code, answer.json()["code"]) == (422, "key_reused")


def test_a_stale_write_is_refused_with_what_changed_and_nothing_is_written(bram, nia):
    version = Job.objects.get(tag=FRESH).version
    nia.ask(FRESH, "remark", text="Owner rang: it plays again on Sundays")
    count = lines(FRESH)
    answer = bram.ask(FRESH, "answer", version=version, **ANSWER)
    assert (answer.status_code, answer.json()["code"]) == (409, "stale_write")
    assert answer.json()["params"]["changed"][0]["text"] == "Owner rang: it plays again on Sundays"
    assert lines(FRESH) == count


def test_striking_and_restoring_are_exact_and_the_line_stays(bram):
    before = suspects(bram.get(f"/jobs/{FRESH}"))
    number = bram.ask(FRESH, "answer", question="warm_up", outcome="better_cold").json()["tape"][-1]["number"]
    after = suspects(bram.get(f"/jobs/{FRESH}"))
    struck = bram.ask(FRESH, "strike", line=number, why="wrong unit")
    assert suspects(struck) == pytest.approx(before, abs=1e-12)
    line = next(x for x in struck.json()["tape"] if x["number"] == number)
    assert (line["struck_by"], line["struck_why"]) == ("Bram Tewell", "wrong unit")
    assert suspects(bram.ask(FRESH, "restore", line=number)) == pytest.approx(after, abs=1e-12)


@pytest.mark.parametrize(
    ("tag", "what", "body", "status", "reason"),
    [
        (FRESH, "answer", {"question": "lens_look", "outcome": "clear"}, 409, "mains_live"),
        (HAND_BACK, "answer", {"question": "spins", "outcome": "holds"}, 409, "mains_out"),
        (RATTLE, "mains", {"state": "live"}, 409, "power_held"),
        (FRESH, "depth", {"depth": 2}, 409, "mains_live"),
        (FRESH, "answer", {"question": "spin", "outcome": "holds"}, 422, None),
        (FRESH, "answer", {"question": "spins", "outcome": "perhaps"}, 422, None),
        (FRESH, "answer", {"question": "spins", "outcome": "holds", "tries": 2, "failed": 3}, 422, None),
        (FRESH, "trial", {"changes": [{"repair": "pray"}], "result": "clean"}, 422, None),
        (FRESH, "remark", {"text": " "}, 422, None),
        (FRESH, "remark", {"text": "a\x00b"}, 422, None),
        (FRESH, "strike", {"line": 999}, 404, None),
        (FRESH, "strike", {"line": 15}, 404, None),
        (FRESH, "restore", {"line": 1}, 404, None),
        ("K-0101", "answer", {"question": "spins", "outcome": "holds"}, 409, "closed"),
    ],
)
def test_what_cannot_be_is_refused_with_its_reason_and_writes_nothing(bram, tag, what, body, status, reason):
    count = lines(tag)
    answer = bram.ask(tag, what, **body)
    assert (answer.status_code, answer.json()["params"].get("reason")) == (status, reason)
    assert answer["Content-Type"] == "application/problem+json"
    assert lines(tag) == count


def test_the_owners_story_needs_no_mains_state(bram):
    answer = bram.ask(HAND_BACK, "answer", question="spins", outcome="cycles", source="owner")
    assert answer.json()["tape"][-1]["text"].startswith("Owner says: ")


def test_a_look_inside_opens_the_unit_on_record(bram):
    bram.unplug(FRESH)
    answer = bram.ask(FRESH, "answer", question="lens_look", outcome="clear")
    assert answer.json()["depth"] == 2
    assert [x["text"] for x in answer.json()["tape"][-2:]] == ["Unit drive open", "Lens looks clear"]


def test_the_rattle_releases_the_mains_once_it_is_silent(bram):
    assert bram.get(f"/jobs/{RATTLE}").json()["hazards"]
    bram.ask(RATTLE, "answer", question="rattle", outcome="silent")
    assert bram.ask(RATTLE, "mains", state="live").json()["power"] == "live"


def test_a_job_leaves_as_a_case_file_that_the_command_reads(bram):
    case = read_case(bram.get(f"/jobs/{SEEN}/case").json())
    assert len(case.findings) > 10


def test_a_part_at_hand_changes_the_advice_and_can_be_taken_off(bram):
    part = {"repair": "replace_pickup", "item": "P-4", "health": "proven", "price_cents": 0}
    noted = bram.ask(FRESH, "note_part", **part).json()["diagnosis"]
    (entry,) = noted["swaps"]["parts"]
    assert (entry["item"], entry["wait_days"]) == ("P-4", 0)
    struck = bram.ask(FRESH, "strike", line=entry["line"]).json()["diagnosis"]
    assert struck["swaps"]["parts"] == []


@pytest.mark.parametrize("repair", ["clean_lens", "pray", "replace_board"], ids=["takes no part", "unknown", "not on this drive"])
def test_a_part_that_nothing_takes_is_refused_and_nothing_is_written(bram, repair):
    count = lines(FRESH)
    assert bram.ask(FRESH, "note_part", repair=repair).status_code == 422
    assert lines(FRESH) == count


def test_a_trial_keeps_what_is_known_of_its_part_and_a_sight_its_state(bram):
    change = {"repair": "replace_pickup", "item": "D-1", "health": "unknown", "works": ["spins"], "stays": True}
    bram.ask(FRESH, "trial", changes=[change], result="no_change")
    seen = bram.ask(FRESH, "answer", question="film_dvd", outcome="fails", setting={"disc_side": "wrong"}).json()
    row = seen["diagnosis"]["swaps"]["rows"][-1]
    assert (row["item"], row["stays"], row["goes_back"]) == ("D-1", True, False)
    assert seen["tape"][-1]["left_out"] == "disc_wrong_way"
    assert "disc_wrong_way" in {n["code"] for n in seen["diagnosis"]["notices"]}
    assert "stays in" in next(line["text"] for line in seen["tape"] if line["kind"] == "trial")


def test_what_is_seen_with_a_part_in_it_for_trying_is_about_that_part_until_it_is_out(bram):
    bram.unplug(FRESH)
    pickup = {"repair": "replace_pickup", "item": "D-9", "health": "unknown"}
    fitted = bram.ask(FRESH, "fit", changes=[pickup]).json()["configuration"]
    assert [(f["item"], f["name"]) for f in fitted["on_trial"]] == [("D-9", "Bare pickup")]
    assert [p["name"] for p in fitted["places"] if p["item"]] == ["Pickup"]
    bram.ask(FRESH, "mains", state="live")
    asks = [q["id"] for q in fitted["asks"]]
    seen = bram.ask(FRESH, "answer", question=asks[0], outcome="cant_tell").json()
    assert seen["tape"][-1]["text"].endswith("tell")
    seen = bram.ask(FRESH, "answer", question="film_dvd", outcome="fails").json()
    assert seen["tape"][-1]["text"].endswith("with D-9 in it")
    assert [i["item"] for i in seen["diagnosis"]["swaps"]["items"]] == ["D-9"]
    assert "on_trial" in {m["code"] for m in seen["missing"]}
    bram.unplug(FRESH)
    assert bram.ask(FRESH, "fit", changes=[]).json()["configuration"]["on_trial"] == []


def test_a_timed_disc_is_judged_against_the_sheet(bram):
    seen = bram.ask(FRESH, "answer", question="film_dvd", outcome="reads", seconds=30).json()
    answer = next(c["answer"] for c in seen["classes"] if c["question"]["id"] == "film_dvd")
    assert answer["time_says"].endswith("slow")


@pytest.mark.parametrize("tag", [FRESH, "K-0110", "K-0111"])
def test_the_deeper_look_answers_with_money_and_the_same_figure_twice(bram, tag):
    one, two = (bram.get(f"/jobs/{tag}/outlook").json() for _ in range(2))
    assert one == two
    assert 0 < one["low_cents"] <= one["median_cents"] <= one["high_cents"]
    assert one["first"]["title"]


def test_the_claims_register_counts_the_shops_own_trials_and_not_struck_ones(bram):
    def counts():
        return sum(c["n_for"] + c["n_against"] for claim in bram.get("/claims").json() for c in claim["counts"] if claim["id"] == "slot_reseat_enough")

    before = counts()
    tape = bram.ask(FRESH, "trial", changes=[{"repair": "reseat_flex_pickup"}], result="no_change").json()["tape"]
    assert counts() == before + 1
    bram.ask(FRESH, "strike", line=tape[-1]["number"])
    assert counts() == before
