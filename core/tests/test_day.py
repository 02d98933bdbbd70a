"""The day: open hours, worlds of one shop, the order, and what may be promised."""

from dataclasses import replace
from datetime import UTC, date, datetime
from itertools import pairwise, permutations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from spindle.day.drawing import Around, draw_futures, held, unseen_futures
from spindle.day.hours import Clock, read_hours
from spindle.day.legs import JobAhead, Leg, LegKind, Pace, read, written
from spindle.day.orders import RULES, choose, rule_of
from spindle.day.promise import offer_for, plan_week
from spindle.day.study import study_orders, study_promises
from spindle.day.worlds import Floor, draw_worlds, in_order, lateness, run
from spindle.errors import InvalidError
from spindle.job.stages import Stage
from spindle.job.state import state_of

from .conftest import FAMILIES
from .house import ECONOMY, SHEETS, on_the_way

HOURS = read_hours("Mon-Fri 9:00-12:00 13:00-18:00\n\nsunday closed", "2026-03-04")
MONDAY = Clock(HOURS, datetime(2026, 3, 2, 11, 0, tzinfo=UTC))
EXACT = Pace(minutes_sigma=0.0, owner_sigma=0.0, lead_sigma=0.0, set_up_min=0.0)
FLOOR = Floor(MONDAY, 1, EXACT)


def bench(minutes):
    return Leg(LegKind.BENCH, minutes)


def job(tag, *legs, **more):
    return JobAhead(tag, more.pop("model", tag), (legs,), **more)


def done(*jobs, order=None, floor=FLOOR):
    worlds = draw_worlds(jobs, floor.pace, seed=1, n=1)
    return run(worlds, in_order(order or range(len(jobs))), floor).done[:, 0].tolist()


@pytest.mark.parametrize(
    ("minute", "is_at"),
    [
        (0, "2026-03-02 11:00"),
        (59, "2026-03-02 11:59"),
        (60, "2026-03-02 13:00"),  # lunch costs nothing
        (360, "2026-03-03 09:00"),  # the night neither
        (840, "2026-03-05 09:00"),  # nor the day on which it is shut
        (1800, "2026-03-09 09:00"),
    ],
)
def test_an_open_minute_is_a_moment_of_the_shops_clock(minute, is_at):
    assert f"{MONDAY.moment(minute):%Y-%m-%d %H:%M}" == is_at


def test_what_ends_at_closing_time_is_done_that_day_and_what_comes_in_days_is_there_in_the_morning():
    assert [MONDAY.days[MONDAY.done_on(t)].day for t in (0, 360, 361, 840, 841)] == [2, 2, 3, 3, 5]
    assert MONDAY.after_days(100, 1) == 360
    assert MONDAY.after_days(100, 2) == 840  # comes on the day on which it is shut
    assert (MONDAY.after_alone(300, 30), MONDAY.after_alone(300, 600)) == (330, 360)  # dries overnight


@pytest.mark.parametrize(
    ("week", "closed", "field"),
    [
        ("", "", "opening"),
        ("Mon closed", "", "opening"),
        ("Moon 9:00-12:00", "", "opening"),
        ("Fri-Mon 9:00-12:00", "", "opening"),
        ("Mon 9-12", "", "opening"),
        ("Mon 12:00-9:00", "", "opening"),
        ("Mon 9:00-12:00 11:00-14:00", "", "opening"),
        ("Mon 9:00-24:00", "24 December", "closed_days"),
        ("Mon 9:00-12:00", "2026-12-24 to 2026-12-20", "closed_days"),
    ],
)
def test_hours_that_cannot_be_are_refused_with_their_line(week, closed, field):
    with pytest.raises(InvalidError) as refused:
        read_hours(week, closed)
    assert refused.value.params["place"] == field


def test_a_wait_leaves_the_bench_to_another():
    dries = job("K-1", bench(30), Leg(LegKind.ALONE, 60), bench(10))
    assert done(dries, job("K-2", bench(50))) == [100, 80]


def test_a_part_is_waited_for_in_days_an_owner_in_open_minutes_and_nobody_is_needed_for_it():
    assert done(job("K-1", Leg(LegKind.PART, 1.0), bench(20)), job("K-2", bench(600))) == [620, 600]
    assert done(job("K-1", Leg(LegKind.OWNER, 100.0))) == [100]
    assert done(job("K-1")) == [0]


@pytest.mark.parametrize(("models", "ends"), [(("A", "A"), [14, 24]), (("A", "B"), [14, 28])])
def test_a_second_unit_of_the_model_is_not_set_up_again(models, ends):
    floor = replace(FLOOR, pace=replace(EXACT, set_up_min=4.0))
    assert done(*(job(f"K-{n}", bench(10), model=m) for n, m in enumerate(models)), floor=floor) == ends


def test_two_people_work_at_a_time():
    assert done(*(job(f"K-{n}", bench(30)) for n in range(4)), floor=replace(FLOOR, benches=2)) == [30, 30, 60, 60]


