"""Our own last step as a suspect: a symptom that is new since the baseline opens the faults that a step can bring (C11, trap T18)."""

from __future__ import annotations

from typing import Final

import numpy as np

from spindle.diagnosis.belief.items import p_bad
from spindle.diagnosis.belief.likelihood import answer_log_likelihood
from spindle.diagnosis.evidence.gather import Evidence
from spindle.diagnosis.given.case import Change, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.words.bench import Depth


def opened_by(trials: list[Trial], model: CompiledModel) -> dict[str, float]:
    """Return the handling faults that the steps done can have brought, each with its chance."""
    kinds: dict[str, float] = {}
    for trial, change in ((t, c) for t in trials for c in t.changes):
        repair = model.repairs[model.repair_index[change.repair]]
        if repair.depth >= Depth.COVER_OFF:
            kinds["opened"] = 1.0
        if repair.depth >= Depth.DRIVE_OPEN:
            kinds["mechanism"] = 1.0
        if repair.wet:
            kinds["wet"] = 1.0
        if repair.uses_item and _is_in(change, trial):
            kinds["item"] = max(kinds.get("item", 0.0), float((_cured_by(change, model) * p_bad(change, model)).sum()))
    return {f.id: f.prior * kinds[f.opened_by] for f in model.faults if f.opened_by in kinds}


def _is_in(change: Change, trial: Trial) -> bool:
    """Tell whether what a change put in is still in there: after a clean trial, or because somebody said so."""
    return change.stays or trial.result is TrialResult.CLEAN


def _cured_by(change: Change, model: CompiledModel) -> Floats:
    """Return which faults a change is there to cure, as shares that sum to 1, of shape (n_faults,)."""
    success = model.success[model.repair_index[change.repair]]
    return np.asarray(success / max(float(success.sum()), 1e-12))


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
    news = sum((answer_log_likelihood(o, model, is_home=evidence.far.is_home) for o in evidence.news.values()), np.zeros(len(model.faults)))
    after = np.asarray(news + sum(since.values(), np.zeros(len(model.faults))))
    brought = opened_by(evidence.trials, model)
    out = log_before + after + np.log(1.0 - sum(brought.values()))
    log_z = float(np.logaddexp.reduce(log_before))
    for fault, chance in brought.items():
        i = model.fault_index[fault]
        shown = _SHOWN_BY.get(fault)
        n = float(after[i]) if shown is None else shown(after, evidence.trials, model)
        out[i] = log_z + np.log(chance) + n
    return np.asarray(out)


def _fitted_bad(after: Floats, trials: list[Trial], model: CompiledModel) -> float:
    """Return log N of "a part that we fitted is bad": it shows what the faults that such a part cures would show, most in what it is bad at."""
    items = [c for t in trials for c in t.changes if _is_in(c, t) and model.repairs[model.repair_index[c.repair]].uses_item]
    weight = np.maximum.reduce([_cured_by(c, model) * p_bad(c, model) for c in items])
    return _mean_of(weight, after)


def _still_wet(after: Floats, trials: list[Trial], model: CompiledModel) -> float:
    """Return log N of "cleaner not dry": a flushed switch looks like a bad switch, a wet flex like a bad flex."""
    wetted = [c for t in trials for c in t.changes if model.repairs[model.repair_index[c.repair]].wet]
    return _mean_of(np.maximum.reduce([_cured_by(c, model) for c in wetted]), after)


def _mean_of(weight: Floats, after: Floats) -> float:
    return float(np.log(np.sum(weight / weight.sum() * np.exp(after))))


_SHOWN_BY: Final = {"fitted_bad": _fitted_bad, "still_wet": _still_wet}
"""Handling faults that show as what our step touched, whatever that was."""
