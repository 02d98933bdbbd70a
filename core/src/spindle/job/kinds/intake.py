"""What the counter wrote down, completed or put right for as long as the job is open. The tape keeps what stood before."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, fields, replace
from datetime import date
from types import MappingProxyType
from typing import Any, Final

from spindle.errors import InvalidError
from spindle.formats.case_file import write_what
from spindle.job.asking import NOTHING_CHANGES, OPEN, AskKind, Decision, LineKind, Needs, Speech, World
from spindle.job.line import Draft, Line
from spindle.job.prompts import check_condition, findings_of
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
        "is_covered": "covered by the guarantee",
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
    is_covered: bool | None = None
    is_promise_withdrawn: bool = False
    """Nothing is promised any more: an empty date alone would say that it stays as it is."""


def _decide(job: Job, ask: Amend, _world: World) -> Decision:
    told = {f.name: value for f in fields(ask) if f.name != "is_promise_withdrawn" and (value := getattr(ask, f.name)) is not None}
    if ask.is_promise_withdrawn:
        told["promised_on"] = None
    if ask.is_covered and not job.notes.returns:
        raise InvalidError("is_covered", "This unit is here for the first time: there is no guarantee to cover it.")
    if not told.get("owner_name", "x").strip():
        raise InvalidError("owner_name", "Whose unit is it? The name cannot be empty.")
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
    if name == "is_covered":
        return f"{'' if change['to'] else 'not '}{_NAMES[name]}"
    if name == "condition" or (change["from"] in (None, "") and name not in ("limit_cents", "promised_on")):
        return _NAMES[name]
    now, was = ("none" if x in (None, "") else money(x, speech.sign) if name == "limit_cents" else x for x in (change["to"], change["from"]))
    return f"{_NAMES[name]} {now} (was {was})"


KIND: Final = LineKind("intake", _says, _fold, (AskKind("amend", Amend, _decide, Needs(OPEN, Duty.TAKE_IN)),))
