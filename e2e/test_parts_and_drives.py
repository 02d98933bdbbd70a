"""A whole donor drive goes into a paired console by its plan; a donor's motor is harvested and used; a tag is scanned by wedge and by camera."""

import numpy as np
import pytest
import segno
from playwright.sync_api import expect

from .conftest import CHROMIUM, QUIET, sign_in
from .test_opening import put_everything_back
from .test_whole_slice import choose, focus, log_by_choice, prove_it, repair_it


def go_on(page, to):
    page.get_by_role("button", name="Go on to").click()
    expect(page.locator('[aria-current="step"]').first).to_contain_text(to)


def test_a_whole_donor_drive_goes_into_a_paired_console_by_its_plan(bench):
    page = bench("K-0104")
    card = page.get_by_role("listitem").filter(has=page.get_by_role("heading", name="Replace the whole drive"))
    expect(card).to_contain_text("after a year still in")
    card.get_by_role("button", name="Show the plan").click()
    plan = page.get_by_role("dialog")
    expect(plan).to_contain_text("no other board is accepted by this console")
    expect(plan.locator("dt", has_text="Moves across").locator("+ dd")).to_contain_text("Drive board")
    steps = plan.get_by_role("list", name="Steps of the plan")
    expect(steps).to_contain_text("Own drive board out of the old whole drive and into the other one")
    for box in steps.get_by_role("checkbox").all():
        box.check()
    plan.get_by_role("button", name="Show how to put everything back").click()
    expect(plan.get_by_role("list", name="The way back")).to_contain_text("Own whole drive back in")
    page.keyboard.press("Escape")

    page.keyboard.press("o")
    page.get_by_label("Which part?").select_option("Drive board")
    page.get_by_label("Where does it lie?").fill("Mat, left")
    page.get_by_role("button", name="Tag it").click()
    strip = page.get_by_role("region", name="Out of this unit")
    expect(strip).to_contain_text("K-0104-A")
    expect(strip).to_contain_text("carries the pairing")

    card.get_by_role("button", name="Propose this").click()
    expect(page.get_by_text("Replace the whole drive, own board moved across €")).to_be_visible()
    page.get_by_text("Phone", exact=True).click()
    page.get_by_role("button", name="Record: agrees").click()
    go_on(page, "Repair")
    page.get_by_role("button", name="Take it out, D-0001 whole drive").click()
    expect(page.get_by_role("complementary", name="Tape")).to_contain_text("Taken from the shelf: P-")
    strip.get_by_role("button", name="It is back in").click()
    expect(strip).to_be_hidden()


def press(page, locator):
    focus(page, locator)
    page.keyboard.press("Enter")


def test_a_paired_whole_drive_goes_from_the_first_screw_to_the_closing_gate_and_the_proof_by_keyboard(bench):
    page = bench("K-0104")
    page.keyboard.press("c")
    mat = page.get_by_role("dialog", name="Open and shut K-0104")
    mat.get_by_text("Put it back").click()
    put_everything_back(page, mat)
    page.keyboard.press("Escape")
    card = page.get_by_role("listitem").filter(has=page.get_by_role("heading", name="Replace the whole drive"))
    press(page, card.get_by_role("button", name="Propose this"))
    page.get_by_text("Replace the whole drive, own board moved across €").wait_for()
    choose(page, "How", "Phone")
    press(page, page.get_by_role("button", name="Record: agrees"))
    press(page, page.get_by_role("button", name="Go on to Repair"))
    steps = page.get_by_role("list", name="Steps")
    expect(steps.locator("li[aria-current=step]")).to_contain_text("Whole drive that goes in")
    press(page, page.get_by_role("button", name="Take it out, D-0001 whole drive"))
    expect(steps).to_contain_text("out of the donor the same way")  # the plan follows where it comes from

    repair_it(page)
    tape = page.get_by_role("complementary", name="Tape")
    for done in ("Opened: Cover screws", "Own drive board out of the old whole drive and into the other one", "Tried: replace the whole drive"):
        expect(tape).to_contain_text(done)
    page.get_by_role("button", name="Go on to Prove").wait_for()
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Back in order")).to_be_visible()
    prove_it(page)
    expect(tape).to_contain_text("Back: Cover screws. Looked at")
    expect(tape).to_contain_text("Passed: Starts cold")
    page.keyboard.press("Enter")
    page.get_by_text("Ready to hand back").wait_for()


def test_a_half_built_trial_leaves_places_open_on_purpose_and_the_proof_has_them_shut_first(bench):
    page = bench("K-0105")

    def log(page):
        expect(page.get_by_text("Can be tried:")).to_be_attached()
        log_by_choice(page)

    repair_it(page, log=log)
    page.get_by_role("button", name="Go on to Prove").wait_for()
    expect(page.get_by_role("button", name="Mat: 10 steps open")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="Back in order")).to_contain_text("10 to put back")
    expect(page.get_by_role("region", name="Now", exact=True).get_by_role("button", name="Works")).to_be_disabled()


