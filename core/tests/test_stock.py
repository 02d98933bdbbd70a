"""The shelf's arithmetic: lead times, who gets the scarce part, what a donor is good for, levels compared."""

from itertools import permutations

import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.diagnosis.given.economy import Economy
from spindle.drives.levels import pieces_of
from spindle.stock.assignment import Spare, Wish, assign
from spindle.stock.conditions import Works, condition, pieces_left, share
from spindle.stock.lead_time import PRIOR_MEDIAN_DAYS, lead_time


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
    assert "too late for it in 100 %" in given_.reason


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
