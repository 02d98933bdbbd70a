"""The command as a user runs it, every example of the formats' documents, and bad files."""

import json
from pathlib import Path

import jsonschema
import pytest
from spindle.bench.tools.catalogue import TOOLS
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.given.compiled import compile_model
from spindle.formats.case_file import read_case, write_case
from spindle_cli.__main__ import main
from spindle_cli.study import BENCH_MEASURES

FORMATS = Path(__file__).parents[2] / "docs" / "formats"
EXAMPLES = sorted((FORMATS / "examples").glob("*.json"))
SCHEMA = json.loads((FORMATS / "case.schema.json").read_text())
GOOD = json.loads((FORMATS / "examples" / "board-pressed.json").read_text())


def run(capsys, *argv):
    code = main([str(a) for a in argv])
    out, err = capsys.readouterr()
    return code, out, err


def diagnosed(capsys, name):
    return json.loads(run(capsys, "diagnose", FORMATS / "examples" / f"{name}.json")[1])


@pytest.mark.parametrize("path", EXAMPLES, ids=lambda p: p.stem)
def test_every_example_fits_its_schema_runs_and_round_trips(path, capsys):
    document = json.loads(path.read_text())
    jsonschema.validate(document, SCHEMA)
    code, out, err = run(capsys, "diagnose", path)
    assert (code, err) == (0, "")
    assert sum(s["p"] for s in json.loads(out)["suspects"]) == pytest.approx(1)
    case = read_case(document)
    assert read_case(json.loads(json.dumps(write_case(case)))) == case


def test_striking_the_last_finding_gives_back_the_former_numbers(capsys):
    before, struck = (diagnosed(capsys, n)["suspects"] for n in ("two-pickups-swapped", "board-press-struck"))
    assert {s["fault"]: s["p"] for s in struck} == pytest.approx({s["fault"]: s["p"] for s in before}, abs=1e-12)


def test_the_story_of_the_paired_slot_drive(capsys):
    first, second, third = (diagnosed(capsys, n) for n in ("retries", "two-pickups-swapped", "board-pressed"))
    assert {s["part"] for s in first["suspects"][:3]} == {"pickup", "lens", "flex_pickup"}
    assert {p["part"] for p in first["parts"][:3]} == {"pickup", "lens", "flex_pickup"}
    assert first["parts"][0]["p"] < 0.8
    assert second["parts"][0]["part"] != "pickup"
    assert third["parts"][0]["part"] == "driver"


def test_vocabulary_has_an_id_and_a_sentence_for_everything(capsys):
    code, out, _ = run(capsys, "vocabulary")
    words = json.loads(out)["families"]["slot"]
    assert code == 0
    assert all(w["id"] and w["sentence"] for kind in ("faults", "findings", "tests", "repairs") for w in words[kind])
    assert all(a["id"] and a["sentence"] for kind in ("findings", "tests") for w in words[kind] for a in w["answers"])


def changed(path, value):
    document = json.loads(json.dumps(GOOD))
    *way, last = path.split("/")
    at = document
    for key in way:
        at = at[int(key) if key.isdigit() else key]
    at[int(last) if last.isdigit() else last] = value
    return document


BAD = [
    ("version", 2, "/version: this program reads version 1"),
    ("format", "other", "/format: expected 'tidy-spindle-case'"),
    ("drive/family", "drawer", "/drive/family"),
    ("drive/classes", [], "/drive/classes"),
    ("drive/classes", ["game_hd"], "/drive/classes"),
    ("drive/pairing", "glue", "/drive/pairing: 'glue' is none of none, board"),
    ("drive/prior_factors", {"gremlins": 2}, "/drive/prior_factors/gremlins"),
    ("drive/prices", {"replace_pickup": {"price_eur": -1}}, "/drive/prices/replace_pickup/price_eur"),
    ("bench/depth", 3, "/bench/depth: expected a text"),
    ("findings/0/answer/question", "take_disc", "did you mean 'takes_disc'?"),
    ("findings/0/answer/outcome", "perhaps", "/findings/0/answer/outcome"),
    ("findings/1/answer/failed", 9, "/findings/1/answer/failed: 9 failures of 4 tries"),
    ("findings/1/id", "f1", "/findings/1/id: 'f1' is there twice"),
    ("findings/4/trial/changes", [], "/findings/4/trial/changes"),
    ("findings/4/trial/changes/0/repair", "pray", "no repair is called 'pray'"),
    ("findings/4/trial/result", "cured", "/findings/4/trial/result"),
    ("findings/0/remark", {"text": "x"}, "/findings/0: a finding is one of"),
    ("strikes", ["f99"], "/strikes/0: 'f99' is the id of no finding"),
    ("findngs", [], "did you mean 'findings'?"),
    ("economy", {"day_eur": "much"}, "/economy/day_eur"),
    ("findings", {"id": "f1"}, "/findings: expected a list, got an object"),
    ("findings/0/id", "a\0b", "NUL"),
]


