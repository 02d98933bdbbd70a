"""One test for each trap that the slice guards, by its number."""

import pytest
from spindle.bench.fuse import check_replacement
from spindle.diagnosis.case import Answer, Case, Finding, Source
from spindle.diagnosis.diagnose import diagnose
from spindle.diagnosis.moves import MoveKind
from spindle.errors import RefusedError
from spindle.faults.model import Depth
from spindle.workflow.stages import JobFacts, Stage, missing

from .conftest import FREE, PAIRED, RETRIES, Bench, p_of


@pytest.mark.parametrize("before", ["", RETRIES, "takes_disc=ignores spins=never ejects=no"])
def test_t1_unreadable_on_screen_moves_nothing_by_more_than_one_decibel(before):
    found = Bench(f"{before} screen_message=unreadable").found
    assert all(abs(p.db) <= 1.0 for p in found.weights[-1].parts)


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
    for source in (Source.OWNER, Source.REMEMBERED, Source.BENCH):
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


@pytest.mark.parametrize("fitted", ["", "a wire", "solder bridge", "2 A fast", "1.5 A slow", "1 A fast", "about two", "0 A fast", "jumper link"])
def test_t26_no_bridge_no_unknown_rating_no_other_rating(fitted):
    with pytest.raises(RefusedError, match=r"1\.5 A fast"):
        check_replacement(fitted, "1.5 A fast")
    assert check_replacement("1.5A Fast", "1.5 A fast").rated_a == 1.5


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
