"""What the counter notes and offers: prompts that become findings, the power hold, quotes, classes in a sentence, the case file."""

import json
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from spindle.bench.classes import classes_to_try, matrix_summary
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.given.case import Answer, Case, Change, Finding, Remark, Trial, TrialResult
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.errors import CaseError
from spindle.faults.library import MODELS
from spindle.faults.model import LEAK
from spindle.formats.case_file import read_case, write_case
from spindle.job.prompts import PROMPTS, findings_of, open_prompts, told_of
from spindle.offers.handing_back import cause_of
from spindle.offers.quote import offers, quote
from spindle.words.bench import Depth
from spindle.words.health import Health
from spindle.words.witness import Witness

from .conftest import FREE, PAIRED, Bench, p_of

MODEL = compile_model(PAIRED)


@pytest.mark.parametrize(
    ("condition", "words"),
    [
        ({}, set()),
        ({"seals": "cut"}, {"opened_before=opened"}),
        ({"screws": "missing"}, {"opened_before=opened"}),
        ({"tried": "inside"}, {"opened_before=opened"}),
        ({"seals": "whole", "screws": "all", "hand_marks": "none"}, {"opened_before=sealed"}),
        ({"seals": "none", "screws": "all", "hand_marks": "none"}, set()),
        ({"seals": "whole", "screws": "all", "hand_marks": "some"}, {"opened_before=opened"}),
        ({"rattle": "rattles", "marks": "ring"}, {"rattle=rattles", "disc_marks=ring"}),
        ({"marks": "no_disc", "mains_lost": "unknown"}, set()),
        ({"mains_lost": "yes"}, {"mains_lost=yes"}),
        ({"seals": "melted"}, set()),
    ],
)
def test_condition_becomes_findings(condition, words):
    assert {f"{a.question}={a.outcome}" for a in findings_of(condition)} == words


def test_the_owners_story_keeps_its_source():
    assert findings_of({"mains_lost": "yes"})[0].source is Witness.OWNER
    assert findings_of({"rattle": "silent"})[0].source is Witness.BENCH


@pytest.mark.parametrize("model", MODELS.values(), ids=lambda m: m.family)
def test_every_prompt_that_is_a_finding_is_one_of_the_family(model):
    questions = {q.id: q for q in model.questions}
    named = [c.finding.split("=") for p in PROMPTS for c in p.choices if c.finding]
    assert all(questions[q].outcome(o) for q, o in named)


def test_open_prompts_are_those_without_a_valid_answer():
    everything = {p.id: p.choices[0].id for p in PROMPTS}
    assert open_prompts(everything) == ()
    assert open_prompts({**everything, "dust": "perhaps"}) == ("dust at the vents",)
    assert len(open_prompts({})) == sum(not p.may_stay_open for p in PROMPTS)


@pytest.mark.parametrize(
    ("condition", "told"),
    [
        ({"seals": "cut", "children": "yes"}, {"Seals and stickers": "Cut or gone"}),
        ({"burns": "some"}, {"Signs of harm": "Burns or liquid"}),
        ({"burns": "pests"}, {}),
        ({"burns": "melted"}, {}),
        ({"which": "some_kinds", "when": "position", "board": "gone"}, {}),
        ({"seals": "whole", "supply_label": "weak"}, {"Supply against its label": "Fewer amps"}),
    ],
)
def test_what_the_counter_noted_is_told_to_the_owner_but_for_what_is_private(condition, told):
    assert dict(told_of(condition)) == told


@pytest.mark.parametrize(
    ("repair", "labour_min", "part_cents"),
    [
        ("clean_lens", 16 + 3 + 3 + 15, 0),
        ("replace_fuse", 10 + 12 + 3 + 9, 40),
        ("replace_pickup", 16 + 25 + 3 + 15, 2400),
        ("replace_spindle_motor", 21 + 20 + 3 + 20, 1400),
    ],
)
def test_a_quote_is_the_whole_way_in_and_out_and_the_part(repair, labour_min, part_cents):
    offer = quote(repair, 0.5, 0.4, MODEL, price_cents_per_min=90)
    assert (offer.labour_min, offer.part_cents) == (labour_min, part_cents)
    assert offer.total_cents == labour_min * 90 + part_cents


