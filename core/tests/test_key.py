"""The identification key over every variant of the demo: few answers, any order, one slip forgiven."""

from itertools import combinations
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.drives.features import FEATURES
from spindle.drives.key import CANT_SEE, SETTLED, Variant, information, p_answer, read_key
from spindle.errors import UnknownWordError
from spindle.formats.sheet_file import parse_json, read_sheet
from spindle.study.identification import MOST_ANSWERS, walk

SHEETS = [read_sheet(parse_json(f.read_bytes())) for f in sorted((Path(__file__).parents[2] / "demo" / "sheets").glob("*.json"))]
VARIANTS = tuple(Variant(s.drive.variant, s.looks) for s in SHEETS)
EVERY = pytest.mark.parametrize("right", VARIANTS, ids=lambda v: v.id)
WORDS = {f.id: st.sampled_from([*f.values, CANT_SEE]) for f in FEATURES.values()}
ANSWERS = st.fixed_dictionaries({}, optional=WORDS)


def test_the_demo_is_as_wide_as_promised_and_its_looks_are_words_of_the_key():
    assert len(VARIANTS) >= 12
    assert len({(s.maker, s.console) for s in SHEETS}) >= 7
    assert {s.drive.family for s in SHEETS} == {"tray", "slot", "lid"}
    assert all(v.looks.keys() == FEATURES.keys() for v in VARIANTS)
    assert all(v.looks[f] in FEATURES[f].values for v in VARIANTS for f in FEATURES)


def test_look_alikes_differ_in_one_feature():
    alike = [(a.id, b.id) for a, b in combinations(VARIANTS, 2) if sum(a.looks[f] != b.looks[f] for f in FEATURES) == 1]
    assert len(alike) >= 3


@EVERY
def test_true_answers_settle_on_the_right_drive_within_eight(right):
    steps, reading = walk(VARIANTS, right)
    assert reading.candidates[0].id == right.id
    assert steps <= MOST_ANSWERS


def test_five_answers_are_enough_on_average():
    assert np.mean([walk(VARIANTS, v)[0] for v in VARIANTS]) <= 5


@EVERY
@pytest.mark.parametrize("seed", range(8))
def test_one_slip_keeps_the_right_drive_among_the_first_three(right, seed):
    _, reading = walk(VARIANTS, right, slip_at=seed % 4, rng=np.random.default_rng(seed))
    assert right.id in [c.id for c in reading.candidates[:3]]


@given(answers=ANSWERS)
def test_chances_sum_to_one_nobody_is_ruled_out_and_order_does_not_matter(answers):
    one, two = read_key(VARIANTS, answers), read_key(VARIANTS, dict(reversed(answers.items())))
    assert sum(c.p for c in one.candidates) == pytest.approx(1)
    assert min(c.p for c in one.candidates) > 0
    assert {c.id: c.p for c in one.candidates} == pytest.approx({c.id: c.p for c in two.candidates})
    assert one.next_feature not in answers
    assert one.is_settled == (one.candidates[0].p >= SETTLED)


def test_cant_see_is_no_evidence_and_what_speaks_against_is_named():
    assert [c.p for c in read_key(VARIANTS, {"loader": CANT_SEE}).candidates] == pytest.approx([1 / len(VARIANTS)] * len(VARIANTS))
    slot = next(c for c in read_key(VARIANTS, {"loader": "tray", "label": "square"}).candidates if c.id == "VM-S41")
    assert slot.against == ("loader",)


@pytest.mark.parametrize("answers", [{"colour": "red"}, {"loader": "drawer"}])
def test_unknown_words_are_named(answers):
    with pytest.raises(UnknownWordError):
        read_key(VARIANTS, answers)


@pytest.mark.parametrize("feature", FEATURES.values(), ids=list(FEATURES))
def test_answers_of_a_feature_sum_to_one_and_tell_no_less_than_nothing(feature):
    p = {v.id: 1 / len(VARIANTS) for v in VARIANTS}
    assert sum(p_answer(feature, v, VARIANTS[0].looks) for v in feature.values) == pytest.approx(1)
    assert information(feature, VARIANTS, p) > -1e-12
    assert p_answer(feature, next(iter(feature.values)), {}) == pytest.approx(1 / len(feature.values))
