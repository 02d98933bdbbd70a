"""What proves a repair, and how many clean passes are enough."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil, log
from typing import Final

from spindle.drives.sheet import DriveSheet
from spindle.errors import CaseError
from spindle.faults.model import FaultModel, Question, QuestionKind

CONFIDENCE: Final = 0.95
"""How sure a bench wants to be before it hands a unit back: one return in twenty for this reason is what our shop accepts."""
MIN_PASSES: Final = 3
"""Never fewer: a title screen once is no proof (trap T33). Three is custom, not arithmetic."""
MAX_PASSES: Final = 60
"""Beyond an hour of inserts the honest end is "probable", with a longer guarantee."""

_SURE: Final = 1e-6
"""Nearer to 0 or 1 than this no probability of a cure is taken."""


@dataclass(frozen=True, slots=True)
class ProofCheck:
    """One check of the proof: what to do, and which answers of the baseline pass it."""

    id: str
    title: str
    how: str
    question: str = ""
    """The baseline question that it repeats, if any."""


def clean_passes_needed(p_cured_before: float, p_fail_per_try: float, confidence: float = CONFIDENCE) -> int:
    """Return how many passes in a row, all clean, make it ``confidence`` sure that the unit is cured.

    With P(cured) = c before the proof and a fault that shows in a share q of tries, after n clean passes
    ``P(cured) = c / (c + (1 - c)(1 - q)**n)``, by Bayes. An intermittent fault seen in k of n tries has
    q = (k + 1/2) / (n + 1).

    Parameters
    ----------
    p_cured_before, p_fail_per_try, confidence : float
        In (0, 1).

    Returns
    -------
    int
        At least :data:`MIN_PASSES`, at most :data:`MAX_PASSES`.

    Raises
    ------
    CaseError
        If a probability is not inside (0, 1).

    Examples
    --------
    >>> clean_passes_needed(0.8, 0.5), clean_passes_needed(0.8, 0.1)
    (3, 15)
    """
    for name, p in (("p_cured_before", p_cured_before), ("p_fail_per_try", p_fail_per_try), ("confidence", confidence)):
        if not 0.0 < p < 1.0:
            raise CaseError(f"/{name}", f"must lie between 0 and 1, got {p!r}")
    odds_wanted = confidence / (1.0 - confidence)
    odds_now = p_cured_before / (1.0 - p_cured_before)
    if odds_now >= odds_wanted:
        return MIN_PASSES
    n = ceil(log(odds_wanted / odds_now) / -log(1.0 - p_fail_per_try) - 1e-9)
    return min(max(n, MIN_PASSES), MAX_PASSES)


def passes_wanted(p_cured_now: float, clean_so_far: int, p_fail_per_try: float) -> int:
    """Return how many clean passes are wanted in all, from how sure the cure is after some of them.

    The clean ones so far are taken back by Bayes, so that the number does not move while they are counted:
    ``c = p r**n / (p r**n + 1 - p)`` with ``r = 1 - p_fail_per_try`` (see :func:`clean_passes_needed`).

    Raises
    ------
    CaseError
        If ``p_fail_per_try`` is not inside (0, 1).
    """
    luck = (1.0 - p_fail_per_try) ** max(clean_so_far, 1)
    before = p_cured_now * luck / (p_cured_now * luck + 1.0 - p_cured_now) if p_cured_now < 1.0 else 1.0
    return clean_passes_needed(min(max(before, _SURE), 1.0 - _SURE), p_fail_per_try)


def proof_profile(sheet: DriveSheet, model: FaultModel, baseline_failures: tuple[str, ...]) -> tuple[ProofCheck, ...]:
    """Return the checks that prove a repair on this drive: its own baseline again, then the profile of the family.

    Parameters
    ----------
    baseline_failures : tuple of question id
        What failed in the job's own baseline: repeated identically, first.
    """
    questions = {q.id: q for q in model.questions}
    again = [
        ProofCheck(f"again_{q}", _normal(questions[q]), f"As in the baseline, same disc, same position: {questions[q].ask}", q)
        for q in baseline_failures
        if q in questions and questions[q].kind in (QuestionKind.BASELINE, QuestionKind.DISC_CLASS) and _normal(questions[q])
    ]
    named = {c.question for c in again}
    classes = [
        ProofCheck(f"class_{q.id}", _normal(q), q.how, q.id)
        for q in model.questions
        if q.kind is QuestionKind.DISC_CLASS and q.id in sheet.classes and q.id not in named
    ]
    rest = [
        ProofCheck("eject_loaded", "Ejects with a disc in", "From the button. The disc comes out straight."),
        ProofCheck("eject_empty", "Eject command with no disc in", "The loader runs, comes to rest and takes the next disc."),
        ProofCheck("cold_warm", "Starts cold, and again after ten minutes", "Once after standing, once warm."),
        ProofCheck("later_load", "Later data loads", "Jump to a late chapter or level twice."),
        ProofCheck("rest_of_unit", "The rest of the unit works as before", "Picture, wireless, controls, fan: as noted when it was taken in."),
    ]
    skip = {"later_load"} if "later_data" in named else set()
    return (*again, *classes, *(c for c in rest if c.id not in skip))


def _normal(question: Question) -> str:
    """Return the line of the answer that a healthy unit gives; "" where none does (how often it fails is for the passes)."""
    return next((o.line for o in question.outcomes if o.id not in question.fails), "")
