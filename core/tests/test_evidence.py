"""Evidence as benches produce it: counts, times, states, changes, shelves; and what is said beside the next move."""

import json
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from spindle.diagnosis.belief.contradictions import p_false
from spindle.diagnosis.belief.intermittence import Steadiness, count_likelihood
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.evidence.playtime import judge_time
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.explaining.moves import MoveKind
from spindle.diagnosis.given.case import Answer, Case, Change, Finding, Setting, Stock, Trial, TrialResult
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.economy import Economy
from spindle.diagnosis.planning.plan import plan_for
from spindle.drives.sheet import ReferenceTime
from spindle.errors import CaseError, SheetError
from spindle.faults.model import Claim
from spindle.formats.case_file import read_case, write_case
from spindle.learning.claims import Tried, count, register
from spindle.words.bench import Depth
from spindle.words.health import Health

from .conftest import FAMILIES, LID, PAIRED, RETRIES, TRAY, Bench, codes, p_of

MODEL = compile_model(PAIRED)
TIMED = replace(PAIRED, reference_times={"film_dvd": ReferenceTime(13, 1.3, 20)})


@given(tries=st.integers(1, 12))
def test_chances_of_all_counts_sum_to_one(tries):
    assert sum(count_likelihood(k, tries, MODEL) for k in range(tries + 1)) == pytest.approx(np.ones(len(MODEL.faults)))


@pytest.mark.parametrize(("count_", "rises"), [("3/6", "driver_joint"), ("6/6", "fuse_open")])
def test_a_count_speaks_for_faults_that_come_and_go_or_against_them(count_, rises):
    assert p_of(f"takes_disc=ignores@{count_}", rises) > p_of("takes_disc=ignores", rises)


def test_a_count_and_the_word_for_it_are_one_finding():
    counted = Bench(f"{RETRIES} game_bd=fails@3/6")
    both = Bench(f"{RETRIES} game_bd=fails@3/6 repeats=comes_and_goes")
    assert [s.p for s in both.found.suspects] == pytest.approx([s.p for s in counted.found.suspects])


@given(failed=st.integers(0, 6), passes=st.integers(1, 20))
def test_more_clean_passes_are_less_likely_while_the_fault_is_there(failed, passes):
    steady = Steadiness(np.array([0.0, 0.4, 1.0, 0.0]), np.array([0, 0, 0, 1.0]), failed, 6)
    assert (steady.p_clean(passes + 1) <= steady.p_clean(passes) + 1e-12).all()
    assert steady.p_clean(passes)[3] == pytest.approx(0.97**passes)
    assert (np.diff(steady.p_clean(passes)[:3]) >= -1e-12).all()


def test_a_fault_seen_rarely_wants_more_passes_and_a_dear_rest_is_probable():
    seen_often, seldom = (Bench(f"{RETRIES} game_bd=fails@{k}/6 clean_lens!clean*3").found.ending for k in (5, 1))
    assert seldom.passes_wanted > seen_often.passes_wanted
    bench = Bench(f"{RETRIES} game_bd=fails@1/6 clean_lens!clean*12")
    bench.case = replace(bench.case, economy=Economy(return_eur=1))
    assert bench.found.ending.verdict == "probable"


@pytest.mark.parametrize(("seconds", "word"), [(8, "usual"), (13, "usual"), (14.5, "usual"), (22, "slow"), (60, "slow")])
def test_a_time_is_judged_against_the_record(seconds, word):
    assert judge_time(seconds, TIMED.reference_times["film_dvd"]).says.endswith(word)


@pytest.mark.parametrize(("seconds", "like"), [(13, "reads"), (24, "slow")])
def test_a_time_outvotes_the_word(seconds, like):
    def p(**more):
        return diagnose(Case(TIMED, (Finding("f", Answer("film_dvd", **more)),)), compile_model(TIMED)).suspects[0].p

    assert p(outcome="slow" if like == "reads" else "reads", seconds=seconds) == pytest.approx(p(outcome=like), abs=0.03)


