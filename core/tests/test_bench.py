"""Proof, fuse, stages, procedures: tables of cases."""

from contextlib import nullcontext

import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.bench.fuse import check_replacement
from spindle.bench.proof import proof_profile
from spindle.diagnosis.belief.ending import MAX_PASSES, MIN_PASSES, passes_needed
from spindle.drives.fuse import Fuse, parse_fuse
from spindle.errors import RefusedError, SheetError
from spindle.faults.cautions import CAUTIONS
from spindle.faults.library import MODELS
from spindle.job.stages import ORDER, JobFacts, Stage, following, may_return, missing
from spindle.repairs.procedure import steps_from
from spindle.repairs.procedures import procedure_for
from spindle.words.bench import Depth, Mains

from .conftest import PAIRED

PROBABILITY = st.floats(0.01, 0.99)


@given(p=PROBABILITY, q=PROBABILITY, confidence=st.floats(0.5, 0.99))
def test_passes_are_just_enough_by_bayes(p, q, confidence):
    def sure(n):
        return p / (p + (1 - p) * (1 - q) ** n)

    n = passes_needed(sure, confidence)
    assert sure(n) >= confidence - 1e-9 or n == MAX_PASSES
    assert sure(n - 1) < confidence or n == MIN_PASSES


def test_proof_repeats_the_jobs_own_failures_first_and_every_supported_class():
    checks = proof_profile(PAIRED, MODELS["slot"], ("spins", "game_bd"))
    assert [c.question for c in checks[:3]] == ["", "spins", "game_bd"]  # a cold start before the power is on
    assert {"class_film_bd", "class_film_dvd", "eject_loaded", "eject_empty"} <= {c.id for c in checks}
    assert not {"class_game_bd", "class_music_cd"} & {c.id for c in checks}


@pytest.mark.parametrize(
    ("text", "rated_a", "speed"),
    [
        ("1.5 A fast", 1.5, "fast"),
        ("500 mA slow", 0.5, "slow"),
        ("0,5 A medium", 0.5, "medium"),
        ("2A very fast", 2, "very fast"),
        ("T0.5A", 0.5, "slow"),
        ("F500mAL", 0.5, "fast"),
        ("TT 1", 1, "very slow"),
        ("M1.25A", 1.25, "medium"),
    ],
)
@pytest.mark.parametrize(("suffix", "rated_v"), [("", 0), (" 250V", 250), (", 32 V", 32)])
def test_a_fuse_is_read_as_it_is_said_and_as_it_is_printed(text, rated_a, speed, suffix, rated_v):
    assert parse_fuse(text + suffix) == Fuse(rated_a, speed, rated_v)


@pytest.mark.parametrize("text", ["", "1.5", "fast", "-1 A fast", "1.5 A brisk", "1.5 V fast", "0 A fast", "X0.5A", "T", "T0.5A V", "T0.5A250V250V", "T1250V"])
def test_fuse_rating_that_cannot_be_read_says_so(text):
    with pytest.raises(SheetError, match=r"1\.5 A fast"):
        parse_fuse(text)