def test_a_delivery_that_is_late_is_known_to_be_late():
    late, new = (draw_worlds([job("K-1", Leg(LegKind.PART, 7.0, since), bench(1))], Pace(), seed=3) for since in (12.0, 0.0))
    days = [np.array([way[0][0][0][0][1] for way in w.ways]) for w in (late, new)]
    assert days[0].min() >= 1.0
    assert 12 + np.median(days[0]) > np.median(days[1]) + 5
    assert 6 < np.median(days[1]) < 8


def test_what_a_job_takes_in_a_world_hangs_on_nothing_but_itself_and_the_seed():
    one, two = job("K-1", bench(30)), job("K-2", bench(40))
    assert [w[0] for w in draw_worlds([one], Pace(), seed=5).ways] == [w[1] for w in draw_worlds([two, one], Pace(), seed=5).ways]


def a_job(n, minutes, due, late):
    return job(f"K-{n}", bench(minutes), promised=MONDAY.days[due], late_eur=late)


few = st.lists(st.tuples(st.integers(30, 400), st.integers(0, 6), st.sampled_from([3.0, 12.0])), min_size=1, max_size=5)


@settings(max_examples=15, deadline=None)
@given(few)
def test_on_a_small_bench_no_order_is_cheaper(told):
    jobs = [a_job(n, *one) for n, one in enumerate(told)]
    worlds = draw_worlds(jobs, EXACT, seed=1, n=1)
    best = min(float(lateness(worlds, run(worlds, in_order(o), FLOOR), MONDAY)[0]) for o in permutations(range(len(jobs))))
    assert choose(worlds, FLOOR).eur[0] == pytest.approx(best)


@settings(max_examples=20, deadline=None)
@given(st.lists(st.tuples(st.integers(5, 200), st.integers(0, 10), st.sampled_from([3.0, 12.0])), min_size=7, max_size=14), st.integers(1, 3))
def test_what_is_chosen_is_never_dearer_than_going_by_promise_and_does_every_job_once(told, benches):
    jobs = [a_job(n, *one) for n, one in enumerate(told)]
    chosen = choose(draw_worlds(jobs, Pace(), seed=2, n=20), Floor(MONDAY, benches))
    assert chosen.saves_eur >= -1e-9
    assert sorted(chosen.order) == list(range(len(jobs)))


def test_what_is_dear_to_leave_is_taken_first_and_what_has_time_waits():
    jobs = [a_job(n, 60, 9, 3.0) for n in range(8)] + [a_job(8, 60, 0, 30.0)]
    for name in ("cost", "batched"):
        first = run(draw_worlds(jobs, EXACT, seed=1, n=1), rule_of(name, jobs, FLOOR), FLOOR).begun[:, 0]
        assert first.argmin() == 8
    assert set(RULES) == {"promise", "shortest", "cost", "batched"}


def test_a_week_says_by_which_day_and_how_likely_its_promise_is():
    spread = JobAhead("K-1", "A", tuple((Leg(LegKind.PART, float(d)), bench(10)) for d in (1, 3, 3, 7, 10)), MONDAY.days[4])
    (row,) = plan_week([spread], replace(FLOOR, pace=EXACT), seed=1).rows
    assert (row.half, row.nine) == (date(2026, 3, 5), date(2026, 3, 12))
    assert row.p_kept == pytest.approx(0.6, abs=0.1)
    assert (row.first, row.bench_min) == (LegKind.PART, 10)