@pytest.mark.parametrize(
    ("answer", "reason"),
    [
        (Answer("spins", "never", setting=Setting(mains="out")), "wrong_state"),
        (Answer("fuse_test", "open", setting=Setting(cover="on")), "wrong_state"),
        (Answer("spins", "never", setting=Setting(disc_side="wrong")), "disc_wrong_way"),
        (Answer("game_bd", "fails", setting=Setting(board="other")), "unpaired_board"),
        (Answer("fuse_test", "open", setting=Setting(mains="out", cover="off", board="own")), None),
    ],
)
def test_what_was_seen_in_the_wrong_state_is_left_out_whole(answer, reason):
    found = diagnose(Case(PAIRED, (Finding("f", answer),)), MODEL)
    assert found.weights[0].left_out == reason
    assert (believe((Finding("f", answer),), MODEL).p == pytest.approx(MODEL.prior)) == (reason is not None)


def test_a_dead_console_says_nothing_about_its_drive():
    dead = Bench("spins=never takes_disc=ignores power=no fuse_test=closed")
    assert [w.left_out for w in dead.found.weights] == ["unpowered", "unpowered", None, None]


@pytest.mark.parametrize(
    ("answer", "says"),
    [(Answer("spins", "never", tries=4, failed=0), "none of 4 tries failed"), (Answer("spins", "never", seconds=12.0), "belongs to a disc class")],
)
def test_numbers_that_do_not_fit_their_answer_are_named(answer, says):
    with pytest.raises(CaseError, match=says):
        believe((Finding("f", answer),), MODEL)


def test_the_slip_is_found_named_and_struck_in_peace():
    words = "takes_disc=takes spins=holds game_bd=reads film_bd=reads film_dvd=reads later_data=stutters sled_slide=stiff fuse_test=open"
    bench = Bench(words)
    first = bench.found.contradictions[0]
    assert bench.case.findings[int(first.finding[1:])].what.question == "fuse_test"
    assert "check_again" in codes(bench)
    assert not Bench(words.removesuffix(" fuse_test=open")).found.contradictions
    assert max(p_false(believe(bench.case.findings, MODEL), MODEL).values()) == pytest.approx(first.p_false)


TWO = [
    (
        "takes_disc=hesitates ejects=slow roller_look=glazed spins=cycles game_bd=fails film_bd=fails film_dvd=reads light_check=weak",
        PAIRED,
        {"rollers_glazed", "pickup_405"},
    ),
    ("tray_opens_empty=motor_only belt_look=tired belt_pull=slips spins=cycles game_dvd=fails lens_look=hazy", TRAY, {"belt_slack", "lens_dirty"}),
    (RETRIES, PAIRED, None),
]


@pytest.mark.parametrize(("words", "sheet", "pair"), TWO)
def test_two_faults_are_said_when_one_does_not_explain_it(words, sheet, pair):
    found = Bench(words, sheet).found.two_faults
    assert (found and {found.one, found.other}) == pair


def test_the_stop_loss_counts_three_more_tries_against_the_whole_drive():
    bench = Bench(RETRIES, depth=Depth.DRIVE_OPEN)
    bench.case = replace(bench.case, stock=(Stock("replace_drive", "D", Health.PROVEN),))
    assert "stop_loss" in codes(bench)


def stocked(*stock, words=RETRIES, **economy):
    bench = Bench(words, depth=Depth.DRIVE_OPEN)
    bench.case = replace(bench.case, stock=stock, economy=Economy(**economy))
    return {m.id: m for m in bench.found.advice.moves}


def test_a_part_at_hand_costs_its_own_price_and_no_wait():
    ordered, here = stocked()["replace_pickup"], stocked(Stock("replace_pickup", "P-4", Health.NEW, price_eur=10))["replace_pickup"]
    assert ordered.step_eur - here.step_eur == pytest.approx(14 + 6 * 1.2)
    assert (here.item, here.source) == ("P-4", "shelf")


