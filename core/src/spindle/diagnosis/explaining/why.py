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


def why_ask(previews: Sequence[AnswerPreview], weights: Floats, model: CompiledModel) -> str:
    """Say in a sentence what the likeliest decisive answers would do; ``weights`` is P(fault), of shape (n_faults,)."""
    at = model.fault_index
    moved = nlargest(2, previews, key=lambda a: a.chance * abs(a.top_p - weights[at[a.top_fault]]))
    now = [(a, model.faults[at[a.top_fault]].name, float(weights[at[a.top_fault]])) for a in moved]
    said = [f"“{a.label}” ({percent(a.chance)}) takes “{name}” from {percent(p)} to {percent(a.top_p)}" for a, name, p in now]
    return "; ".join(said) + "."


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
