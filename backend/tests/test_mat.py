"""Opening and shutting over the wire: the sheets of console and drive together, the way in, what lies on the mat, and the console's own sheet."""

import json
import uuid
from pathlib import Path
from urllib.parse import urlencode

import pytest
from apps.drives.consoles import pictures_of_sheets
from apps.drives.models import Console, Sheet
from django.core.files.uploadedfile import SimpleUploadedFile
from spindle.drives.tables import CONSOLE_TABLES
from spindle.errors import NotNowError
from spindle.formats.console_file import read_console

JOB = "K-0107"
NAMED = {"maker": "Vessmark", "console": "Orlo 3", "revision": "C"}
FILE = Path(__file__).parents[2] / "demo" / "consoles" / "orlo-3-c.json"


def mat(bram, **query):
    return bram.client.get(f"/api/jobs/{JOB}/mat", query)


@pytest.fixture
def unplugged(bram):
    bram.unplug(JOB)
    return bram


def test_a_unit_opens_by_both_its_sheets_and_shuts_in_reverse(unplugged):
    bram = unplugged
    way = mat(bram, goal="pickup").json()["way_in"]["moves"]
    assert [way[0]["step"], way[-1]["step"]] == ["console:Feet", "drive:Rod clips"]
    for move in way:
        assert bram.ask(JOB, "open_step", step=move["step"], is_open=True).status_code == 200
    now = mat(bram).json()
    assert any("4 × cross 1, 3 × 12 mm, black (under the feet)" in s for s in now["says"])
    assert bram.get(f"/jobs/{JOB}").json()["depth"] == 3
    assert bram.ask(JOB, "depth", depth=0).json()["params"]["reason"] == "mat"
    assert bram.shut(JOB).status_code == 200
    assert mat(bram).json()["says"] == ["Nothing is open.", "No screw lies on the mat."]
    assert bram.get(f"/jobs/{JOB}").json()["depth"] == 0


def test_a_look_inside_opens_on_the_mat_what_its_sheets_name_on_the_way(unplugged):
    assert unplugged.ask(JOB, "depth", depth=2).json()["mat"]["left"] == 9
    assert mat(unplugged).json()["steps"][8]["is_open"]


def test_it_is_known_which_side_lies_up_and_what_falls_out_if_it_is_turned(unplugged):
    unplugged.ask(JOB, "depth", depth=2)
    move = mat(unplugged, goal="board").json()["way_in"]["moves"][0]
    assert (move["step"], move["turn_to"], move["falls"]) == ("drive:Motor flex", "underside", ["both arms with their springs, once the roof is off"])


@pytest.mark.parametrize(("goal", "status"), [("", 200), ("depth_1", 200), ("wing", 404), ("no such", 422)])
def test_a_goal_is_one_that_the_sheets_lead_to(bram, goal, status):
    assert mat(bram, goal=goal).status_code == status


def test_a_screw_that_would_reach_something_is_refused_and_nothing_is_written(bram):
    place = mat(bram).json()["steps"][1]["groups"][0]["places"][0]["id"]
    before = bram.get(f"/jobs/{JOB}").json()["version"]
    refused = bram.ask(JOB, "mark_place", place=place, state="replaced", length_mm=16, thread_mm=3)
    assert (refused.status_code, refused.json()["code"]) == (409, "refused")
    assert "it can reach the fan’s housing" in refused.json()["title"]
    assert bram.get(f"/jobs/{JOB}").json()["version"] == before


def save(who, document, **more):
    return who.post("/console", key=more.pop("key", "console-1"), document=document, based_on=1, **more)


def test_a_console_is_saved_as_its_next_version_once_and_every_mat_follows(ida, bram):
    document = json.loads(FILE.read_text())
    document["tables"]["opening"][0]["step"] = "Rubber feet"
    document["tables"]["opening"][1]["after"] = "Rubber feet"
    assert [save(ida, document, why="feet").json()["version"] for _ in range(2)] == [2, 2]
    assert save(ida, document, key="console-2").status_code == 409
    assert mat(bram).json()["steps"][0]["id"] == "console:Rubber feet"
    assert Console.objects.filter(**NAMED).count() == 2


@pytest.mark.parametrize(("tables", "place"), [({"opening": [{"step": "x"}]}, "/tables/opening/0/kind"), ({"wings": []}, "/tables/wings")])
def test_a_wrong_console_is_refused_at_its_place(ida, tables, place):
    answer = save(ida, {"format": "tidy-spindle-console", "version": 1, **NAMED, "tables": tables})
    assert (answer.status_code, answer.json()["params"]["place"]) == (422, place)


WHERE = "/console/tables/{}?" + urlencode(NAMED)


def load(who, table, raw):
    body = {"key": uuid.uuid4().hex, "file": SimpleUploadedFile("a.csv", raw)}
    return who.client.post("/api" + WHERE.format(table), body)


@pytest.mark.parametrize("table", list(CONSOLE_TABLES))
def test_each_table_of_a_console_goes_out_as_csv_and_comes_back_without_a_new_version(ida, table):
    assert load(ida, table, ida.get(WHERE.format(table)).content).json()["version"] == 1


def test_a_table_of_a_console_from_a_file_is_its_next_version_or_is_refused_at_its_place(ida):
    raw = ida.get(WHERE.format("opening")).content
    assert load(ida, "opening", raw.replace(b"Feet", b"Rubber feet")).json()["version"] == 2
    assert load(ida, "opening", b"step\r\n").json()["params"]["place"] == "line 1"
    assert load(ida, "wings", raw).status_code == 422
    assert ida.get(WHERE.format("wings")).status_code == 404