@pytest.mark.parametrize(("more", "source"), [({"wait_days": 2}, "transit"), ({"fails": frozenset({"reads"})}, "")])
def test_what_is_on_its_way_is_used_and_what_is_known_to_fail_is_not(more, source):
    assert stocked(Stock("replace_pickup", "T", **more))["replace_pickup"].source == source


def test_days_past_the_promise_cost_more():
    soon, late = (stocked(promise_days=d)["replace_pickup"].step_eur for d in (30, 1))
    assert late - soon == pytest.approx(5 * 3.0)


def test_a_donor_can_be_tried_and_the_swap_table_proposes_it():
    donor = Stock("replace_pickup", "D-1", Health.PROVEN, is_donor=True)
    move = stocked(donor)["swap:replace_pickup:D-1"]
    assert (move.kind, move.repair, sum(a.chance for a in move.answers)) == (MoveKind.SWAP, "replace_pickup", pytest.approx(1))
    bench = Bench(f"{RETRIES} replace_pickup:D-0:unknown!no_change")
    bench.case = replace(bench.case, stock=(donor,))
    table = bench.found.swaps
    assert (table.next_item, table.rows[0].goes_back, table.rows[0].item) == ("D-1", True, "D-0")
    assert 0.0 < table.bits < 1.0
    assert table.minutes > 20.0
    assert table.rows[0].p_bad == pytest.approx(0.35, abs=1e-3)


@pytest.mark.parametrize("sheet", FAMILIES.values(), ids=list(FAMILIES))
def test_every_path_has_open_links_a_halving_test_and_no_part_that_the_drive_lacks(sheet):
    for path in Bench("", sheet).found.paths:
        assert {k.state for k in path.links} == {"open"}
        assert path.next_test
        assert sum(path.splits) == pytest.approx(1)
    fuse_less = Bench("", replace(sheet, fuse_rating="")).found.paths
    assert "fuse" not in {k.id for p in fuse_less for k in p.links}


@pytest.mark.parametrize(
    ("words", "sheet", "path", "states"),
    [
        ("takes_disc=ignores fuse_test=open", PAIRED, "takes", {"fuse": "fail"}),
        ("takes_disc=ignores board_supply=in_band flex_board_look=seated", PAIRED, "takes", {"supply": "pass", "flex_board": "pass"}),
        ("lid_starts=nothing switch_line=closes actuator_look=reaches", LID, "takes", {"switch_lid": "pass", "lid": "pass"}),
    ],
)
def test_links_pass_and_fail_by_their_tests(words, sheet, path, states):
    links = {k.id: k.state for p in Bench(words, sheet).found.paths if p.id == path for k in p.links}
    assert {k: links[k] for k in states} == states


def test_a_restart_keeps_intake_and_drops_looks_at_what_was_changed():
    found = Bench("opened_before=opened lens_look=hazy fuse_test=closed spins=cycles clean_lens!changed").found
    assert [w.left_out for w in found.weights] == [None, "older_than_change", None, "older_than_change", None]


KNOWN = st.sampled_from([frozenset(), frozenset({"reads"})])
ITEM = {"works": KNOWN, "lot": st.sampled_from(["", "L"]), "stays": st.booleans()}
ITEMS = st.builds(Change, st.just("replace_pickup"), st.sampled_from(["", "P"]), st.sampled_from(list(Health)), **ITEM)
SETTINGS = st.builds(Setting, cover=st.sampled_from(["", "on"]), disc_side=st.sampled_from(["", "right"]))
COUNTS = {"tries": st.sampled_from([None, 4]), "seconds": st.sampled_from([None, 12.5])}
ANSWERS = st.builds(Answer, st.just("film_dvd"), st.sampled_from(["reads", "slow"]), setting=SETTINGS, **COUNTS)
STOCK = st.builds(Stock, st.just("replace_belt"), st.text("ABC-1", max_size=5), wait_days=st.floats(0, 9), is_donor=st.booleans())


