"""The posterior over faults.

Exact inference for one fault (or the leak) with answers independent given the fault; see ``docs/architecture.md``. Our own
last step (:mod:`~spindle.diagnosis.belief.handling`) and a change that cured one fault of two add to it.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from spindle.diagnosis.belief import handling
from spindle.diagnosis.belief.intermittence import Steadiness, steadiness
from spindle.diagnosis.belief.likelihood import answer_rows, home_log_likelihood, is_tampered
from spindle.diagnosis.belief.trials import trials_log_likelihood
from spindle.diagnosis.evidence.gather import Evidence, Read, gather, read
from spindle.diagnosis.given.case import Finding, Trial
from spindle.diagnosis.given.compiled import CompiledModel, Floats

DECIBAN = 10.0 / np.log(10.0)


@dataclass(frozen=True)
class Belief:
    """The posterior of a case.

    Attributes
    ----------
    p : ndarray of shape (n_faults,)
        P(fault | findings), summing to 1.
    p_part : ndarray of shape (n_parts,)
        The same summed over each sub-assembly.
    log_prior : ndarray of shape (n_faults,)
        What was believed before the answers, after a change that cured one fault of two; and what answers that share a hidden step say together.
    rows : mapping of finding id to ndarray of shape (n_faults,)
        Log-likelihood of each answer that counts.
    lines : tuple of Read
        The tape as it was read.
    """

    p: Floats
    p_part: Floats
    evidence: Evidence
    steadiness: Steadiness
    log_prior: Floats
    rows: dict[str, Floats]
    lines: tuple[Read, ...]


def posterior(log_prior: Floats, log_likelihood: Floats) -> Floats:
    """Return the normalised product of prior and likelihoods.

    Parameters
    ----------
    log_prior : ndarray of shape (n_faults,)
    log_likelihood : ndarray of shape (n_terms, n_faults)

    Returns
    -------
    ndarray of shape (n_faults,)
        Sums to 1.

    References
    ----------
    .. [1] E. T. Jaynes, *Probability Theory*, CUP 2003, ch. 4.

    Examples
    --------
    >>> posterior(np.log([0.5, 0.5]), np.log([[0.9, 0.3]])).round(2)
    array([0.75, 0.25])
    """
    log_w = log_prior + log_likelihood.sum(axis=0)
    w = np.exp(log_w - log_w.max())
    return np.asarray(w / w.sum())


def believe(findings: tuple[Finding, ...], model: CompiledModel) -> Belief:
    """Return the posterior after the findings. Between two trials their order does not matter, but for repeats of one question.

    Raises
    ------
    CaseError
        If a finding uses a word that the loader family does not have.
    """
    return believe_lines(read(findings, model), model)


def believe_lines(lines: tuple[Read, ...], model: CompiledModel, known: dict[object, Floats] | None = None) -> Belief:
    """``known`` keeps the likelihood of trials by what it rests on, for those who strike one finding after another."""
    evidence = gather(lines, model)
    model = evidence.narrowed(model)
    rows = answer_rows(evidence, model)
    steady = steadiness(evidence, model)
    log_prior = _log_prior(lines, evidence, model) + home_log_likelihood(evidence, model)
    if evidence.trials or evidence.occasions:
        known = {} if known is None else known
        tampered, elsewhere = is_tampered(evidence), [o.finding for occasion in evidence.occasions for o in occasion.seen.values()]
        rests_on = (id(model), *map(id, evidence.trials), steady.failed, steady.tries, steady.p_intermittent.tobytes(), tampered, *elsewhere)
        if rests_on not in known:
            known[rests_on] = trials_log_likelihood(evidence.trials, model, steadiness=steady, occasions=evidence.occasions, is_tampered=tampered)
        log_prior = log_prior + known[rests_on]
    p = weighed(evidence, rows, log_prior, model)
    return Belief(p, model.membership @ p, evidence, steady, log_prior, rows, lines)


def weighed(evidence: Evidence, rows: dict[str, Floats], log_prior: Floats, model: CompiledModel) -> Floats:
    """Return P(fault) from one row of log-likelihood for each answer that counts, of shape (n_faults,)."""
    none = np.zeros(len(model.faults))
    if not evidence.news:
        return posterior(log_prior, np.array([*rows.values(), none]))
    before = log_prior + sum((r for i, r in rows.items() if i not in evidence.since), none)
    return posterior(handling.log_weights(before, evidence, {i: r for i, r in rows.items() if i in evidence.since}, model), none[None])


def _log_prior(lines: tuple[Read, ...], evidence: Evidence, model: CompiledModel) -> Floats:
    """Return the log-prior: the model's, lifted by what a change seems to have cured."""
    prior = model.prior.copy()
    if evidence.changed_at >= 0:
        prior *= 1.0 + model.pair_excess @ _cured_at(lines, evidence.changed_at, model)
    return np.asarray(np.log(prior))


def _cured_at(lines: tuple[Read, ...], place: int, model: CompiledModel) -> Floats:
    """Return P(this fault was the one that the change cured), of shape (n_faults,): faults that travel with it are likelier now."""
    trial = lines[place].finding.what
    if not isinstance(trial, Trial):
        raise TypeError(f"finding {place} is no trial")
    uncured = np.prod([1.0 - model.success[model.repair_index[c.repair]] for c in trial.changes], axis=0)
    cured = believe_lines(lines[:place], model).p * (1.0 - uncured)
    return np.asarray(cured / max(float(cured.sum()), 1e-12))


def log_odds_db(p: Floats) -> Floats:
    """Return the log-odds of each probability in decibans, of the same shape: ``10 log10(p / (1 - p))``, finite at 0 and 1 too."""
    clipped = np.clip(p, 1e-300, 1.0)
    rest = np.clip(1.0 - clipped, 1e-300, 1.0)
    return np.asarray(DECIBAN * (np.log(clipped) - np.log(rest)))
