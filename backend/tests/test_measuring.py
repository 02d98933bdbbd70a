"""The calculators over the wire, and what they leave on a job's tape."""

import uuid
from concurrent.futures import ThreadPoolExecutor
from urllib.parse import urlencode

import pytest
from apps.jobs.selectors import job_row, open_job
from apps.reports.selectors import report_of
from apps.shelf.models import Part
from apps.shop.models import Meter
from apps.shop.selectors import the_shop
from apps.writing.traces import traces_of
from devices.stand_in import IDENTITY, StandIn
from django.db import connection, transaction

from .conftest import FRESH, SEEN

OHMS = {"quantity": "resistance", "mains": "out", "disc": "any", "switch": "any"}
SHORT = {"rating": "1.5 A fast", "supply": "12 V", "ohm": "0.5 ohm"}


def weigh(job):
    """The suspects by part, as far as they are named."""
    return {x["id"]: x["p"] for x in job["diagnosis"]["suspects"]}


def test_the_calculators_say_what_they_ask_and_what_the_sheet_of_a_job_says_already(bram):
    bare, mine = (bram.get(f"/tools{q}").json() for q in ("", f"?tag={FRESH}"))
    assert {t["id"] for t in bare} - {t["id"] for t in mine} == {"belt", "capacitors"}  # a slot drive without electrolytics
    assert [t["id"] for t in bare if t["starts"]] == ["belt"]  # what lies on the shelf
    reading = next(t for t in mine if t["id"] == "reading")
    assert {"TP7 to TP1, voltage, running", "BD trimmer"} <= {s["name"] for s in reading["starts"]}
    assert "bias_reading" not in reading["questions"]  # this drive has no such test point


def test_a_belt_of_the_shelf_is_the_nearest_as_soon_as_somebody_says_its_size(bram):
    (start,) = next(t["starts"] for t in bram.get("/tools?tag=K-0110").json() if t["id"] == "belt")
    own = start["inputs"] | {"way": "flat", "measured": "70 mm"}
    assert start["inputs"]["at_hand"] == [{"name": "P-0002 Belt 71 mm, square, Drawer C1", "loop": "142 mm", "section": "1.2 mm"}]
    assert "From the shelf: P-0002 Belt 71 mm" in bram.post("/tools/belt", inputs=own).json()["told"]["headline"]
    said = bram.post("/shelf/parts/P-0002/size", key="a-size-of-it", around_mm=152, section_mm=1.2).json()
    assert (said["around_mm"], said["section_mm"]) == (152.0, 1.2)
    own |= {"at_hand": next(t["starts"][0]["inputs"]["at_hand"] for t in bram.get("/tools").json() if t["id"] == "belt")}
    assert "None at hand fits" in bram.post("/tools/belt", inputs=own).json()["told"]["headline"]
    Part.objects.filter(kind__code="BELT-71").update(count=0)
    assert not any(t["starts"] for t in bram.get("/tools").json())


def test_an_answer_without_a_job_is_kept_nowhere_and_bad_input_names_its_place(bram):
    told = bram.post("/tools/fuse", inputs={"rating": "1.5 A fast", "supply": "12 V", "candidates": [{"marking": "wire"}]}).json()["told"]
    assert (told["verdict"], told["reasons"][0]["verdict"]) == ("refused", "refused")
    places = [
        [f["place"] for f in bram.post("/tools/fuse", inputs=x).json()["faults"]]
        for x in ({"rating": "fast", "supply": "12 mm"}, {"rating": "fast", "supply": "12 V"})
    ]
    assert places == [["/supply"], ["/rating"]]
    assert bram.post("/tools/dowsing", inputs={}).status_code == 404


def test_a_measured_value_is_one_finding_with_one_strike(bram):
    before = bram.get(f"/jobs/{SEEN}").json()
    bram.unplug(SEEN)
    done = bram.ask(
        SEEN, "measure", tool="reading", question="trimmer_reading", about="BD", inputs={**OHMS, "low": "410 ohm", "high": "520 ohm", "values": ["700 ohm"]}
    ).json()
    assert weigh(done) != weigh(before)
    line = bram.get(f"/jobs/{SEEN}/measured").json()[0]
    assert (line["title"], line["about"], line["headline"]) == ("Reading", "BD", "700.0 ± 8.6 Ω: over the limit.")
    struck = bram.ask(SEEN, "strike", line=line["line"]).json()
    assert weigh(struck) == pytest.approx(weigh(before), abs=1e-9)
    assert bram.get(f"/jobs/{SEEN}/measured").json()[0]["is_struck"]