def test_no_quote_for_what_the_drive_has_not():
    with pytest.raises(KeyError):
        quote("refit_own_board", 0.5, 0.4, compile_model(FREE), price_cents_per_min=90)


@pytest.mark.parametrize(
    ("outcomes", "says"),
    [
        ({}, "No class tried yet"),
        ({"music_cd": "fails"}, "No class tried yet"),
        ({"game_bd": "cant_tell"}, "No class tried yet"),
        ({"game_bd": "fails", "film_dvd": "reads"}, "405 nm fails, 650 nm reads as usual. That speaks for one diode"),
        ({"game_bd": "fails", "film_dvd": "slow"}, "Every light tried fails"),
        ({"game_bd": "fails"}, "Not tried yet: 650 nm"),
        ({"game_bd": "reads", "film_bd": "fails", "film_dvd": "reads"}, "Every light tried reads"),
        ({"game_bd": "reads", "film_dvd": "reads"}, "Every light tried reads."),
    ],
)
def test_the_class_matrix_in_a_sentence(outcomes, says):
    assert says in matrix_summary(outcomes, PAIRED)


@pytest.mark.parametrize(("answered", "left"), [(set(), ("game_bd", "film_dvd")), ({"film_bd"}, ("film_dvd",)), ({"film_bd", "film_dvd", "spins"}, ())])
def test_one_class_of_each_light_is_enough_to_begin_with(answered, left):
    assert classes_to_try(answered, PAIRED) == left


def test_what_helps_less_than_one_time_in_ten_is_not_offered():
    found = offers(Bench("spins=cycles nudges_out=yes").found.advice.moves, MODEL, price_cents_per_min=90)
    assert 0 < len(found) <= 4
    assert [o.p_success for o in found] == sorted((o.p_success for o in found), reverse=True)
    assert found[-1].p_success >= 0.1


@pytest.mark.parametrize(
    ("top", "p", "text", "words"),
    [
        ("lens_dirty", 0.95, "Lens dirty or hazy.", "nearly certain"),
        ("lens_dirty", 0.94, "Lens dirty or hazy.", "very likely"),
        ("lens_dirty", 0.8, "Lens dirty or hazy.", "very likely"),
        ("lens_dirty", 0.5, "Lens dirty or hazy.", "likely"),
        ("lens_dirty", 0.49, "Cause not found for certain.", ""),
        (LEAK, 0.9, "Cause unknown: nothing on our list fits well.", ""),
    ],
)
def test_the_cause_is_told_as_far_as_it_is_known(top, p, text, words):
    rest = (1 - p) / (len(MODEL.faults) - 1)
    belief = replace(believe((), MODEL), p=np.array([p if f.id == top else rest for f in MODEL.faults]))
    cause = cause_of(belief, MODEL)
    assert (cause.text, cause.sureness, cause.p) == (text, words, p if words else 0)


ANSWERS = st.sampled_from(MODEL.model.questions).flatmap(
    lambda q: st.builds(
        Answer, st.just(q.id), st.sampled_from([o.id for o in q.outcomes]), st.sampled_from(list(Witness)), st.integers(5, 9), st.integers(0, 5)
    )
)
TAGS = st.text(max_size=5).filter(lambda t: "\0" not in t)
CHANGES = st.builds(Change, st.sampled_from([r.id for r in MODEL.repairs]), TAGS, st.sampled_from(list(Health)))
TRIALS = st.builds(Trial, st.lists(CHANGES, min_size=1, max_size=3).map(tuple), st.sampled_from(list(TrialResult)), st.integers(0, 9))
REMARKS = st.builds(Remark, st.text(max_size=40).filter(lambda t: "\0" not in t))
FINDINGS = st.lists(st.tuples(st.one_of(ANSWERS, TRIALS, REMARKS), st.booleans()), max_size=12)


