"""Opening and shutting a unit on the mat, photos by the camera, and an owner who answers from a browser of their own."""

import re

import pytest
from playwright.sync_api import expect

from .conftest import axe, sign_in

JOB, PROPOSED = "K-0107", "K-0104"


@pytest.fixture
def mat(page, shop):
    sign_in(page, shop)
    page.goto(f"{shop}/bench/{JOB}")
    page.get_by_role("heading", name=JOB).wait_for()
    page.keyboard.press("c")
    return page.get_by_role("dialog", name=re.compile("Open and shut"))


def next_step(dialog):
    return dialog.get_by_role("region", name="Next").get_by_role("heading")


def put_everything_back(page, mat):
    """Put back what is open, step by step, by Enter; the plug comes out first, and no hand goes in before the charge is gone."""
    if mat.get_by_role("button", name="Plug is pulled: mains out").is_visible():
        page.keyboard.press("Enter")
        expect(mat.get_by_text("Charge remains")).to_be_visible()
        page.keyboard.press("e")
        expect(mat.get_by_text("Charge remains")).to_be_hidden()
    while "Back" in (mat.get_by_role("region", name="Next").text_content() if mat.get_by_role("region", name="Next").count() else ""):
        before = next_step(mat).text_content()
        page.keyboard.press("Enter")
        expect(mat.get_by_text(before, exact=True)).to_be_hidden()
    expect(mat.get_by_text("Nothing is open", exact=True)).to_be_visible()


def test_a_unit_is_opened_and_shut_by_one_key_in_the_order_of_its_sheets(page, mat):
    expect(next_step(mat)).to_have_text("Feet")
    page.keyboard.press("Enter")  # the plug first
    expect(mat.get_by_text("Charge remains")).to_be_visible()
    expect(mat.get_by_role("button", name="Done")).to_be_disabled()
    page.keyboard.press("e")  # measured: none is left
    expect(mat.get_by_role("button", name="Done")).to_be_enabled()
    for name in ("Feet", "Cover screws", "Rear screws", "Cover"):
        expect(next_step(mat)).to_have_text(name)
        page.keyboard.press("Enter")
    expect(mat.get_by_text(re.compile("On the mat: 4 × cross 1, 3 × 12 mm, black"))).to_be_visible()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Closed up").click()
    expect(next_step(mat)).to_have_text("Back: Cover")
    put_everything_back(page, mat)
    page.keyboard.press("Escape")
    expect(page.get_by_label("Tape").get_by_text(re.compile("Back: Cover screws. Looked at: 4 ×"))).to_be_visible()


def test_a_longer_screw_is_stopped_and_an_empty_place_is_explained(page, mat):
    groups = mat.get_by_role("region", name="Where every screw is")
    groups.get_by_role("button", name="1 in").first.click()
    form = groups.get_by_role("form", name="under the feet, 1")
    form.get_by_text("Another screw").click()
    form.get_by_label("Its length, mm").fill("16")
    form.get_by_role("button", name="Write it down").click()
    page.keyboard.press("Escape")
    expect(page.get_by_role("alert").filter(has_text="it can reach the fan’s housing")).to_be_visible()
    page.get_by_role("button", name="Understood").click()
    page.keyboard.press("c")
    groups.get_by_role("button", name="1 in").first.click()
    form.get_by_text("Stays empty").click()
    form.get_by_label("Why does it stay empty?").fill("the boss is torn")
    page.keyboard.press("Enter")
    expect(groups.get_by_role("button", name="1 stays empty: the boss is torn")).to_be_visible()


def test_on_a_phone_a_photo_is_taken_by_the_camera_marked_and_kept(browser, shop):
    context = browser.new_context(viewport={"width": 390, "height": 844}, permissions=["camera"])
    page = context.new_page()
    page.set_default_timeout(10_000)
    sign_in(page, shop)
    page.goto(f"{shop}/bench/{JOB}")
    page.get_by_role("button", name=re.compile("^Photos")).click()
    dialog = page.get_by_role("dialog", name=re.compile("Photos of"))
    dialog.get_by_label("What does the next one show?").fill("the flex at the rear")
    dialog.get_by_role("button", name="Take a photo", exact=True).click()
    dialog.get_by_role("button", name="Take it").click()
    shown = dialog.get_by_role("img", name=re.compile("the flex at the rear"))
    expect(shown).to_be_visible()
    assert page.evaluate("async () => { const i = document.querySelector('[role=dialog] img'); await i.decode(); return i.naturalWidth }") > 300
    dialog.get_by_role("button", name="Open the photo the flex at the rear").click()
    dialog.get_by_role("button", name="A dot in the middle").click()
    dialog.get_by_label("Dot 1", exact=True).fill("bar")
    dialog.get_by_role("button", name="Keep it").click()
    expect(dialog.get_by_text("1 bar")).to_be_visible()


def test_an_owner_answers_from_a_browser_of_their_own_and_the_bench_sees_it(page, shop, browser):
    sign_in(page, shop)
    page.goto(f"{shop}/bench/{PROPOSED}")
    page.get_by_role("button", name="Make a page for the owner").click()
    address = page.get_by_text(re.compile(r"/o/[\w-]{43}$")).inner_text()
    owner = browser.new_context(viewport={"width": 390, "height": 844}).new_page()
    owner.goto(address)
    expect(owner.get_by_role("heading", name="Your Vessmark Orlo 3")).to_be_visible()
    assert axe(owner) == []
    owner.get_by_label(re.compile("^Yes")).check()
    owner.get_by_label("Your name").fill("Wenna Tolliver")
    owner.get_by_role("button", name="Send my answer").click()
    expect(owner.get_by_role("heading", name="Your answer is with the shop")).to_be_visible()
    owner.go_back()
    owner.reload()
    expect(owner.get_by_role("button", name="Send my answer")).to_be_hidden()
    expect(page.get_by_label("Tape").get_by_text("Wenna Tolliver agreed to €58.43, on the owner’s page")).to_be_visible()
    expect(page.get_by_text("Everything that this stage needs is there.")).to_be_visible()