def test_a_donors_motor_is_harvested_taken_tried_and_put_back(bench, shop):
    page = bench("K-0112")
    page.goto(f"{shop}/shelf/donors/D-0003")
    page.get_by_role("button", name="Harvest the spindle motor").click()
    page.get_by_label("Where it will lie").fill("Drawer B3")
    page.get_by_role("button", name="Put it on the shelf").click()
    page.get_by_text("with what a bare one lacks").wait_for()
    tag = page.get_by_role("heading", level=1).inner_text().split()[0]
    expect(page.get_by_text("spins", exact=True).first).to_be_visible()
    page.goto(f"{shop}/bench/K-0112")
    page.get_by_role("heading", name="K-0112").wait_for()
    page.keyboard.press("b")
    page.get_by_role("button", name=f"Take it, {tag}").click()
    expect(page.get_by_role("complementary", name="Tape")).to_contain_text(f"Taken from the shelf: {tag}")
    page.keyboard.press("x")
    page.get_by_role("button", name="Back on the shelf").click()
    page.get_by_role("dialog").get_by_role("group", name="spins").get_by_text("Works").click()
    page.get_by_role("button", name="Put it back").click()
    expect(page.get_by_role("button", name="Back on the shelf")).to_be_hidden()
    page.goto(f"{shop}/shelf/parts/{tag}")
    expect(page.get_by_text("from K-0112: spins works")).to_be_visible()


@pytest.mark.parametrize(("tag", "heading"), [("P-0001", "P-0001"), ("D-0002", "D-0002"), ("K-0103", "K-0103"), ("O-0009", "Shelf")])
def test_a_wedge_scan_opens_its_thing_and_answers_nothing(bench, tag, heading):
    page = bench("K-0107")
    lines = page.get_by_role("list", name="Findings in time order").locator("> li").count()
    page.keyboard.type(tag)
    page.keyboard.press("Enter")
    page.get_by_role("heading", level=1, name=heading).wait_for()
    page.goto(page.url.split("/", 3)[0] + "//" + page.url.split("/")[2] + "/bench/K-0107")
    expect(page.get_by_role("list", name="Findings in time order").locator("> li")).to_have_count(lines)


def test_an_unknown_tag_is_told_and_a_hands_key_still_works(bench):
    page = bench("K-0107")
    page.keyboard.type("P-9999")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Nothing here has the tag P-9999")
    page.get_by_role("button", name="Understood").click()
    page.keyboard.press("o")
    expect(page.get_by_role("dialog", name="An own part leaves the unit")).to_be_visible()


@pytest.fixture
def film(tmp_path):
    """A camera's picture of a label: the code of P-0001, in grey, ten frames."""
    rows = np.array([list(row) for row in segno.make("P-0001", error="m", micro=False).matrix_iter(scale=10, border=4)], dtype=np.uint8)
    picture = np.full((480, 640), 200, dtype=np.uint8)
    picture[60 : 60 + len(rows), 120 : 120 + len(rows)] = np.where(rows > 0, 20, 235)
    frame = b"FRAME\n" + picture.tobytes() + bytes([128]) * (640 * 480 // 2)
    file = tmp_path / "label.y4m"
    file.write_bytes(b"YUV4MPEG2 W640 H480 F10:1 Ip A1:1 C420jpeg\n" + frame * 10)
    return file


def test_a_tag_is_scanned_by_the_camera(playwright, shop, film):
    camera = ["--use-fake-device-for-media-stream", "--use-fake-ui-for-media-stream", f"--use-file-for-fake-video-capture={film}"]
    browser = playwright.chromium.launch(executable_path=CHROMIUM, args=[*QUIET, *camera])
    try:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        sign_in(page, shop)
        page.get_by_role("button", name="Scan with the camera").click()
        page.get_by_role("heading", name="P-0001").wait_for()
        expect(page.get_by_role("dialog")).to_be_hidden()
    finally:
        browser.close()


def test_a_wrong_fits_found_at_the_bench_is_corrected_in_one_step(bench, shop):
    page = bench("K-0114")
    page.goto(f"{shop}/drives/fits?level=pickup&code=VL-30")
    row = page.get_by_role("row").filter(has=page.get_by_role("rowheader", name="VM-S52")).filter(has=page.get_by_role("button"))
    row.get_by_role("button", name="It does not fit").click()
    page.get_by_label("Why").fill("flex too short")
    page.get_by_role("button", name="Write it down").click()
    expect(row).to_contain_text("does not fit")
    expect(row).to_contain_text("Bram Tewell")
    page.goto(f"{shop}/bench/K-0114")
    page.get_by_role("heading", name="Other ways").wait_for()
    expect(page.get_by_text("P-0001")).to_have_count(0)


def test_a_sheet_is_edited_refused_mended_and_saved(bench, shop):
    page = bench("K-0104")
    page.goto(f"{shop}/drives/VM-S41/edit")
    cell = page.get_by_label("Trimmers, row 1, To", exact=True)
    cell.fill("600")
    save = page.get_by_role("button", name="Save as version 2")
    with page.expect_response(lambda r: r.request.method == "POST" and r.url.endswith("/api/sheets/VM-S41")) as refused:
        save.click()
    assert refused.value.status == 422
    expect(page.get_by_role("alert")).to_contain_text("is below low_ohm")
    expect(cell).to_have_attribute("aria-invalid", "true")
    page.reload()
    expect(cell).to_have_value("600")
    cell.fill("860")
    page.get_by_label("What changed, and why").fill("six more units")
    save.click()
    page.get_by_role("heading", name="VM-S41 Vessmark").wait_for()
    expect(page.get_by_text("860 Ω")).to_be_visible()
    page.goto(f"{shop}/bench/K-0104")
    expect(page.get_by_text("This job keeps version 1")).to_be_visible()
