"""How far the drive came: properties over random tapes of what is proposed, what is left out, and what is implied."""

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from spindle.diagnosis.belief.intermittence import clean_run_likelihood, share_intermittent
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.belief.striking import weights_of_evidence
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.given.case import Answer, Case, Finding, Weight
from spindle.diagnosis.given.case import Bench as State
from spindle.diagnosis.given.compiled import compile_model
from spindle.words.bench import Instrument, Mains, Reach

from .conftest import FAMILIES, LID, PAIRED, TRAY, Bench
from .test_posterior import answers

MODELS = {name: compile_model(sheet) for name, sheet in FAMILIES.items()}
NO_RULES = settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.data_too_large, HealthCheck.too_slow])


def left_out(words, sheet=PAIRED):
    return {f: reason.value for f, reason in Bench(words, sheet).found.belief.evidence.left_out.items()}


@pytest.mark.parametrize(
    ("words", "sheet", "reasons"),
    [
        ("takes_disc=ignores spins=never game_bd=fails lens_look=hazy", PAIRED, {"f1": "not_reached", "f2": "not_reached"}),
        ("game_bd=fails takes_disc=motor_only", PAIRED, {"f0": "not_reached"}),
        ("takes_disc=ignores@4/6 game_bd=fails", PAIRED, {}),
        ("takes_disc=ignores~owner game_bd=fails", PAIRED, {}),
        ("takes_disc=ignores film_dvd=reads game_bd=fails", PAIRED, {}),
        ("spins=never game_bd=fails", PAIRED, {"f1": "not_reached"}),
        ("spins=never takes_disc=ignores", PAIRED, {"f0": "not_reached"}),
        ("power=no takes_disc=ignores supply_reading=sags", PAIRED, {"f1": "unpowered"}),
        ("lid_starts=nothing spins=never", LID, {"f1": "not_reached"}),
        ("lid_starts=nothing lid_press=runs spins=never", LID, {}),
        ("tray_shuts=reopens music_cd=fails", TRAY, {"f1": "not_reached"}),
        ("takes_disc=takes clean_lens!no_change takes_disc=ignores spins=never", PAIRED, {"f3": "not_reached"}),
        ("takes_disc=ignores clean_switch_insert!changed takes_disc=takes spins=never", PAIRED, {"f0": "older_than_change"}),
    ],
)
def test_what_was_not_reached_is_left_out_with_its_reason(words, sheet, reasons):
    assert left_out(words, sheet) == reasons


@NO_RULES
@given(data=st.data(), family=st.sampled_from(list(MODELS)))
def test_nothing_is_proposed_that_cannot_be_done(data, family):
    model = MODELS[family]
    tape = tuple(Finding(f"f{n}", a) for n, a in enumerate(data.draw(answers(model))))
    held = data.draw(st.sampled_from(["", "Power is kept off."]))
    state = State(no_power=held, lacks=frozenset(data.draw(st.lists(st.sampled_from(Instrument), unique=True))))
    found = diagnose(Case(model.sheet, tape, bench=state), model)
    proposed = [model.questions[m.id] for m in found.advice.moves if m.kind == "ask"]
    far = found.belief.evidence.far
    assert not [q.id for q in proposed if held and (q.mains is Mains.LIVE or q.stage >= Reach.POWER)]
    assert not [m.id for m in found.advice.moves if m.kind == "repair" and model.repairs[model.repair_index[m.id]].instrument in state.lacks]
    assert not [q.id for q in proposed if q.instrument in state.lacks or (far.halted and q.stage >= far.halted)]
    assert not [q.id for q in proposed if q.stops and max(q.stops.values()) <= far.proven]
    assert not {m.id for m in found.advice.moves} & {b.id for b in found.advice.barred}
    assert all(b.why for b in found.advice.barred)


