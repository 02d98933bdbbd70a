"""Every calculator through its declared fields: what it answers to a bench's numbers, and that nothing wrong gets in."""

import json
from dataclasses import asdict
from pathlib import Path

import pytest
from spindle.bench.tools.catalogue import TOOLS, tool
from spindle.bench.tools.fields import read_inputs
from spindle.bench.verdict import Verdict
from spindle.errors import InputsError, InvalidError, NotFoundError
from spindle.faults.cautions import CAUTIONS
from spindle.faults.library import MODELS
from spindle.formats.sheet_file import parse_json, read_sheet

VOLTS = {"quantity": "voltage", "mains": "running", "disc": "in", "switch": "any", "low": "11.6 V", "high": "12.3 V", "limit_mains": "running"}
OHMS = {"quantity": "resistance", "mains": "out", "disc": "any", "switch": "any"}
TRIM = {
    "school": "book",
    "quantity": "resistance",
    "low": "690 ohm",
    "high": "840 ohm",
    "strong": "630 ohm",
    "drive": "less",
    "clockwise": "lowers",
    "u": "2 ohm",
}
LOOP = {"way": "flat", "measured": "76 mm", "section": "1.2 mm", "motor": "6 mm", "gear": "28 mm", "centres": "46 mm"}
BLOWN = {"rating": "1.5 A fast", "supply": "12 V"}
OWNERS = {"nominal": "12 V", "amps": "2 A", "read": "12.1 V", "loaded": True, "rated": "2 A", "gives": "dc", "wants": "dc", "plug": "plus", "socket": "plus"}
PRESS = {"closes": True, "ohm": "0.2 ohm", "travel": "55 %", "opens": True}
CAP = {"name": "C1", "uf": "100 uF", "volt": "10 V"}
RAIL = {"wear": ["0 mm", "0.12 mm", "0.25 mm"], "base": "30 mm", "stock": ["0.05 mm", "0.1 mm", "0.2 mm"], "nm650": True}
TRIMS = [{"name": "Bias", "low": "1 V", "high": "2 V"}, {"name": "Gain", "low": "1 V", "high": "2 V"}]

