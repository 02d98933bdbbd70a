"""Ends without a repair: what each asks before it is said."""

from dataclasses import replace

import pytest
from spindle.diagnosis.given.case import Answer, Change, Finding, Trial, TrialResult
from spindle.faults.model import QuestionKind
from spindle.job.stages import Stage
from spindle.job.state import state_of
from spindle.job.value import Proposal
from spindle.words.witness import Witness

from .house import ECONOMY
from .test_job import record


def test_what_was_renewed_without_a_fault_seen_is_a_service_and_has_no_cause():
    trial = Finding("9", Trial((Change("clean_rails"),), TrialResult.CLEAN, 3))
    seen = [Finding(str(n), Answer("spins", o)) for n, o in enumerate(("holds", "cycles"))]
    well, ill = (state_of(replace(record(), findings=(one, trial), trial_at=1), ECONOMY) for one in seen)
    assert (well.verdict, ill.verdict) == ("Serviced", "Repaired")
    assert "No fault was seen" in well.cause.text


@pytest.mark.parametrize(("end", "is_asked"), [("nothing_wrong", True), ("disc", True), ("main_board", False), ("unrepaired", False)])
def test_who_is_told_that_it_works_is_told_what_was_seen(end, is_asked):
    job = replace(record(), proposal=Proposal("", "x", 0, 0.0, False, 1, None, end), stage=Stage.ISOLATE)
    stages = [q for q in job.model.questions.values() if q.kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS) and q.id != "repeats"]
    runs = [Finding(q.id, Answer(q.id, q.normal or q.outcomes[0].id, Witness.BENCH, 6, 0)) for q in stages]
    few, many = (state_of(replace(job, findings=tuple(f)), ECONOMY) for f in ([], runs))
    assert ("tries" in {m.code for m in few.missing}) == is_asked
    assert "tries" not in {m.code for m in many.missing}
