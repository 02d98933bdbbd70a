"""The shops of the study: what each lacks is never used, and what lies on its shelf is."""

import numpy as np
import pytest
from spindle.diagnosis.planning.futures import play
from spindle.study.policies import POLICIES, as_at_the_bench, start_of
from spindle.study.shops import SHOPS
from spindle.study.worlds import SHEETS, setup, units_of, world_of


@pytest.mark.parametrize("family", SHEETS)
@pytest.mark.parametrize("policy", ["planner", "flow_chart", "information_first", "cheapest_first"])
def test_nobody_uses_what_the_shop_has_not(family, policy):
    ready, rng = setup(family, shop="meter"), np.random.default_rng(3)
    units = units_of(world_of("matched", ready, rng), ready, 12, rng)
    games = play(units, start_of(ready), ready.problem, as_at_the_bench(ready, POLICIES[policy](ready)))
    asked = [ready.plan.asks[i].question for g in games for kind, i, _ in g.history if kind == "ask"]
    done = [ready.plan.repairs[a] for g in games for a in g.repairs]
    assert asked
    assert not {x.instrument for x in (*asked, *done)} & SHOPS["meter"].lacks


@pytest.mark.parametrize("family", SHEETS)
def test_a_donor_is_tried_and_a_drawer_waits_for_nobody(family):
    plain, donors, whole = (setup(family, shop=s) for s in ("study", "donors", "everything"))
    assert {a.swap.item.split()[0] for a in donors.plan.asks if a.swap} == {"D-1"}
    assert not any(a.swap for a in plain.plan.asks)
    a = plain.model.repair_index["replace_pickup"]
    assert whole.problem.cost[0, a] < plain.problem.cost[0, a]
