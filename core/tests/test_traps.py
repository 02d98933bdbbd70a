"""Every trap of diagnosis by its number, on the loader family where it bites."""

import pytest
from spindle.bench.fuse import check_replacement
from spindle.diagnosis.belief.likelihood import unreliability
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.explaining.moves import MoveKind
from spindle.diagnosis.given.case import Answer, Case, Change, Finding, Trial, TrialResult
from spindle.errors import RefusedError
from spindle.job.stages import JobFacts, Stage, missing
from spindle.words.bench import Depth
from spindle.words.health import Health
from spindle.words.witness import Witness

from .conftest import FAMILIES, FREE, LID, PAIRED, RETRIES, TRAY, Bench, codes, p_of


@pytest.mark.parametrize("before", ["", RETRIES, "takes_disc=ignores spins=never ejects=no"])
def test_t1_unreadable_on_screen_moves_nothing_by_more_than_one_decibel(before):
    found = Bench(f"{before} screen_message=unreadable").found
    assert all(abs(p.db) <= 1.0 for p in found.weights[-1].parts if p.part != "nothing")


def test_t2_the_retry_routine_favours_pickup_lens_and_flex_without_proving_one():
    found = Bench(RETRIES).found
    assert {s.part for s in found.suspects[:3]} == {"pickup", "lens", "flex_pickup"}
    assert found.parts[0].p < 0.8
    assert p_of(RETRIES, "part:load") < 0.02


@pytest.mark.parametrize(
    ("words", "parts"),
    [
        ("takes_disc=takes spins=never sled_sound=silent lens_seek=still ejects=no", {"fuse", "flex_board", "switch_home", "driver", "mechanism"}),
        ("takes_disc=takes spins=never lens_seek=searches sled_sound=seeks", {"pickup", "lens", "spindle"}),
        ("takes_disc=takes spins=never sled_sound=hammers", {"driver", "flex_pickup"}),
    ],
    ids=["nothing moves", "lens and sled move", "sled hammers"],
)
def test_t3_no_spin_is_split_by_what_else_moves(words, parts):
    found = Bench(words).found
    assert found.parts[0].id in parts
    assert p_of(words, "spindle_motor") < 0.4


def test_t4_pressing_the_board_points_at_joint_chip_and_flexes_together():
    before, after = p_of(RETRIES, "part:driver"), Bench(f"{RETRIES} press_board=reads")
    assert after.p("part:driver") > 4 * before
    assert after.p("driver_joint") < 0.6


def test_t4_a_reflow_that_makes_it_worse_speaks_for_the_chip():
    same, worse = (Bench(f"{RETRIES} press_board=reads reflow_driver!{r}") for r in ("no_change", "worse"))
    assert worse.p("driver_chip") > 3 * same.p("driver_chip")
    assert worse.p("driver_chip") > worse.p("driver_joint")


@pytest.mark.parametrize("look", ["tidy", "dusty"])
def test_t10_a_tidy_inside_condemns_nothing_and_a_dusty_one_acquits_nothing(look):
    found = Bench(f"{RETRIES} inside_look={look}").found
    assert all(abs(p.db) < 1.5 for p in found.weights[-1].parts if p.part in {"pickup", "lens"})


@pytest.mark.parametrize("outcome", ["reads", "slow", "fails"])
def test_t13_a_class_the_model_never_supported_moves_nothing(outcome):
    assert [s.p for s in Bench(f"{RETRIES} music_cd={outcome}").found.suspects] == [s.p for s in Bench(RETRIES).found.suspects]
    assert Bench(f"music_cd={outcome}", FREE).found.weights[0].parts


def test_t19_the_owners_report_weighs_less_than_memory_and_memory_less_than_the_bench(model):
    gains = []
    for source in (Witness.OWNER, Witness.REMEMBERED, Witness.BENCH):
        found = diagnose(Case(PAIRED, (Finding("f", Answer("takes_disc", "ignores", source)),)), model)
        gains.append(next(p.db for p in found.weights[0].parts if p.part == "fuse"))
    assert gains == sorted(gains)
    assert gains[0] > 0


def test_t21_an_improvement_without_a_baseline_is_left_out():
    found = Bench("takes_disc=takes clean_lens!clean*5").found
    assert found.weights[-1].left_out == "no_baseline"
    assert found.p_cured == 0.0


