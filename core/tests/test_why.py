"""Why a look: which repair would come first after its answers."""

import numpy as np
import pytest
from spindle.diagnosis.explaining.moves import AnswerPreview, MoveKind
from spindle.diagnosis.explaining.why import why_ask
from spindle.diagnosis.given.compiled import compile_model

from .conftest import PAIRED, RETRIES, Bench

WHY = compile_model(PAIRED)


def preview(label, chance, then):
    return AnswerPreview(label.lower(), label, chance, "lens_dirty", 0.5, then)


LENS, PICKUP, FLEX = "“Clean the lens”", "“Replace the bare pickup”", "“Reseat the pickup flex”"
YES_CLEANS = ("Yes", 0.7, "clean_lens")
CLEANS = [("A", 0.3, "clean_lens"), ("B", 0.3, "clean_lens"), ("C", 0.2, "clean_lens"), ("D", 0.2, "")]
THREE = [("A", 0.2, "clean_lens"), ("B", 0.5, "reseat_flex_pickup"), ("C", 0.3, "")]
SAME = [("Yes", 0.995, "clean_lens"), ("No", 0.005, "replace_pickup")]
CASES = [
    ([YES_CLEANS, ("No", 0.3, "replace_pickup")], "replace_pickup", f"If “Yes” (70%), {LENS} comes before {PICKUP}; else it stays {PICKUP}."),
    ([YES_CLEANS, ("No", 0.3, "")], "", f"If “Yes” (70%), {LENS} is the repair; else no repair pays yet."),
    ([("Yes", 0.7, ""), ("No", 0.3, "clean_lens")], "clean_lens", f"If “Yes” (70%), no repair pays any more; else it stays {LENS}."),
    (CLEANS, "", f"If “A” (30%) or “B” (30%) or another, {LENS} is the repair; else no repair pays yet."),
    (THREE, "replace_pickup", f"If “B” (50%), {FLEX} comes before {PICKUP}; if “C” (30%), no repair pays any more; other answers change it too."),
    (SAME, "clean_lens", f"No answer changes what would be repaired next: {LENS}. “Yes” (>99%) takes “Lens dirty or hazy” from 10% to 50%"),
]


@pytest.mark.parametrize(("answers", "best", "says"), CASES)
def test_why_says_what_an_answer_would_change(answers, best, says):
    weights = np.full(len(WHY.faults), 0.1)
    assert why_ask([preview(*a) for a in answers], weights, WHY, best).startswith(says)


def test_why_on_a_bench_names_the_best_repair_of_each_answer_as_its_previews_do():
    for words in (RETRIES, "spins=never", "takes_disc=ignores wakes=no"):
        for move in Bench(words).found.advice.moves:
            if move.kind is MoveKind.ASK and not move.why.startswith("No answer"):
                likeliest = max((a for a in move.answers if f"“{a.label}”" in move.why), key=lambda a: a.chance)
                named = Bench(words).model.repairs[WHY.repair_index[likeliest.next_repair]].name if likeliest.next_repair else "no repair pays"
                assert named in move.why


@pytest.mark.parametrize(("said", "repair"), [("level_reading=high", "raise_drive"), ("original_board=gone", "refit_own_board")])
def test_what_an_answer_speaks_against_is_not_offered_and_says_that_answers_own_reason(said, repair):
    found, model = Bench(said).found, Bench(said).model
    why = model.repairs[model.repair_index[repair]].blocked_why
    assert repair not in {m.id for m in found.advice.moves}
    assert [why in n.text for n in found.notices if n.code == "not_offered"] == [True]
