"""Minutes of looks: read from the clock of the tape, learnt like those of repairs, and what the advice reckons with then."""

from dataclasses import replace
from datetime import timedelta

import pytest
from spindle.diagnosis.given.case import Answer
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.plan import ask_minutes, plan_for
from spindle.diagnosis.planning.problem import Asked
from spindle.job.past import past_of
from spindle.job.state import state_of
from spindle.learning.judging import BLOCK, judge
from spindle.learning.layer import Layer, Part, learn
from spindle.learning.past import Looked, Past, read_past, write_past
from spindle.learning.telling import Told, told

from .conftest import FAMILIES
from .house import ECONOMY, on_the_way

MODEL = compile_model(FAMILIES["slot"])
V = MODEL.sheet.variant
MODELS = {V: MODEL}
LOOK = "sled_sound"


def looked(*minutes, planned=4.0):
    """Closed jobs in which one look took so long."""
    return [Past(V, "slot", 0.9, False, {}, {}, looked=(Looked(LOOK, "Bram", m, planned),)) for m in minutes]


@pytest.mark.parametrize(
    ("minutes", "by", "tries", "counts"),
    [(6.0, "Bram", None, True), (6.0, "Ida", None, False), (0.0, "Bram", None, False), (6.0, "Bram", 3, False)],
    ids=["by the clock", "after somebody else", "in the same moment", "tried several times"],
)
def test_a_look_takes_from_the_line_before_by_the_same_hand(minutes, by, tries, counts):
    closed = on_the_way("slot")[-1]
    finding = next(f for f in closed.findings if isinstance(f.what, Answer) and f.what.question == "takes_disc")
    own = int(finding.id) - 1
    lines = [replace(x, by="Bram") for x in closed.lines]
    lines[own] = replace(lines[own], at=lines[own - 1].at + timedelta(minutes=minutes), by=by)
    findings = tuple(replace(f, what=replace(f.what, tries=tries)) if f is finding else f for f in closed.findings)
    past = past_of(state_of(replace(closed, lines=tuple(lines), findings=findings), ECONOMY))
    planned = ask_minutes(Asked(LOOK, question=MODEL.questions[finding.what.question]), MODEL)
    assert (Looked(finding.what.question, by, minutes, round(planned, 2)) in past.looked) is counts
    assert (finding.what.question in {k.question for k in past.looked}) is counts
    assert read_past(write_past(past)) == past
    assert {k.question for k in past.looked} <= {f.what.question for f in closed.findings[: closed.trial_at]}


def test_looks_that_take_longer_here_cost_more_and_the_rest_stays():
    layer = learn(looked(*[6.0] * 20), MODELS).layer()
    over = layer.over(MODEL)
    plain, own = ({a.id: ask_minutes(a, m) for a in plan_for(m, Economy()).asks} for m in (MODEL, over))
    assert own[LOOK] == pytest.approx(plain[LOOK] * layer.looks[LOOK])
    assert 1.2 < layer.looks[LOOK] < 1.5
    assert {k: v for k, v in own.items() if k != LOOK} == {k: v for k, v in plain.items() if k != LOOK}


def test_a_pause_and_what_was_written_down_afterwards_are_no_looks():
    honest = looked(*[4.0, 5.0] * 10)
    assert learn([*honest, *looked(60.0, 0.2)], MODELS).hands.looks == learn(honest, MODELS).hands.looks


@pytest.mark.parametrize(("minutes", "is_better"), [(6.5, True), (4.0, False)])
def test_they_are_judged_by_the_next_jobs_and_told_with_their_name(minutes, is_better):
    pasts = looked(*[minutes * (0.9 + 0.1 * (n % 3)) for n in range(4 * BLOCK)])
    judged = judge(pasts, MODELS, lambda jobs: learn(jobs, MODELS).layer())
    assert (judged[Part.LOOKS].is_better, judged[Part.PACE].n) == (is_better, 0)
    (row,) = [r for r in told(learn(pasts, MODELS), MODELS) if r.about is Told.LOOK]
    assert (row.name, row.n, row.was) == ("Sled sound", 4 * BLOCK, 1.0)
    assert row.low < minutes / 4.0 < row.high


def test_no_question_is_called_like_a_repair():
    for sheet in FAMILIES.values():
        model = compile_model(sheet)
        assert not {q.id for q in model.model.questions} & {r.id for r in model.model.repairs}
    assert Layer().looks == {}
