"""The words of a tape line, for people."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from apps.jobs.record import Line
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.faults.model import CANT_TELL
from spindle.job.stages import NAMES, Stage
from spindle.words.bench import Depth

DEPTH_NAMES = {Depth.CLOSED: "closed up", Depth.COVER_OFF: "cover off", Depth.DRIVE_OPEN: "drive open", Depth.DECK_OUT: "deck out"}
_HEALTHS = {"proven": "proven", "new": "new", "unknown": "doubtful"}
_RESULTS = {"no_change": "no change", "worse": "worse", "changed": "part of it changed", "clean": "works"}


_SETTINGS = {
    ("disc_side", "wrong"): ", disc the wrong way round",
    ("board", "other"): ", with another board fitted",
    ("cover", "off"): ", cover off",
    ("mains", "out"): ", mains out",
}


def line_text(line: Line, model: CompiledModel) -> str:
    """Return what a line says, in plain words."""
    return _TEXTS[line.kind](line.body, model)


def _answer(body: dict[str, Any], model: CompiledModel) -> str:
    question = model.family_questions[body["question"]]
    if body["outcome"] == CANT_TELL:
        return f"{question.ask} Can't tell"
    outcome = question.outcome(body["outcome"])
    text = outcome.line if outcome else body["outcome"]
    if body.get("tries"):
        text += f" ({body.get('failed', 0)} of {body['tries']} tries failed)"
    if body.get("seconds"):
        text += f" ({body['seconds']:g} s)"
    text += "".join(_SETTINGS.get((k, v), "") for k, v in body.get("setting", {}).items())
    return {"owner": f"Owner says: {text}", "remembered": f"Remembered: {text}"}.get(body["source"], text)


def _trial(body: dict[str, Any], model: CompiledModel) -> str:
    names = [_change(c, model) for c in body["changes"]]
    passes = f", {body['clean_passes']} passes" if body.get("clean_passes", 0) > 1 else ""
    return f"Tried: {' and '.join(names)}: {_RESULTS[body['result']]}{passes}"


def _change(change: dict[str, Any], model: CompiledModel) -> str:
    index = model.repair_index.get(change["repair"])
    if index is None:
        return str(change["repair"])
    repair = model.repairs[index]
    tag = f", {change['item']}" if change.get("item") else ""
    stays = ", stays in" if change.get("stays") else ""
    part = f" ({_HEALTHS[change['health']]} part{tag}{stays})" if repair.uses_item else ""
    return repair.name[0].lower() + repair.name[1:] + part


def _part(body: dict[str, Any], model: CompiledModel) -> str:
    repair = model.repairs[model.repair_index[body["repair"]]]
    if body.get("taking"):
        return f"Taken from the shelf: {body['item']} for “{repair.name.lower()}”, {_HEALTHS[body['health']]}"
    where = "at a donor" if body["is_donor"] else f"in {body['wait_days']:g} days" if body["wait_days"] else "here"
    known = "".join(f", {word} {', '.join(body[key])}" for key, word in (("works", "works:"), ("fails", "fails:")) if body.get(key))
    return f"Part {body['item'] or 'without a tag'} for “{repair.name.lower()}”: {where}, {_HEALTHS[body['health']]}{known}"


_CUSTODY = {
    "out": "Owner's {name} out, under tag {tag}: {place}",
    "back": "Owner's {name} {tag} back in its unit",
    "released": "Owner's {name} {tag} left here by {place}",
}


def _custody(body: dict[str, Any], _model: CompiledModel) -> str:
    return _CUSTODY[body["event"]].format(**{**body, "name": body["name"].lower()})


def _drive(body: dict[str, Any], _model: CompiledModel) -> str:
    seen = f"Looked at the drive: {len(body['looks'])} features" if body["looks"] else "Drive sheet"
    return seen + (f"; {body['from']} → {body['to']}" if body["from"] != body["to"] else f"; it stays {body['to']}")


def _euro(cents: int) -> str:
    return f"€{cents / 100:.2f}"


def _consent(body: dict[str, Any], _model: CompiledModel) -> str:
    said = f"agreed to {_euro(body['amount_cents'])}" if body["is_agreed"] else "did not agree"
    return f"{body['by_name']} {said}, {body['how']}"


def _proposal(body: dict[str, Any], _model: CompiledModel) -> str:
    return f"Proposed: {body['name']}, {_euro(body['total_cents'])}" if body["repair"] else "Proposed: hand it back as it is"


def _step(body: dict[str, Any], _model: CompiledModel) -> str:
    fuse = f" Fuse fitted: {body['fuse']}" if body.get("fuse") else ""
    return f"{'Done' if body['is_done'] else 'Not done after all'}: {body['text']}{fuse}"


_TEXTS: dict[str, Callable[[dict[str, Any], CompiledModel], str]] = {
    "answer": _answer,
    "trial": _trial,
    "remark": lambda body, _: str(body["text"]),
    "strike": lambda body, _: f"Struck line {body['line']}" + (f": {body['why']}" if body.get("why") else ""),
    "restore": lambda body, _: f"Line {body['line']} stands again",
    "mains": lambda body, _: "Mains live" if body["is_live"] else "Mains out",
    "depth": lambda body, _: f"Unit {DEPTH_NAMES[Depth(body['depth'])]}",
    "stage": lambda body, _: f"{NAMES[Stage(body['from'])]} → {NAMES[Stage(body['to'])]}" + (f": {body['why']}" if body.get("why") else ""),
    "proposal": _proposal,
    "consent": _consent,
    "step": _step,
    "check": lambda body, _: f"{'Passed' if body['is_passed'] else 'Failed'}: {body['title']}",
    "part": _part,
    "custody": _custody,
    "drive": _drive,
    "intake": lambda body, _: f"Noted at the counter: {', '.join(body['what'])}",
    "pass": lambda body, _: "Clean pass" if body["is_clean"] else "Pass failed",
}
