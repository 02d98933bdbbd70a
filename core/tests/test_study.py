"""The search and its study: the exact optimum, the invariant, two steps, futures, rivals."""

from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from spindle.diagnosis.planning.futures import by_choice, outturn, play, throw_units
from spindle.diagnosis.planning.lookahead import information, one_step, one_step_many, pick, two_step
from spindle.diagnosis.planning.schools import START, Chart
from spindle.study.beyond import knowing, known_problem, oracle
from spindle.study.measures import calibration_error, ceiling, paired, summarise
from spindle.study.optimum import optimum, random_problem, shortfall
from spindle.study.paid import study_money
from spindle.study.pairs import study_pairs
from spindle.study.policies import POLICIES, start_of
from spindle.study.readings import study_donors, study_proof, study_slips
from spindle.study.sound_units import study_sound
from spindle.study.worlds import SHEETS, WORLDS, setup, units_of, world_of

READY = {family: setup(family) for family in SHEETS}
EVERY = pytest.mark.parametrize("ready", READY.values(), ids=list(READY))


def by_worlds(problem, start):
    """The optimum by a table of worlds: a fault, what every test would show, what every repair would cure; plans over sets of worlds."""
    n_ask, n_rep = problem.ask.shape[1], len(problem.success)
    table = []
    for f, shows, cures in product(range(len(start.w)), product((0, 1), repeat=n_ask), product((True, False), repeat=n_rep)):
        chance = start.w[f]
        for q, o in enumerate(shows):
            chance *= problem.likelihood[2 * q + o, f]
        for a, c in enumerate(cures):
            chance *= problem.success[a, f] if c else 1 - problem.success[a, f]
        table.append((chance, shows, cures, f))

    def best(worlds, asked, tried, depth):
        total = sum(table[i][0] for i in worlds)
        options = [total * (problem.give_up_eur + problem.close[depth])]
        for q in set(range(n_ask)) - asked:
            split = [frozenset(i for i in worlds if table[i][1][q] == o) for o in (0, 1)]
            deeper = int(problem.asked_in[depth, q])
            options.append(total * problem.asking(depth, q) + sum(best(s, asked | {q}, tried, deeper) for s in split if s))
        for a in set(range(n_rep)) - tried:
            left = frozenset(i for i in worlds if not table[i][2][a])
            after = sum(table[i][0] * (problem.close_after[depth, a] + problem.fades_eur[a, table[i][3]]) for i in worlds - left)
            options.append(total * problem.cost[depth, a] + after + best(left, asked, tried | {a}, int(problem.ends[depth, a])))
        return min(options)

    return best(frozenset(range(len(table))), frozenset(), frozenset(), start.state)


@pytest.mark.parametrize("seed", range(12))
def test_the_optimum_equals_the_table_of_worlds(seed):
    problem, start = random_problem(3, 2, 2, np.random.default_rng(seed))
    assert optimum(problem, start) == pytest.approx(by_worlds(problem, start), abs=1e-9)


@pytest.mark.parametrize("seed", range(200))
def test_invariant_optimum_policy_prediction_sequence_giving_up(seed):
    assert shortfall(*random_problem(5, 3, 2, np.random.default_rng([5, seed]))).holds()


@settings(max_examples=40, deadline=None)
@given(seed=st.integers(0, 10**6))
def test_a_second_step_never_makes_a_move_dearer(seed):
    problem, start = random_problem(6, 5, 4, np.random.default_rng(seed))
    once = one_step(start, problem)
    twice = two_step(start, problem, once)
    assert twice.least <= once.least + 1e-9
    assert (twice.ask <= once.ask + 1e-9).all()
    assert two_step(start, problem, once, lambda: False).ask.tolist() == once.ask.tolist()


@settings(max_examples=25, deadline=None)
@given(seed=st.integers(0, 10**6), scale=st.floats(0.01, 50))
def test_values_are_homogeneous_and_the_same_alone_or_in_company(seed, scale):
    problem, start = random_problem(6, 4, 3, np.random.default_rng(seed))
    other = start.after_repair(0, problem)
    alone, company = one_step(other, problem), one_step_many([start, other], problem)[1]
    assert company.least == pytest.approx(alone.least)
    bigger = one_step(type(start)(start.w * scale, start.state, start.free, start.open_), problem)
    assert bigger.least == pytest.approx(scale * one_step(start, problem).least)


def test_information_is_never_negative_and_none_where_rows_are_equal():
    problem, start = random_problem(6, 4, 3, np.random.default_rng(1))
    problem.likelihood[0:2] = 0.5
    assert information(start, problem).min() > -1e-12
    assert information(start, problem)[0] == pytest.approx(0)


@EVERY
def test_planner_beats_every_school_and_repairs_as_many(ready):
    rng = np.random.default_rng(8)
    units = units_of(world_of("matched", ready, rng), ready, 120, rng)
    played = {
        name: play(units, start_of(ready), ready.problem, POLICIES[name](ready)) for name in ("planner", "flow_chart", "clean_first", "drive_first", "no_tests")
    }
    for name in ("flow_chart", "clean_first", "drive_first", "no_tests"):
        assert paired(played["planner"], played[name]).saves_percent > 8
    best, chart = (summarise(played[n], ready) for n in ("planner", "flow_chart"))
    fewer = np.array([float(c.is_repaired) - b.is_repaired for b, c in zip(played["planner"], played["flow_chart"], strict=True)])
    assert fewer.mean() < 2 * fewer.std() / np.sqrt(len(units))
    assert best.needless_parts < 0.75 * chart.needless_parts
    assert best.top1 <= ceiling(units, ready)[0] + 0.1