ANSWERS = [
    ("reading", VOLTS | {"values": ["12 V", "12.01 V", "11990 mV"], "pct": 0.1}, "inside the limit", None),
    ("reading", VOLTS | {"values": ["11 V"], "pct": 0.1}, "under the limit", None),
    ("reading", VOLTS | {"values": ["13 V"], "pct": 0.1}, "over the limit", None),
    ("reading", VOLTS | {"values": ["11.58 V"]}, "at the edge", None),
    ("reading", VOLTS | {"values": ["12 V"], "pct": 5}, "cannot tell", None),
    ("reading", VOLTS | {"values": ["12 V"], "limit_mains": "standby"}, "another state", None),
    ("reading", VOLTS | {"values": ["12 V"], "limit_disc": "out"}, "another state", None),
    ("reading", VOLTS | {"values": ["12 V"], "lid": "open", "limit_lid": "shut"}, "another state", None),
    ("reading", VOLTS | {"values": ["12 V"], "statistic": "lowest", "limit_statistic": "steady"}, "another state", None),
    ("reading", VOLTS | {"values": ["12 V"], "pct": 0.1, "limit_flex": "in", "limit_lid": "any", "lid": "open"}, "inside the limit", None),
    ("reading", OHMS | {"values": ["4 ohm"]}, "No limit", None),
    ("reading", OHMS | {"values": ["OL"], "low": "1 ohm"}, "Open, where", None),
    ("trimmer", TRIM, "Read it three times", None),
    ("trimmer", TRIM | {"stops": [{"looks": ["990 ohm", "990 ohm", "0.99 kohm"]}]}, "Turn 5° clockwise", None),
    ("trimmer", TRIM | {"school": "creep", "stops": [{"looks": ["990 ohm"] * 3, "passes": 0, "tries": 3}]}, "Turn 5° clockwise", None),
    ("trimmer", TRIM | {"school": "creep", "stops": [{"looks": ["680 ohm"] * 3, "passes": 0, "tries": 3}]}, "Refused", None),
    ("trimmer", TRIM | {"school": "creep", "stops": [{"looks": ["765 ohm"] * 3, "passes": 8, "tries": 8}]}, "fair reserve", None),
    ("trimmer", TRIM | {"school": "creep", "rate": 0.1, "stops": [{"looks": ["690 ohm"] * 3, "passes": 8, "tries": 8}]}, "about 8 months", None),
    ("alignment", {"quantity": "voltage", "trims": TRIMS}, "before the first turn", None),
    ("alignment", {"quantity": "voltage", "trims": TRIMS, "rounds": [{"readings": ["1.5 V", "1.6 V"]}]}, "Aligned", None),
    ("alignment", {"quantity": "voltage", "trims": TRIMS, "rounds": [{"readings": ["2.5 V", "1.6 V"]}]}, "Round 1: set Bias, then Gain", None),
    ("switch", {"at_rest": "open", "rest": "OL", "pressed": "0.4 ohm"}, "as the sheet says", None),
    ("switch", {"at_rest": "open", "presses": [PRESS] * 5}, "works each time", None),
    ("switch", {"at_rest": "closed", "rest": "OL", "pressed": "0.4 ohm", "presses": [PRESS] * 5}, "opposite of the sheet", None),
    ("flex", {"tracks": 24, "pitch": "0.5 mm"}, "Read track", None),
    ("fuse", BLOWN, "Wanted: 1.5 A fast", None),
    ("fuse", BLOWN | {"gap": "1.6 mm", "candidates": [{"marking": "F1.5AL250V", "ohm": "0.1 ohm", "length": "3 mm"}]}, "fit it", Verdict.ALLOWED),
    ("fuse", BLOWN | {"candidates": [{"marking": "a wire", "ohm": "0.1 ohm"}]}, "None of them", Verdict.REFUSED),
    ("blown", BLOWN, "No power before", Verdict.REFUSED),
    ("blown", BLOWN | {"ohm": "0.5 ohm"}, "a short", Verdict.REFUSED),
    ("blown", BLOWN | {"ohm": "12 ohm"}, "doubtful", Verdict.TRIAL_ONLY),
    ("blown", BLOWN | {"ohm": "OL"}, "no short", Verdict.ALLOWED),
    ("belt", LOOP, "Buy 138 mm around", None),
    ("belt", LOOP | {"measured": "90 mm"}, "Slack: it hangs", None),
    ("belt", LOOP | {"way": "loop", "measured": "46.5 mm"}, "times pi it would be 146 mm", Verdict.REFUSED),
    ("belt", LOOP | {"centres": "18 mm"}, "would touch", Verdict.REFUSED),
    ("belt", LOOP | {"at_hand": [{"name": "B-7", "loop": "138 mm", "section": "1.2 mm"}]}, "From the shelf: B-7", None),
    ("shim", RAIL, "Lay 0.05 mm + 0.2 mm", Verdict.TRIAL_ONLY),
    ("shim", RAIL | {"lean650": "1°"}, "less than it may", Verdict.TRIAL_ONLY),
    ("shim", RAIL | {"lean405": "1°"}, "Lay 0.05 mm + 0.2 mm", Verdict.TRIAL_ONLY),  # of a light that this drive does not have
    ("capacitors", {}, "Say which places", None),
    ("capacitors", {"places": [CAP], "kit": [CAP]}, "1 of 1 places have their part. Look at the polarity", None),
    ("capacitors", {"places": [CAP | {"seen_once": True, "seen_again": True}], "kit": [CAP]}, "seen twice", None),
    ("capacitors", {"places": [CAP], "kit": [CAP | {"volt": "6.3 V"}]}, "0 of 1", Verdict.REFUSED),
    ("supply", OWNERS, "what the unit asks for", Verdict.ALLOWED),
    ("supply", OWNERS | {"read": "-12 V"}, "Do not plug it in", Verdict.REFUSED),
    ("supply", OWNERS | {"loaded": False}, "Not yet", Verdict.TRIAL_ONLY),
]