def test_only_who_may_write_sheets_writes_a_console(nia):
    assert save(nia, json.loads(FILE.read_text())).status_code == 403


def test_a_console_goes_out_as_a_file_and_comes_back_unchanged(ida, tmp_path):
    file = ida.client.get("/api/console/file", NAMED)
    assert read_console(json.loads(file.content)) == read_console(json.loads(FILE.read_text()))
    upload = tmp_path / "orlo.json"
    upload.write_bytes(file.content)
    with upload.open("rb") as told:
        assert ida.client.post("/api/console-files", {"key": "console-9", "file": told}).json()["version"] == 1
    assert ida.client.get("/api/console", NAMED | {"revision": "Z"}).json()["version"] == 0


BARE = {"maker": "Halm", "console": "Nock", "revision": "1", "family": "lid", "classes": ["game_cd"]}
NOTES = {"owner_name": "Odo", "owner_contact": "", "complaint": "", "supply": "", "limit_cents": None, "promised_on": None, "condition": {}}
STEPS = [
    {"whose": "console", "step": "Bottom screws", "kind": "screws", "count": 5, "length_mm": 14, "thread_mm": 3, "side": "underside"},
    {"whose": "console", "step": "Shell", "kind": "clip", "opens_to": "cover off", "side": "top", "falls": "the spring"},
    {"whose": "drive", "step": "Drive flex", "kind": "connector", "latch": "lift bar", "opens_to": "drive open"},
]


@pytest.fixture
def unknown(bram):
    """A job with a unit that no sheet knows, three steps of which were recorded."""
    sheet = bram.post("/sheets", key="begin-halm-1", variant="HN-1", **BARE).json()
    tag = bram.post("/jobs", key="take-halm-1", sheet_id=sheet["id"], **NOTES).json()["tag"]
    for step in STEPS:
        assert bram.ask(tag, "record_step", **step).status_code == 200
    return tag


def test_what_was_recorded_while_opening_holds_the_gate_and_becomes_the_sheets_order(bram, unknown):
    assert bram.ask(unknown, "depth", depth=0).json()["params"]["reason"] == "mat"
    drafted = [bram.post(f"/jobs/{unknown}/recorded-sheets", key=k).json()["written"] for k in ("draft-halm-1", "draft-halm-2")]
    assert drafted == [["Nock, revision 1: version 1", "HN-1: version 2"]] * 2
    steps = bram.client.get("/api/console", {k: BARE[k] for k in ("maker", "console", "revision")}).json()["document"]["tables"]["opening"]
    assert [(s["step"], s.get("after"), s["said"]) for s in steps] == [
        ("Bottom screws", None, f"recorded on {unknown}"),
        ("Shell", "Bottom screws", f"recorded on {unknown}"),
    ]
    now = bram.get(f"/jobs/{unknown}/mat").json()
    assert (now["to_record"], now["steps"][-1]["checks"]) == (["drive"], ["Drive flex: bar down flat along its whole width"])
    assert bram.shut(unknown).status_code == 200
    assert bram.post("/jobs/K-0107/recorded-sheets", key="draft-halm-3").json()["params"]["reason"] == "nothing_recorded"


def test_photos_of_recorded_steps_go_into_the_sheets_and_are_shown_at_the_step_of_the_next_unit(bram, unknown, monkeypatch):
    monkeypatch.setattr("apps.jobs.world.is_kept", lambda _: True)
    first, again, loose = ("a" * 64, "b" * 64, "c" * 64)
    bram.ask(unknown, "photograph", hash=first, of="console:Shell", moment="before")
    bram.ask(unknown, "photograph", hash=again, of="console:Shell", moment="now")
    bram.ask(unknown, "photograph", hash=loose, moment="before")
    bram.ask(unknown, "record_step", whose="drive", step="Roof", kind="clip")
    bram.post(f"/jobs/{unknown}/recorded-sheets", key="draft-halm-5")
    now = bram.post("/jobs", key="take-halm-2", sheet_id=Sheet.objects.get(variant="HN-1", is_current=True).pk, **NOTES).json()["tag"]
    pictures = {s["name"]: s["picture"] for s in bram.get(f"/jobs/{now}/mat").json()["steps"]}
    assert pictures == {"Bottom screws": "", "Shell": again, "Drive flex": "", "Roof": loose}
    assert pictures_of_sheets() == {again, loose}


def test_both_sheets_are_drafted_or_neither(bram, unknown, monkeypatch):
    def refuse(*_):
        raise NotNowError("not this one")

    monkeypatch.setattr("apps.jobs.services.recording._inside", refuse)
    assert bram.post(f"/jobs/{unknown}/recorded-sheets", key="draft-halm-4").status_code == 409
    assert not Console.objects.filter(console="Nock").exists()


def test_a_recorded_step_that_was_not_so_is_struck_and_lies_open_no_more(bram, unknown):
    last = bram.client.get(f"/api/jobs/{unknown}/mat").json()["recorded"][-1]
    bram.ask(unknown, "strike", line=last)
    assert [s["id"] for s in bram.client.get(f"/api/jobs/{unknown}/mat").json()["steps"]] == ["console:Bottom screws", "console:Shell"]
    assert bram.get(f"/jobs/{unknown}").json()["mat"]["left"] == 2
