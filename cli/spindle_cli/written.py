"""The command's answers as plain JSON values (``docs/formats/diagnosis.md``)."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from spindle.bench.tools.catalogue import TOOLS
from spindle.bench.tools.fields import Field
from spindle.bench.tools.told import Told
from spindle.diagnosis.explaining.advice import mind_holders, schools_beside
from spindle.diagnosis.explaining.diagnose import Diagnosis
from spindle.diagnosis.explaining.moves import Move, MoveKind
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.faults.cautions import CAUTIONS
from spindle.faults.library import MODELS
from spindle.faults.model import CANT_TELL, FaultModel, Question, QuestionKind
from spindle.sound.answers import HeardAnswer
from spindle.sound.listening import Heard

_TESTS = (QuestionKind.TEST, QuestionKind.READING)


def diagnosis_json(found: Diagnosis, model: CompiledModel) -> dict[str, Any]:
    """Return a diagnosis as JSON values: probabilities unrounded, weights in decibans, money in euro, time in minutes."""
    advice, schools = found.advice, schools_beside(found.outlook, found.belief, model)
    holders = mind_holders(found.without, found.outlook, model, advice.best_repair)
    return {
        "format": "tidy-spindle-diagnosis",
        "version": 1,
        "drive": model.sheet.variant,
        "family": model.sheet.family,
        "suspects": [{"fault": s.id, "part": s.part, "name": s.name, "p": s.p} for s in found.suspects],
        "parts": [{"part": s.id, "name": s.name, "p": s.p} for s in found.parts],
        "weights": [
            {"finding": w.finding, "parts_db": {p.part: p.db for p in w.parts}, "left_out": w.left_out.value if w.left_out else None} for w in found.weights
        ],
        "next_moves": [_move(m) for m in advice.moves],
        "barred": [asdict(b) for b in advice.barred],
        "either": advice.is_tie,
        "in_the_same_go": [{"id": x.id, "title": x.title, "bench_min": x.bench_min} for x in advice.same_go],
        "stop_and_think": advice.should_think,
        "held_back": advice.held_back or None,
        "best_repair": advice.best_repair or None,
        "would_change_my_mind": [
            {"question": c.question, "outcome": c.outcome, "chance": c.chance, "step_eur": c.step_eur, "next_repair": c.next_repair or None}
            for c in advice.mind_changes
        ],
        "schools": [{"school": s.id, "name": s.name, "expected_eur": s.expected_eur, "first": s.first or None} for s in schools],
        "rests_on": [{"finding": h.finding, "without_it": h.repair or None} for h in holders],
        "notices": [{"code": n.code, "text": n.text, "findings": list(n.findings)} for n in found.notices],
        "contradictions": [{"finding": c.finding, "p_false": c.p_false, "disagrees_with": list(c.disagrees_with)} for c in found.contradictions],
        "two_faults": asdict(found.two_faults) if found.two_faults else None,
        "signal_paths": [
            {"path": p.id, "title": p.title, "p": p.p, "links": [asdict(k) for k in p.links], "next_test": p.next_test or None, "splits": list(p.splits)}
            for p in found.paths
        ],
        "swaps": asdict(found.swaps),
        "items": [asdict(i) for i in found.items],
        "ending": asdict(found.ending),
    }


def _move(move: Move) -> dict[str, Any]:
    return {
        "kind": move.kind.value,
        "id": move.id,
        "title": move.title,
        "why": move.why,
        "expected_eur_at_most": move.expected_eur,
        "saves_eur": move.saves_eur,
        "step_eur": move.step_eur,
        "bench_min": move.bench_min,
        "opening_min": move.opening_min,
        "part_eur": move.part_eur,
        "wait_days": move.wait_days,
        "depth": move.depth.name.lower(),
        "mains": move.mains,
        "cautions": [CAUTIONS[c].text for c in move.cautions],
        **({"repair": move.repair, "item": move.item or None, "source": move.source or None} if move.repair else {}),
        **({"p_cures": move.p_cures, "p_lasts_year": move.p_lasts_year} if move.kind is MoveKind.REPAIR else {}),
        "answers": [
            {"outcome": a.outcome, "label": a.label, "chance": a.chance, "top_fault": a.top_fault, "top_p": a.top_p, "next_repair": a.next_repair or None}
            for a in move.answers
        ],
    }


def vocabulary_json() -> dict[str, Any]:
    """Return every word of every loader family with its id and a plain sentence."""
    return {"format": "tidy-spindle-vocabulary", "version": 1, "families": {name: _family(m) for name, m in MODELS.items()}}


def _family(model: FaultModel) -> dict[str, Any]:
    return {
        "parts": [{"id": p.id, "name": p.name} for p in model.parts],
        "faults": [{"id": f.id, "part": f.part, "sentence": f"{f.name}.", "why_this_prior": f.why, "prior": f.prior} for f in model.faults],
        "findings": [_question(q) for q in model.questions if q.kind not in _TESTS],
        "tests": [_question(q) for q in model.questions if q.kind in _TESTS],
        "repairs": [
            {
                "id": r.id,
                "part": r.part,
                "sentence": f"{r.name}: {r.why}.",
                "cures": dict(r.cures),
                "lasts_months": r.lasts_months,
                "fades": dict(r.fades),
                "bench_min": r.bench_min,
                "depth": r.depth.name.lower(),
                "stopgap": r.stopgap,
            }
            for r in model.repairs
        ],
    }


def _question(question: Question) -> dict[str, Any]:
    answers = [{"id": o.id, "sentence": f"{o.line}."} for o in question.outcomes]
    return {
        "id": question.id,
        "kind": question.kind.value,
        "sentence": question.ask,
        "how": question.how,
        "depth": question.depth.name.lower(),
        "mains": question.mains.value,
        "needs": question.needs or None,
        "answers": [*answers, {"id": CANT_TELL, "sentence": "Can't tell (logged, weighs nothing)."}],
    }


def told_json(tool: str, told: Told) -> dict[str, Any]:
    """Return a calculator's answer as JSON values."""
    return {
        "format": "tidy-spindle-measure",
        "version": 1,
        "tool": tool,
        "headline": told.headline,
        "verdict": told.verdict.name.lower() if told.verdict is not None else None,
        "reasons": [{"verdict": r.verdict.name.lower(), "text": r.text} for r in told.reasons],
        "numbers": [asdict(n) for n in told.numbers],
        "notes": list(told.notes),
        "cautions": [CAUTIONS[c].text for c in told.cautions],
        "may_power": told.may_power,
        "speaks": [{"question": s.question, "weights": dict(s.weights)} for s in told.speaks],
        "picture": dict(told.picture),
    }


