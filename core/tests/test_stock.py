"""The shelf's arithmetic: lead times, who gets the scarce part, what a donor is good for, levels compared."""

from dataclasses import replace
from itertools import permutations
from math import exp, log, sqrt
from statistics import NormalDist

import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.drives.levels import pieces_of
from spindle.drives.sheet import PartPrice
from spindle.stock.assignment import Spare, Wish, assign
from spindle.stock.conditions import Works, condition, pieces_left, share, worth_of
from spindle.stock.lead_time import PRIOR_MEDIAN_DAYS, lead_time

from .conftest import PAIRED


def test_a_supplier_without_a_past_is_like_suppliers_are_and_one_with_a_past_like_itself():
    assert lead_time([]).quantile(0.5) == pytest.approx(PRIOR_MEDIAN_DAYS)
    known = lead_time([20, 22, 19, 21, 20, 23])
    assert 13 < known.quantile(0.5) < 20 < known.quantile(0.9) < 45


@given(st.lists(st.floats(0.5, 90), max_size=12), st.floats(0, 200))
def test_what_is_late_comes_later_and_nine_in_ten_is_later_than_half(past, waited):
    time = lead_time(past)
    assert 0 <= time.remaining(0.5, waited) <= time.remaining(0.9, waited) or waited > 150
    assert waited + time.remaining(0.5, waited) >= time.quantile(0.5) - 1e-6


wishes = st.lists(st.builds(Wish, st.uuids().map(str), st.sampled_from("AB"), st.floats(0.05, 1), st.none() | st.floats(-3, 20), st.floats(0, 30)), max_size=5)
pieces = st.lists(st.builds(Spare, st.uuids().map(str), st.sampled_from("xy"), st.floats(0.1, 1)), max_size=5)


def fits(variant, code):
    return (variant, code) != ("B", "y")


@given(wishes, pieces, st.floats(1, 30))
def test_an_assignment_gives_each_once_what_fits_and_no_other_saves_more(want, have, days):
    found = assign(want, have, fits, waits=[days, days + 3], economy=Economy())
    by_job, by_tag = {w.job: w for w in want}, {p.tag: p for p in have}
    assert len({g.job for g in found}) == len({g.piece for g in found}) == len(found)
    assert all(fits(by_job[g.job].variant, by_tag[g.piece].code) for g in found)
    single = {(w.job, p.tag): g.saves_eur for w in want for p in have for g in assign([w], [p], fits, waits=[days, days + 3], economy=Economy())}
    short, long = sorted(([w.job for w in want], [p.tag for p in have]), key=len)
    pairs = [zip(short, order, strict=False) for order in permutations(long, len(short))]
    best = max((sum(single.get((a, b), single.get((b, a), 0.0)) for a, b in pair) for pair in pairs), default=0.0)
    assert sum(g.saves_eur for g in found) == pytest.approx(best)


def test_the_part_goes_where_the_promise_would_break():
    soon, later = Wish("K-1", "A", 0.7, 2, 1), Wish("K-2", "A", 0.8, 30, 9)
    (given_,) = assign([later, soon], [Spare("P-1", "x", 0.95)], fits, waits=[3, 8, 8, 20], economy=Economy())
    assert given_.job == "K-1"
    assert "too late for it in >99%" in given_.reason


def test_a_failure_that_several_pieces_share_is_a_suspicion_of_each():
    seen, fitted = {"reads": False, "spins": False}, ["pickup", "flex_pickup", "spindle_motor"]
    assert condition("pickup", seen, others=fitted).functions == {"reads": Works.SUSPECT}
    assert condition("spindle_motor", seen, others=fitted).fails == {"spins"}
    assert condition("deck", seen, others=fitted).fails == {"reads", "spins"}


@pytest.mark.parametrize(("level", "part"), [("drive", 1.0), ("deck", 40 / 79), ("pickup", 20 / 79), ("belt", 1 / 79), ("supply", 0.0)])
def test_a_piece_carries_its_share_of_the_donors_price(level, part):
    worth = {"pickup": 20.0, "spindle_motor": 20.0, "board": 38.0, "belt": 0.5}  # a belt counts as the least that anything is worth: 1
    assert share(level, ["drive", "deck", "pickup", "spindle_motor", "board", "belt"], worth) == pytest.approx(part)


