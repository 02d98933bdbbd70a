"""What faults look like, learnt: only where enough jobs speak, towards what they say and never past it, and of what was reached alone."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.diagnosis.belief.likelihood import unreliability
from spindle.diagnosis.given.case import Answer
from spindle.diagnosis.given.compiled import compile_model
from spindle.faults.model import NOTHING, QuestionKind
from spindle.job.past import past_of
from spindle.job.state import state_of
from spindle.learning.judging import BLOCK, cause_loss, judge
from spindle.learning.layer import Layer, Part, learn
from spindle.learning.past import Past, Saw
from spindle.learning.rows import LEAST_JOBS, STRENGTH, learn_rows
from spindle.learning.telling import Told, told
from spindle.words.bench import Reach
from spindle.words.witness import Witness

from .conftest import FAMILIES
from .house import ECONOMY, on_the_way

MODEL = compile_model(FAMILIES["slot"])
V = MODEL.sheet.variant
MODELS = {V: MODEL}
FAULT, OTHER = "rollers_glazed", "lens_dirty"
WHOLE = sorted(q.id for q in MODEL.questions.values() if q.temper == 1.0 and q.kind is not QuestionKind.INTAKE)
EARLY = sorted(q for q in WHOLE if MODEL.questions[q].stage < Reach.DISC)
LATE = next(q for q in WHOLE if MODEL.questions[q].stage >= Reach.DISC)
HOME = next((q.id, o) for q in MODEL.questions.values() for o, reach in q.proves.items() if reach >= Reach.DISC and q.id != "spins")


def seen(question, outcome, n=1, fault=FAULT, weight=1.0, more=(), **rest):
    saw = (Saw(question, outcome, is_first=True), *(Saw(q, o, is_first=True) for q, o in more))
    even = {f.id: 1.0 / len(MODEL.faults) for f in MODEL.faults}
    return [Past(V, "slot", weight, True, even, {fault: 1.0}, saw=saw, **rest)] * n


def column(layer, question, fault=FAULT):
    return layer.over(MODEL).likelihood[question][:, MODEL.fault_index[fault]]


@given(st.sampled_from(EARLY), st.data(), st.integers(0, 400))
def test_a_row_is_drawn_towards_what_was_seen_and_stays_one(question, data, n):
    outcome = data.draw(st.sampled_from([o.id for o in MODEL.questions[question].outcomes]))
    place = [o.id for o in MODEL.questions[question].outcomes].index(outcome)
    was, now = MODEL.likelihood[question][:, MODEL.fault_index[FAULT]], column(learn(seen(question, outcome, n), MODELS).layer(), question)
    if n < LEAST_JOBS:
        assert np.array_equal(now, was)
    else:
        assert now.sum() == pytest.approx(1.0)
        assert was[place] <= now[place] <= (STRENGTH * was[place] + n) / (STRENGTH + n) + 1e-9
        assert now[place] == pytest.approx((STRENGTH * was[place] + n) / (STRENGTH + n), abs=0.02)


@pytest.mark.parametrize(
    ("question", "more", "weight", "counts"),
    [
        (EARLY[0], (), 1.0, True),
        (EARLY[0], (), 0.0, False),
        (LATE, (), 1.0, False),
        (LATE, [HOME], 1.0, True),
        ("sled_sound", [HOME], 1.0, False),
        ("a_question_of_old", (), 1.0, False),
    ],
    ids=["seen", "nothing was wrong", "nobody knows whether the disc got home", "it got home", "of which a part counts", "no such question any more"],
)
def test_what_was_not_reached_and_what_was_no_fault_say_nothing(question, more, weight, counts):
    outcome = MODEL.questions[question].outcomes[-1].id if question in MODEL.questions else "yes"
    assert (question in learn_rows(seen(question, outcome, 60, weight=weight, more=more), MODELS).get("slot", {})) is counts


def test_other_faults_and_questions_keep_their_rows():
    over = learn(seen(EARLY[0], MODEL.questions[EARLY[0]].outcomes[-1].id, 80), MODELS).layer().over(MODEL)
    for question, table in MODEL.likelihood.items():
        moved = np.flatnonzero(np.abs(over.likelihood[question] - table).max(axis=0) > 1e-12)
        assert list(moved) == ([MODEL.fault_index[FAULT]] if question == EARLY[0] else [])


def test_what_is_left_of_nothing_wrong_says_nothing_of_a_sound_unit():
    assert learn_rows(seen(EARLY[0], MODEL.questions[EARLY[0]].outcomes[-1].id, 80, fault=NOTHING), MODELS) == {}


def test_mere_guesses_are_taken_off():
    question = MODEL.questions[EARLY[0]]
    slips = unreliability(Witness.BENCH, question) / len(question.outcomes)
    n = round(2.0 / slips)
    few, most = (seen(EARLY[0], question.outcomes[k].id, m) for k, m in ((-1, 2), (0, n - 2)))
    counted = learn_rows([*few, *most], MODELS)["slot"][EARLY[0]][FAULT]
    assert (counted.outcomes[question.outcomes[-1].id], counted.n) == (pytest.approx(0.0, abs=0.02), pytest.approx(n, abs=0.01))


def test_a_cause_is_foretold_from_what_was_seen_at_first_alone():
    (past,) = seen(EARLY[0], odd := MODEL.questions[EARLY[0]].outcomes[-1].id)
    layer = learn(seen(EARLY[0], odd, 80), MODELS).layer()
    rows = Layer().with_parts(layer, {Part.ROWS})
    late = replace(past, saw=(replace(past.saw[0], is_first=False),))
    assert cause_loss(past, rows, MODEL) != pytest.approx(cause_loss(past, Layer(), MODEL))
    assert cause_loss(late, rows, MODEL) == cause_loss(late, Layer(), MODEL)


def test_rows_are_judged_by_the_fault_that_it_was_and_told_with_their_interval():
    question = EARLY[0]
    first, last = (MODEL.questions[question].outcomes[n].id for n in (0, -1))
    place = MODEL.likelihood[question][:, MODEL.fault_index[FAULT]].argmin()
    odd = MODEL.questions[question].outcomes[int(place)].id
    pasts = [p for n in range(4 * BLOCK) for p in (seen(question, odd) if n % 2 else seen(question, first if odd == last else last, fault=OTHER))]
    rows = learn(pasts, MODELS)
    judged = judge(pasts, MODELS, lambda _: rows.layer())
    assert judged[Part.ROWS].gain > 0.0
    assert judged[Part.CAUSES].n == judged[Part.ROWS].n
    row = next(r for r in told(rows, MODELS) if r.about is Told.ROW and r.name.startswith("Rollers glazed"))
    assert row.low < row.now < row.high
    assert row.now > row.was
    assert Layer.read(rows.layer().written()) == rows.layer()


def test_a_job_tells_the_last_word_on_each_question_before_anything_was_tried():
    closed = on_the_way("slot")[-1]
    answers = [f.what for f in closed.findings[: closed.trial_at] if isinstance(f.what, Answer) and f.what.question in WHOLE]
    saw = {s.question: s for s in past_of(state_of(closed, ECONOMY)).saw}
    assert {a.question: a.outcome for a in answers} == {q: s.outcome for q, s in saw.items() if q in WHOLE}
    counted = tuple(
        replace(f, what=replace(f.what, tries=3, failed=1)) if getattr(f.what, "question", "") == answers[0].question else f for f in closed.findings
    )
    assert answers[0].question not in {s.question for s in past_of(state_of(replace(closed, findings=counted), ECONOMY)).saw}
    assert {s.is_first for s in saw.values()} <= {True, False}