def heard_json(heard: Heard, answers: Mapping[str, list[HeardAnswer]]) -> dict[str, Any]:
    """Return what is in a recording as JSON values: times in seconds, chances unrounded to three places; answers by family."""
    quality = heard.quality
    return {
        "format": "tidy-spindle-heard",
        "version": 1,
        "quality": {**asdict(quality), "grade": quality.grade.value, "reasons": list(quality.reasons)},
        "rates": dict(heard.rates),
        "events": [{"kind": e.kind.value, "start_s": e.start_s, "end_s": e.end_s, "p": round(e.p, 3), "measures": e.measures} for e in heard.events],
        "answers": {family: [_said(a) for a in said] for family, said in answers.items()},
    }


def _said(answer: HeardAnswer) -> dict[str, Any]:
    return {"question": answer.question, "outcome": answer.outcome or None, "sureness": answer.sureness.value, "why": answer.why}


def tools_json() -> dict[str, Any]:
    """Return what every calculator asks."""
    return {
        "format": "tidy-spindle-tools",
        "version": 1,
        "tools": [
            {"id": t.id, "title": t.title, "about": t.about, "questions": list(t.questions), "fields": [_asked(f) for f in t.fields]} for t in TOOLS.values()
        ],
    }


def _asked(field: Field) -> dict[str, Any]:
    return {
        "id": field.id,
        "name": field.name,
        "kind": field.kind,
        "quantity": field.quantity or None,
        "optional": field.optional,
        "choices": [c for c, _ in field.choices] or None,
        "hint": field.hint or None,
        "columns": [_asked(c) for c in field.columns] or None,
    }
