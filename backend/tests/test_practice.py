"""Practice: played on the server, everybody their own, and nothing of it anywhere else."""

import numpy as np
import pytest
from apps.drives.models import Sheet
from apps.jobs.models import Job, TapeLine
from apps.people.models import User
from apps.practice.management.commands.practice_meter import OVER, readings_of
from apps.practice.models import Run
from apps.shelf.models import Movement, Part
from django.db import connection
from spindle.bench.quantity import read_quantity
from spindle.practice.learners import LEARNERS, random_hand
from spindle.practice.lessons import LESSONS
from spindle.practice.session import after, begin
from spindle.sound.wav import read_wav


def begun(who, lesson="first_unit", key="practice-begin-1"):
    return who.post("/practice/runs", key=key, lesson=lesson).json()


def moved(who, run, key=None, **move):
    body = {"what": "", "care": [], "percent": 0, **move}
    return who.post(f"/practice/runs/{run['id']}/moves", key=key or f"practice-move-{run['id']}-{run['moves']}", after=run["moves"], **body)


def played(who, run, learner):
    """Play a run to its end by a scripted learner."""
    row = Run.objects.get(pk=run["id"])
    session, rng = begin(row.lesson, row.seed), np.random.default_rng(row.seed)
    while not session.is_over:
        move = LEARNERS[learner](session, rng)
        session = after(session, move)
        run = moved(who, run, do=move.do.value, what=move.what, care=sorted(move.care), percent=move.percent).json()
    return run


def house(who):
    """Everything that a shop counts and shows."""
    shown = [who.get(path) for path in ("/day", "/closed", "/claims", "/shelf/parts", "/shelf/wanted", "/search?q=practice")]
    assert {x.status_code for x in shown} == {200}
    return [m.objects.count() for m in (Job, TapeLine, Part, Movement)], [x.content for x in shown]


def test_every_lesson_is_shown_in_order_with_nothing_learnt(nia):
    told = nia.get("/practice/lessons").json()
    assert [x["number"] for x in told] == list(range(1, len(LESSONS) + 1))
    assert not any(x["is_mastered"] or x["tries"] for x in told)


def test_a_lesson_is_played_to_its_end_scored_and_mastered(bram):
    run = played(bram, begun(bram), "planner")
    assert (run["is_over"], run["score"]["is_mastered"], run["looks"]) == (True, True, [])
    assert run["score"]["cents"] == run["score"]["planner_cents"]
    first = bram.get("/practice/lessons").json()[0]
    assert (first["is_mastered"], first["tries"], first["open_run"], first["best_times"]) == (True, 1, None, 1.0)


def test_what_is_hidden_is_not_told_before_it_is_over(bram):
    run = begun(bram)
    assert run["score"] is None
    assert not {"seed", "hidden", "faults"} & set(run)
    assert all(x["answer"] == "" for x in run["looks"])


@pytest.mark.parametrize("seed", range(3))
def test_nothing_of_practice_is_on_the_shelf_on_the_day_or_in_the_record(bram, seed):
    before = house(bram)
    run, rng = begun(bram, "any_slot", f"practice-begin-{seed}"), np.random.default_rng(seed)
    row = Run.objects.get(pk=run["id"])
    session = begin(row.lesson, row.seed)
    for _ in range(12):
        if not session.is_over:
            move = random_hand(session, rng)
            session = after(session, move)
            run = moved(bram, run, do=move.do.value, what=move.what, care=sorted(move.care)).json()
    assert house(bram) == before


def test_the_planners_move_is_told_after_each_or_not_before_the_end(bram):
    quiet = moved(bram, begun(bram), do="look", what="power").json()
    assert [x["beside"] for x in quiet["log"]] == [None]
    told = bram.post("/practice/runs", key="practice-told-each", lesson="first_unit", tells_each=True).json()
    told = moved(bram, moved(bram, told, do="look", what="power").json(), do="guess", what="belt", percent=60).json()
    first, guess = (x["beside"] for x in told["log"])
    assert (bool(first["best"]), first["regret_cents"] > 0, guess) == (True, True, None)