@pytest.mark.parametrize(("name", "given", "says", "verdict"), ANSWERS)
def test_a_calculator_answers_in_words(name, given, says, verdict):
    told = TOOLS[name].answer(given)
    assert says in told.headline
    assert told.verdict == verdict
    assert set(told.cautions) <= CAUTIONS.keys()
    assert json.loads(json.dumps(asdict(told)))["headline"] == told.headline


MAINS = [
    ("reading", OHMS | {"values": ["4 ohm"]}, "out"),
    ("reading", VOLTS | {"values": ["12 V"]}, "live"),
    ("reading", VOLTS | {"mains": "standby", "values": ["5 V"]}, "any"),
    ("trimmer", TRIM, "out"),
    ("trimmer", {**TRIM, "quantity": "voltage", "low": "1 V", "high": "2 V", "strong": None, "u": None, "stops": [{"looks": ["5 V"]}]}, "live"),
    ("switch", {"at_rest": "open"}, "out"),
    ("switch", {"at_rest": "open", "presses": [PRESS]}, "out"),
    ("flex", {"tracks": 4, "pitch": "1 mm"}, "out"),
    ("blown", BLOWN, "any"),
    ("blown", BLOWN | {"ohm": "9 ohm"}, "out"),
    ("belt", LOOP, "any"),
]


@pytest.mark.parametrize(("name", "given", "mains"), MAINS)
def test_a_calculator_says_with_which_mains_it_is_read(name, given, mains):
    told = TOOLS[name].answer(given)
    assert told.mains == mains
    assert mains != "live" or not [s for s in told.speaks if s.question == "trimmer_reading" and name == "trimmer"]


def test_a_trimmer_says_the_one_step_back_to_as_found():
    stops = [{"looks": ["990 ohm"] * 3}, {"turned_deg": 5, "looks": ["950 ohm"] * 3}, {"turned_deg": 10, "looks": ["870 ohm"] * 3}]
    numbers = {n.name: n.text for n in TOOLS["trimmer"].answer(TRIM | {"stops": stops}).numbers}
    assert numbers["Back to as found"] == "Turn 15° anticlockwise, seen from the front"
    assert (numbers["As found"], numbers["Now"]) == ("990 Ω", "870 Ω")


SPEAKS = [
    ("reading", VOLTS | {"values": ["11 V"], "pct": 0.1}, "supply_reading", "sags"),
    ("reading", VOLTS | {"values": ["1 V"], "pct": 0.1}, "board_supply", "missing"),
    ("reading", VOLTS | {"values": ["13 V"], "pct": 0.1}, "supply_reading", None),  # over the band is neither
    ("reading", VOLTS | {"values": ["13 V"], "pct": 0.1}, "level_reading", "high"),
    ("reading", VOLTS | {"values": ["12 V"], "limit_mains": "standby"}, "supply_reading", None),
    ("reading", OHMS | {"values": ["OL"]}, "fuse_test", "open"),
    ("reading", OHMS | {"values": ["0.2 ohm"]}, "fuse_test", "closed"),
    ("reading", OHMS | {"values": ["8 ohm"]}, "coil_reading", "good"),
    ("trimmer", TRIM | {"stops": [{"looks": ["990 ohm"] * 3}]}, "trimmer_reading", "out_of_band"),
    ("switch", {"at_rest": "open", "presses": [PRESS | {"closes": False}] * 5}, "switch_home_test", "dead"),
    ("switch", {"at_rest": "closed", "rest": "OL", "pressed": "0.4 ohm", "presses": [PRESS] * 5}, "switch_home_test", None),
    ("blown", BLOWN | {"ohm": "0.5 ohm"}, "short_test", "short"),
    ("belt", LOOP | {"measured": "90 mm"}, "belt_look", "tired"),
    ("supply", OWNERS | {"read": "10 V"}, "supply_rating", "weak"),
    ("supply", OWNERS | {"read": "15 V"}, "supply_rating", "wrong"),
    ("supply", OWNERS | {"loaded": False}, "supply_rating", None),
]


@pytest.mark.parametrize(("name", "given", "question", "answer"), SPEAKS)
def test_a_calculator_speaks_to_a_question_of_the_drive_or_keeps_still(name, given, question, answer):
    found = {s.question: s.weights for s in TOOLS[name].answer(given).speaks}
    top = max(found[question], key=lambda o: found[question][o]) if question in found else None
    assert top == answer


