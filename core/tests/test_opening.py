"""Opening orders: nothing comes off that something holds, nothing is shut over something open, and the least minutes are the least."""

from itertools import permutations, product
from pathlib import Path

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st
from spindle.bench.opening.mat import Mat, checks_back, left_open, looks_first
from spindle.bench.opening.order import CARE_MIN, TOOL_MIN, TURN_MIN, first_needed, resting_on, way_back, way_in
from spindle.bench.opening.recording import recorded_opening, with_draft
from spindle.bench.opening.steps import Kind, Opening, OpeningStep, Plug, joined, read_opening
from spindle.drives.tables import CONSOLE_TABLES, TABLES
from spindle.errors import NotFoundError, NotNowError, SheetError
from spindle.formats.console_file import read_console, write_console
from spindle.formats.sheet_file import parse_json, read_sheet
from spindle.job.opening import goals_of
from spindle.words.bench import Depth

DEMO = Path(__file__).parents[2] / "demo"
SHEETS = {f.stem: read_sheet(parse_json(f.read_bytes())) for f in sorted((DEMO / "sheets").glob("*.json"))}
CONSOLES = {(c.maker, c.console, c.revision): c for f in sorted((DEMO / "consoles").glob("*.json")) for c in [read_console(parse_json(f.read_bytes()))]}


def opening_of(name):
    full = SHEETS[name]
    return read_opening(full.tables, CONSOLES[full.maker, full.console, full.revision].tables)


UNITS = [(name, goal) for name in SHEETS for goal in [*(d for d in Depth if d), *sorted({s.frees for s in opening_of(name).steps.values() if s.frees})]]


def goals(opening, goal):
    return opening.leading_to(goal) if isinstance(goal, Depth) else opening.freeing(goal)


@pytest.mark.parametrize(("name", "goal"), UNITS)
def test_every_unit_opens_to_every_depth_and_part_and_shuts_again(name, goal):
    opening, done, screws = opening_of(name), set(), Mat()
    way = way_in(opening, (), goals(opening, goal))
    for move in way.moves:
        assert not first_needed(opening, move.step.id, frozenset(done))
        done.add(move.step.id)
        screws = screws.with_open((move.step.id,))
        assert not way_in(opening, done, {move.step.id}).moves
    back = way_back(opening, done)
    assert [m.step.name for m in back.moves] == [text.partition(" (")[0] for text in left_open(screws, opening)]
    for move in back.moves:
        assert not resting_on(opening, move.step.id, frozenset(done))
        done.remove(move.step.id)
        assert all((*checks_back(move.step, screws), *looks_first(move.step)))
    assert not done


def test_a_whole_console_opens_its_drive_by_turning_as_little_as_it_can():
    """It is turned before the roof is off: what falls out then never lies loose while it turns."""
    opening = opening_of("VM-S41")
    turns = [(m.step.name, m.turn_to, [h.name for h in m.holds]) for m in way_in(opening, (), opening.freeing("pickup")).moves if m.turn_to]
    assert turns == [("Rear screws", "back", []), ("Cover", "top", []), ("Motor flex", "underside", []), ("Roof", "top", [])]


def test_a_turn_over_something_loose_says_what_falls():
    opening = opening_of("KD-L1")
    turn = next(m for m in way_in(opening, (), opening.freeing("pickup")).moves if m.holds)
    assert [h.falls for h in turn.holds] == ["the eject button and its spring", "the earth spring"]


def test_the_shorter_of_two_ways_is_taken_and_the_other_still_counts_when_it_is_open():
    opening = opening_of("VM-S52")
    names = [m.step.name for m in way_in(opening, (), opening.freeing("pickup")).moves]
    assert ("Hatch" in names, "Deck out" in names) == (True, False)
    assert not first_needed(opening, "drive:Rod clips", frozenset({"drive:Deck out"}))
    assert resting_on(opening, "drive:Hatch", frozenset({"drive:Hatch", "drive:Rod clips"})) == "drive:Rod clips"
    assert not resting_on(opening, "drive:Hatch", frozenset(opening.steps))