def test_a_short_behind_the_fuse_forbids_power_until_it_is_measured_again(bram):
    bram.unplug(SEEN)
    assert bram.ask(SEEN, "measure", tool="blown", question="short_test", inputs=SHORT).status_code == 200
    refused = bram.ask(SEEN, "mains", state="live")
    assert (refused.status_code, "short behind the fuse" in refused.json()["title"]) == (409, True)
    bram.ask(SEEN, "measure", tool="blown", question="short_test", inputs=SHORT | {"ohm": "OL"})
    assert bram.ask(SEEN, "mains", state="live").status_code == 200


def test_a_share_cannot_be_said_only_measured_and_a_reading_needs_the_mains_as_it_was_read(bram):
    said = bram.ask(SEEN, "answer", question="spins", outcome="holds", weights=[{"outcome": "holds", "share": 1.0}])
    assert said.status_code == 200
    bram.unplug(SEEN)
    live = {"quantity": "voltage", "mains": "running", "disc": "in", "switch": "any", "values": ["12 V"]}
    assert bram.ask(SEEN, "measure", tool="reading", inputs=live).json()["params"]["reason"] == "mains_out"
    assert bram.ask(SEEN, "measure", tool="reading", inputs={**OHMS, "values": ["1 ohm"] * 25}).json()["code"] == "inputs_invalid"


def test_the_counter_looks_and_does_not_measure(nia):
    assert nia.get(f"/tools?tag={FRESH}").status_code == 200
    assert nia.ask(FRESH, "measure", tool="reading", inputs={**OHMS, "values": ["1 ohm"]}).status_code == 403


METER = {
    "name": "Bench 1",
    "address": "TCPIP0::127.0.0.1::9::SOCKET",
    "functions": {"resistance": {"pct": 0.5, "resolution": 0.1}, "voltage": {}},
    "leads_ohm": 0.2,
}


def meter(browser, **more):
    return browser.post("/meters", key=str(uuid.uuid4()), **{**METER, **more})


def test_a_meter_is_set_up_tried_and_read_and_another_bench_waits(ida, bram, transactional_db):
    with StandIn({"resistance": 748.0}) as server:
        made = meter(ida, address=server.address).json()[0]
        assert ida.post("/meters/try", address=server.address).json() == {"says": IDENTITY}
        for before, holds in (([], False), (["748 ohm"] * 2, True), (["749.9 ohm", "760 ohm"], False)):
            read = bram.post(f"/meters/{made['id']}/read", quantity="resistance", before=before).json()
            assert read == {"value": "748 ohm", "shown": "748 Ω", "holds": holds, "pct": 0.5, "digits": 3.0, "resolution": 0.1, "leads_ohm": 0.2}
        with ThreadPoolExecutor() as pool, transaction.atomic():
            Meter.objects.select_for_update().get(pk=made["id"])
            busy = pool.submit(lambda: (bram.post(f"/meters/{made['id']}/read", quantity="resistance"), connection.close())[0]).result()
        assert (busy.status_code, busy.json()["params"]["reason"]) == (409, "meter_busy")


def test_a_reading_takes_the_accuracy_of_the_range_that_it_lies_in(ida, bram):
    ranges = [{"up_to": 4000, "pct": 0.8, "digits": 1, "resolution": 1}, {"up_to": 400, "pct": 0.4, "digits": 2, "resolution": 0.1}]
    told = {"resistance": {"pct": 2.0, "digits": 5, "resolution": 10, "ranges": ranges}}
    for value, pct in ((399.0, 0.4), (748.0, 0.8), (9000.0, 2.0)):
        with StandIn({"resistance": value}) as server:
            made = meter(ida, name=f"At {value}", address=server.address, functions=told).json()[-1]
            assert bram.post(f"/meters/{made['id']}/read", quantity="resistance").json()["pct"] == pct
    twice = {"resistance": {"ranges": [{"up_to": 400}, {"up_to": 400}]}}
    assert meter(ida, name="Twice", functions=twice).json()["params"]["place"] == "functions/resistance/ranges"


