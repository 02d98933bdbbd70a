"""The bench listens: a microphone that plays a made-up drive, what is heard of it, and the suspects that move; and what is said where there is none."""

import re

import pytest
from apps.demo.sounds import played
from playwright.sync_api import expect

from .conftest import FAKES, QUIET, axe, sign_in

JOB = "K-0110"
LONG_ENOUGH_S = 9


@pytest.fixture
def listening(launch_browser, shop):
    """A bench with a microphone of its own, and the dialog of its sounds."""
    opened = []

    def open_(*args):
        browser = launch_browser(args=[*QUIET, *args])
        opened.append(browser)
        page = browser.new_context(viewport={"width": 1280, "height": 800}).new_page()
        page.set_default_timeout(20_000)
        sign_in(page, shop)
        page.goto(f"{shop}/bench/{JOB}")
        page.get_by_role("heading", name=JOB).wait_for()
        return page

    yield open_
    for browser in opened:
        browser.close()


def sounds(page):
    page.keyboard.press("s")
    return page.get_by_role("dialog", name=f"Sounds of {JOB}")


def likeliest(page):
    return page.get_by_role("heading", name=re.compile("Suspects after")).locator("xpath=..").inner_text()


def test_a_drive_is_recorded_heard_and_taken_as_an_answer_and_the_suspects_move(listening, tmp_path):
    file = tmp_path / "drive.wav"
    file.write_bytes(played("belt", "tray", 3, rate=44_100))
    page = listening(*FAKES, f"--use-file-for-fake-audio-capture={file}%noloop")
    before = likeliest(page)
    dialog = sounds(page)
    dialog.get_by_role("button", name="Record the drive").click()
    expect(dialog.get_by_role("meter", name="How loud")).to_be_visible()
    expect(dialog.get_by_text("Now the drive: put the disc in")).to_be_visible()
    page.wait_for_timeout(1000 * (LONG_ENOUGH_S - 5))
    page.keyboard.press("s")
    dialog.get_by_role("button", name="Keep it, and listen").click()
    dialog.get_by_role("button", name=re.compile(r"A disc goes in, ([5-9]|1[0-4]) s.*answers? to look at")).filter(
        has_text=re.compile("motor slips")
    ).first.click()
    tray = dialog.get_by_role("listitem").filter(has_text="Motor whirrs while the tray is slow or still")
    expect(tray.get_by_text("would move")).to_be_visible()
    assert axe(page) == []
    tray.get_by_role("button", name="Take it as heard").click()
    expect(tray.get_by_text(re.compile("Taken, line"))).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_label("Tape").get_by_text(re.compile("Heard by the recording .*Motor whirrs"))).to_be_visible()
    assert likeliest(page) != before


def test_without_a_microphone_a_file_remains_and_what_is_no_recording_is_refused(listening):
    page = listening("--deny-permission-prompts")
    dialog = sounds(page)
    dialog.get_by_role("button", name="Record the drive").click()
    expect(dialog.get_by_role("alert")).to_contain_text("file")
    dialog.get_by_label("A recording from a file").set_input_files({"name": "song.wav", "mimeType": "audio/wav", "buffer": b"ID3" + bytes(400)})
    dialog.get_by_role("button", name="Keep it, and listen").click()
    expect(dialog.get_by_role("alert")).to_contain_text("an MP3 file")
