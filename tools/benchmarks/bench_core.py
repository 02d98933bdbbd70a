"""Speeds of the core: posterior for 30 findings, next move, the whole answer; pyagrum for the same posterior beside it."""

import numpy as np
import pyagrum as gum
import pytest
from spindle.casefile.drive import read_drive
from spindle.diagnosis.advice import advise
from spindle.diagnosis.case import UNRELIABILITY, Answer, Case, Finding, Source
from spindle.diagnosis.compiled import compile_model
from spindle.diagnosis.diagnose import diagnose
from spindle.diagnosis.evidence import gather, log_likelihoods
from spindle.diagnosis.posterior import believe, posterior

DRIVE = {"variant": "VM-S41", "family": "slot", "pairing": "board", "classes": ["game_bd", "film_bd", "film_dvd"], "fuse_rating": "1.5 A fast"}
MODEL = compile_model(read_drive(DRIVE, "/drive"))
EPS = UNRELIABILITY[Source.BENCH]


def findings(n):
    rng = np.random.default_rng(7)
    asked = list(MODEL.questions.values())[:n]
    return tuple(Finding(f"f{i}", Answer(q.id, q.outcomes[rng.integers(len(q.outcomes))].id)) for i, q in enumerate(asked))


THIRTY = Case(MODEL.sheet, findings(30))
SIX = Case(MODEL.sheet, findings(6))


def test_posterior_of_30_findings_from_arrays(benchmark):
    rows, prior = log_likelihoods(gather(THIRTY.findings, MODEL), MODEL), np.log(MODEL.prior)
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


@pytest.mark.parametrize("case", [SIX, THIRTY], ids=["6 findings", "30 findings"])
def test_next_move(benchmark, case):
    benchmark(advise, case, MODEL, believe(case.findings, MODEL))


@pytest.mark.parametrize("case", [SIX, THIRTY], ids=["6 findings", "30 findings"])
def test_whole_answer(benchmark, case):
    benchmark(diagnose, case, MODEL)