@NO_RULES
@given(data=st.data())
def test_striking_is_exact_whatever_else_it_brings_back(data):
    model = MODELS["slot"]
    tape = tuple(Finding(f"f{n}", a) for n, a in enumerate(data.draw(answers(model))))
    for finding, moved in weights_of_evidence(Case(PAIRED, tape), model, believe(tape, model)).items():
        assert moved.p_without == pytest.approx(believe(tuple(f for f in tape if f.id != finding), model).p, abs=1e-9)


@pytest.mark.parametrize(
    ("words", "more"), [("takes_disc=takes spins=holds", "game_bd=fails"), ("tray_shuts=stays", "film_dvd=fails"), ("lid_starts=starts", "music_cd=fails")]
)
def test_a_stage_that_was_passed_gains_no_suspicion(words, more):
    sheet = {"takes": PAIRED, "tray_": TRAY}.get(words[:5], LID)
    before, after = Bench(words, sheet), Bench(f"{words} {more}", sheet)
    assert all(after.p(f) <= before.p(f) for f in before.model.model.way_in if f in before.model.fault_index)


def test_one_silence_is_not_counted_five_times():
    one, many = (Bench(words).found for words in ("spins=never", "spins=never sled_sound=silent spin_helped=no nudges_out=no"))
    loading = ("switch_insert", "load_motor", "out_of_step", "rollers_unseated", "gear_train")
    share = [sum(s.p for s in found.suspects if s.id in loading) for found in (one, many)]
    assert share[1] < share[0] + 0.1


def test_what_was_read_leaves_loading_spinning_and_power_unasked():
    asked = {m.id for m in Bench("game_bd=reads").found.advice.moves}
    assert not asked & {"power", "wakes", "takes_disc", "spins"}


def test_an_open_case_file_says_its_bench():
    case = Case(PAIRED, (Finding("f", Answer("spins", "never")),), bench=State(lacks=frozenset({Instrument.LIGHT_METER})))
    assert [b.id for b in diagnose(case, MODELS["slot"]).advice.barred if "light meter" in b.why] == ["light_check"]


def test_tries_that_all_went_well_speak_against_what_comes_and_goes_and_nothing_else():
    model, share = MODELS["slot"], share_intermittent(MODELS["slot"])
    assert clean_run_likelihood(1, model) == pytest.approx(1.0)
    assert clean_run_likelihood(2, model) == pytest.approx(1 - share + share * 0.6)  # B(2, 4) / B(2, 3) = 3 / 5
    assert (clean_run_likelihood(9, model) <= clean_run_likelihood(3, model)).all()


def test_a_clean_run_leaves_what_was_said_of_repeats_its_weight():
    rows = Bench("repeats=always game_bd=reads@0/6").found.belief.rows
    assert np.ptp(rows["f0"]) > 0


@pytest.mark.parametrize(
    ("words", "says"),
    [
        ("", ""),
        ("takes_disc=takes spins=cycles", ""),
        ("takes_disc=takes spins=holds game_bd=reads", "Perhaps nothing is wrong"),
        ("takes_disc=takes spins=holds game_bd=reads film_bd=reads film_dvd=reads ejects=yes repeats=not_here", "Nothing is wrong here"),
    ],
)
def test_nothing_wrong_is_spoken_of_from_a_third_on(words, says):
    told = [n.text for n in Bench(words).found.notices if n.code == "nothing_wrong"]
    assert [t.startswith(says) for t in told] == ([True] if says else [])


@pytest.mark.parametrize(("share", "reason"), [(0.9, "not_reached"), (0.7, None)])
def test_a_doubtful_sound_puts_no_question_out_of_reach(share, reason):
    rest = (1.0 - share) / 3
    weights = tuple(Weight(o, share if o == "never" else rest) for o in ("holds", "cycles", "twitches", "never"))
    heard = Finding("f0", Answer("spins", "never", weights=weights))
    found = believe((heard, Finding("f1", Answer("game_bd", "fails"))), MODELS["slot"]).evidence.left_out.get("f1")
    assert (found.value if found else None) == reason
