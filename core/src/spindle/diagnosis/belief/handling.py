"""Our own last step as a suspect: a symptom that is new since the baseline opens the faults that a step can bring (C11, trap T18)."""

from __future__ import annotations

import numpy as np

from spindle.diagnosis.belief.likelihood import answer_log_likelihood
from spindle.diagnosis.evidence.gather import Evidence
from spindle.diagnosis.given.case import Trial
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.words.bench import Depth
from spindle.words.health import P_BAD_ITEM


def opened_by(trials: list[Trial], model: CompiledModel) -> dict[str, float]:
    """Return the handling faults that the steps done can have brought, each with its chance."""
    kinds: dict[str, float] = {}
    for change in (c for t in trials for c in t.changes):
        repair = model.repairs[model.repair_index[change.repair]]
        if repair.depth >= Depth.COVER_OFF:
            kinds["opened"] = 1.0
        if repair.depth >= Depth.DRIVE_OPEN:
            kinds["mechanism"] = 1.0
        if repair.wet:
            kinds["wet"] = 1.0
        if repair.uses_item and change.stays:
            kinds["item"] = max(kinds.get("item", 0.0), P_BAD_ITEM[change.health])
    return {f.id: f.prior * kinds[f.opened_by] for f in model.faults if f.opened_by in kinds}


def log_weights(log_before: Floats, evidence: Evidence, since: dict[str, Floats], model: CompiledModel) -> Floats:
    """Return the log-weights of all faults once a symptom is new since the last trial.

    Two stories are weighed: the old fault alone brought the new symptom, or the old fault explains what was seen before the
    step and a handling fault what came after it:

    ``W(f) = (1 - t) B(f) N(f)`` and ``W(h) = t(h) sum_f B(f) N(h)``,

    B being prior times everything known at the trial, N everything since, t(h) the chance that our step brought h, t their sum.

    Parameters
    ----------
    log_before : ndarray of shape (n_faults,)
        log B.
    since : mapping of finding id to log-likelihood of shape (n_faults,)
        Answers since the trial that say more than was known before it.

    Returns
    -------
    ndarray of shape (n_faults,)
    """
    news = sum((answer_log_likelihood(f.what, model) for f in evidence.news.values()), np.zeros(len(model.faults)))  # type: ignore[arg-type]  # gather keeps answers only
    after = np.asarray(news + sum(since.values(), np.zeros(len(model.faults))))
    brought = opened_by(evidence.trials, model)
    out = log_before + after + np.log(1.0 - sum(brought.values()))
    log_z = float(np.logaddexp.reduce(log_before))
    for fault, chance in brought.items():
        i = model.fault_index[fault]
        n = _fitted_bad(after, evidence.trials, model) if fault == "fitted_bad" else float(after[i])
        out[i] = log_z + np.log(chance) + n
    return np.asarray(out)


def _fitted_bad(after: Floats, trials: list[Trial], model: CompiledModel) -> float:
    """Return log N of "a part that we fitted is bad": it shows what the faults that such a part cures would show."""
    stayed = [model.success[model.repair_index[c.repair]] for t in trials for c in t.changes if c.stays]
    weight = np.maximum.reduce(stayed)
    return float(np.log(np.sum(weight / weight.sum() * np.exp(after))))