def test_an_offer_rises_from_day_to_day_and_says_whom_it_would_cost():
    jobs = [a_job(n, 200, 1 + n // 2, 3.0) for n in range(6)]
    offer = offer_for(job("new", bench(300), late_eur=100.0), jobs, "promise", FLOOR, seed=1, n=30)
    chances = [p for _, p in offer.days]
    assert chances == sorted(chances)
    assert len({round(10 * p) for p in chances}) == len(chances) > 0
    assert chances[0] >= 0.25
    assert all(MONDAY.hours.is_open(d) for d, _ in offer.days)
    assert all(after < before for _, before, after in offer.moved)


def test_the_same_house_has_the_same_week():
    jobs = [a_job(n, 50, n, 3.0) for n in range(8)]
    assert plan_week(jobs, FLOOR, seed=4, n=20).rows == plan_week(jobs, FLOOR, seed=4, n=20).rows


def test_nothing_in_the_house_is_a_week_too():
    assert plan_week([], FLOOR, seed=1).rows == ()


AROUND = Around(0.9)


def drawn(state, around=AROUND, n=24):
    return draw_futures(state, around, Pace(), np.random.default_rng(2), n=n)


def usual_min(futures):
    return JobAhead("K-1", "A", futures).bench_min


@pytest.mark.parametrize("family", FAMILIES)
def test_every_stage_has_work_left_until_it_only_waits_to_be_fetched(family):
    firsts = {}
    for point in on_the_way(family):
        firsts.setdefault(point.stage, state_of(point, ECONOMY))
    left = [usual_min(drawn(firsts[s])) for s in (Stage.REPAIR, Stage.PROVE, Stage.HAND_BACK)]
    assert left[-1] == 0.0
    assert min(left[:-1]) > 5.0


@pytest.mark.parametrize("family", FAMILIES)
def test_at_every_point_of_a_job_its_ways_have_sound_legs(family):
    for point in on_the_way(family)[::6]:
        for future in drawn(state_of(point, ECONOMY), n=4):
            assert all(leg.amount > 0.0 for leg in future)
            assert all(a.kind is not LegKind.BENCH or b.kind is not LegKind.BENCH or a.iron != b.iron for a, b in pairwise(future))


def test_what_holds_the_power_off_and_what_is_on_order_come_before_the_bench():
    agreed = next(state_of(p, ECONOMY) for p in on_the_way("lid") if p.stage == Stage.REPAIR)
    firsts = held(drawn(agreed, Around(0.9, Leg(LegKind.PART, 6.0, 2.0)), n=3), 25.0)[0]
    assert firsts[:2] == (Leg(LegKind.ALONE, 25.0), Leg(LegKind.PART, 6.0, 2.0))


def test_an_owner_who_has_to_be_asked_is_waited_for_first():
    asked = next(state_of(p, ECONOMY) for p in on_the_way("tray") if p.proposal is not None)
    poor = replace(asked, facts=replace(asked.facts, proposed_cents=9_000, agreed_cents=0))
    assert {f[0] for f in drawn(poor, n=3)} == {Leg(LegKind.OWNER, Pace().owner_min)}


def test_a_unit_that_nobody_has_seen_yet_takes_a_repair_and_its_proof():
    model = SHEETS["slot"][0].model
    futures = unseen_futures(model, ECONOMY, 0.9, Pace(), np.random.default_rng(1))
    assert 40 < usual_min(futures) < 200
    assert np.mean([any(leg.kind is LegKind.OWNER for leg in f) for f in futures]) > 0.5


@pytest.mark.parametrize("family", FAMILIES)
def test_ways_are_written_and_read_again(family):
    futures = drawn(state_of(on_the_way(family)[3], ECONOMY), n=3)
    again = read(written(futures))
    assert [[leg.kind for leg in f] for f in again] == [[leg.kind for leg in f] for f in futures]
    assert again == read(written(again))


def test_what_is_measured_of_the_day_comes_from_its_seed_and_knows_what_it_counts():
    kept, again = (study_promises(20, 3, ways=8) for _ in range(2))
    assert kept == again
    assert all(x["jobs"] >= 20 and x["half"] <= x["nine"] for x in kept.values())
    paid = study_orders(2, 3, ways=8, busy=(30,))["jobs"][30]["rules"]
    assert paid["promise"]["saves"] == 0.0
    assert paid["a bench each"]["late_eur"] <= min(x["late_eur"] for x in paid.values())


def test_what_is_worth_taking_first_against_the_rule_is_taken_first():
    told = [(199, 4, 12.0), (381, 0, 3.0), (332, 8, 3.0), (138, 7, 3.0), (123, 7, 3.0), (175, 5, 12.0), (52, 0, 12.0)]
    jobs = [a_job(n, *one) for n, one in enumerate(told)]
    worlds = draw_worlds(jobs, EXACT, seed=1, n=1)
    chosen = choose(worlds, FLOOR)
    assert chosen.lifted == (4,)
    assert chosen.eur[0] < lateness(worlds, run(worlds, rule_of(chosen.name, jobs, FLOOR), FLOOR), MONDAY)[0]
    assert choose(worlds, FLOOR, keep_going=lambda: False).lifted == ()


def test_like_models_are_done_one_after_the_other_where_little_else_parts_them():
    floor = replace(FLOOR, pace=replace(EXACT, set_up_min=10.0))
    jobs = [job(f"K-{n}", bench(30), model="AB"[n % 2]) for n in range(4)]
    worlds = draw_worlds(jobs, EXACT, seed=1, n=1)
    ends = [run(worlds, rule_of(name, jobs, floor), floor).done.max() for name in ("cost", "batched")]
    assert ends == [4 * 40, 4 * 30 + 2 * 10]


def test_an_offer_goes_by_what_waiting_costs_where_the_week_is_the_best_of_every_order():
    jobs = [a_job(n, 200, 1 + n // 2, 3.0) for n in range(4)]
    new = job("new", bench(60))
    assert offer_for(new, jobs, "every", FLOOR, seed=1, n=20) == offer_for(new, jobs, "batched", FLOOR, seed=1, n=20)


@pytest.mark.parametrize(("saves", "error", "is_cheaper"), [(5.0, 2.0, True), (3.9, 2.0, False), (0.0, 0.0, False)])
def test_nothing_is_said_of_a_saving_that_is_not_sure(saves, error, is_cheaper):
    chosen = choose(draw_worlds([a_job(0, 30, 1, 3.0)], EXACT, seed=1, n=1), FLOOR)
    assert replace(chosen, saves_eur=saves, error_eur=error).is_cheaper is is_cheaper