@pytest.mark.parametrize(("path", "value", "says"), BAD, ids=[f"{p}={v!r:.20}" for p, v, _ in BAD])
def test_a_bad_case_is_refused_with_its_place_and_nothing_else(path, value, says, tmp_path, capsys):
    file = tmp_path / "case.json"
    file.write_text(json.dumps(changed(path, value)))
    code, out, err = run(capsys, "diagnose", file)
    assert (code, out) == (2, "")
    assert says in err
    assert err.count("\n") == 1


@pytest.mark.parametrize(
    ("raw", "says"),
    [
        (b"{", "line 1, column 2"),
        (b"[1]", "expected an object, got a list"),
        (b'\xff{"a":1}', "not UTF-8 at byte 0"),
        (b'{"format": NaN}', "NaN is not a JSON number"),
        (b"[" * 100_000, "nested too deeply"),
        (b" " * 5_000_001, "larger than"),
    ],
)
def test_what_is_no_case_file_is_refused(raw, says, tmp_path, capsys):
    file = tmp_path / "case.json"
    file.write_bytes(raw)
    code, out, err = run(capsys, "diagnose", file)
    assert (code, out) == (2, "")
    assert says in err


SAYS = [
    ("tray-jams-empty", lambda d: d["parts"][0]["part"] == "belt" and next(m for m in d["next_moves"] if m["kind"] == "repair")["item"] == "BELT-12"),
    ("lid-doubtful-donor", lambda d: {w["finding"]: w["left_out"] for w in d["weights"]}["f3"] == "disc_wrong_way" and d["swaps"]["next_item"] == "D-2"),
    ("new-since-our-step", lambda d: d["parts"][0]["part"] == "handling" and "new_symptom" in {n["code"] for n in d["notices"]}),
    ("one-of-two-cured", lambda d: d["suspects"][0]["fault"] == "switch_insert"),
    ("comes-and-goes", lambda d: d["ending"]["verdict"] == "go_on" and d["ending"]["passes_wanted"] > 8),
    ("findings-disagree", lambda d: d["contradictions"][0]["finding"] == "f6"),
]


@pytest.mark.parametrize(("name", "holds"), SAYS, ids=[s[0] for s in SAYS])
def test_each_example_says_what_it_is_there_for(name, holds, capsys):
    assert holds(diagnosed(capsys, name))


def test_two_steps_deep_is_asked_for_and_costs_no_more(capsys):
    path = FORMATS / "examples" / "retries.json"
    shallow, deep = (json.loads(run(capsys, "diagnose", path, *more)[1])["next_moves"] for more in ((), ("--deep",)))
    assert min(m["expected_eur_at_most"] for m in deep) <= min(m["expected_eur_at_most"] for m in shallow) + 1e-9


def test_a_study_prints_json_and_its_progress_aside(capsys):
    code, out, err = run(capsys, "study", "--cases", 6, "--seed", 3, "--family", "lid", "--policy", "planner", "--policy", "flow_chart", "--jobs", 1)
    family = json.loads(out)["families"]["lid"]
    beside = {"flow_chart", "knowing", "oracle"}
    assert (code, family["policies"].keys(), family["planner_against"].keys()) == (0, {"planner", *beside}, beside)
    assert "1/1" in err
    again = run(capsys, "study", "--cases", 6, "--seed", 3, "--family", "lid", "--policy", "planner", "--policy", "flow_chart", "--jobs", 1)[1]
    assert again == out