def test_t21_one_success_of_an_intermittent_fault_is_no_cure():
    once, often, steady = (
        Bench(f"spins=cycles repeats={r} clean_lens!clean*{n}").found.p_cured for r, n in (("comes_and_goes", 1), ("comes_and_goes", 12), ("always", 1))
    )
    assert once < 0.75 < steady < often + 0.2
    assert often > 0.95


def test_t5_opens_loaded_and_jams_empty_is_clamp_against_belt():
    found = Bench("tray_opens_loaded=opens tray_opens_empty=motor_only knock_helps=helps", TRAY).found
    assert {s.id for s in found.suspects[:2]} <= {"belt_slack", "clamp_strong", "tray_stiff"}
    assert found.advice.moves[0].part_eur < 5


TOGETHER = {
    "slot": ("takes_disc=ignores wakes=no ejects=no", PAIRED),
    "tray": ("tray_opens_loaded=dead tray_opens_empty=dead tray_shuts=dead button_line=works", TRAY),
    "lid": ("lid_starts=nothing sled_home_look=elsewhere lid_hold=nothing", LID),
}


@pytest.mark.parametrize("family", TOGETHER)
def test_t6_what_fails_together_points_at_what_is_shared(family):
    words, sheet = TOGETHER[family]
    shared = sum(p_of(words, part, sheet) for part in ("part:fuse", "part:flex_board", "part:driver", "part:supply", "part:board"))
    assert shared > 0.6


@pytest.mark.parametrize(("sheet", "dead", "alive"), [(PAIRED, "game_bd", "film_dvd"), (TRAY, "game_dvd", "music_cd")], ids=["slot", "tray"])
def test_t7_one_light_dead_and_another_flawless_speaks_for_a_diode(sheet, dead, alive):
    before, after = Bench(f"{dead}=fails", sheet), Bench(f"{dead}=fails {alive}=reads", sheet)
    assert after.found.parts[0].id == "pickup"
    against = lambda bench, p: bench.p(p) / bench.p("part:pickup")  # noqa: E731
    assert all(against(after, p) < against(before, p) for p in ("lens_dirty", "part:supply", "spindle_motor", "driver_chip"))


@pytest.mark.parametrize("sheet", FAMILIES.values(), ids=list(FAMILIES))
def test_t8_starts_well_then_stutters_is_sled_and_seat_not_drive_current(sheet):
    bench = Bench("spins=holds later_data=stutters", sheet)
    assert bench.p("part:sled") + bench.p("pickup_tilt") > 3 * bench.p("trimmer_off")
    assert bench.found.advice.moves[0].id not in {"set_trimmer", "raise_drive"}


@pytest.mark.parametrize("sheet", FAMILIES.values(), ids=list(FAMILIES))
def test_t9_two_units_failing_alike_are_wear_not_the_rare_part_twice(sheet):
    one, two = Bench("spins=cycles", sheet), Bench("spins=cycles batch_alike=yes", sheet)
    wear = f"pickup_{sheet.game_nm}"
    assert two.p(wear) / one.p(wear) > 4 * two.p("pickup_dead") / one.p("pickup_dead")


@pytest.mark.parametrize("reading", ["in_band", "out_of_band"])
def test_t11_a_trimmer_in_band_clears_no_pickup_and_one_out_of_band_condemns_none(reading):
    before, after = p_of(RETRIES, "pickup_405"), p_of(f"{RETRIES} trimmer_reading={reading}", "pickup_405")
    assert 0.6 < after / before < 1.6


def test_t12_a_level_that_reads_high_is_no_reason_for_more_drive():
    words = "opened_before=opened spins=cycles trimmer_mark=turned"
    offered, high = (Bench(f"{words} level_reading={o}", LID) for o in ("low", "high"))
    assert "raise_drive" in {m.id for m in offered.found.advice.moves}
    assert "raise_drive" not in {m.id for m in high.found.advice.moves}
    assert "set_trimmer" in {m.id for m in high.found.advice.moves}  # down to its mark: nothing speaks against that
    assert "not_offered" in codes(high)


@pytest.mark.parametrize("function", ["spins", "reads"])
def test_t14_a_swap_clears_only_the_function_that_the_donor_is_good_in(function):
    known = Change("replace_deck", "D", Health.UNKNOWN, works=frozenset({function}))
    doubtful = Change("replace_deck", "D", Health.UNKNOWN)
    cleared = {}
    for name, change in (("known", known), ("doubtful", doubtful)):
        bench = Bench("spins=twitches")
        bench.case = Case(PAIRED, (*bench.case.findings, Finding("t", Trial((change,), TrialResult.NO_CHANGE))))
        cleared[name] = {"spins": bench.p("spindle_motor"), "reads": bench.p("pickup_dead")}
    assert cleared["known"][function] < 0.5 * cleared["doubtful"][function]