@pytest.mark.parametrize(
    ("level", "seen", "health", "works"),
    [
        ("pickup", {"reads": True}, "proven", {"reads"}),
        ("pickup", {"spins": True}, "unknown", set()),
        ("deck", {"reads": True, "spins": True}, "unknown", {"reads", "spins"}),
        ("spindle_motor", {"spins": False}, "unknown", set()),
    ],
)
def test_a_piece_is_proven_only_in_what_the_donor_was_seen_to_do(level, seen, health, works):
    found = condition(level, seen)
    assert (found.health, found.works) == (health, works)


@pytest.mark.parametrize(
    ("gone", "has", "lacks"), [(["pickup"], "spindle_motor", "deck"), (["deck"], "board", "pickup"), (["drive"], "supply", "belt"), ([], "drive", "")]
)
def test_a_harvested_piece_takes_its_whole_along(gone, has, lacks):
    left = pieces_left([*(v.id for v in pieces_of("tray")), "supply"], gone)
    assert has in left
    assert lacks not in left


REASONS = [
    (None, [4, 9], "nothing promised; the next delivery is about 6 days off; mends it in 40%"),
    (0, [4, 9], "promise passed; the next delivery is about 6 days off, too late for it in >99%; mends it in 40%"),
    (1, [4, 9], "promised in 1 days; the next delivery is about 6 days off, too late for it in >99%; mends it in 40%"),
    (4, [4, 9], "promised in 4 days; the next delivery is about 6 days off, too late for it in 50%; mends it in 40%"),
    (20, [4, 9, 10], "promised in 20 days; the next delivery is about 9 days off; mends it in 40%"),
]


@pytest.mark.parametrize(("days", "waits", "reason"), REASONS)
def test_who_gets_a_part_is_told_why(days, waits, reason):
    (found,) = assign([Wish("K-1", "A", 0.5, days, 3)], [Spare("P-1", "x", 0.8)], fits, waits=waits, economy=Economy())
    assert found.reason == reason
    own = [w * 1.2 + (0 if days is None else max(w - days, 0) * 3) for w in waits]
    assert found.saves_eur == pytest.approx(0.4 * (sum(own) / len(own) + 3e-4 + 1e-6), abs=1e-8)


def test_whoever_saves_more_comes_first_and_whoever_waits_longer_at_a_tie():
    two = [Spare("P-1", "x", 0.5), Spare("P-2", "x", 0.9)]
    found = assign([Wish("K-1", "A", 0.2, None), Wish("K-2", "A", 0.9, None)], two, fits, waits=[5], economy=Economy())
    assert [g.job for g in found] == ["K-2", "K-1"]
    (one,) = assign([Wish("K-1", "A", 0.5, None, 2), Wish("K-2", "A", 0.5, None, 4)], two[:1], fits, waits=[5], economy=Economy())
    assert one.job == "K-2"
    tie = [assign([Wish("K-1", "A", 0.5, None, n)], two[:1], fits, waits=[5], economy=Economy())[0].saves_eur for n in (365, 900)]
    assert tie[0] == tie[1]


def test_a_level_is_worth_the_dearest_of_the_repairs_that_put_one_in():
    model = compile_model(replace(PAIRED, prices={"replace_pickup": PartPrice(33.0, 2.0)}))
    worth = worth_of(model)
    assert (worth["pickup"], worth["deck"], worth["hub"]) == (33.0, next(r.part_eur for r in model.repairs if r.id == "replace_deck"), 1.0)
    assert share("pickup", ["pickup", "rails"], {"pickup": 3.0}) == 0.75
    assert (share("pickup", [], {}), condition("pickup", {}).level) == (0.0, "pickup")


def test_a_lead_time_is_the_conjugate_estimate_on_log_days():
    time, logs, prior = lead_time([0.1, 4, 30]), [log(d) for d in (0.5, 4, 30)], log(7.0)
    mu = (2 * prior + sum(logs)) / 5
    assert (time.mu, time.n) == (pytest.approx(mu), 3)
    assert time.sigma == pytest.approx(sqrt((2 * (0.36 + (prior - mu) ** 2) + sum((x - mu) ** 2 for x in logs)) / 5))


@pytest.mark.parametrize(("waited", "p"), [(0, 0.5), (0.5, 0.9), (1, 0.5), (6, 0.5), (30, 0.9)])
def test_what_was_waited_cuts_the_distribution_off(waited, p):
    time = lead_time([3, 5, 9])
    normal = NormalDist(time.mu, time.sigma)
    gone = normal.cdf(log(waited)) if waited else 0.0
    assert time.remaining(p, waited) == pytest.approx(max(exp(normal.inv_cdf(gone + p * (1 - gone))) - waited, 0), abs=1e-9)
    assert time.remaining(p, 1e9) == 1e9
