"""What must not happen at the bench does not, and the screen says why."""

from playwright.sync_api import expect

from .conftest import sign_in


def test_a_rattle_keeps_the_mains_out_until_it_is_found(bench):
    page = bench("K-0106")
    expect(page.get_by_role("button", name="Mains held out")).to_be_disabled()
    page.keyboard.press("l")
    page.keyboard.press("f")
    page.get_by_label("What was looked at?").fill("rattle")
    page.get_by_role("button", name="Mains out, tilt it gently: does anything rattle?").click()
    page.get_by_role("button", name="Nothing", exact=True).click()
    expect(page.get_by_text("Mains stays out")).to_be_hidden()
    page.keyboard.press("l")
    expect(page.get_by_role("button", name="Mains live: set to out")).to_be_visible()


def test_a_step_that_needs_the_mains_out_cannot_be_done_while_live(bench):
    page = bench("K-0105")
    page.keyboard.press("l")
    bar = page.get_by_role("region", name="Now")
    expect(bar.get_by_role("button", name="Plug is pulled: mains out")).to_be_visible()
    expect(bar.get_by_role("button", name="is done")).to_be_hidden()
    page.keyboard.press("Enter")
    expect(bar.get_by_role("button", name="Hands in at")).to_be_disabled()
    page.keyboard.press("e")  # measured: no charge is left
    expect(bar.get_by_role("button", name="is done")).to_be_visible()


def test_the_counter_may_look_and_remark_but_not_work(page, shop):
    sign_in(page, shop, "counter")
    page.goto(f"{shop}/bench/K-0111")
    page.get_by_role("region", name="Next move").wait_for()
    expect(page.get_by_role("group", name="Answers").get_by_role("button").first).to_be_disabled()
    page.keyboard.press("u")
    page.keyboard.press("f")
    expect(page.get_by_label("What was looked at?")).to_be_hidden()
    page.get_by_label("Or a remark").fill("Owner rang")
    page.get_by_role("button", name="Log the remark").click()
    expect(page.get_by_label("Tape").get_by_text("Owner rang")).to_be_visible()


def test_scanning_a_tag_anywhere_opens_its_job(bench):
    page = bench("K-0107")
    page.keyboard.press("/")
    page.keyboard.type("k-0103")
    page.keyboard.press("Enter")
    page.get_by_role("heading", name="K-0103").wait_for()