QUESTIONS = {q.id: {o.id for o in q.outcomes} for m in MODELS.values() for q in m.questions}


@pytest.mark.parametrize(("name", "given"), [(n, g) for n, g, *_ in ANSWERS])
def test_what_it_speaks_to_is_a_question_that_there_is_with_shares_that_sum_to_one(name, given):
    for speaks in TOOLS[name].answer(given).speaks:
        assert speaks.question in TOOLS[name].questions
        assert set(speaks.weights) == QUESTIONS[speaks.question]
        assert sum(speaks.weights.values()) == pytest.approx(1)


def paths(value, at=()):
    """Every leaf of inputs by its place."""
    if isinstance(value, dict | list):
        for k, v in value.items() if isinstance(value, dict) else enumerate(value):
            yield from paths(v, (*at, k))
    else:
        yield at


def put(value, at, new):
    """The same inputs with another leaf."""
    if not at:
        return new
    copy = value.copy()
    copy[at[0]] = put(copy[at[0]], at[1:], new)
    return copy


def example(name, says):
    """The inputs of an answer above."""
    return next(given for tool_name, given, told, _ in ANSWERS if (tool_name, told) == (name, says))


FULL = [
    ("trimmer", example("trimmer", "Turn 5° clockwise")),
    ("belt", example("belt", "From the shelf: B-7")),
    ("switch", example("switch", "works each time")),
    ("capacitors", example("capacitors", "seen twice")),
    ("supply", OWNERS),
    ("shim", RAIL),
    ("reading", example("reading", "inside the limit")),
]


@pytest.mark.parametrize(("name", "given", "at"), [(n, g, at) for n, g in FULL for at in paths(g)])
def test_rubbish_in_any_field_is_refused_whole_and_names_its_place(name, given, at):
    for rubbish in ({"a": 1}, "3 furlongs", "x" * 121):
        if TOOLS[name].fields[[f.id for f in TOOLS[name].fields].index(at[0])].kind == "text" or (at[-1] == "name" and rubbish == "3 furlongs"):
            continue
        with pytest.raises((InputsError, InvalidError)) as caught:
            TOOLS[name].answer(put(given, at, rubbish))
        assert "/".join(map(str, at)) in str(caught.value.params)


def test_all_that_is_wrong_is_named_at_once_and_unknown_fields_too():
    with pytest.raises(InputsError) as caught:
        TOOLS["belt"].answer({"way": "moon", "measured": "76", "section": "-1 mm", "wings": 2})
    assert [place for place, _ in caught.value.faults] == ["/wings", "/way", "/measured", "/section", "/motor", "/gear", "/centres"]
    with pytest.raises(InputsError):
        TOOLS["belt"].answer([])
    with pytest.raises(NotFoundError):
        tool("divining rod")


SAME = [("12 V", "12000 mV"), ("6 mm", "0.6 cm"), ("28 mm", "0.028 m"), ("690 ohm", "0.69 kohm"), ("100 uF", "100000 nF"), ("55 %", "55 percent")]


@pytest.mark.parametrize(("name", "given"), [(n, g) for n, g, *_ in ANSWERS])
def test_another_unit_never_changes_a_verdict(name, given):
    text = json.dumps(given)
    for one, other in SAME:
        text = text.replace(f'"{one}"', f'"{other}"')
    assert TOOLS[name].answer(json.loads(text)).headline == TOOLS[name].answer(given).headline


SHEETS = sorted((Path(__file__).parents[2] / "demo" / "sheets").glob("*.json"))


@pytest.mark.parametrize("file", SHEETS, ids=lambda f: f.stem)
@pytest.mark.parametrize("name", TOOLS)
def test_what_a_sheet_already_says_is_taken_as_it_is(name, file):
    full = read_sheet(parse_json(file.read_bytes()))
    for start in TOOLS[name].prefill(full):
        read_inputs([f for f in TOOLS[name].fields if f.id in start.inputs], start.inputs)
        assert start.question in ("", *TOOLS[name].questions)