@pytest.mark.parametrize("sheet", FAMILIES.values(), ids=list(FAMILIES))
def test_t15_a_second_failed_swap_moves_the_suspicion_elsewhere_loudly(sheet):
    twice = Bench("spins=cycles replace_pickup:A!no_change replace_pickup:B!no_change", sheet)
    assert "swapped_twice" in codes(twice)
    assert twice.found.parts[0].id != "pickup"


@pytest.mark.parametrize("question", ["game_bd=fails", "spins=cycles", "screen_message=unreadable"])
def test_t16_with_another_board_not_reading_says_nothing(question):
    seen = Bench(f"{RETRIES} {question}~other")
    assert seen.found.weights[-1].left_out == "unpaired_board"
    assert seen.p("driver_chip") == Bench(RETRIES).p("driver_chip")


def test_t16_another_board_that_tries_to_spin_speaks_against_the_own_one_and_nothing_more():
    before, after = Bench("spins=never lens_seek=still"), Bench("spins=never lens_seek=still unpaired_board=tries")
    assert after.p("part:driver") > 1.5 * before.p("part:driver")
    assert after.p("lens_dirty") / after.p("pickup_405") == pytest.approx(before.p("lens_dirty") / before.p("pickup_405"))


@pytest.mark.parametrize("repair", ["clean_rails", "replace_spindle_motor"])
def test_t17_a_partial_rebuild_reseats_flexes_and_shares_the_credit(repair):
    words = "spins=cycles repeats=always flex_board_look=loose"
    assert p_of(f"{words} {repair}!clean*6", "flex_board_loose") > 0.3
    assert p_of(f"{words} {repair}!no_change", "flex_board_loose") < p_of(words, "flex_board_loose")


NEW_SYMPTOMS = {
    "slot": ("takes_disc=takes spins=cycles clean_lens!no_change takes_disc=ignores", PAIRED),
    "tray": ("tray_shuts=stays tray_opens_empty=struggles replace_belt:B!no_change tray_shuts=reopens", TRAY),
    "lid": ("lid_starts=starts spins=cycles clean_rails!no_change lid_starts=nothing", LID),
}


@pytest.mark.parametrize("family", NEW_SYMPTOMS)
def test_t18_a_symptom_new_since_the_baseline_is_our_own_hands_first(family):
    bench = Bench(*NEW_SYMPTOMS[family])
    assert bench.found.parts[0].id == "handling"
    assert "new_symptom" in codes(bench)
    assert bench.found.advice.best_repair in {"redo_last_step", "reset_mechanism", "set_lift", "reseat_flex_board"}


def test_t18_without_a_step_of_ours_no_hand_is_blamed():
    assert p_of("takes_disc=takes spins=cycles takes_disc=ignores", "part:handling") < 1e-3


def test_t20_after_tampering_cleaning_trimmer_board_and_flex_change_places_and_the_story_weighs_less():
    sealed, opened = (Bench(f"{RETRIES} opened_before={o}") for o in ("sealed", "opened"))
    assert all(opened.p(f) > 1.3 * sealed.p(f) for f in ("trimmer_off", "wrong_board", "flex_pickup_loose", "not_listed"))
    assert opened.p("lens_dirty") < sealed.p("lens_dirty")
    told = sealed.model.questions["owner_when"]
    assert unreliability(Witness.OWNER, told, is_tampered=True) > unreliability(Witness.OWNER, told)


@pytest.mark.parametrize("sheet", FAMILIES.values(), ids=list(FAMILIES))
def test_t22_listing_the_drive_shows_the_board_and_nothing_more(sheet):
    before, after = Bench("spins=cycles", sheet), Bench("spins=cycles update_accepted=listed", sheet)
    assert after.p("flex_board_loose") < before.p("flex_board_loose")
    assert after.p("lens_dirty") / after.p("spindle_motor") == pytest.approx(before.p("lens_dirty") / before.p("spindle_motor"))