@pytest.mark.parametrize("measure", ["slips", "donors", "proof"])
def test_every_measure_prints_numbers(measure, capsys):
    code, out, _ = run(capsys, "study", "--measure", measure, "--cases", 8, "--family", "tray", "--jobs", 1)
    assert code == 0
    assert all(isinstance(v, int | float) for v in json.loads(out)["families"]["tray"].values())


def test_the_optimum_prints_both_gaps(capsys):
    code, out, _ = run(capsys, "optimum", "--cases", 1, "--seed", 2, "--jobs", 2)
    assert code == 0
    assert all(s["invariant_broken"] == 0 and s["two_step_gap_percent"] >= 0 for s in json.loads(out)["sizes"])


REFUSED = [(["--cases", "none"], "whole number"), (["--world", "flat"], "invalid choice"), (["--policy", "luck"], "invalid choice")]


@pytest.mark.parametrize(("argv", "says"), REFUSED)
def test_a_study_refuses_what_it_does_not_know(argv, says, capsys):
    with pytest.raises(SystemExit) as stopped:
        main(["study", *argv])
    assert stopped.value.code == 2
    assert says in capsys.readouterr().err


def test_a_measured_answer_weighs_between_its_two_crisp_ones(capsys):
    document = json.loads((FORMATS / "examples" / "measured-supply.json").read_text())

    def weak(answer):
        found = diagnose(
            read_case({**document, "findings": [*document["findings"][:-1], {"id": "m1", "answer": answer}]}), compile_model(read_case(document).sheet)
        )
        return next(s.p for s in found.suspects if s.id == "supply_weak")

    soft, sags, fine = weak(document["findings"][-1]["answer"]), *(weak({"question": "board_supply", "outcome": o}) for o in ("sags", "in_band"))
    assert fine < soft < sags
    assert weak({"question": "board_supply", "outcome": "sags", "weights": [{"outcome": "sags", "share": 1.0}]}) == pytest.approx(sags)


WEIGHTS = [
    ([{"outcome": "sags", "share": 0.4}], "sum to 1"),
    ([{"outcome": "sags", "share": 0.4}, {"outcome": "in_band", "share": 0.6}], "the outcome says"),
    ([{"outcome": "sags", "share": 0.6}, {"outcome": "flows", "share": 0.4}], "no answer is called"),
    ([{"outcome": "sags", "share": 1.5}], "from 0 to 1"),
]


@pytest.mark.parametrize(("weights", "why"), WEIGHTS)
def test_weights_that_are_none_are_refused_at_their_place(tmp_path, capsys, weights, why):
    document = json.loads((FORMATS / "examples" / "measured-supply.json").read_text())
    document["findings"][-1]["answer"]["weights"] = weights
    (tmp_path / "case.json").write_text(json.dumps(document))
    code, _, err = run(capsys, "diagnose", tmp_path / "case.json")
    assert (code, why in err, "/answer" in err) == (2, True, True)


def test_a_calculator_answers_a_file_and_names_all_that_is_wrong_with_one(tmp_path, capsys):
    (tmp_path / "in.json").write_text('{"rating": "1.5 A fast", "supply": "12 V", "ohm": "0.5 ohm"}')
    code, out, _ = run(capsys, "measure", "blown", tmp_path / "in.json")
    assert (code, json.loads(out)["verdict"], json.loads(out)["may_power"]) == (0, "refused", False)
    (tmp_path / "in.json").write_text('{"rating": "1.5 A fast", "supply": "12", "wings": 2}')
    code, out, err = run(capsys, "measure", "blown", tmp_path / "in.json")
    assert (code, out, "/wings" in err, "/supply" in err) == (2, "", True, True)
    assert run(capsys, "measure", "blown")[0] == 2
    assert [t["id"] for t in json.loads(run(capsys, "measure", "list")[1])["tools"]] == list(TOOLS)


@pytest.mark.parametrize("measure", [m for m in BENCH_MEASURES if not m.startswith("day_")])
def test_the_figures_of_a_calculator_come_from_their_seed(capsys, measure):
    argv = ["study", "--measure", measure, "--cases", "20", "--seed", "3"]
    first, again = (json.loads(run(capsys, *argv)[1]) for _ in range(2))
    assert first == again
    assert (first["measure"], first["cases"]) == (measure, 20)
