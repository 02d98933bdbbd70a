"""Drive sheets over the wire: versions, two editors, files that are bad or hostile, and what fits where."""

import json
import uuid
from pathlib import Path

import pytest
from apps.drives.models import Saying, Sheet
from apps.drives.selectors import current_full
from apps.jobs.models import Job
from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from spindle.drives.full_sheet import gaps
from spindle.drives.tables import TABLES
from spindle.formats.sheet_file import parse_json, read_sheet


def saved(browser, document, *, based_on=1, key=None):
    body = {"key": key or str(uuid.uuid4()), "based_on": based_on, "document": document, "why": "measured again"}
    return browser.post(f"/sheets/{document['drive']['variant']}", **body)


def upload(browser, path, raw):
    return browser.client.post(f"/api{path}", {"key": str(uuid.uuid4()), "file": SimpleUploadedFile("a", raw)})


@pytest.fixture
def sheet(bram):
    return bram.get("/sheets/VM-S41").json()["document"]


def test_a_changed_sheet_is_a_new_version_and_a_job_keeps_the_one_it_has(bram, sheet):
    job = Job.objects.get(tag="K-0104")
    sheet["tables"]["trimmers"][0]["high_ohm"] = 860.0
    answer = saved(bram, sheet).json()
    assert (answer["version"], answer["versions"][0]["by"]) == (2, "Bram Tewell")
    assert bram.get("/jobs/K-0104").json()["newer_sheet_id"] == answer["id"]
    assert Job.objects.get(pk=job.pk).sheet.version == 1
    assert bram.get("/sheets/VM-S41?version=1").json()["document"]["tables"]["trimmers"][0]["high_ohm"] == 840.0


def test_the_same_content_makes_no_version_and_the_same_key_saves_once(bram, sheet):
    assert saved(bram, sheet).json()["version"] == 1
    sheet["console"] = "Orlo 3 S"
    answers = [saved(bram, sheet, key="the-same-key").json() for _ in range(2)]
    assert [a["version"] for a in answers] == [2, 2]


def test_a_second_editor_is_told_and_overwrites_nothing(bram, sheet):
    assert saved(bram, {**sheet, "console": "Orlo 3 S"}).status_code == 200
    answer = saved(bram, {**sheet, "console": "Orlo 3 T"})
    assert (answer.status_code, answer.json()["params"]["version"]) == (409, 2)
    assert Sheet.objects.get(variant="VM-S41", is_current=True).console == "Orlo 3 S"


BAD = [
    ({"format": "x"}, "/format"),
    ({"tables": {"trimmers": [{}]}}, "/tables/trimmers/0/name"),
    ({"drive": {"variant": "VM-S41", "family": "tray", "classes": ["film_dvd"], "fuse_rating": "1.5 A fast"}}, "/drive/family"),
]


@pytest.mark.parametrize(("change", "place"), BAD)
def test_a_bad_sheet_is_refused_with_its_place(bram, sheet, change, place):
    answer = saved(bram, {**sheet, **change})
    assert (answer.status_code, answer.json()["params"]["place"]) == (422, place)
    assert Sheet.objects.filter(variant="VM-S41").count() == 1


@pytest.mark.parametrize("raw", [b"[" * 5_000, b'{"key": "a-good-key", "based_on": 1, "document": ' + b'{"a":' * 3_000 + b"1" + b"}" * 3_003])
def test_a_body_that_is_too_deep_is_refused_and_not_a_mistake_of_ours(bram, raw):
    answer = bram.client.post("/api/sheets/VM-S41", raw, content_type="application/json")
    assert answer.status_code in (400, 422)


def test_export_and_import_are_the_identity_and_a_new_variant_comes_by_file(bram):
    raw = bram.get("/sheets/OP-L3/file").content
    assert upload(bram, "/sheet-files", raw).json()["version"] == 1
    other = json.loads(raw)
    other["drive"]["variant"] = "OP-L9"
    answer = upload(bram, "/sheet-files", json.dumps(other).encode())
    assert answer.json()["document"] == other


