"""A job's tape folded into what it amounts to: findings, strikes, proposal, consents, steps, checks, passes. Pure."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field, replace
from datetime import datetime
from typing import Any

from spindle.diagnosis.given.case import Finding, Trial, TrialResult
from spindle.formats.case_file import read_what
from spindle.words.bench import Depth


@dataclass(frozen=True)
class Line:
    """A line of the tape, free of the database."""

    number: int
    version: int
    kind: str
    body: dict[str, Any]
    at: datetime
    by: str


@dataclass(frozen=True)
class Proposal:
    """What was proposed to the owner last. An empty repair is the decision to hand the unit back as it is."""

    repair: str
    name: str
    total_cents: int
    p_success: float
    is_advised: bool
    number: int


@dataclass
class Record:
    """What a tape amounts to."""

    lines: tuple[Line, ...] = ()
    findings: list[Finding] = field(default_factory=list)
    strikes: dict[int, Line] = field(default_factory=dict)
    """Struck line number -> the line that struck it."""
    parts: dict[int, Line] = field(default_factory=dict)
    """Parts for this job that are at hand, a donor's or on their way, by line number; struck ones are not in it."""
    takings: dict[int, Line] = field(default_factory=dict)
    """Those of the parts that were taken from the shelf, by the number of the taking."""
    looks: dict[str, str] = field(default_factory=dict)
    """What the eye saw of the drive, for the identification key: feature id -> value id."""
    proposal: Proposal | None = None
    consents: list[Line] = field(default_factory=list)
    repair_depth: Depth = Depth.CLOSED
    """How deep the unit was open when the repair began: its steps start there."""
    steps: dict[int, Line] = field(default_factory=dict)
    checks: dict[str, bool] = field(default_factory=dict)
    passes: int = 0
    has_failed_pass: bool = False
    trial_since_proposal: Trial | None = None
    _trial_index: int = -1

    @property
    def fitted_items(self) -> set[str]:
        """Tags of the parts that stayed in after a clean trial, or because somebody said so."""
        trials = [f.what for f in self.findings if isinstance(f.what, Trial) and not f.is_struck]
        return {c.item for t in trials for c in t.changes if c.item and (c.stays or t.result is TrialResult.CLEAN)}

    @property
    def standing_numbers(self) -> set[int]:
        """Numbers of the findings and parts that are not struck."""
        return {int(f.id) for f in self.findings if not f.is_struck} | set(self.parts)


def fold(lines: Iterable[Line]) -> Record:
    """Return the record of a tape. Lines come in order of their number."""
    record = Record(lines=tuple(lines))
    for line in record.lines:
        if line.kind == "strike":
            record.strikes[line.body["line"]] = line
        elif line.kind == "restore":
            record.strikes.pop(line.body["line"], None)
    for line in record.lines:
        _FOLDS.get(line.kind, _skip)(record, line)
    return record


def _skip(record: Record, line: Line) -> None:
    """Leave the record as it is: the line is there to be read."""


def _finding(record: Record, line: Line) -> None:
    what = read_what(line.kind, line.body, f"/tape/{line.number}")
    is_struck = line.number in record.strikes
    record.findings.append(Finding(str(line.number), what, is_struck))
    if isinstance(what, Trial) and not is_struck:
        record.trial_since_proposal, record._trial_index = what, len(record.findings) - 1
        record.checks, record.passes, record.has_failed_pass = {}, 0, False


def _part(record: Record, line: Line) -> None:
    if line.number not in record.strikes:
        record.parts[line.number] = line
        if line.body.get("taking"):
            record.takings[line.body["taking"]] = line


def _drive(record: Record, line: Line) -> None:
    record.looks.update(line.body["looks"])


def _proposal(record: Record, line: Line) -> None:
    body = line.body
    record.proposal = Proposal(body["repair"], body["name"], body["total_cents"], body["p_success"], body.get("is_advised", False), line.number)
    record.steps, record.checks, record.passes, record.has_failed_pass, record.trial_since_proposal = {}, {}, 0, False, None


def _stage(record: Record, line: Line) -> None:
    if line.body["to"] == "repair" and line.body["from"] == "agree":
        record.repair_depth = Depth(line.body["depth"])


def _step(record: Record, line: Line) -> None:
    if line.body["is_done"]:
        record.steps[line.body["step"]] = line
    else:
        record.steps.pop(line.body["step"], None)


def _check(record: Record, line: Line) -> None:
    record.checks[line.body["check"]] = line.body["is_passed"]
    if not line.body["is_passed"]:
        _not_cured(record)


def _pass(record: Record, line: Line) -> None:
    if not line.body["is_clean"]:
        record.passes = 0
        record.has_failed_pass = True
        _not_cured(record)
        return
    record.passes += 1
    _amend_trial(record, TrialResult.CLEAN)


def _not_cured(record: Record) -> None:
    """A failure in the proof takes the clean trial back: it was luck, or another fault."""
    record.passes = 0
    _amend_trial(record, TrialResult.NO_CHANGE)


def _amend_trial(record: Record, result: TrialResult) -> None:
    trial = record.trial_since_proposal
    if trial is None or trial.result is not TrialResult.CLEAN:
        return
    first = record.findings[record._trial_index]
    amended = replace(trial, result=result, clean_passes=trial.clean_passes + (1 if result is TrialResult.CLEAN else 0))
    record.trial_since_proposal = amended
    record.findings[record._trial_index] = replace(first, what=amended)


_FOLDS = {
    "answer": _finding,
    "trial": _finding,
    "remark": _finding,
    "part": _part,
    "drive": _drive,
    "proposal": _proposal,
    "consent": lambda record, line: record.consents.append(line),
    "stage": _stage,
    "step": _step,
    "check": _check,
    "pass": _pass,
}
