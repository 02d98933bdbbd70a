"""From the counter to the hand-back: what each stage asks, who may do it, and what the proof makes of it."""

import io
import uuid

import pytest
from apps.drives.models import Sheet
from apps.jobs.models import Job
from apps.people.models import User
from pypdf import PdfReader

from .conftest import AGREE, FRESH, HAND_BACK, NOTED, PROVE, REPAIR, Browser

INTAKE = {
    "owner_name": "Lorne Achterberg",
    "owner_contact": "desk",
    "complaint": "Clicks.",
    "supply": "own",
    "limit_cents": 0,
    "promised_on": None,
    "condition": {"seals": "cut", "rattle": "silent"},
}


def take_in(browser, **more):
    sheet = Sheet.objects.get(variant="VM-S41").pk
    return browser.post("/jobs", **{"key": str(uuid.uuid4()), "sheet_id": sheet, **INTAKE, **more})


def test_taking_in_makes_a_tag_and_turns_the_condition_into_findings(nia):
    job = take_in(nia).json()
    assert job["tag"] == "K-0115"
    assert {x["text"] for x in job["tape"]} == {"Signs of an earlier attempt", "Nothing rattles"}
    assert {m["code"] for m in job["missing"]} == {"condition"}


def test_taking_in_twice_with_one_key_takes_in_once(nia):
    assert take_in(nia, key="intake-1234").json()["tag"] == take_in(nia, key="intake-1234").json()["tag"]
    assert take_in(nia, key="intake-1234", supply="other").status_code == 422


@pytest.mark.parametrize("more", [{"condition": {"seals": "perhaps"}}, {"condition": {"weather": "fine"}}, {"limit_cents": -1}, {"sheet_id": 9999}])
def test_an_intake_that_makes_no_sense_is_refused(nia, more):
    count = Job.objects.count()
    assert take_in(nia, **more).status_code in {404, 422}
    assert Job.objects.count() == count


def test_the_counter_completes_its_notes_and_the_job_goes_on(nia):
    blocked = nia.ask(NOTED, "advance", stage="taken_in")
    assert {m["code"] for m in blocked.json()["params"]["missing"]} == {"condition", "contact", "limit", "supply"}
    rest = {"marks": "ring", "origin": "first", "tried": "nothing", "owners_disc": "none", "pulled": "no", "dropped": "no", "how_often": "always"}
    rest["supply_label"] = "fits"
    job = nia.ask(NOTED, "amend", owner_contact="0491 570 006", limit_cents=3000, supply="own", condition=rest).json()
    assert job["missing"] == []
    assert "Fresh ring on the owner's disc" in {line["text"] for line in job["tape"]}
    assert nia.ask(NOTED, "advance", stage="taken_in").json()["stage"] == "fault_seen"
    assert nia.ask(NOTED, "amend", supply="other").json()["supply"] == "other"


@pytest.mark.parametrize(
    ("tag", "stage", "codes"),
    [
        (FRESH, "isolate", {"proposal", "findings"}),
        (AGREE, "agree", {"consent"}),
        (REPAIR, "repair", {"steps", "trial"}),
        (PROVE, "prove", {"checks", "passes", "mains"}),
    ],
)
def test_a_stage_is_not_left_before_what_it_needs_is_there(bram, tag, stage, codes):
    answer = bram.ask(tag, "advance", stage=stage)
    assert answer.status_code == 409
    assert {m["code"] for m in answer.json()["params"]["missing"]} == codes


@pytest.mark.parametrize(
    ("name", "what", "body", "status"),
    [
        ("nia", "answer", {"question": "spins", "outcome": "holds"}, 403),
        ("nia", "mains", {"state": "out"}, 403),
        ("nia", "remark", {"text": "Owner rang"}, 200),
        ("ida", "answer", {"question": "spins", "outcome": "holds"}, 200),
    ],
)
def test_each_role_does_its_own_work(db, name, what, body, status):
    assert Browser(name).ask(FRESH, what, **body).status_code == status


def test_consent_over_the_limit_opens_the_repair(bram, nia):
    total = bram.get(f"/jobs/{AGREE}").json()["agree"]["proposal"]["total_cents"]
    assert nia.ask(AGREE, "consent", is_agreed=False, amount_cents=total, by_name="Wenna", how="by phone").json()["missing"]
    assert nia.ask(AGREE, "consent", is_agreed=True, amount_cents=total, by_name=" ", how="by phone").status_code == 422
    assert nia.ask(AGREE, "consent", is_agreed=True, amount_cents=total, by_name="Wenna", how="by phone").json()["missing"] == []
    assert nia.ask(AGREE, "advance", stage="agree").json()["stage"] == "repair"


def test_a_stopgap_needs_consent_whatever_it_costs(bram):
    bram.ask(AGREE, "propose", repair="raise_drive")
    bram.ask(AGREE, "consent", is_agreed=True, amount_cents=100, by_name="Wenna", how="by phone")
    assert {m["code"] for m in bram.get(f"/jobs/{AGREE}").json()["missing"]} == {"consent"}


