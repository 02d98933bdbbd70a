"""Why a move: the sentence that a technician would say."""

from __future__ import annotations

from collections.abc import Sequence
from heapq import nlargest

import numpy as np

from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.explaining.moves import AnswerPreview
from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.faults.model import Repair
from spindle.words.chances import percent

SELDOM = 0.01
"""An answer less likely than that is no reason to ask."""


def why_ask(previews: Sequence[AnswerPreview], weights: Floats, model: CompiledModel, best: str) -> str:
    """Say in a sentence what an answer would change: which repair would then come before the one that is best now (``best``, its id; "" for none).

    Where no answer changes that, the sentence says how far the two most telling ones would move their suspects; ``weights`` is P(fault), of shape (n_faults,).
    """
    after: dict[str, list[AnswerPreview]] = {}
    for preview in sorted(previews, key=lambda a: -a.chance):
        if preview.next_repair != best and preview.chance >= SELDOM:
            after.setdefault(preview.next_repair, []).append(preview)
    if not after:
        return f"No answer changes what would be repaired next{f': {_named(best, model)}' if best else ''}. {_moved(previews, weights, model)}"
    groups = sorted(after.items(), key=lambda g: -sum(a.chance for a in g[1]))
    said = [f"if {_either(answers)}, {_turn(repair, best, model)}" for repair, answers in groups[:2]]
    if len(groups) > 2:
        said.append("other answers change it too")
    elif sum(map(len, after.values())) < len(previews):
        said.append(f"else it stays {_named(best, model)}" if best else "else no repair pays yet")
    text = "; ".join(said)
    return f"{text[:1].upper()}{text[1:]}."


def _either(answers: Sequence[AnswerPreview]) -> str:
    shown = " or ".join(f"“{a.label}” ({percent(a.chance)})" for a in answers[:2])
    return shown if len(answers) < 3 else f"{shown} or {'another' if len(answers) == 3 else f'{len(answers) - 2} others'}"


def _turn(repair: str, best: str, model: CompiledModel) -> str:
    if not repair:
        return "no repair pays any more"
    return f"{_named(repair, model)} comes before {_named(best, model)}" if best else f"{_named(repair, model)} is the repair"


def _named(repair: str, model: CompiledModel) -> str:
    return f"“{model.repairs[model.repair_index[repair]].name}”"


def _moved(previews: Sequence[AnswerPreview], weights: Floats, model: CompiledModel) -> str:
    at = model.fault_index
    moved = nlargest(2, previews, key=lambda a: a.chance * abs(a.top_p - weights[at[a.top_fault]]))
    now = [(a, model.faults[at[a.top_fault]].name, float(weights[at[a.top_fault]])) for a in moved]
    return "; ".join(f"“{a.label}” ({percent(a.chance)}) takes “{name}” from {percent(p)} to {percent(a.top_p)}" for a, name, p in now) + "."


def why_repair(repair: Repair, weights: Floats, success: Floats, model: CompiledModel) -> str:
    """Say in a sentence what the repair would cure; ``weights`` is P(fault), ``success`` P(cured | fault), both of shape (n_faults,)."""
    share = weights * success
    top = [i for i in np.argsort(share)[::-1][:2] if share[i] >= 0.01]
    cured = " and ".join(f"“{model.faults[i].name}” ({percent(float(weights[i]))} likely)" for i in top) or "what little is left"
    return f"Cures {cured}: {percent(float(share.sum()))} in all. {repair.why[:1].upper()}{repair.why[1:]}."


def why_stop(belief: Belief, model: CompiledModel) -> str:
    """Say why going on does not pay."""
    top = int(belief.p.argmax())
    if model.sound[top]:
        return f"Nothing wrong shows here ({percent(float(belief.p[top]))}): what is not broken is not repaired."
    return f"Going on would cost more than it is likely to bring. Probable cause so far: “{model.faults[top].name}” ({percent(float(belief.p[top]))})."