@pytest.mark.parametrize(
    ("stage", "facts", "codes"),
    [
        (Stage.TAKEN_IN, JobFacts(), {"complaint", "limit", "contact", "supply"}),
        (Stage.TAKEN_IN, JobFacts(True, ("seal",), True, True, True), {"condition"}),
        (Stage.FAULT_SEEN, JobFacts(classes_to_try=("game_bd",), seen_at_least=("spins",)), {"baseline", "classes"}),
        (Stage.FAULT_SEEN, JobFacts(answered=frozenset({"spins", "ejects"}), seen_at_least=("spins",)), set()),
        (Stage.ISOLATE, JobFacts(), {"findings", "proposal"}),
        (Stage.ISOLATE, JobFacts(top_part_p=0.7, proposed_repair="clean_lens"), set()),
        (Stage.ISOLATE, JobFacts(top_part_p=0.3, proposed_repair="clean_lens"), {"findings"}),
        (Stage.ISOLATE, JobFacts(top_part_p=0.3, proposed_repair="clean_lens", is_advised=True), set()),
        (Stage.AGREE, JobFacts(proposed_cents=6000, agreed_cents=4500), {"consent"}),
        (Stage.AGREE, JobFacts(proposed_cents=4000, agreed_cents=4500, needs_consent="stopgap"), {"consent_kind"}),
        (Stage.PROVE, JobFacts(failed_checks=("x",), depth=1), {"closed", "failed"}),
        (Stage.PROVE, JobFacts(ends_unrepaired=True), set()),
        (Stage.PROVE, JobFacts(ends_unrepaired=True, is_live=True), {"mains"}),
        (Stage.PROVE, JobFacts(has_trial=True, passes=3, passes_needed=3), {"trial_clean"}),
        (Stage.PROVE, JobFacts(has_trial=True, trial_is_clean=True, passes=3, passes_needed=3), set()),
        (Stage.HAND_BACK, JobFacts(is_live=True), {"mains", "collected"}),
        (Stage.HAND_BACK, JobFacts(is_collected=True), set()),
        (Stage.CLOSED, JobFacts(), {"closed_job"}),
    ],
)
def test_a_stage_says_what_is_missing(stage, facts, codes):
    assert {m.code for m in missing(stage, facts)} == codes


def test_stages_run_in_order_and_go_back_only_before_they_close():
    assert [following(s) for s in ORDER] == [*ORDER[1:], Stage.CLOSED]
    assert may_return(Stage.PROVE, Stage.ISOLATE)
    assert not may_return(Stage.ISOLATE, Stage.PROVE)
    assert not may_return(Stage.CLOSED, Stage.REPAIR)


REPAIRS = [(family, repair) for family, model in MODELS.items() for repair in model.repairs]


@pytest.mark.parametrize(("family", "repair"), REPAIRS, ids=lambda x: getattr(x, "id", x))
def test_every_repair_has_a_procedure_whose_cautions_stand_at_the_step(family, repair):
    procedure = procedure_for(family, repair.id)
    steps = steps_from(procedure, Depth.CLOSED)
    assert procedure.depth == repair.depth
    assert procedure.proves
    assert {c for s in steps for c in s.cautions} <= CAUTIONS.keys()
    assert all("laser" in s.cautions or "mains" in s.cautions for s in steps if s.mains is Mains.LIVE)
    assert bool(procedure.alters_unit) == repair.stopgap


WORDS_OF_CARE = {"solder": ("heat", "solder ", "joint", "chip off"), "solvent": ("cleaner", "dry", "flux off"), "static": ("pickup",)}


@pytest.mark.parametrize(("caution", "words"), WORDS_OF_CARE.items())
def test_no_step_with_heat_solvent_or_bare_pickup_lacks_its_caution(caution, words):
    steps = [s for family, r in REPAIRS for s in procedure_for(family, r.id).steps]
    hot = [s for s in steps if s.mains is Mains.OUT and any(w in s.text.lower() for w in words)]
    bare = [s.text for s in hot if caution not in s.cautions and "?" not in s.text and "before heat" not in s.text]
    assert bare == []


def test_opening_steps_leave_out_what_is_open_already():
    procedure = procedure_for("slot", "replace_spindle_motor")
    assert [len(steps_from(procedure, d)) - len(procedure.steps) for d in Depth] == [5, 4, 3, 2]


@pytest.mark.parametrize(("fitted", "why"), [("F1.5A", "volts are not known"), ("F1.5A 32V", "fewer than"), ("F2A250V", "is more"), ("F1.5A 300V", "")])
def test_t26_where_the_sheet_gives_volts_a_fuse_gives_no_fewer(fitted, why):
    refused = pytest.raises(RefusedError, match=why) if why else nullcontext()
    with refused:
        check_replacement(fitted, "1.5 A fast 250 V")
