"""What each finding moved: with it against without it, the same as striking it.

Most answers can be struck by taking their own row out, which is as exact as reading the whole tape again and costs a tenth of it.
"""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass
from typing import Final

import numpy as np

from spindle.diagnosis.belief.likelihood import answer_log_likelihood, home_terms, is_tampered, joint_home, share_home
from spindle.diagnosis.belief.posterior import Belief, believe_lines, log_odds_db, posterior, weighed
from spindle.diagnosis.evidence.gather import Read, gather
from spindle.diagnosis.evidence.observation import Observation
from spindle.diagnosis.evidence.reach import how_far
from spindle.diagnosis.given.case import Case, Trial
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.faults.model import Question

_REACHES_FURTHER: Final = ("opened_before", "repeats")
"""Questions whose answer decides how others are weighed."""


@dataclass(frozen=True)
class Moved:
    """What one finding moved, in decibans of log-odds."""

    part_db: Floats
    p_without: Floats
    """P(fault | all findings but this one), of shape (n_faults,)."""


def weights_of_evidence(case: Case, model: CompiledModel, belief: Belief) -> dict[str, Moved]:
    """Return for each finding that counts how far it moved each part, in decibans.

    A weight is the change of the log-odds when this finding alone is struck. Such weights do not sum to the whole:
    one fault against all the rest is not additive (I. J. Good, *Probability and the Weighing of Evidence*, 1950).
    """
    tape = _Tape(model, belief)
    p_without = {f.id: tape.without(f.id) for f in case.standing if f.id not in belief.evidence.left_out}
    if not p_without:
        return {}
    moved = log_odds_db(belief.p_part) - log_odds_db(np.array(list(p_without.values())) @ model.membership.T)
    return {finding: Moved(db, p) for (finding, p), db in zip(p_without.items(), moved, strict=True)}


class _Tape:
    """A tape that has been read, to be believed again without one of its lines."""

    def __init__(self, model: CompiledModel, belief: Belief) -> None:
        self._lines, self._model, self._belief = belief.lines, model, belief
        self._known: dict[object, Floats] = {}
        evidence = belief.evidence
        self._far = how_far(evidence.answers.values())
        self._is_tampered = is_tampered(evidence)
        self._shared = {o.question.id: home_terms(o, model, is_tampered=self._is_tampered) for o in share_home(evidence)}
        self._all_shared = np.asarray(sum(self._shared.values(), np.zeros((3, len(model.faults)))))
        self._home = joint_home(self._all_shared, len(self._shared), model)
        self._total = np.asarray(sum(belief.rows.values(), np.zeros(len(model.faults))))
        self._seen = {o.finding: o for o in evidence.answers.values()}
        self._of_question: dict[str, list[Read]] = {}
        for line in self._lines:
            if line.seen is not None:
                self._of_question.setdefault(line.seen.question.id, []).append(line)
        trials = [line.place for line in self._lines if line.reason is None and isinstance(line.finding.what, Trial)]
        self._first_trial, self._has_trials = min(trials, default=len(self._lines)), bool(trials)
        self._is_based = self._has_baseline(evidence.answers.values())

    def without(self, finding: str) -> Floats:
        """Return P(fault | all findings but this one), of shape (n_faults,)."""
        seen = self._seen.get(finding)
        if seen is None or self._reaches_further(seen) or self._is_read_anew_without(seen):
            lines = tuple(line.struck if line.finding.id == finding else line for line in self._lines)
            return believe_lines(lines, self._model, self._known).p
        belief, evidence, question = self._belief, self._belief.evidence, seen.question.id
        earlier = self._earlier(seen)
        instead = {} if earlier is None else {earlier.finding: self._row(earlier)}
        log_prior = belief.log_prior if question not in self._shared else belief.log_prior - self._home + self._home_without(question, earlier)
        if evidence.news:
            return weighed(evidence, {i: r for i, r in belief.rows.items() if i != finding} | instead, log_prior, self._model)
        return posterior(log_prior, np.array([self._total - belief.rows[finding], *instead.values()]))

    def _row(self, seen: Observation) -> Floats:
        return answer_log_likelihood(seen, self._model, is_home=self._belief.evidence.far.is_home, is_tampered=self._is_tampered)

    def _home_without(self, question: str, earlier: Observation | None) -> Floats:
        """Return what the shared hidden step says of the other answers, an earlier one in the place of this one, if there is one."""
        terms = self._all_shared - self._shared[question]
        if earlier is None:
            return joint_home(terms, len(self._shared) - 1, self._model)
        return joint_home(terms + home_terms(earlier, self._model, is_tampered=self._is_tampered), len(self._shared), self._model)

    def _others(self, seen: Observation) -> list[Read]:
        return [line for line in self._of_question[seen.question.id] if line.finding.id != seen.finding]

    def _earlier(self, seen: Observation) -> Observation | None:
        """Return what stands in an answer's place where it is struck: the same question as it was answered before."""
        others = self._others(seen)
        return gather(others, self._model).answers.get(seen.question.id) if others else None

    def _is_read_anew_without(self, seen: Observation) -> bool:
        """Tell whether other findings would be read differently without an answer, or not in this order."""
        others = self._others(seen)
        if others and self._hangs_on_order(seen.question) and max(seen.place, *(line.place for line in others)) > self._first_trial:
            return True
        earlier = self._earlier(seen)
        if earlier is not None and earlier.tries:
            return True
        either = (seen,) if earlier is None else (seen, earlier)
        tells_how_far, is_baseline = any(o.proves or o.halts is not None for o in either), any(o.is_seen_failing for o in either)
        if not tells_how_far and not (is_baseline and self._has_trials):
            return False
        answers = [o for o in self._belief.evidence.answers.values() if o is not seen] + list(either[1:])
        return (tells_how_far and not self._is_as_far(answers)) or (self._has_trials and self._has_baseline(answers) != self._is_based)

    def _hangs_on_order(self, question: Question) -> bool:
        """Tell whether it counts on which side of a trial a question was answered."""
        return question.is_behaviour or self._belief.evidence.changed_at >= 0 or bool(self._belief.evidence.news)

    def _has_baseline(self, answers: Collection[Observation]) -> bool:
        return any(o.is_seen_failing for o in (*answers, *self._belief.evidence.news.values()))

    def _is_as_far(self, answers: Collection[Observation]) -> bool:
        far, then = self._far, how_far(answers)
        return (far.halted, far.halted_by, far.is_home) == (then.halted, then.halted_by, then.is_home)

    def _reaches_further(self, seen: Observation) -> bool:
        evidence, question = self._belief.evidence, seen.question.id
        stops_lately = bool(evidence.news) and any(o.halts is not None for o in (*evidence.answers.values(), *evidence.news.values()))
        is_old = seen.place <= evidence.changed_at
        tells_of_cures = bool(evidence.trials) and question in self._model.tells_of_cures
        return question in (*_REACHES_FURTHER, *evidence.news) or tells_of_cures or bool(seen.tries) or is_old or stops_lately