@pytest.mark.parametrize("raw", [b"[" * 100_000, b"x" * 400_000, "{}".encode("utf-16"), b'{"format": 1, "format": 2}', b""])
def test_a_hostile_file_leaves_nothing_behind(bram, raw):
    before = Sheet.objects.count()
    answer = upload(bram, "/sheet-files", raw)
    assert answer.status_code == 422
    assert Sheet.objects.count() == before


@pytest.mark.parametrize("table", list(TABLES))
def test_each_table_goes_out_as_csv_and_comes_back_without_a_new_version(bram, table):
    raw = bram.get(f"/sheets/BW-T9/tables/{table}").content
    assert upload(bram, f"/sheets/BW-T9/tables/{table}", raw).json()["version"] == 1


CSV = [(b"\xff\xfe", "byte 0"), (b"name\r\n", "line 1"), (b"what,value,origin,confidence,said\r\n=1,2,shop,sure,\r\n", "line 2, what")]


@pytest.mark.parametrize(("raw", "place"), CSV)
def test_a_bad_csv_says_line_and_column(bram, raw, place):
    answer = upload(bram, "/sheets/BW-T9/tables/notes", raw)
    assert (answer.status_code, answer.json()["params"]["place"]) == (422, place)


def test_the_counter_may_read_sheets_and_not_change_them(nia, sheet):
    assert nia.get("/sheets/VM-S41").status_code == 200
    assert saved(nia, sheet).status_code == 403


def test_the_demo_sheets_lack_only_what_they_are_meant_to_lack():
    lacking = {f.stem: [g.text for g in gaps(read_sheet(parse_json(f.read_bytes())))] for f in sorted(Path(settings.DEMO, "sheets").glob("*.json"))}
    assert lacking["OM-T2"] == ["Whether the board is paired is not known: it is treated as paired.", "The pairing rule is somebody's claim."]
    assert sum(map(len, lacking.values())) == 2


def verdicts(browser, level, code):
    fits = browser.get(f"/fits/part?level={level}&code={code}").json()["fits"]
    return {f["variant"]: f["verdict"] for f in fits}


def test_a_wrong_fits_is_recorded_in_one_step_and_shown_everywhere(bram):
    assert verdicts(bram, "pickup", "VL-30")["VM-S52"] == "transfers"
    said = {"level": "pickup", "code": "VL-30", "variant": "VM-S52", "verdict": "no", "reason": "flex too short", "said": "K-0114"}
    assert bram.post("/fits", key=str(uuid.uuid4()), **said).status_code == 200
    assert verdicts(bram, "pickup", "VL-30")["VM-S52"] == "no"
    unit = bram.get("/fits/unit/VM-S52").json()
    fit = next(f for f in unit["fits"] if (f["level"], f["code"]) == ("pickup", "VL-30"))
    assert fit["verdict"] == "no"
    assert "Bram Tewell" in fit["source"]
    assert not any(s["level"] == "pickup" for s in bram.get("/jobs/K-0114/workbench").json()["sources"])


def test_a_claim_needs_somebody_behind_it(bram):
    said = {"level": "belt", "code": "BELT-82", "variant": "BW-T9", "verdict": "fits", "origin": "seller"}
    before = Saying.objects.count()
    assert bram.post("/fits", key=str(uuid.uuid4()), **said).json()["params"]["place"] == "said"
    assert Saying.objects.count() == before


@pytest.mark.parametrize(("verdict", "works"), [("part", []), ("fits", ["spins"]), ("part", ["sings"])])
def test_what_fits_in_part_has_to_say_in_what(bram, verdict, works):
    said = {"level": "belt", "code": "BELT-82", "variant": "BW-T9", "verdict": verdict, "works": works}
    assert bram.post("/fits", key=str(uuid.uuid4()), **said).json()["params"]["place"] == "works"


def test_both_ends_of_the_graph_say_the_same(bram):
    for variant in ("VM-S52", "BW-T14", "TQ-17"):
        for fit in bram.get(f"/fits/unit/{variant}").json()["fits"][::7]:
            assert verdicts(bram, fit["level"], fit["code"])[variant] == fit["verdict"]


def test_every_current_sheet_is_read_by_the_rules(db):
    assert len(current_full()) == 12