@EVERY
@pytest.mark.parametrize("name", [n for n in POLICIES if n != "two_step"])
def test_every_policy_ends_and_pays_for_what_it_does(ready, name):
    rng = np.random.default_rng(3)
    units = units_of(world_of("perturbed", ready, rng), ready, 12, rng)
    games = play(units, start_of(ready), ready.problem, POLICIES[name](ready))
    assert all(g.is_over for g in games)
    faulty = [g for g in games if not ready.model.sound[g.unit.fault]]
    assert all(g.cost_eur > 0 for g in faulty)
    assert all(g.unit.cures[g.repairs[-1]] for g in faulty if g.is_repaired)
    assert all(g.is_repaired for g in games if ready.model.sound[g.unit.fault])


@pytest.mark.parametrize("name", WORLDS)
def test_a_world_is_a_world(name):
    ready = READY["slot"]
    world = world_of(name, ready, np.random.default_rng(1))
    assert world.prior.sum() == pytest.approx(1)
    assert ((world.success >= 0) & (world.success <= 1)).all()
    assert (world.likelihood > 0).all()
    own = np.array_equal(world.likelihood, ready.problem.at_home) and np.array_equal(world.success, ready.problem.success)
    assert own == (name in ("matched", "priors", "chain"))


def test_the_same_unit_is_played_by_every_policy_and_the_same_seed_is_the_same_future():
    ready = READY["lid"]
    one, two = (outturn(start_of(ready), ready.problem, np.random.default_rng(4)) for _ in range(2))
    assert one == two
    assert one.low_eur <= one.mean_eur <= one.high_eur
    units = throw_units(5, ready.model.prior, ready.problem.likelihood, ready.problem.success, ready.problem.first_row, np.random.default_rng(2))
    again = [g.cost_eur for _ in range(2) for g in play(units, start_of(ready), ready.problem, by_choice(pick))]
    assert again[:5] == again[5:]


@EVERY
def test_the_flow_chart_has_no_loop_and_every_box_has_its_way_on(ready):
    nodes = ready.model.model.chart

    def walk(name, seen):
        assert name not in seen, f"{name} comes back to itself"
        if name:
            node = nodes[name]
            for follow in {*node.then.values(), node.after}:
                walk(follow, {*seen, name})

    walk(START, set())
    assert all("*" in n.then for n in nodes.values() if n.ask)
    assert Chart(nodes, ready.plan, ready.model, {}).cost(start_of(ready)) > one_step(start_of(ready), ready.problem).least


@pytest.mark.parametrize(("said", "came", "error"), [([0.9] * 10, [1] * 9 + [0], 0.0), ([0.9] * 10, [0] * 10, 0.9), ([0.2, 0.8], [0, 1], 0.2)])
def test_calibration_error(said, came, error):
    assert calibration_error(np.array(said), np.array(came)) == pytest.approx(error)


def test_the_measures_of_doubtful_evidence_reach_their_marks():
    ready = READY["slot"]
    slips, donors, proof = study_slips(ready, 150, 1), study_donors(ready, 150, 1), study_proof(ready, 120, 1)
    assert slips["item_auc"] > 0.8
    assert slips["clean_loss_nat"] < 0.02
    assert donors["one_bit"] < donors["two_draws"]
    assert proof["proven_still_faulty"] <= 0.05 < proof["one_pass_still_faulty"] + 0.05


def test_restarting_saves_two_fault_units_and_costs_single_ones_little():
    found = study_pairs(READY["slot"], 25, 1)
    assert found["pair_restart"].mean_eur < 0.8 * found["pair_blind"].mean_eur
    assert found["single_restart"].mean_eur < 1.06 * found["single_blind"].mean_eur


def test_shown_money_is_nearer_to_what_is_paid_than_the_bound():
    found = study_money(READY["slot"], 12, 2)
    assert found["shown_mean_eur"] < found["bound_mean_eur"]
    assert 0.5 < found["band_held"] <= 1.0


@EVERY
def test_whoever_knows_the_fault_pays_least_and_looks_at_nothing(ready):
    rng = np.random.default_rng(6)
    world = world_of("matched", ready, rng)
    units = units_of(world, ready, 60, rng)
    best, own = (summarise(games, ready) for games in (oracle(units, ready), knowing(units, world, ready)))
    assert best.looking_eur == 0
    assert best.mean_eur < own.mean_eur
    assert best.mean_eur == pytest.approx(best.in_vain_eur + best.cure_eur + best.coming_back_eur + best.giving_up_eur)


def test_the_world_of_the_planner_is_the_one_that_it_knows():
    ready, rng = READY["slot"], np.random.default_rng(2)
    own = known_problem(world_of("matched", ready, rng), ready)
    assert own.at_home == pytest.approx(ready.problem.at_home, abs=1e-9)
    assert own.likelihood == pytest.approx(ready.problem.likelihood, abs=0.03)
    assert not np.allclose(known_problem(world_of("rows", ready, rng), ready).at_home, ready.problem.at_home)


@EVERY
def test_a_sound_unit_is_rarely_given_a_part(ready):
    found = study_sound(ready, 40, 1)
    assert found["sound, planner"]["mean_eur"] < 25 < found["sound, flow_chart"]["mean_eur"]
    assert found["sound, planner"]["given_a_part"] <= 0.02 + 1 / 40