def test_a_move_happens_once_and_a_second_window_is_told(bram):
    run = begun(bram)
    told = [moved(bram, run, do="look", what="power") for _ in range(2)]
    assert [t.json()["moves"] for t in told] == [1, 1]
    late = moved(bram, run, key="practice-other-1", do="look", what="spins")
    assert (late.status_code, late.json()["params"]["reason"]) == (409, "went_on")


def test_a_unit_is_its_learners_own(bram, ida, client):
    run = begun(bram)
    assert ida.get(f"/practice/runs/{run['id']}").status_code == 404
    assert moved(ida, run, do="hint").status_code == 404
    assert client.get("/api/practice/lessons").status_code == 401


@pytest.mark.parametrize(
    "move",
    [
        {"do": "look", "what": "wing"},
        {"do": "repair", "what": "sing"},
        {"do": "guess", "what": "wing", "percent": 5},
        {"do": "sing"},
        {"do": "guess", "what": "belt", "percent": 101},
    ],
)
def test_what_cannot_be_done_is_refused_and_nothing_is_written(bram, move):
    run = begun(bram)
    assert moved(bram, run, **move).status_code == 422
    assert bram.get(f"/practice/runs/{run['id']}").json()["moves"] == 0


def test_a_lesson_that_is_none_is_refused(bram):
    assert bram.post("/practice/runs", key="practice-begin-9", lesson="swimming").status_code == 404


def test_what_a_unit_sounds_like_can_be_heard(bram):
    run = begun(bram, "sled_lost")
    sound = f"/practice/runs/{run['id']}/sound"
    assert bram.get(sound).json()["params"]["reason"] == "not_listened"
    run = moved(bram, run, do="listen").json()
    assert (run["may_play"], run["minutes"]) == (True, 2.0)
    assert read_wav(bram.get(sound).content).length_s > 5


def test_the_class_is_seen_by_who_runs_the_shop_alone(bram, ida):
    run = begun(bram)
    moved(bram, run, do="hand_back")
    (pupil,) = ida.get("/practice/class").json()
    assert (pupil["name"], pupil["tries"], pupil["mastered"]) == ("Bram Tewell", 1, [])
    assert bram.get("/practice/class").status_code == 403


def test_two_of_one_name_are_two_in_the_class(bram, nia, ida):
    User.objects.update(first_name="Sam", last_name="Lane")
    for n, who in enumerate((bram, nia)):
        moved(who, begun(who, key=f"practice-begin-{n}0"), do="hand_back")
    assert [(p["name"], p["tries"]) for p in ida.get("/practice/class").json()] == [("Sam Lane", 1)] * 2


def test_a_first_guess_is_scored_against_what_was_hidden(bram):
    run = moved(bram, begun(bram), do="guess", what="belt", percent=90).json()
    assert run["guess"] == "Belt, 90 percent"
    over = moved(bram, run, do="hand_back").json()
    assert "well judged" in over["score"]["guess"]


def test_a_meter_reads_where_the_tips_were_laid_last_on_that_persons_open_unit(bram, monkeypatch):
    monkeypatch.setattr(connection, "close", lambda: None)  # the test's own
    reads = readings_of("bram")
    assert [reads["voltage"](), reads["resistance"]()] == [0.0, OVER]
    run = moved(bram, begun(bram), do="look", what="board_supply", mains="live").json()
    look = next(x for x in run["looks"] if x["id"] == "board_supply")
    assert f"{look['answer']}. The limit is {look['tips']['limit']}." == run["log"][-1]["says"]
    shown = read_quantity(look["answer"].split(": ")[1].split(",")[0], "voltage", place="")
    assert [reads["voltage"](), reads["resistance"]()] == [pytest.approx(shown, abs=0.06), OVER]
    assert readings_of("ida")["voltage"]() == 0.0


