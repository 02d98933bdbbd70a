"""Isolating on tray and lid drives: the plan from the sheet, parts at hand, swaps, paths, and our own last step as a suspect."""

import re

import pytest
from playwright.sync_api import expect


@pytest.mark.parametrize(("tag", "word"), [("K-0110", re.compile(r"belt \d\d")), ("K-0111", "lid switches")])
def test_the_plan_is_drawn_from_the_sheet(bench, tag, word):
    page = bench(tag)
    plan = page.get_by_role("img", name=re.compile("Drive seen from above"))
    expect(plan).to_contain_text(word)
    expect(page.get_by_text("simulated futures")).to_be_visible()


def test_a_belt_is_tried_and_a_tray_that_shuts_no_more_is_our_own_hands_first(bench):
    page = bench("K-0110")
    page.keyboard.press("x")
    expect(page.get_by_role("tabpanel")).to_contain_text("P-0002, for replace the belt: taken from the shelf, new")
    page.keyboard.press("t")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("What was changed?").select_option(label="Replace the belt")
    dialog.get_by_label("Tag of the part that went in").fill("P-0002")
    dialog.get_by_text("New", exact=True).click()
    dialog.locator("label", has_text="No change").click()
    dialog.get_by_role("button", name="Log the trial").click()
    expect(page.get_by_role("list", name="Findings in time order")).to_contain_text("Tried: replace the belt")
    page.keyboard.press("f")
    dialog.get_by_label("What was looked at?").fill("shut, and stay")
    dialog.get_by_role("button", name=re.compile("stay shut")).click()
    dialog.get_by_role("button", name="Shuts and opens again").click()
    expect(page.get_by_text("New since our own last step", exact=True)).to_be_visible()
    expect(page.get_by_role("listitem").filter(has_text="by us").first).to_be_visible()


def test_a_donor_is_noted_proposed_and_taken_off_again(bench):
    page = bench("K-0111")
    page.keyboard.press("x")
    table = page.get_by_role("tabpanel")
    expect(table).to_contain_text("the original goes back in")
    expect(table).to_contain_text("Try next: D-0004 deck")
    table.get_by_role("button", name="Take off").click()
    expect(table).to_contain_text("None taken or noted.")
    page.keyboard.press("p")
    expect(page.get_by_role("tabpanel")).to_contain_text("The halving test next:")
    page.keyboard.press("g")
    expect(page.get_by_role("tabpanel")).to_contain_text("Flow chart with looks and meter")


def test_the_claims_register_counts_what_the_bench_tried(bench):
    page = bench("K-0107")
    page.get_by_role("link", name="Track record").click()
    page.get_by_role("link", name="Claims").click()
    expect(page.get_by_role("heading", name="Claims register")).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("VM-S41")).first).to_be_visible()
