"""Two people on one job, a double tap, a dropped connection, a sign-out: nothing lost, nothing doubled."""

import pytest
from apps.jobs.models import TapeLine
from playwright.sync_api import expect

from .conftest import sign_in
from .test_whole_slice import measure_the_charge

TAG = "K-0111"


def answers():
    return TapeLine.objects.filter(job__tag=TAG, kind="answer").count()


@pytest.fixture
def given(demo):
    """How many answers the job has before anybody touches it."""
    return answers()


def wake_up(page):
    """Bring the fresh job to a question, with the mains as it needs it."""
    page.get_by_text("This needs the mains out; it is live.").wait_for()
    page.keyboard.press("Enter")
    expect(page.get_by_text("This needs the mains")).to_be_hidden()
    measure_the_charge(page)
    return page.get_by_role("region", name="Next move")


def test_a_double_tap_writes_once(bench, given):
    page = bench(TAG)
    move = wake_up(page)
    title = move.get_by_role("heading").inner_text()
    page.get_by_role("group", name="Answers").get_by_role("button").first.dblclick()
    expect(move.get_by_role("heading")).not_to_have_text(title)
    assert answers() == given + 1


def test_a_connection_dropped_before_and_after_the_server_wrote_loses_and_doubles_nothing(bench, given):
    page = bench(TAG)
    move = wake_up(page)
    title = move.get_by_role("heading").inner_text()
    page.route("**/lines", lambda route: route.abort())
    page.keyboard.press("1")
    expect(page.get_by_text("Not answered yet: kept here, sent again by itself")).to_be_visible()
    assert answers() == given
    page.reload()  # a crash in the middle: the write is still in its box
    page.unroute("**/lines")

    def lose_the_answer(route):
        route.fetch()
        route.abort()

    page.route("**/lines", lose_the_answer, times=1)
    expect(move.get_by_role("heading")).not_to_have_text(title)
    assert answers() == given + 1


def test_two_browsers_on_one_job_are_told_of_each_other(bench, browser, shop, given):
    page = bench(TAG)
    wake_up(page)
    page.route("**/pulse", lambda route: route.abort())  # it would follow by itself before anybody could answer on the old version
    shown = page.get_by_role("button", name="strike:").count()
    with_nia = browser.new_context(locale="en-GB")
    other = with_nia.new_page()
    sign_in(other, shop, "counter")
    other.goto(f"{shop}/bench/{TAG}")
    other.get_by_role("heading", name=TAG).wait_for()
    other.keyboard.press("f")
    other.get_by_label("Or a remark").fill("Owner rang: it plays on Sundays")
    other.get_by_role("button", name="Log the remark").click()
    expect(other.get_by_text("Owner rang: it plays on Sundays")).to_be_visible()

    page.get_by_role("group", name="Answers").get_by_role("button").first.click()
    dialog = page.get_by_role("dialog", name="Somebody else wrote to this job meanwhile")
    expect(dialog.get_by_text("Owner rang: it plays on Sundays")).to_be_visible()
    assert answers() == given
    dialog.get_by_role("button", name="Write mine now").click()
    expect(dialog).to_be_hidden()
    expect(page.get_by_role("button", name="strike:")).to_have_count(shown + 2)
    assert answers() == given + 1
    with_nia.close()


def test_signed_out_in_mid_answer_the_answer_goes_out_after_signing_in(bench, given):
    page = bench(TAG)
    wake_up(page)
    shown = page.get_by_role("button", name="strike:").count()
    page.context.clear_cookies()
    page.keyboard.press("1")
    page.get_by_role("heading", name="Sign in").wait_for()
    page.get_by_label("Name").fill("bram")
    page.get_by_label("Password").fill("rope-kettle-72")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="strike:")).to_have_count(shown + 1)
    assert answers() == given + 1


def test_a_second_screen_follows_without_a_reload_and_says_who_else_is_there(bench, browser, shop):
    page = bench(TAG)
    with_nia = browser.new_context(locale="en-GB")
    other = with_nia.new_page()
    sign_in(other, shop, "counter")
    other.goto(f"{shop}/bench/{TAG}")
    other.get_by_role("heading", name=TAG).wait_for()
    expect(page.get_by_text("Also here: Nia Osk")).to_be_visible()
    page.keyboard.press("l")
    expect(other.get_by_text("Mains out", exact=True).first).to_be_visible(timeout=8_000)
    with_nia.close()


@pytest.mark.parametrize("struck", ["u"])
def test_the_last_finding_is_struck_and_let_stand_by_one_key(bench, struck):
    page = bench(TAG)
    last = page.get_by_label("Tape").get_by_text("Tried: replace the bare pickup")
    page.keyboard.press(struck)
    expect(page.get_by_label("Tape").get_by_text("Struck by Bram Tewell")).to_have_count(1)
    page.keyboard.press(struck)
    expect(page.get_by_label("Tape").get_by_text("Struck by Bram Tewell")).to_have_count(0)
    expect(last).to_be_visible()