def test_steps_wait_for_their_mains_state_and_the_trial_opens_the_proof(bram):
    bram.ask(REPAIR, "mains", state="live")
    steps = [s["id"] for s in bram.get(f"/jobs/{REPAIR}").json()["procedure"]["steps"]]
    assert bram.ask(REPAIR, "step", step=steps[3], is_done=True).json()["params"]["reason"] == "mains_live"
    bram.unplug(REPAIR)
    for n in (2, 3, 4, 5):
        assert bram.ask(REPAIR, "step", step=steps[n], is_done=True).status_code == 200
    assert bram.ask(REPAIR, "step", step=steps[6], is_done=True).status_code == 422
    bram.ask(REPAIR, "mains", state="live")
    changes = [{"repair": "replace_switch_insert", "item": "S-7", "health": "new"}]
    job = bram.ask(REPAIR, "trial", changes=changes, result="clean", clean_passes=1).json()
    assert job["missing"] == []
    assert job["diagnosis"]["suspects"][0]["id"] == "switch_insert"


def test_a_trial_that_is_not_clean_sends_the_job_back_with_what_it_showed(bram):
    bram.ask(REPAIR, "mains", state="live")
    job = bram.ask(REPAIR, "trial", changes=[{"repair": "replace_switch_insert"}], result="no_change").json()
    assert "trial_clean" in {m["code"] for m in job["missing"]}
    assert bram.ask(REPAIR, "go_back", to="isolate", why="no change").json()["stage"] == "isolate"
    assert bram.ask(REPAIR, "go_back", to="prove").status_code == 409


def test_only_the_sheets_fuse_goes_in(bram):
    bram.ask(AGREE, "propose", repair="replace_fuse")
    bram.ask(AGREE, "consent", is_agreed=True, amount_cents=9000, by_name="Wenna", how="by phone")
    bram.ask(AGREE, "advance", stage="agree")
    step = next(s["id"] for s in bram.get(f"/jobs/{AGREE}").json()["procedure"]["steps"] if s["reads_fuse"])
    refused = bram.ask(AGREE, "step", step=step, is_done=True, fuse="a bit of wire")
    assert (refused.status_code, refused.json()["code"]) == (409, "refused")
    assert bram.ask(AGREE, "step", step=step, is_done=True, fuse="1.5 A fast").status_code == 200


def test_a_failed_pass_takes_the_clean_trial_back(bram):
    before = bram.get(f"/jobs/{PROVE}").json()
    clean = bram.ask(PROVE, "pass", is_clean=True).json()
    assert clean["proof"]["p_fixed"] > before["proof"]["p_fixed"] > 0.5
    failed = bram.ask(PROVE, "pass", is_clean=False).json()
    assert (failed["proof"]["passes"], failed["proof"]["p_fixed"]) == (0, 0)
    assert "failed" in {m["code"] for m in failed["missing"]}


def test_proof_counts_only_with_the_screws_in(bram):
    bram.unplug(PROVE)
    bram.ask(PROVE, "depth", depth=1)
    bram.ask(PROVE, "mains", state="live")
    assert bram.ask(PROVE, "pass", is_clean=True).json()["params"]["reason"] == "open"


def test_a_unit_may_go_back_as_it_is(bram):
    bram.ask(FRESH, "propose", repair="")
    bram.unplug(FRESH)
    for stage in ("isolate", "agree", "repair", "prove"):
        assert bram.ask(FRESH, "advance", stage=stage).status_code == 200
    bram.ask(FRESH, "collect", by_name="Wenna")
    assert bram.ask(FRESH, "advance", stage="hand_back").status_code == 200
    assert bram.get(f"/jobs/{FRESH}").json()["stage"] == "closed"


def test_the_report_says_what_was_wrong_what_was_done_and_what_proves_it(bram, tmp_path):
    file = tmp_path / "report.pdf"
    file.write_bytes(bram.get(f"/jobs/{HAND_BACK}/report.pdf").content)
    pages = PdfReader(file).pages
    text = " ".join(pages[0].extract_text().split())
    assert len(pages) == 1
    for words in (
        "Repaired",
        "Rails or worm dry or dirty",
        "in 100",
        "We did this: clean and grease rails and worm. It has worked since.",
        "Sled stiff or dry.",
        "90 days",
        "3 times in a row",
        "Caution",
        "Work done by Bram Tewell",
    ):
        assert words in text


def test_an_owners_words_cannot_write_into_the_report(bram):
    Job.objects.filter(tag=HAND_BACK).update(complaint="<img src='file:///etc/passwd'><b>bold</b>")
    text = PdfReader(io.BytesIO(bram.get(f"/jobs/{HAND_BACK}/report.pdf").content)).pages[0].extract_text()
    assert "<b>bold</b>" in text
    assert User.objects.exists()
