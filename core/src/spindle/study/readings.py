"""How well doubtful evidence is weighed: slips that are found again, donors that are one bit, passes that prove."""

from __future__ import annotations

from typing import Final

import numpy as np
from scipy.stats import rankdata

from spindle.diagnosis.belief.contradictions import p_false
from spindle.diagnosis.belief.ending import CONFIDENCE, MAX_PASSES, judge_ending
from spindle.diagnosis.belief.intermittence import STEADY_FAILS, share_intermittent
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.given.case import Answer, Change, Finding, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.given.economy import Economy
from spindle.faults.model import NOTHING
from spindle.study.worlds import Setup
from spindle.words.bench import Reach
from spindle.words.health import P_BAD_ITEM, Health

P_SLIP: Final = 0.08
ANSWERS: Final = 12
"""Answers on a simulated tape."""


def _fault(model: CompiledModel, rng: np.random.Generator) -> int:
    prior = np.where([bool(f.opened_by) or f.id == NOTHING for f in model.faults], 0.0, model.prior)
    return int(rng.choice(len(prior), p=prior / prior.sum()))


def _tape(model: CompiledModel, fault: int, n: int, rng: np.random.Generator, *, p_slip: float) -> tuple[tuple[Finding, ...], list[bool]]:
    """Return ``n`` answers that a unit with that fault gives, and which of them are slips; none that decides how others are read or hangs on others."""
    alone = [i for i, q in model.questions.items() if not q.stops and q.stage < Reach.DISC and i not in ("opened_before", "repeats")]
    asked = rng.choice(alone, n, replace=False)
    findings, slips = [], []
    for i, name in enumerate(asked):
        table = model.likelihood[name][:, fault]
        o = int(rng.choice(len(table), p=table / table.sum()))
        is_slip = bool(rng.random() < p_slip)
        if is_slip:
            o = int((o + rng.integers(1, len(table))) % len(table))
        findings.append(Finding(f"f{i}", Answer(str(name), model.questions[str(name)].outcomes[o].id)))
        slips.append(is_slip)
    return tuple(findings), slips


def study_slips(ready: Setup, n: int, seed: int) -> dict[str, float]:
    """Return the AUC of P(item false) on tapes with slips, how often the slip ranks first, and what doubt costs on clean tapes, in nat."""
    model = ready.model
    scores: list[float] = []
    truth: list[bool] = []
    first, tapes, lost = 0, 0, 0.0
    for i in range(n):
        rng = np.random.default_rng([seed, i])
        fault = _fault(model, rng)
        findings, slips = _tape(model, fault, ANSWERS, rng, p_slip=P_SLIP)
        doubt = p_false(believe(findings, model), model)
        scores += list(doubt.values())
        truth += slips
        if any(slips):
            tapes += 1
            first += slips[max(range(len(slips)), key=lambda k: doubt[f"f{k}"])]
        clean, _ = _tape(model, fault, ANSWERS, rng, p_slip=0.0)
        rows = [np.log(model.likelihood[f.what.question][_outcome(f.what, model)]) for f in clean if isinstance(f.what, Answer)]
        trusting = np.log(model.prior) + sum(rows)
        lost += float(trusting[fault] - np.logaddexp.reduce(trusting)) - float(np.log(believe(clean, model).p[fault]))
    ranks, is_slip = rankdata(scores), np.array(truth)
    wins = ranks[is_slip].sum() - is_slip.sum() * (is_slip.sum() + 1) / 2
    return {"item_auc": float(wins / (is_slip.sum() * (~is_slip).sum())), "slip_ranks_first": first / max(tapes, 1), "clean_loss_nat": lost / n}


def _outcome(answer: Answer, model: CompiledModel) -> int:
    return [o.id for o in model.questions[answer.question].outcomes].index(answer.outcome)


def study_donors(ready: Setup, n: int, seed: int) -> dict[str, float]:
    """Return the log loss (nat) after two failed swaps with one donor of unknown health: as one bit, and as two fresh draws."""
    model = ready.model
    swaps = ("replace_pickup", "replace_deck")
    loss = {"one_bit": 0.0, "two_draws": 0.0}
    used = 0
    for i in range(n):
        rng = np.random.default_rng([seed, i])
        fault = _fault(model, rng)
        findings, _ = _tape(model, fault, 6, rng, p_slip=0.0)
        is_good = bool(rng.random() >= P_BAD_ITEM[Health.UNKNOWN])
        cured = [is_good and bool(rng.random() < model.success[model.repair_index[r], fault]) for r in swaps]
        if any(cured):
            continue
        used += 1
        for name, items in (("one_bit", ("D", "D")), ("two_draws", ("D1", "D2"))):
            changes = [Change(r, x, Health.UNKNOWN) for r, x in zip(swaps, items, strict=True)]
            trials = tuple(Finding(f"t{k}", Trial((c,), TrialResult.NO_CHANGE)) for k, c in enumerate(changes))
            loss[name] -= float(np.log(believe((*findings, *trials), model).p[fault]))
    return {**{k: v / max(used, 1) for k, v in loss.items()}, "units": used}


def study_proof(ready: Setup, n: int, seed: int) -> dict[str, float]:
    """Return what "proven" is worth: the share of proven units that still have their fault, after one pass and after the passes asked for.

    Every unit is counted six times at the baseline, gets the repair that is likeliest to cure it, and runs passes until it
    fails, is proven, or is given back as probable.
    """
    model = ready.model
    share = share_intermittent(model)
    held = {"one_pass": [0, 0], "proven": [0, 0], "probable": [0, 0]}
    passes = []
    for i in range(n):
        rng = np.random.default_rng([seed, i])
        fault = _fault(model, rng)
        q = float(rng.beta(2, 2)) if rng.random() < share[fault] else STEADY_FAILS
        failed = int(rng.binomial(6, q))
        if failed == 0:
            continue  # nothing was seen: such a unit does not get past its baseline
        word = "always" if failed == 6 else "comes_and_goes"
        findings, _ = _tape(model, fault, 8, rng, p_slip=0.0)
        base = (*findings, Finding("n", Answer("repeats", word, tries=6, failed=failed)), Finding("s", Answer("spins", "cycles")))
        a = int((model.success @ believe(base, model).p).argmax())
        is_cured = bool(rng.random() < model.success[a, fault] * (0.96 if model.repairs[a].uses_item else 1.0))
        for done in range(1, MAX_PASSES + 1):
            if not is_cured and rng.random() < q:
                break
            trial = Finding("t", Trial((Change(model.repairs[a].id, "P"),), TrialResult.CLEAN, done))
            ending = judge_ending(believe((*base, trial), model), model, Economy())
            if done == 1:
                held["one_pass"][0] += 1
                held["one_pass"][1] += not is_cured
            if ending.verdict in ("proven", "probable"):
                held[ending.verdict][0] += 1
                held[ending.verdict][1] += not is_cured
                passes.append(done)
                break
    out = {f"{k}_still_faulty": wrong / max(total, 1) for k, (total, wrong) in held.items()}
    return {**out, "proven_units": held["proven"][0], "mean_passes": float(np.mean(passes)), "promised": 1.0 - CONFIDENCE}