@given(what=st.lists(st.one_of(ANSWERS, st.builds(Trial, st.tuples(ITEMS), st.sampled_from(list(TrialResult)))), max_size=4), stock=st.lists(STOCK, max_size=2))
def test_a_case_with_everything_in_it_reads_back_as_it_was_written(what, stock):
    sheet = replace(TRAY, reference_times=TIMED.reference_times, label_faces={"flat": "up"}, motor_soldered=True, spins_first=True)
    case = Case(sheet, tuple(Finding(str(n), w) for n, w in enumerate(what)), economy=Economy(promise_days=3), stock=tuple(stock))
    assert read_case(json.loads(json.dumps(write_case(case)))) == case


@pytest.mark.parametrize(
    ("more", "place"),
    [
        ({"lid_switches": 3}, "/lid_switches"),
        ({"reference_times": {"game_cd": ReferenceTime(9, 1)}}, "/reference_times/game_cd"),
        ({"reference_times": {"film_dvd": ReferenceTime(9, 0)}}, "/reference_times/film_dvd"),
    ],
)
def test_a_sheet_that_contradicts_itself_says_where(more, place):
    with pytest.raises(SheetError, match=place):
        replace(PAIRED, **more)


RULE = Claim("c", "It helps.", "clean_lens", 0.25)


@pytest.mark.parametrize(
    ("limit", "clean", "rest", "verdict"),
    [(0.25, 6, 0, "holds"), (0.25, 0, 12, "does not hold"), (0.25, 1, 1, "too little to say"), (-0.1, 0, 25, "holds"), (-0.1, 6, 2, "does not hold")],
)
def test_a_claim_holds_by_its_counts(limit, clean, rest, verdict):
    trials = [Tried("V", "clean_lens", n < clean) for n in range(clean + rest)]
    found = count(replace(RULE, helps_at_least=limit), "V", trials)
    assert found.verdict == verdict
    assert (found.n_for, found.n_against) == ((clean, rest) if limit > 0 else (rest, clean))


def test_the_register_counts_each_trial_for_its_own_family_and_repair():
    found = register([MODEL.model], [Tried("V", "clean_lens", True), Tried("W", "clean_lens", True), Tried("V", "pray", True)], {"V": "slot", "W": "tray"})
    counted = {e.claim.id: e.counts for e in found if e.counts}
    assert {k: [(c.variant, c.n_for + c.n_against) for c in v] for k, v in counted.items()} == {
        "cleaning_helps": [("V", 1)],
        "cleaning_never_helps": [("V", 1)],
    }


def test_motors_that_are_soldered_take_longer():
    plain, soldered = (plan_for(compile_model(replace(PAIRED, motor_soldered=on)), Economy()).problem.cost[0] for on in (False, True))
    assert soldered[MODEL.repair_index["replace_spindle_motor"]] - plain[MODEL.repair_index["replace_spindle_motor"]] == pytest.approx(0.6 * 12)


@pytest.mark.parametrize(("seconds", "n"), [(14.0, 12), (21.0, 12), (9.0, 12), (25.2, 4), (400.0, 12), (0.5, 12)])
def test_a_time_to_play_is_weighed_between_a_usual_and_a_slow_start(seconds, n):
    found, more = judge_time(seconds, ReferenceTime(14.0, 1.0, n)), math.sqrt(1 + 1 / n)
    x, spread = math.log(seconds / 14), max(more / 14, 0.05)
    usual = math.exp(-0.5 * (x / spread) ** 2 * (0.25 if x < 0 else 1)) / spread
    slow = math.exp(-0.5 * ((x - math.log(1.8)) / 0.45) ** 2) / 0.45
    assert (found.ratio, found.z) == (pytest.approx(seconds / 14), pytest.approx((seconds - 14) / more))
    assert found.p_usual == pytest.approx(usual / (usual + slow), abs=1e-12)