def test_a_line_from_a_meter_on_the_benchs_own_computer_is_understood_or_refused(bram):
    told = bram.post("/meters/line", quantity="voltage", text="+1.2010E+01", before=["12 V", "12.02 V"]).json()
    assert told == {"value": "12.01 V", "shown": "12.01 V", "holds": True, "pct": None, "digits": None, "resolution": None, "leads_ohm": None}
    assert bram.post("/meters/line", quantity="voltage", text="@@??").json()["params"]["reason"] == "rubbish"


def test_where_no_meter_answers_it_says_so_and_only_a_manager_sets_one_up(ida, bram):
    made = meter(ida).json()[0]
    dead = bram.post(f"/meters/{made['id']}/read", quantity="voltage")
    assert (dead.status_code, dead.json()["code"]) == (409, "meter")
    assert bram.post(f"/meters/{made['id']}/read", quantity="current").json()["params"]["place"] == "quantity"
    assert [meter(bram).status_code, bram.post("/meters/try", address=METER["address"]).status_code] == [403, 403]


@pytest.mark.parametrize(
    ("wrong", "place"),
    [({"name": " "}, "name"), ({"name": "B", "address": "file:///etc/passwd"}, "address"), ({"name": "B", "functions": {}}, "functions"), ({}, "name")],
)
def test_what_is_wrong_with_a_meter_is_said_at_its_place(ida, wrong, place):
    meter(ida)
    assert meter(ida, **wrong).json()["params"]["place"] == place


def test_a_meter_is_put_right_or_gone_with_a_trace(ida, bram):
    made = meter(ida).json()[0]
    assert meter(ida, id=made["id"], is_here=False, name="Old one").json()[0]["is_here"] is False
    assert [t.now for t in traces_of(f"meter {made['id']}") if t.field in ("name", "is_here")][:2] == [False, "Old one"]
    assert bram.post(f"/meters/{made['id']}/read", quantity="voltage").status_code == 404


def test_the_report_says_what_was_measured_at_first_and_in_the_end(bram):
    bram.unplug(SEEN)
    for ohm in ("990 ohm", "760 ohm"):
        bram.ask(SEEN, "measure", tool="reading", about="DVD", inputs={**OHMS, "values": [ohm]})
    bram.ask(SEEN, "measure", tool="blown", about="F1", inputs=SHORT | {"ohm": "OL"})
    found = report_of(open_job(job_row(SEEN), the_shop(), with_shelf=False)).readings[-2:]
    assert found[0].startswith("Reading, DVD: at first 990 ± 12 Ω. No limit stands beside it; in the end 760.0 ± 9.3 Ω")
    assert found[1] == "Why it blew, F1: Open behind the fuse: no short at rest."


def test_the_same_points_over_time_are_of_this_unit_and_of_others_of_its_model_and_without_what_was_struck(bram):
    state = {"about": "DVD", "quantity": "resistance", "mains": "out", "disc": "any", "switch": "any"}
    for tag, ohm in ((FRESH, "741 ohm"), (SEEN, "0.75 kohm"), (SEEN, "OL"), (SEEN, "999 ohm")):
        bram.ask(tag, "mains", state="out")
        bram.ask(tag, "measure", tool="reading", about="DVD", inputs={**OHMS, "values": [ohm]})

    def chart(**more):
        return bram.get(f"/jobs/{SEEN}/run?{urlencode({**state, **more})}").json()

    assert [(r["tag"], r["value"], r["is_mine"]) for r in chart()["readings"]] == [(FRESH, 741.0, False), (SEEN, 750.0, True), (SEEN, 999.0, True)]
    last = bram.get(f"/jobs/{SEEN}/measured").json()[0]["line"]
    bram.ask(SEEN, "strike", line=last)
    assert chart()["says"] == "2 read before, 745.5 Ω in the middle. From 15 on they have limits of their own."
    bram.ask(SEEN, "restore", line=last)
    assert len(chart()["readings"]) == 3
    assert chart(disc="in")["readings"] == []
