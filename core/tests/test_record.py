"""How good chances were that somebody said, and what a tape says of each proposal."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import binomtest
from spindle.job.judged import judged_in
from spindle.job.ledger import fold
from spindle.job.line import Line
from spindle.learning.reliability import ENOUGH, reliability, wilson

from .test_job import AT, START


@given(st.integers(1, 60).flatmap(lambda n: st.tuples(st.integers(0, n), st.just(n))))
def test_the_interval_of_a_share_is_wilsons(kn):
    k, n = kn
    ours, theirs = wilson(k, n), binomtest(k, n).proportion_ci(method="wilson")
    assert ours == pytest.approx((theirs.low, theirs.high), abs=1e-6)


def test_what_was_said_honestly_has_little_error_and_what_was_not_has_much():
    rng = np.random.default_rng(1)
    p = rng.uniform(0.05, 0.95, 4_000)
    came = rng.random(4_000) < p
    honest, boastful = reliability(p, came), reliability(np.minimum(p + 0.3, 1.0), came)
    assert honest.error < 0.03
    assert boastful.error > 0.2
    assert honest.log_loss < honest.base_log_loss
    assert boastful.log_loss > honest.log_loss


@given(st.lists(st.tuples(st.floats(0, 1), st.booleans()), max_size=40))
def test_every_case_is_in_one_group_and_few_are_too_few(told):
    found = reliability([p for p, _ in told], [c for _, c in told])
    assert sum(g.n for g in found.groups) == found.n == len(told)
    assert sum(g.came for g in found.groups) == sum(c for _, c in told)
    assert found.is_enough is (len(told) >= ENOUGH)


def proposed(repair="clean_lens", p=0.4, **more):
    return "proposal", {"repair": repair, "name": repair, "total_cents": 3330, "p_success": p, **more}


def tried(result, repair="clean_lens"):
    return "trial", {"changes": [{"repair": repair, "item": "", "health": "proven"}], "result": result, "clean_passes": 1}


TAPES = [
    ([proposed(), tried("clean")], [("clean_lens", 0.4, False, True)]),
    ([proposed(is_advised=True), tried("no_change")], [("clean_lens", 0.4, True, False)]),
    ([proposed(), tried("no_change"), proposed(p=0.6), tried("clean")], [("clean_lens", 0.4, False, False), ("clean_lens", 0.6, False, True)]),
    ([proposed(), tried("no_change"), tried("clean")], [("clean_lens", 0.4, False, True)]),
    ([proposed()], []),
    ([proposed(), tried("clean", "replace_rollers")], []),
    ([tried("clean"), proposed()], []),
    ([proposed("", 0.0)], []),
    ([proposed(), tried("clean"), ("pass", {"is_clean": False})], [("clean_lens", 0.4, False, False)]),  # the proof took it back
    ([proposed(), tried("clean"), ("strike", {"line": 2})], []),
]


@pytest.mark.parametrize(("tape", "judged"), TAPES)
def test_a_proposal_is_judged_by_the_last_trial_of_its_repair(tape, judged):
    job = fold(START, [Line(n, n, kind, body, AT, "bram") for n, (kind, body) in enumerate(tape, start=1)])
    assert [(j.repair, j.p_success, j.is_advised, j.is_clean) for j in judged_in(job)] == judged