NO_OPEN = [
    ("reading", VOLTS | {"quantity": "resistance", "values": ["1 ohm"]}, "high"),
    ("trimmer", TRIM, "low"),
    ("switch", {"at_rest": "open", "presses": [PRESS]}, "presses/0/ohm"),
]


@pytest.mark.parametrize(("name", "given", "place"), NO_OPEN)
def test_an_overload_is_an_answer_and_no_limit(name, given, place):
    path = [int(x) if x.isdigit() else x for x in place.split("/")]
    with pytest.raises(InputsError) as caught:
        TOOLS[name].answer(put(given, path, "OL"))
    assert f"/{place}" in [p for p, _ in caught.value.faults]


@pytest.mark.parametrize(("name", "rows", "row"), [("switch", "presses", {"ohm": "1 ohm"}), ("flex", "readings", {"where": "side", "from": 1, "to": 2})])
def test_what_was_not_said_is_asked_and_never_taken_as_no(name, rows, row):
    with pytest.raises(InputsError, match="is missing"):
        TOOLS[name].answer({"tracks": 4, "pitch": "1 mm", rows: [row]} if name == "flex" else {"at_rest": "open", rows: [row]})


def test_a_start_names_the_one_question_that_it_answers_and_none_where_there_are_two():
    full = read_sheet(parse_json(next(f for f in SHEETS if f.stem == "VM-S41").read_bytes()))
    asked = {s.name: s.question for s in TOOLS["reading"].prefill(full)}
    assert asked == {
        "TP7 to TP1, voltage, running": "",
        "TP7 to TP1, voltage, standby": "",
        "TP12 to TP1, level, running": "level_reading",
        "DVD trimmer": "trimmer_reading",
        "BD trimmer": "trimmer_reading",
    }


@pytest.mark.parametrize(("missing", "answer"), [(None, "sags"), ("4 V", "missing"), ("2 V", "sags")])
def test_from_where_a_supply_is_missing_and_not_weak_is_the_sheets_to_say(missing, answer):
    told = TOOLS["reading"].answer(VOLTS | {"values": ["3.5 V"], "pct": 0.1, "missing": missing})
    weights = next(x.weights for x in told.speaks if x.question == "board_supply")
    assert max(weights, key=weights.get) == answer


@pytest.mark.parametrize("low", ["11.6 V", None])
def test_what_is_missing_lies_under_the_limit(low):
    with pytest.raises(InputsError) as caught:
        TOOLS["reading"].answer(VOLTS | {"low": low, "values": ["3.5 V"], "missing": "11.7 V"})
    assert [p for p, _ in caught.value.faults] == ["/missing"]


def test_a_trimmer_that_is_known_in_volts_is_set_and_read_running_and_each_light_has_its_own_lean():
    document = parse_json(next(f for f in SHEETS if f.stem == "KD-L1").read_bytes())
    document["tables"] |= {"tilt": [{"nm": str(nm), "most_deg": deg, "origin": "shop", "confidence": "fair"} for nm, deg in ((650, 0.4), (780, 0.7))]}
    one = document["tables"]["trimmers"][0]
    document["tables"]["trimmers"].append({**one, "name": "Gain", "low_ohm": None, "high_ohm": None, "strong_ohm": None, "more_light": "more volts"})
    told = {name: {s.name: s.inputs for s in TOOLS[name].prefill(read_sheet(document))} for name in ("trimmer", "reading", "alignment", "shim")}
    assert list(told["trimmer"]) == ["Only one", "Only one, running", "Gain, running"]
    gain = told["trimmer"]["Gain, running"]
    assert (gain["quantity"], gain["low"], gain["high"], gain["drive"], gain["clockwise"]) == ("voltage", "1.85 V", "2.1 V", "more", "lowers")
    assert "clockwise" not in told["trimmer"]["Only one, running"]  # said of the ohms
    assert told["reading"]["Gain trimmer, running"]["limit_mains"] == "running"
    assert list(told["alignment"]) == ["All trimmers, running"]
    assert {k: v for k, v in told["shim"]["Rails"].items() if k.startswith("lean")} == {"lean650": "0.4°", "lean780": "0.7°"}