def test_t23_a_disc_the_wrong_way_round_is_left_out_and_said():
    wrong = Bench("spins=never~wrong game_cd=fails~wrong", LID)
    assert [w.left_out for w in wrong.found.weights] == ["disc_wrong_way", "disc_wrong_way"]
    assert "disc_wrong_way" in codes(wrong)
    assert [s.p for s in wrong.found.suspects] == [s.p for s in Bench("", LID).found.suspects]


@pytest.mark.parametrize("words", ["object_search=found takes_disc=motor_only", "takes_disc=motor_only remove_object!no_change"])
def test_t24_one_object_found_is_not_the_last(words):
    assert "search_on" in codes(Bench(words))


def test_t24_what_changed_restarts_with_the_travelling_fault_lifted_and_the_cleared_kept():
    words = "takes_disc=ignores wakes=no ejects=no fuse_test=open switch_home_test=works replace_fuse:F!changed"
    bench = Bench(f"{words} takes_disc=ignores ejects=yes")
    assert [w.left_out for w in bench.found.weights[:3]] == ["older_than_change"] * 3
    assert bench.found.suspects[0].id == "switch_insert"
    assert bench.p("fuse_open") < 0.1
    assert bench.p("switch_home") < p_of("takes_disc=ignores ejects=yes", "switch_home")


@pytest.mark.parametrize("health", ["new", "proven"])
def test_t25_a_new_part_can_be_bad_and_a_left_in_one_is_a_suspect(health):
    words = "takes_disc=takes spins=holds film_dvd=reads game_bd=fails replace_pickup:P:{}{}!no_change spins=cycles film_dvd=fails"
    stays, back = (p_of(words.format(health, s), "fitted_bad") for s in (":stays", ""))
    assert stays > 100 * back
    assert p_of("opened_before=opened light_check=none bridge_look=closed", "bridge_on") > 0.45
    assert p_of(f"{RETRIES} replace_pickup:P:{health}!no_change", "pickup_405") > 0.005


def test_t33_no_pass_is_enough_alone():
    once = Bench(f"{RETRIES} repeats=always@6/6 clean_lens!clean*1").found.ending
    assert (once.verdict, once.passes_wanted >= 3) == ("go_on", True)


@pytest.mark.parametrize(("words", "sheet", "reset"), [(NEW_SYMPTOMS["slot"][0], PAIRED, "out_of_step"), (NEW_SYMPTOMS["tray"][0], TRAY, "lift_half")])
def test_t34_a_mechanism_closed_out_of_step_comes_before_new_suspects(words, sheet, reset):
    bench = Bench(words, sheet)
    assert bench.p("closed_out_of_step") > 2 * bench.p(reset)
    assert bench.p("closed_out_of_step") > 0.15


@pytest.mark.parametrize("fitted", ["", "a wire", "solder bridge", "2 A fast", "1.5 A slow", "1 A fast", "about two", "0 A fast", "jumper link"])
def test_t26_no_bridge_no_unknown_rating_no_other_rating(fitted):
    with pytest.raises(RefusedError, match=r"1\.5 A fast"):
        check_replacement(fitted, "1.5 A fast")
    assert check_replacement("F1.5AL250V", "1.5 A fast").rated_a == 1.5


@pytest.mark.parametrize("words", [RETRIES, f"{RETRIES} game_bd=fails film_dvd=slow", f"{RETRIES} film_bd=fails", f"{RETRIES} lens_look=hazy"])
@pytest.mark.parametrize("depth", list(Depth))
def test_t32_no_dear_part_first_while_a_cheap_untested_cause_has_real_weight(words, depth):
    bench = Bench(words, depth=depth)
    first = bench.found.advice.moves[0]
    if bench.p("lens_dirty") >= 0.08:
        assert first.kind is not MoveKind.REPAIR or first.part_eur < 15


@pytest.mark.parametrize(
    ("facts", "codes"),
    [
        (JobFacts(), {"trial"}),
        (JobFacts(open_steps=("close the bar",)), {"steps", "trial"}),
        (JobFacts(has_trial=True), {"trial_clean"}),
        (JobFacts(has_trial=True, trial_is_clean=True), set()),
    ],
)
def test_t33_a_repair_is_not_left_before_its_trial(facts, codes):
    assert {m.code for m in missing(Stage.REPAIR, facts)} == codes


def test_t33_one_title_screen_is_no_proof():
    facts = JobFacts(passes=1, passes_needed=3, open_checks=("Ejects with a disc in",), depth=2)
    assert {m.code for m in missing(Stage.PROVE, facts)} == {"closed", "checks", "passes"}
