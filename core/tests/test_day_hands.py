"""Who can do what: people who do not solder leave the iron to the others, and take what is left."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.day.drawing import in_any_hands, unseen_futures
from spindle.day.legs import Leg, LegKind, Pace, read, written
from spindle.day.promise import plan_week
from spindle.day.worlds import draw_worlds, in_order, run

from .house import ECONOMY, SHEETS
from .test_day import EXACT, FLOOR, bench, done, job

PAIR = replace(FLOOR, benches=2, without_iron=1)
BOTH = replace(FLOOR, benches=2)


def iron(minutes):
    return Leg(LegKind.BENCH, minutes, iron=True)


@pytest.mark.parametrize(
    ("floor", "jobs", "ends"),
    [
        (PAIR, [[iron(60)], [iron(60)]], [60, 120]),
        (BOTH, [[iron(60)], [iron(60)]], [60, 60]),
        (PAIR, [[bench(60)], [iron(30)]], [60, 30]),
        (PAIR, [[bench(60)], [bench(60)], [iron(30)]], [60, 60, 90]),
        (PAIR, [[bench(10), iron(20), bench(10)]], [40]),
        (PAIR, [[iron(50)], [bench(10), iron(20)], [bench(15)]], [50, 70, 25]),
        (replace(PAIR, without_iron=5), [[iron(60)], [bench(60)]], [60, 60]),
    ],
    ids=["one iron", "both solder", "who does not takes the rest", "a solderer helps", "handed on and back", "waits for it", "somebody always solders"],
)  # fmt: skip
def test_the_iron_waits_for_whoever_solders_and_nothing_else_does(floor, jobs, ends):
    assert done(*(job(f"K-{n}", *legs) for n, legs in enumerate(jobs)), floor=floor) == ends


legs = st.lists(st.builds(lambda m, i: Leg(LegKind.BENCH, float(m), iron=i), st.integers(1, 60), st.booleans()), min_size=1, max_size=4)


@given(st.lists(legs, min_size=1, max_size=6), st.integers(1, 3), st.integers(0, 3))
def test_nobody_does_two_things_at_a_time_and_nobody_the_iron_who_does_not_solder(jobs, benches, without):
    floor = replace(FLOOR, benches=benches, without_iron=without)
    ends = done(*(job(f"K-{n}", *own) for n, own in enumerate(jobs)), floor=floor)
    assert max(ends) * benches >= sum(leg.amount for own in jobs for leg in own) - 1e-9
    assert max(ends) * max(benches - without, 1) >= sum(leg.amount for own in jobs for leg in own if leg.iron) - 1e-9
    assert all(end >= sum(leg.amount for leg in own) - 1e-9 for end, own in zip(ends, jobs, strict=True))


@given(st.lists(legs, min_size=1, max_size=5))
def test_where_everybody_solders_the_iron_moves_nothing(jobs):
    marked = [job(f"K-{n}", *own) for n, own in enumerate(jobs)]
    plain = [replace(j, futures=in_any_hands(j.futures)) for j in marked]
    assert [sum(leg.amount for leg in j.futures[0]) for j in plain] == pytest.approx([sum(leg.amount for leg in j.futures[0]) for j in marked])
    assert all(len(j.futures[0]) == 1 and not j.futures[0][0].iron for j in plain)
    worlds = draw_worlds(plain, EXACT, seed=1, n=1)
    assert run(worlds, in_order(range(len(plain))), FLOOR).done.max() == pytest.approx(sum(leg.amount for own in jobs for leg in own))


@pytest.mark.parametrize(
    ("ways", "takes"),
    [([[iron(9)]], True), ([[bench(9), iron(9)]], False), ([[iron(9)], [bench(9)]], False), ([[Leg(LegKind.PART, 2.0), iron(9)]], True), ([[]], False)],
)
def test_the_week_says_what_is_next_for_somebody_who_solders(ways, takes):
    unit = replace(job("K-1"), futures=tuple(tuple(w) for w in ways))
    (row,) = plan_week([unit], PAIR, seed=1, n=4).rows
    assert row.iron is takes


def test_a_unit_of_which_nothing_is_known_may_need_the_iron_and_that_is_kept():
    futures = unseen_futures(SHEETS["tray"][0].model, ECONOMY, 0.9, Pace(), np.random.default_rng(2))
    needs = [any(leg.iron for leg in f) for f in futures]
    assert 0 < sum(needs) < len(needs)
    assert [[leg.iron for leg in f] for f in read(written(futures))] == [[leg.iron for leg in f] for f in futures]
    assert not any(leg.iron for f in in_any_hands(futures) for leg in f)
