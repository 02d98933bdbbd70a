"""What the counter wrote down, completed or put right while the unit is only taken in. The tape keeps what stood before."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from datetime import date
from types import MappingProxyType
from typing import Any, Final

from spindle.formats.case_file import write_what
from spindle.job.asking import NOTHING_CHANGES, AskKind, Decision, LineKind, Needs, Speech, World
from spindle.job.line import Draft, Line
from spindle.job.prompts import check_condition, findings_of
from spindle.job.stages import Stage
from spindle.job.value import Job
from spindle.words.bounds import Cents, LongText, Short, Word
from spindle.words.duty import Duty
from spindle.words.money import money

_NAMES: Final = MappingProxyType(
    {
        "owner_name": "owner",
        "owner_contact": "how to reach the owner",
        "complaint": "complaint",
        "supply": "supply",
        "limit_cents": "spending limit",
        "promised_on": "promise",
        "condition": "condition",
    }
)


@dataclass(frozen=True, slots=True)
class Amend:
    """What the counter adds or puts right; what is left out stays as it is."""

    owner_name: Short | None = None
    owner_contact: Short | None = None
    complaint: LongText | None = None
    supply: Short | None = None
    limit_cents: Cents | None = None
    promised_on: date | None = None
    condition: Mapping[Word, Word] | None = None


def _decide(job: Job, ask: Amend, _world: World) -> Decision:
    told = {f.name: value for f in fields(ask) if (value := getattr(ask, f.name)) is not None}
    check_condition(told.get("condition", {}))
    if "condition" in told:
        told["condition"] = {**job.notes.condition, **told["condition"]}
    changes = {n: {"from": _plain(getattr(job.notes, n)), "to": _plain(v)} for n, v in told.items() if v != getattr(job.notes, n)}
    if not changes:
        return NOTHING_CHANGES
    before = {a.question: a for a in findings_of(job.notes.condition)}
    answers = [a for a in findings_of(told.get("condition", {})) if before.get(a.question) != a and a.question in job.model.family_questions]
    return Decision((Draft("intake", {"changes": changes}), *(Draft("answer", write_what(a)) for a in answers)))


def _plain(value: object) -> object:
    return value.isoformat() if isinstance(value, date) else dict(value) if isinstance(value, Mapping) else value


def _fold(job: Job, line: Line) -> Job:
    changes = {name: change["to"] for name, change in line.body.get("changes", {}).items()}
    if changes.get("promised_on"):
        changes["promised_on"] = date.fromisoformat(changes["promised_on"])
    return replace(job, notes=replace(job.notes, **changes))


def _says(body: Mapping[str, Any], speech: Speech) -> str:
    if "what" in body:  # lines of before the tape kept what stood there
        return f"Noted at the counter: {', '.join(body['what'])}"
    return f"Noted at the counter: {'; '.join(_said(name, c, speech) for name, c in body['changes'].items())}"


def _said(name: str, change: Mapping[str, Any], speech: Speech) -> str:
    if name == "condition" or change["from"] in (None, ""):
        return _NAMES[name]
    now, was = (money(x, speech.sign) if name == "limit_cents" else x for x in (change["to"], change["from"]))
    return f"{_NAMES[name]} {now} (was {was})"


KIND: Final = LineKind("intake", _says, _fold, (AskKind("amend", Amend, _decide, Needs(frozenset({Stage.TAKEN_IN}), Duty.TAKE_IN)),))
