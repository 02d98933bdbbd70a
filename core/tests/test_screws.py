"""Screws: what may go into a place, and where to look first when some are left over."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from spindle.bench.screws import Screw, may_go_in, wrong_places
from spindle.bench.tools.catalogue import TOOLS
from spindle.bench.verdict import Verdict
from spindle.errors import InputsError, InvalidError
from spindle.study.measuring.screws import all_fillings

PLACE = Screw(8.0, 3.0, "cross 1", "black", 9.0)
GOES = [
    (Screw(8.0, 3.0, "cross 1"), "ALLOWED", []),
    (Screw(8.3, 3.0), "ALLOWED", []),
    (Screw(9.0, 3.0), "ALLOWED", []),
    (Screw(9.1, 3.0), "REFUSED", ["room for 9 mm: it can reach the fan"]),
    (Screw(8.0, 2.5), "REFUSED", ["strips the hole"]),
    (Screw(8.0, 3.1), "ALLOWED", []),
    (Screw(8.0, 3.0, "countersunk"), "REFUSED", ["splits what it holds"]),
    (Screw(7.0, 3.0), "ALLOWED", ["1.0 mm shorter"]),
    (Screw(12.0, 2.0, "countersunk"), "REFUSED", ["strips", "can reach", "splits"]),
]


@pytest.mark.parametrize(("screw", "verdict", "texts"), GOES)
def test_what_would_reach_strip_or_split_is_refused_with_every_reason(screw, verdict, texts):
    found, reasons = may_go_in(screw, PLACE, "the fan")
    assert (found.name, len(reasons)) == (verdict, len(texts))
    assert all(any(t in r.text for r in reasons) for t in texts)


def test_where_nobody_measured_the_room_none_is_assumed_and_a_flat_head_stands_proud():
    assert may_go_in(Screw(8.4, 3.0), Screw(8.0, 3.0))[0] is Verdict.REFUSED
    assert "stands proud" in may_go_in(Screw(8.0, 3.0), Screw(8.0, 3.0, "countersunk"))[1][0].text


@pytest.mark.parametrize("screw", [Screw(0, 3.0), Screw(61, 3.0), Screw(8.0, -1), Screw(8.0, 9.0), Screw(float("nan"), 3.0)])
def test_what_is_no_size_of_a_screw_is_refused(screw):
    with pytest.raises(InvalidError):
        may_go_in(screw, PLACE)


SCREWS = st.builds(Screw, st.sampled_from([4.0, 6.0, 8.0]), st.sampled_from([2.0, 3.0]), st.sampled_from(["cross 1", "hex"]), st.sampled_from(["", "black"]))


@settings(max_examples=60, deadline=None)
@given(groups=st.lists(st.tuples(SCREWS, st.integers(1, 2)), min_size=2, max_size=3), which=st.integers(0, 2))
def test_the_counts_tell_what_all_fillings_told_one_by_one_tell(groups, which):
    left = [int(k == which % len(groups)) for k in range(len(groups))]
    found = {(s.place, s.screw): s.expected for s in wrong_places(groups, left)}
    for key, expected in all_fillings(groups, left).items():
        assert found.get(key, 0.0) == pytest.approx(expected, abs=1e-9 if key in found else 0.0101)


GROUPS = [(Screw(6.0, 3.0, room_mm=6.2), 2), (Screw(8.0, 3.0), 2), (Screw(8.0, 2.0), 2)]


@pytest.mark.parametrize(("left", "missing"), [([3, 0, 0], None), ([0, 0, -1], None), ([0, 0, 1], [0, 0, 2])])
def test_counts_that_cannot_be_are_said(left, missing):
    with pytest.raises(InvalidError, match="count again"):
        wrong_places(GROUPS, left, missing)


def test_a_short_one_left_over_points_to_a_long_one_in_its_place_and_that_goes_first():
    slips = wrong_places(GROUPS, [1, 0, 0])
    assert (slips[0].place, slips[0].screw, slips[0].is_danger) == (0, 1, True)
    assert not [s for s in slips if 2 in (s.place, s.screw) and s.screw is not None]


PLACES = [("feet", "6 mm", "6.2 mm"), ("rear", "8 mm", None), ("deck", "8 mm", None)]


def rows(*left):
    told = [{"name": n, "count": 2, "length": size, "thread": "3 mm", "room": room} for n, size, room in PLACES]
    return {"groups": [t | {"left": k} for t, k in zip(told, left, strict=True)]}


@pytest.mark.parametrize(("left", "text"), [((0, 0, 0), "Nothing is left over"), ((1, 0, 0), "Open feet first."), ((0, 1, 0), "Open")])
def test_the_calculator_says_where_to_look_first(left, text):
    assert TOOLS["screws"].answer(rows(*left)).headline.startswith(text)


def test_a_miscount_is_said_at_its_rows():
    with pytest.raises(InputsError, match="count again"):
        TOOLS["screws"].answer(rows(3, 0, 0))