@st.composite
def graphs(draw):
    """Small units: each step after some earlier ones, sometimes after one of two."""
    n = draw(st.integers(1, 5))
    steps = {}
    for i in range(n):
        earlier = [f"s{k}" for k in range(i)]
        clauses = draw(st.lists(st.frozensets(st.sampled_from(earlier), min_size=1, max_size=2), max_size=2)) if earlier else []
        side, tool = draw(st.sampled_from(["", "top", "underside"])), draw(st.sampled_from(["", "a", "b"]))
        falls = draw(st.sampled_from(["", "", "arm"]))
        minutes = draw(st.sampled_from([0.5, 1.0, 2.0]))
        steps[f"s{i}"] = OpeningStep(f"s{i}", f"s{i}", Kind.OTHER, minutes, minutes, tuple(clauses), side, tool, falls=falls)
    return Opening(steps)


def minutes_of(opening, order, side, *, is_back=False, done=(), tool=""):
    """What an order costs at least, told anew: before a step that any side will do for, the unit may be turned as well."""
    if not order:
        return 0.0
    step, now = opening.steps[order[0]], set(done)
    if (resting_on if is_back else first_needed)(opening, step.id, frozenset(now)):
        return None
    costs = []
    for up in [step.side] if step.side else dict.fromkeys([side, "top", "underside"]):
        turn = TURN_MIN + (CARE_MIN if any(opening.steps[d].falls for d in now) else 0) if side and up != side else 0
        rest = minutes_of(opening, order[1:], up, is_back=is_back, done=now ^ {step.id}, tool=step.tool or tool)
        costs += [] if rest is None else [turn + step.minutes + (TOOL_MIN if step.tool not in ("", tool) else 0) + rest]
    return min(costs, default=None)


def unit(*rows):
    """A small unit of steps (clauses before it, side, tool, what falls), each of one minute."""
    made = (OpeningStep(f"s{i}", f"s{i}", Kind.OTHER, 1.0, 1.0, tuple(map(frozenset, a)), s, t, falls=f) for i, (a, s, t, f) in enumerate(rows))
    return Opening({step.id: step for step in made})


SHUT_TOO_EARLY = unit(
    ([], "underside", "b", ""), ([["s0"]], "", "", ""), ([["s1", "s0"]], "", "b", ""), ([["s0"]], "top", "", ""), ([["s0"], ["s1", "s3"]], "underside", "a", "")
)
"""Put back first for nothing, s1 would bind s4 to s3."""
TURNED_BEFORE = unit(([], "", "", "arm"), ([["s0"]], "underside", "a", ""))
"""It is turned before the arms lie loose, though any side will do for that."""


@settings(max_examples=150, deadline=None)
@given(opening=graphs(), side=st.sampled_from(["", "top"]))
@example(opening=SHUT_TOO_EARLY, side="")
@example(opening=TURNED_BEFORE, side="top")
def test_the_least_minutes_are_those_of_brute_force(opening, side):
    goal = f"s{len(opening.steps) - 1}"
    subsets = [[s for s, isin in zip(opening.steps, picks, strict=True) if isin] for picks in product((0, 1), repeat=len(opening.steps))]
    costs = [c for chosen in subsets if goal in chosen for order in permutations(chosen) if (c := minutes_of(opening, order, side)) is not None]
    assert way_in(opening, (), [goal], side).minutes == pytest.approx(min(costs))
    back = [c for order in permutations(opening.steps) if (c := minutes_of(opening, order, side, is_back=True, done=opening.steps)) is not None]
    if back:
        assert way_back(opening, opening.steps, side=side).minutes == pytest.approx(min(back))


