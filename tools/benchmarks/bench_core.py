"""Speeds of the core on the widest family: posterior, next move, two steps, what would change my mind; pyagrum's posterior beside it."""

import json
from pathlib import Path

import numpy as np
import pyagrum as gum
import pytest
from spindle.diagnosis.belief.likelihood import answer_rows
from spindle.diagnosis.belief.posterior import believe, posterior
from spindle.diagnosis.belief.striking import weights_of_evidence
from spindle.diagnosis.evidence.gather import gather, read
from spindle.diagnosis.explaining.advice import advise, mind_holders
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.given.case import Answer, Case, Finding
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.planning.futures import outturn
from spindle.diagnosis.planning.outlook import look_ahead
from spindle.drives.key import Variant
from spindle.study.identification import study_key
from spindle.study.worlds import SHEETS
from spindle.words.witness import UNRELIABILITY, Witness

MODEL = compile_model(SHEETS["tray"])
EPS = UNRELIABILITY[Witness.BENCH]


def findings(n):
    rng = np.random.default_rng(7)
    asked = [q for q in MODEL.questions.values() if q.id not in ("power", "repeats", "opened_before")][:n]
    return tuple(Finding(f"f{i}", Answer(q.id, q.outcomes[rng.integers(len(q.outcomes))].id)) for i, q in enumerate(asked))


THIRTY = Case(MODEL.sheet, findings(30))
SIX = Case(MODEL.sheet, findings(6))
CASES = pytest.mark.parametrize("case", [SIX, THIRTY], ids=["6 findings", "30 findings"])


def test_size():
    print(f"\n{len(MODEL.faults)} faults, {len(MODEL.repairs)} repairs, {len(MODEL.questions)} questions")


def test_posterior_of_30_findings_from_arrays(benchmark):
    rows, prior = np.array(list(answer_rows(gather(read(THIRTY.findings, MODEL), MODEL), MODEL).values())), np.log(MODEL.prior)
    benchmark(posterior, prior, rows)


def test_posterior_of_30_findings_from_the_tape(benchmark):
    benchmark(believe, THIRTY.findings, MODEL)


def test_posterior_of_30_findings_by_pyagrum(benchmark):
    net = gum.BayesNet()
    net.add(gum.LabelizedVariable("fault", "", [f.id for f in MODEL.faults]))
    net.cpt("fault").fillWith(list(MODEL.prior))
    for q in MODEL.questions.values():
        net.add(gum.LabelizedVariable(q.id, "", [o.id for o in q.outcomes]))
        net.addArc("fault", q.id)
        net.cpt(q.id)[:] = ((1 - EPS) * MODEL.likelihood[q.id] + EPS / len(q.outcomes)).T.copy()
    evidence = {f.what.question: f.what.outcome for f in THIRTY.findings}

    def run():
        inference = gum.VariableElimination(net)
        inference.setEvidence(evidence)
        inference.addTarget("fault")
        return inference.posterior("fault")

    benchmark(run)


@CASES
def test_next_move(benchmark, case):
    benchmark(look_ahead, case, MODEL, believe(case.findings, MODEL))


@CASES
def test_two_steps(benchmark, case):
    benchmark(look_ahead, case, MODEL, believe(case.findings, MODEL), keep_going=lambda: True)


@CASES
def test_what_holds_my_mind(benchmark, case):
    belief = believe(case.findings, MODEL)
    seen = look_ahead(case, MODEL, belief)
    without = {f: m.p_without for f, m in weights_of_evidence(case, MODEL, belief).items()}

    benchmark(mind_holders, without, seen, MODEL, "")


@CASES
def test_advice_with_schools_and_mind_changes(benchmark, case):
    belief = believe(case.findings, MODEL)
    benchmark(advise, case, MODEL, belief, look_ahead(case, MODEL, belief))


@CASES
def test_whole_answer(benchmark, case):
    benchmark(diagnose, case, MODEL)


def test_forty_futures(benchmark):
    seen = look_ahead(SIX, MODEL, believe(SIX.findings, MODEL))
    benchmark(lambda: outturn(seen.position, seen.plan.problem, np.random.default_rng(1)))


def test_identification_key():
    files = sorted((Path(__file__).parents[2] / "demo" / "sheets").glob("*.json"))
    sheets = [json.loads(f.read_text(encoding="utf-8")) for f in files]
    print(f"\nkey over {len(sheets)} variants: {study_key(tuple(Variant(s['drive']['variant'], s['looks']) for s in sheets), 2000, 7)}")
