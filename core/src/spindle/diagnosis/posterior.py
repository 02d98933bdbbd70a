"""The posterior over faults, and what each finding moved.

Exact inference for one fault (or the leak) with answers independent given the fault; see ``docs/architecture.md``.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from spindle.diagnosis.case import Case, Finding
from spindle.diagnosis.compiled import CompiledModel, Floats
from spindle.diagnosis.evidence import Evidence, gather, log_likelihoods

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
    """

    p: Floats
    p_part: Floats
    evidence: Evidence


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
    """Return the posterior after the findings. Their order does not matter, but for repeats of one question.

    Raises
    ------
    CaseError
        If a finding uses a word that the loader family does not have.
    """
    evidence = gather(findings, model)
    p = posterior(np.log(model.prior), log_likelihoods(evidence, model))
    return Belief(p, model.membership @ p, evidence)


def log_odds_db(p: Floats) -> Floats:
    """Return the log-odds of each probability in decibans."""
    clipped = np.clip(p, 1e-300, 1.0)
    rest = np.clip(1.0 - clipped, 1e-300, 1.0)
    return np.asarray(DECIBAN * (np.log(clipped) - np.log(rest)))


@dataclass(frozen=True)
class Moved:
    """What one finding moved, in decibans of log-odds: with it against without it (the same as striking it)."""

    part_db: Floats


def weights_of_evidence(case: Case, model: CompiledModel, belief: Belief) -> dict[str, Moved]:
    """Return for each finding that counts how far it moved each part, in decibans.

    A weight is the change of the log-odds when this finding alone is struck. Such weights do not sum to the whole:
    one fault against all the rest is not additive (I. J. Good, *Probability and the Weighing of Evidence*, 1950).
    """
    counted = [f for f in case.standing if f.id not in belief.evidence.left_out]
    now = log_odds_db(belief.p_part)
    moved = {}
    for finding in counted:
        before = believe(case.without(finding.id).findings, model)
        moved[finding.id] = Moved(now - log_odds_db(before.p_part))
    return moved


def chance_of(repair_id: str, findings: tuple[Finding, ...], model: CompiledModel) -> float:
    """Return P(the repair, done once with a good part, cures the unit | findings).

    Raises
    ------
    KeyError
        If this drive does not allow the repair.
    """
    return float(believe(findings, model).p @ model.success[model.repair_index[repair_id]])
