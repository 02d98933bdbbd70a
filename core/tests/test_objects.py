"""Foreign objects: one found is not the last, and power waits until another is unlikely."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.bench.objects import EXPECTED, ONE_MORE, SPOTS, judge_search
from spindle.bench.tools.catalogue import TOOLS
from spindle.errors import InvalidError

ALL = dict.fromkeys(SPOTS, 1)
LOOKED = st.dictionaries(st.sampled_from(list(SPOTS)), st.integers(0, 4))


def test_the_shares_of_every_kind_make_a_whole():
    assert [round(sum(getattr(s, kind) for s in SPOTS.values()), 9) for kind in ("magnetic", "other")] == [1.0, 1.0]


def told(p, looked, kind):
    """The chance that one is left, by telling each place and whether each look misses it."""
    left = sum(getattr(s, kind) * s.miss ** looked.get(k, 0) for k, s in SPOTS.items())
    return p * left / (p * left + 1 - p)


@given(looked=LOOKED, n=st.integers(0, 3), m=st.integers(0, 3), iron=st.booleans())
def test_the_chance_is_that_of_all_that_are_sought_together(looked, n, m, iron):
    search = judge_search({"coin": n} if n else {}, {"coin": m} if m else {}, {"coin"} if iron else set(), looked)
    each = [told(EXPECTED, looked, "magnetic" if iron else "other")] * max(n - m, 0)
    each += [told(ONE_MORE, looked, "magnetic" if iron else "other")] if m else []
    none = 1.0
    for p in each:
        none *= 1 - p
    assert search.chance == pytest.approx(1 - none)


@given(looked=LOOKED, place=st.sampled_from(list(SPOTS)))
def test_a_further_look_never_raises_it_and_the_place_that_is_named_lowers_it_most(looked, place):
    now = judge_search({"coin": 1}, {}, {"coin"}, looked)
    after = {p: judge_search({"coin": 1}, {}, {"coin"}, {**looked, p: looked.get(p, 0) + 1}).chance for p in SPOTS}
    assert after[place] <= now.chance
    assert after[now.look_next[0]] == pytest.approx(min(after.values()))


@pytest.mark.parametrize(("expected", "looked"), [({"coin": -1}, {}), ({}, {"moon": 1}), ({}, {"deck": -1})])
def test_what_cannot_be_is_refused(expected, looked):
    with pytest.raises(InvalidError):
        judge_search(expected, {}, (), looked)


COIN = {"what": "coin", "count": 1, "iron": True}
CASES = [
    ({}, None, "Nothing is missed", None),
    ({"found": [COIN]}, False, "Look next at: clamp magnet", "found"),
    ({"found": [COIN], **ALL}, True, "Power may follow", "found"),
    ({"expected": [COIN], **ALL}, False, "Look next", "nothing"),
    ({"expected": [COIN], "found": [{**COIN, "what": " Coin "}], **ALL}, True, "Power may follow", "found"),
]


@pytest.mark.parametrize(("given", "power", "text", "says"), CASES)
def test_power_waits_until_one_more_is_unlikely(given, power, text, says):
    answer = TOOLS["objects"].answer(given)
    assert (answer.may_power, text in answer.headline) == (power, True)
    assert [max(s.weights, key=s.weights.get) for s in answer.speaks] == ([says] if says else [])


def test_what_lay_at_the_lens_may_have_bent_it():
    assert "lens" in TOOLS["objects"].answer({"found": [{**COIN, "place": "pickup"}], **ALL}).notes[0]
