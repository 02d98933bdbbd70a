"""A lesson from its first look to its debriefing, played as a careful hand would; and what stands of it afterwards."""

import re

import pytest
from apps.practice.models import Run
from playwright.sync_api import expect
from spindle.practice.learners import LEARNERS
from spindle.practice.session import after, begin
from spindle.practice.state import Care, Do

from .conftest import axe, sign_in

CARE = {Care.DRY: "Let it dry", Care.LOOK_OVER: "Look over every flex", Care.OWN_BOARD: "own board across"}


@pytest.fixture
def lessons(page, shop):
    sign_in(page, shop)
    page.get_by_role("link", name="Practice").click()
    page.get_by_role("heading", name="Lessons").wait_for()
    return page


def make(page, move, session):
    """Make a move as a hand does, by what stands on the screen."""
    if move.do is Do.LOOK:
        page.get_by_role("tab", name="Look, listen, measure").click()
        ask = next(a.title for a in session.ready.plan.asks if a.id == move.what)
        page.get_by_role("button", name=re.compile(re.escape(ask))).click()
    elif move.do is Do.REPAIR:
        page.get_by_role("tab", name="Repair and try").click()
        name = next(r.name for r in session.ready.plan.repairs if r.id == move.what)
        page.get_by_role("button", name=re.compile(f"^{re.escape(name)}")).click()
        for care in move.care:
            page.get_by_label(re.compile(CARE[care])).check()
        page.get_by_role("button", name="Do it, and try").click()
    else:
        page.get_by_role("button", name="Three passes more" if move.do is Do.PROVE else re.compile("^Hand it back")).click()


def test_a_lesson_is_played_to_its_end_and_mastered(lessons):
    page = lessons
    page.get_by_role("button", name="Begin: A first unit").click()
    expect(page.get_by_role("note")).to_contain_text("no customer’s unit")
    page.get_by_role("tab", name="Repair and try").wait_for()
    page.get_by_role("combobox", name="Part").select_option(label="Belt")
    page.get_by_label("Percent").fill("80")
    page.get_by_role("button", name="Note it").click()
    expect(page.get_by_text("Belt, 80 percent")).to_be_visible()
    assert axe(page) == []
    run = Run.objects.get()
    session = begin(run.lesson, run.seed)
    while not session.is_over:
        move = LEARNERS["planner"](session, None)
        make(page, move, session)
        session = after(session, move)
        if not session.is_over:
            expect(page.get_by_role("list", name="What happened").get_by_role("listitem").last).to_contain_text(session.done[-1].says)
    expect(page.get_by_role("heading", name="Mastered")).to_be_visible()
    expect(page.get_by_text("First guess: Belt, 80 percent")).to_be_visible()
    assert axe(page) == []
    page.get_by_role("link", name="All lessons").click()
    expect(page.get_by_text("1 of 23 mastered")).to_be_visible()


def test_a_unit_that_was_left_goes_on_where_it_stood(lessons):
    page = lessons
    page.get_by_role("button", name="Begin: It ticks").click()
    page.get_by_role("button", name=re.compile("Does the console power up")).click()
    expect(page.get_by_role("list", name="What happened").get_by_role("listitem")).to_have_count(1)
    page.get_by_role("link", name="Day").click()
    page.get_by_role("link", name="Practice").click()
    page.get_by_role("link", name="Go on").click()
    expect(page.get_by_role("list", name="What happened").get_by_role("listitem")).to_have_count(1)


def test_a_drive_of_the_shops_is_opened_by_hand_by_its_sheet_and_the_mains_waits(lessons):
    page = lessons
    page.get_by_label("On which drive").select_option(label="Brackwater Sel 2 D, BW-T14")
    expect(page.get_by_role("button", name="Begin: It rattles")).to_be_disabled()
    page.get_by_role("button", name="Begin: Any tray drive").click()
    page.get_by_role("button", name="Drive open").click()
    expect(page.get_by_role("list", name="What is undone").get_by_role("listitem").last).to_have_text("Bridge")
    page.get_by_role("button", name="Open it so far").click()
    told = page.get_by_role("list", name="What happened").get_by_role("listitem")
    expect(told).to_contain_text(["Drive open, mains out."])
    page.keyboard.press("l")
    expect(told.last).to_contain_text("Drive open, mains in.")
    page.get_by_role("button", name="Closed up").click()
    expect(page.get_by_role("button", name="Shut it so far")).to_be_disabled()
    assert axe(page) == []