def test_a_run_from_before_other_models_is_not_replayed_in_these(bram):
    run = begun(bram)
    Run.objects.update(world="before")
    assert "before an upgrade" in bram.get(f"/practice/runs/{run['id']}").text
    assert moved(bram, run, do="hand_back").status_code == 409
    assert not any(x["open_run"] for x in bram.get("/practice/lessons").json())
    assert begun(bram, key="practice-begin-anew")["id"] != run["id"]


def own(who, lesson, key="practice-own-1", **more):
    """Begin a lesson on the first of the shop's drives that it can be played on."""
    drive = next(d for d in who.get("/practice/drives").json() if lesson in d["lessons"])
    return drive, who.post("/practice/runs", key=key, lesson=lesson, sheet=drive["sheet"], **more).json()


@pytest.mark.parametrize("lesson", ["first_unit", "retries", "any_lid"])
def test_a_lesson_on_a_drive_of_the_shops_is_opened_by_its_sheet_and_played_to_its_end(bram, lesson):
    drive, run = own(bram, lesson)
    assert run["drive"] == drive["name"]
    assert [w["name"] for w in run["ways"] if w["is_now"]] == ["closed up"]
    open_ = next(w for w in run["ways"] if w["depth"] == "drive_open")
    run = moved(bram, run, do="open", what="drive_open").json()
    assert (run["minutes"], run["log"][-1]["at_min"], run["log"][-1]["says"]) == (open_["minutes"], open_["minutes"], "Drive open, mains out.")
    assert not any(w["steps"] for w in run["ways"] if w["is_now"] or w["is_shutting"])
    run = moved(bram, run, do="hand_back").json()
    assert run["score"]["hidden"]


def test_what_is_undone_on_the_way_stands_in_its_sheet(bram):
    steps = [w["steps"] for w in own(bram, "any_slot")[1]["ways"]]
    assert steps[0] == []
    assert len(steps[1]) < len(steps[2])


def test_the_mains_is_turned_by_hand_and_nothing_is_opened_under_it(bram):
    run = moved(bram, begun(bram), do="mains", mains="live").json()
    assert run["is_live"]
    refused = moved(bram, run, do="open", what="cover_off")
    assert (refused.status_code, refused.json()["params"]["reason"]) == (409, "live")
    assert bram.get(f"/practice/runs/{run['id']}").json()["moves"] == 1


def test_who_is_led_sees_the_next_move_and_the_suspects_and_masters_nothing(bram):
    run = bram.post("/practice/runs", key="practice-led-1", lesson="first_unit", is_led=True).json()
    assert (len(run["advice"]["suspects"]), begun(bram)["advice"]) == (5, None)
    while not run["is_over"]:
        run = moved(bram, run, **{name: run["advice"][name] for name in ("do", "what", "care")}).json()
    assert (run["score"]["cents"] == run["score"]["planner_cents"], run["score"]["is_mastered"], run["advice"]) == (True, False, None)


@pytest.mark.parametrize(("lesson", "sheet"), [("first_unit", "slot"), ("own_board", "old"), ("first_unit", None)])
def test_a_lesson_is_begun_on_no_drive_that_it_is_not_for(bram, lesson, sheet):
    drives = {d["sheet"]: d["lessons"] for d in bram.get("/practice/drives").json()}
    pk = 2_000_000 if sheet is None else next(pk for pk, lessons in drives.items() if "first_unit" not in lessons)
    if sheet == "old":
        pk = next(pk for pk, lessons in drives.items() if lesson in lessons)
        Sheet.objects.filter(pk=pk).update(is_retired=True)
    refused = bram.post("/practice/runs", key="practice-not-1", lesson=lesson, sheet=pk)
    assert refused.status_code == (404 if sheet is None else 422)
    assert Run.objects.count() == 0


def test_the_same_press_begins_the_same_unit_also_where_its_sheet_is_retired_by_then(bram):
    drive, run = own(bram, "any_slot")
    Sheet.objects.filter(pk=drive["sheet"]).update(is_retired=True)
    again = bram.post("/practice/runs", key="practice-own-1", lesson="any_slot", sheet=drive["sheet"])
    assert (again.status_code, again.json()["id"]) == (200, run["id"])