ROW = {"step": "Cover", "kind": "lift off", "minutes": 1.0, "origin": "shop", "confidence": "sure"}
SCREWS = {"place": "rear", "count": 2, "head": "cross 1", "thread_mm": 3.0, "length_mm": 8.0, "origin": "shop", "confidence": "sure"}
BAD = [
    ({"opening": [ROW | {"after": "Feet"}]}, "/tables/opening/0/after"),
    ({"opening": [ROW | {"after": "Lid"}, ROW | {"step": "Lid", "after": "Cover"}]}, "/tables/opening/0/after"),
    ({"opening": [ROW | {"takes": "rear"}]}, "/tables/opening/0/takes"),
    ({"opening": [ROW | {"takes": "rear"}, ROW | {"step": "Lid", "takes": "rear"}], "screws": [SCREWS]}, "/tables/opening/1/takes"),
    ({"screws": [SCREWS | {"at": "1,1"}]}, "/tables/screws/0/at"),
    ({"screws": [SCREWS | {"at": "1,1; 1"}]}, "/tables/screws/0/at"),
    ({"screws": [SCREWS | {"at": "1,1; 101,4"}]}, "/tables/screws/0/at"),
    ({"ways": [{"step": "Lid", "way": "a", "how": "b", "risk": "c", "origin": "shop", "confidence": "sure"}]}, "/tables/ways/0/step"),
    ({"opening": [ROW | {"minutes": -1}]}, "/tables/opening/0/minutes"),
    ({"belts": []}, "/tables"),
]


@pytest.mark.parametrize(("tables", "place"), BAD)
def test_a_console_that_could_never_be_opened_is_refused_with_its_place(tables, place):
    document = {"format": "tidy-spindle-console", "version": 1, "maker": "M", "console": "C", "revision": "1", "tables": tables}
    with pytest.raises(SheetError) as error:
        read_console(document)
    assert error.value.place.startswith(place)


@pytest.mark.parametrize(("head", "place"), [({"format": "tidy-spindle-sheet"}, "/format"), ({"version": 2}, "/version"), ({"version": True}, "/version")])
def test_another_format_or_version_is_refused(head, place):
    with pytest.raises(SheetError) as error:
        read_console(write_console(next(iter(CONSOLES.values()))) | head)
    assert error.value.place == place


def test_a_console_file_comes_back_the_same():
    assert all(read_console(write_console(c)) == c for c in CONSOLES.values())
    assert set(CONSOLE_TABLES) >= {t for c in CONSOLES.values() for t in c.tables}


def test_what_no_step_leads_to_is_said():
    with pytest.raises(NotFoundError, match="No step of the sheet leads there"):
        way_in(Opening(), (), ())


def test_every_latch_of_a_sheet_has_its_look_on_the_way_back():
    latches = next(c for c in TABLES["connectors"].columns if c.id == "latch").choices
    for latch in latches:
        step = OpeningStep("drive:P", "P", Kind.CONNECTOR, 1.0, 1.0, plugs=(Plug("P", latch, "out", 8),))
        assert checks_back(step, Mat())[0].endswith("mark hidden at both ends")


RECORDED = {"kind": "clip", "cells": {}, "count": 0, "latch": "", "minutes": 1.0}


@pytest.mark.parametrize(("told", "recorded", "names"), [("console", "drive", ("Cover", "Roof")), ("drive", "console", ("Roof", "Cover"))])
def test_where_one_sheet_is_silent_what_was_recorded_stands_in_and_the_drive_still_rests_on_the_cover(told, recorded, names):
    cells = {"Cover": {"opens_to": "cover off"}, "Roof": {"opens_to": "drive open"}}
    known, own = (recorded_opening([{**RECORDED, "whose": w, "step": n, "cells": cells[n]}]) for w, n in zip((told, recorded), names, strict=True))
    both = joined(known, own)
    assert first_needed(both, "drive:Roof", frozenset()) == "console:Cover"
    assert resting_on(both, "console:Cover", frozenset(both.steps)) == "drive:Roof"


def test_a_draft_is_written_once_and_over_no_order_of_somebody_else():
    draft = {"opening": ({"step": "Cover", "said": "recorded on K-1"},)}
    once = with_draft({"notes": ({"what": "x", "said": None},)}, draft, "recorded on K-1")
    assert with_draft(once, draft, "recorded on K-1") == once == {"notes": ({"what": "x", "said": None},), **draft}
    with pytest.raises(NotNowError, match="has an opening order by now"):
        with_draft(once, draft, "recorded on K-2")


def test_a_sheet_that_leads_nowhere_yet_is_gone_as_far_as_it_goes():
    begun = unit(([], "", "", ""), ([["s0"]], "", "", ""))
    assert [(g.id, len(g.steps)) for g in goals_of(begun)] == [("all", 2)]
    assert goals_of(joined(Opening({}), Opening({}))) == ()
