"""The fault models contradict nothing, and every number has its reason."""

import pytest
from spindle.diagnosis.given.compiled import compile_model
from spindle.diagnosis.given.rows import likelihood_table
from spindle.drives.sheet import DriveSheet
from spindle.errors import ModelError, SheetError
from spindle.faults.cautions import CAUTIONS
from spindle.faults.library import MODELS
from spindle.faults.model import LEAK, NOTHING, Outcome, Question, QuestionKind, Row
from spindle.words.bench import Mains

from .conftest import PAIRED

EVERY = [pytest.param(m, id=name) for name, m in MODELS.items()]


@pytest.mark.parametrize("model", EVERY)
def test_every_number_has_a_reason_and_every_id_is_one_thing(model):
    for things in (model.faults, model.repairs):
        assert all(t.why for t in things)
        assert len({t.id for t in things}) == len(things)
    assert all(row.why for q in model.questions for row in q.rows)
    assert len({q.id for q in model.questions}) == len(model.questions)


@pytest.mark.parametrize("model", EVERY)
def test_every_reference_has_its_target(model):
    faults, parts, repairs = ({x.id for x in xs} for xs in (model.faults, model.parts, model.repairs))
    assert {f.part for f in model.faults} <= parts
    assert {r.part for r in model.repairs} <= parts
    assert {f for r in model.repairs for f in (*r.cures, *r.worsens)} <= faults
    assert {r for _, order in model.schools.values() for r in order} <= repairs
    assert {c for q in model.questions for c in q.cautions} <= CAUTIONS.keys()
    assert all(q.outcome(o) for q in model.questions for o in q.fails)


@pytest.mark.parametrize("model", EVERY)
def test_every_fault_can_be_cured_and_seen(model):
    cured = {f for r in model.repairs for f, s in r.cures.items() if s >= 0.3}
    named = {f for q in model.questions for row in q.rows for g in row.faults.split() for f in model.groups.get(g[1:], g).split()}
    assert {f.id for f in model.faults} - {LEAK, NOTHING} <= cured
    assert {
        f.id for f in model.faults if not (f.id.startswith("pickup_4") or f.id.startswith("pickup_6") or f.id.startswith("pickup_7") or f.opened_by)
    } <= named
    assert 0.03 <= next(f.prior for f in model.faults if f.id == LEAK) <= 0.05


@pytest.mark.parametrize("model", EVERY)
def test_questions_with_power_and_an_open_unit_carry_the_laser_caution(model):
    assert all("laser" in q.cautions for q in model.questions if q.mains is Mains.LIVE and q.depth > 0)


BAD_ROWS = [
    ((Row("*", (50, 49), "x"),), "sum"),
    ((Row("*", (100,), "x"),), "percentages"),
    ((Row("nobody", (50, 50), "x"),), "unknown fault"),
    ((Row("lens_dirty lens_dirty", (50, 50), "x"),), "two rows"),
    ((Row("lens_dirty", (50, 50), "x"),), "no default"),
]


@pytest.mark.parametrize(("rows", "says"), BAD_ROWS)
def test_rows_that_contradict_themselves_are_named(rows, says):
    question = Question("q", QuestionKind.LOOK, "?", "", (Outcome("a", "A", "A"), Outcome("b", "B", "B")), rows, 1)
    with pytest.raises(ModelError, match=says):
        likelihood_table(question, MODELS["slot"].faults, MODELS["slot"], PAIRED)


def test_unknown_family_and_classes_are_errors():
    with pytest.raises(ModelError, match="drawer"):
        compile_model(DriveSheet("X", "drawer", classes=frozenset({"game_bd"})))
    for classes in (frozenset(), frozenset({"game_hd"})):
        with pytest.raises(SheetError, match="disc class"):
            DriveSheet("X", "slot", classes=classes)
