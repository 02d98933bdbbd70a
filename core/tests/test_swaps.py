"""Matching and swap plans: tables of cases by pairing rule, level and what is broken, and the properties that no plan may break."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st
from spindle.drives.full_sheet import FullSheet, Provenance
from spindle.drives.levels import LEVELS, is_within, pieces_of
from spindle.drives.matching import PartType, Statement, Verdict, match
from spindle.drives.sheet import DriveSheet, Pairing
from spindle.drives.swap_plan import DONOR, MAT, UNIT, atoms, run, start, swap_plan
from spindle.drives.tables import Confidence, Origin
from spindle.errors import RefusedError

SURE = {"origin": "shop", "confidence": "sure", "said": None}


def sheet(pairing="board", family="slot", variant="AA-1", classes=("game_bd", "film_dvd"), **codes):
    rows = [
        {"level": v, "code": c, "variant": None, "soldered": v == "load_motor", "wires": "red left" if v == "load_motor" else None, **SURE}
        for v, c in codes.items()
    ]
    moves = [
        {"level": "pickup", "action": a, "what": w, "how": None, **SURE}
        for a, w in (("read", "trimmer"), ("move", "follower"), ("clear", "bridge"), ("prove", "bridge open"))
    ]
    drive = DriveSheet(variant, family, Pairing(pairing), frozenset(classes), fuse_rating="1 A fast", has_electrolytics=True)
    return FullSheet("Maker", "Console", "A", drive, tables={"assemblies": tuple(rows), "transfers": tuple(moves)})


def test_what_fits_in_part_says_in_what():
    told = Statement("load_motor", "M-9", "AA-1", Verdict.PART, Provenance(Origin.SHOP, Confidence.SURE), works=("loads",))
    assert match(sheet(), PartType("load_motor", "M-9"), [told]).shows == ("loads",)


def says(verdict, origin="shop", confidence="sure", number=1, level="pickup", code="P-9"):
    return Statement(level, code, "AA-1", Verdict(verdict), Provenance(Origin(origin), Confidence(confidence), "somebody"), number=number)


CASES = [
    ("board", "pickup", "P-1", False, "transfers", "follower"),
    ("board", "pickup", "P-1", True, "fits", ""),
    ("board", "pickup", "P-9", False, "unknown", ""),
    ("none", "board", "B-1", False, "fits", ""),
    ("board", "board", "B-1", False, "part", ""),
    ("unknown", "board", "B-1", False, "part", ""),
    ("chip", "board", "B-1", False, "transfers", "Own key chip, with hot air"),
    ("none", "drive", "AA-1", False, "fits", ""),
    ("board", "drive", "AA-1", False, "transfers", "Own drive board"),
    ("chip", "drive", "AA-1", False, "transfers", "Own drive board with its key chip"),
    ("unknown", "drive", "AA-1", False, "transfers", "Own drive board"),
    ("board", "drive", "BB-2", False, "unknown", ""),
]


@pytest.mark.parametrize(("pairing", "level", "code", "complete", "verdict", "moves"), CASES)
def test_a_part_matches_by_code_and_pairing_rule(pairing, level, code, complete, verdict, moves):
    found = match(sheet(pairing, pickup="P-1", board="B-1"), PartType(level, code, is_complete=complete))
    assert (found.verdict, ", ".join(found.transfers)) == (verdict, moves)
    assert all(found.reasons)
    assert ("reads" in found.shows) is False


@pytest.mark.parametrize(
    ("said", "verdict"),
    [
        ([says("fits", "seller")], "claimed"),
        ([says("fits", "hearsay", number=2), says("no", "maker")], "no"),
        ([says("fits"), says("no", number=2)], "no"),
        ([says("no"), says("fits", number=2)], "transfers"),
        ([says("no"), says("fits", "maker", number=2)], "no"),
        ([says("fits", "shop", "doubtful"), says("no", "maker")], "no"),
        ([says("fits", "shop", "doubtful")], "claimed"),
        ([says("part")], "part"),
        ([says("fits", level="deck")], "unknown"),
    ],
)
def test_the_most_trusted_newest_voice_decides_and_a_claim_stays_a_claim(said, verdict):
    assert match(sheet(pickup="P-1"), PartType("pickup", "P-9"), said).verdict == verdict


def test_the_shops_own_no_overrules_the_sheet_that_named_the_part():
    found = match(sheet(pickup="P-1"), PartType("pickup", "P-1"), [says("no", code="P-1")])
    assert found.verdict is Verdict.NO
    assert "shop's own" in found.source


MADE_FOR = [
    ("slot", ("film_dvd",), "pickup", "no"),
    ("tray", ("game_bd", "film_dvd"), "load_motor", "no"),
    ("tray", ("game_bd", "film_dvd"), "fuse", "unknown"),
    ("slot", ("game_bd", "film_dvd"), "pickup", "unknown"),
]


@pytest.mark.parametrize(("family", "classes", "level", "verdict"), MADE_FOR)
def test_what_both_drives_are_can_refuse_a_part_and_never_accepts_one(family, classes, level, verdict):
    donor = sheet(family=family, classes=classes, variant="CC-3")
    assert match(sheet(), PartType(level, "X-1", donor)).verdict == verdict


PLANS = [
    ("none", "drive", (), "repair", "", ""),
    ("board", "drive", (), "repair", "board", ""),
    ("board", "drive", ("board",), "repair", "board", "comes along"),
    ("board", "drive", ("pickup",), "repair", "board", ""),
    ("chip", "drive", (), "repair", "board", ""),
    ("chip", "drive", ("driver",), "repair", "chip", ""),
    ("unknown", "drive", (), "repair", "board", "Pairing unknown"),
    ("none", "board", ("board",), "repair", "", ""),
    ("board", "board", ("board",), "test", "", ""),
    ("unknown", "board", (), "test", "", "Pairing unknown"),
    ("chip", "board", ("driver",), "repair", "chip", ""),
    ("board", "pickup", ("board",), "repair", "", "does not touch the drive board"),
    ("board", "fuse", ("fuse",), "repair", "", "Heat near"),
    ("none", "fuse", ("fuse",), "repair", "", ""),
    ("board", "load_motor", ("load_motor",), "repair", "", "order and polarity"),
]


@pytest.mark.parametrize(("pairing", "level", "broken", "purpose", "kept", "warning"), PLANS)
def test_a_plan_moves_what_the_pairing_rule_asks_and_says_what_it_cannot_mend(pairing, level, broken, purpose, kept, warning):
    plan = swap_plan(sheet(pairing, load_motor="M-1"), level, broken=frozenset(broken))
    assert plan.purpose == purpose
    assert (kept in plan.moves) if kept else plan.moves == ()
    assert (warning in " ".join(plan.warnings)) if warning else plan.warnings == ()


REFUSED = [
    ("chip", "chip", False),
    ("none", "chip", False),
    ("board", "drive", True),
    ("chip", "board", True),
    ("board", "fuse", True),
    ("none", "belt", False),
    ("none", "supply", False),
]


@pytest.mark.parametrize(("pairing", "level", "dead"), REFUSED)
def test_a_plan_that_would_lose_the_pairing_or_has_nothing_to_swap_is_refused(pairing, level, dead):
    with pytest.raises(RefusedError):
        swap_plan(sheet(pairing), level, is_key_dead=dead)


def test_a_new_pickup_is_read_before_it_is_fitted_and_its_bridge_proven_open_after():
    kinds = [s.kind for s in swap_plan(sheet(), "pickup", from_donor=False).steps]
    assert kinds == ["photo", "read", "own_out", "move", "other_in", "clear", "prove", "keep"]


def test_a_donors_pickup_brings_its_follower_and_has_no_bridge_left():
    steps = swap_plan(sheet(), "pickup").steps
    assert [s.kind for s in steps] == ["photo", "read", "own_out", "other_out", "other_in", "prove", "keep"]
    assert {s.depth for s in steps} == {"drive_open"}


plans = st.builds(
    lambda pairing, family, level, broken, donor: (sheet(pairing, family), level, frozenset(broken), donor),
    st.sampled_from([p.value for p in Pairing]),
    st.sampled_from(["tray", "slot", "lid"]),
    st.sampled_from([v for v in LEVELS if v != "chip" and is_within(v, "drive")]),
    st.sets(st.sampled_from(list(LEVELS)), max_size=3),
    st.booleans(),
)


@given(plans)
def test_no_plan_ever_leaves_the_console_without_its_key_and_undoing_it_restores_what_was_fitted(told):
    unit, level, broken, from_donor = told
    assume(any(is_within(a, level) for a in atoms(unit)))
    plan = swap_plan(unit, level, broken=broken, from_donor=from_donor)
    now = start(unit)
    for step in plan.steps:
        now = run(now, [step])
        assert not unit.key_carrier or now[UNIT, unit.key_carrier] in (UNIT, MAT)
    held = {(who, a) for (who, a), place in now.items() if place == UNIT}
    assert held == {(UNIT, a) for a in (*plan.stays, *plan.moves)} | {(DONOR, a) for a in plan.comes}
    assert len(held) == len(atoms(unit))
    assert not unit.key_carrier or (UNIT, unit.key_carrier) in held
    assert run(now, plan.back) == start(unit)


def test_every_family_comes_apart_into_pieces_that_have_a_parent_in_it():
    for family in ("tray", "slot", "lid"):
        names = {v.id for v in pieces_of(family)}
        assert all(v.within in names or v.id == "drive" for v in pieces_of(family))