@settings(deadline=None)
@given(told=FINDINGS, depth=st.sampled_from(list(Depth)), give_up=st.floats(0, 500))
def test_writing_and_reading_a_case_is_the_identity(told, depth, give_up):
    findings = tuple(Finding(f"f{n}", what, struck) for n, (what, struck) in enumerate(told))
    case = Case(PAIRED, findings, depth, Economy(give_up_eur=give_up))
    assert read_case(json.loads(json.dumps(write_case(case)))) == case


JSON = st.recursive(
    st.none() | st.booleans() | st.floats(allow_nan=False) | st.text(max_size=8),
    lambda x: st.lists(x, max_size=3) | st.dictionaries(st.text(max_size=8), x, max_size=3),
)


@settings(deadline=None)
@given(document=JSON, path=st.sampled_from(["", "drive", "findings", "bench", "economy", "strikes"]))
def test_whatever_stands_in_a_case_file_is_read_or_refused_with_its_place(document, path):
    good = write_case(Bench("spins=cycles").case)
    refused = None
    try:
        read_case({**good, path: document} if path else document)
    except CaseError as error:
        refused = error
    assert refused is None or (refused.place and refused.message.startswith(refused.place))


MINIMAL = {"format": "tidy-spindle-case", "version": 1, "drive": {"variant": "X", "family": "slot", "classes": ["game_bd"]}}


def test_a_case_of_a_drive_alone_is_a_case():
    case = read_case(MINIMAL)
    assert (case.findings, case.depth, case.economy) == ((), Depth.CLOSED, Economy())
    assert (case.sheet.pairing, case.sheet.has_trimmer, case.sheet.fuse_rating) == ("unknown", True, "")


@pytest.mark.parametrize(("fault", "factor"), [("fuse_open", 5), ("lens_dirty", 0.1)])
def test_a_shops_own_count_moves_the_prior(fault, factor):
    drive = {**MINIMAL["drive"], "fuse_rating": "1 A fast"}
    usual, own = (compile_model(read_case({**MINIMAL, "drive": {**drive, **more}}).sheet) for more in ({}, {"prior_factors": {fault: factor}}))
    before, after = (m.prior[m.fault_index[fault]] for m in (usual, own))
    assert bool(after > before) is (factor > 1)
    assert own.prior.sum() == pytest.approx(1)


COUNTER = [
    ("children=yes", "foreign_object"),
    ("harm=some", "fuse_open"),
    ("harm=pests", "driver_chip"),
    ("disc_inside=yes", "out_of_step"),
    ("second_hand=yes", "wrong_board"),
    ("supply_rating=wrong~owner", "fuse_open"),
    ("supply_rating=weak", "supply_weak"),
    ("disc_pulled=yes~owner", "out_of_step"),
    ("shows_how_often=comes_and_goes~owner", "nothing_wrong"),
    ("shows_how_often=comes_and_goes~owner", "flex_board_loose"),
    ("owners_disc=bad", "nothing_wrong"),
    ("cleaning_tried=no", "lens_dirty"),
    ("shipped=yes~owner", "flex_pickup_loose"),
]


@pytest.mark.parametrize(("words", "fault"), COUNTER, ids=[f"{w} {f}" for w, f in COUNTER])
def test_what_is_noted_at_the_counter_is_evidence(words, fault):
    assert p_of(words, fault) > 1.05 * p_of("", fault)


def test_every_prompt_but_the_rest_of_the_unit_weighs_something():
    idle = [p.id for p in PROMPTS if not any(c.finding for c in p.choices)]
    assert idle == ["rest"]
