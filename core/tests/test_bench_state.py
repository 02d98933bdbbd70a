"""What can be done on a job's bench: from its tape, and from what the shop has."""

from datetime import timedelta

import pytest
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.given import case as given
from spindle.diagnosis.given.case import Case
from spindle.diagnosis.planning.outlook import look_ahead
from spindle.job.state import bench_of, case_of
from spindle.repairs.procedures import procedure_for
from spindle.words.bench import Instrument, Power

from .conftest import Bench
from .house import ECONOMY, SHEETS
from .test_job import AT, CLEAN, record

FOUND = ("answer", {"question": "object_search", "outcome": "found", "source": "bench"})
SEARCHED = ("answer", {"question": "object_search", "outcome": "nothing", "source": "bench"})
RATTLES = ("answer", {"question": "rattle", "outcome": "rattles", "source": "bench"})
OUT = ("custody", {"event": "out", "tag": "K-0001-A", "name": "Drive board", "place": "rack", "level": "board"})
BACK = ("custody", {"event": "back", "tag": "K-0001-A", "name": "Drive board", "place": ""})
OTHER_IN = ("trial", {"changes": [{"repair": "replace_board", "item": "D-1", "health": "unknown", "stays": True}], "result": "no_change", "clean_passes": 0})
CLEARED = ("hold", {"event": "cleared", "code": "object", "says": "It is out"})


@pytest.mark.parametrize(
    ("told", "says"),
    [
        ([], ""),
        ([CLEAN], ""),
        ([RATTLES], "No power now: rattle."),
        ([FOUND], "No power now: something found inside."),
        ([FOUND, SEARCHED], ""),
        ([FOUND, CLEARED], ""),
        ([RATTLES, FOUND], "No power now: rattle, something found inside."),
        ([OUT], "No power now: drive board is out (K-0001-A)."),
        ([OUT, BACK], ""),
        ([OUT, OTHER_IN], ""),
    ],
)
def test_what_keeps_steps_from_the_power_is_said_in_one_line(told, says):
    assert bench_of(record(*told), AT + timedelta(hours=1), frozenset()).no_power == says


def test_a_case_knows_the_mains_of_its_job_and_what_the_shop_lacks():
    live = record(("mains", {"state": "live"}))
    bench = bench_of(live, AT, frozenset({Instrument.SCOPE}))
    assert (bench.power, bench.lacks) == (Power.LIVE, {Instrument.SCOPE})
    assert case_of(live, ECONOMY, (), bench).bench is bench
    assert case_of(live, ECONOMY).bench.power is Power.LIVE


def test_a_part_that_failed_here_is_not_what_the_next_one_is_reckoned_with():
    """The same donor's part costs nothing, and was seen to leave the fault."""
    bench = Bench("takes_disc=takes spins=cycles game_bd=fails replace_pickup:D-1:unknown!no_change")
    sources = {s.item for s in bench.with_stock("replace_pickup", "D-1", "D-2").found.outlook.plan.sources if s}
    assert sources <= {"D-2"}


@pytest.mark.parametrize("family", ["tray", "slot", "lid"])
@pytest.mark.parametrize("skill", ["soldering", "experienced"])
def test_a_repair_that_nobody_here_can_do_is_no_move_and_says_why(family, skill):
    model = SHEETS[family][0].model
    case = Case(model.sheet, (), economy=ECONOMY, bench=given.Bench(lacks=frozenset({Instrument(skill)})))
    outlook = look_ahead(case, model, believe((), model))
    wanted = {a for a, r in enumerate(model.repairs) if procedure_for(family, r.id).skill == skill and not r.only_after and r.id not in model.unmovable}
    assert wanted
    assert not any(outlook.position.free[a] for a in wanted)
    assert {model.repairs[a].id for a in wanted} <= {b.id for b in outlook.barred if "This shop has none" in b.why}
