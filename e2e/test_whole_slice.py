"""A technician takes one slot-load unit from the counter to the hand-back, by keyboard alone."""

import io
import re

from playwright.sync_api import expect
from pypdf import PdfReader
from spindle.job.prompts import PROMPTS

from .conftest import sign_in

CONDITION = [
    *("Whole", "All there", "None", "Silent", "None", "Little", "No", "None came with it", "None", "No", "No", "No", "Always", "Fits"),
    *("First owner", "No", "Nothing", "All fine"),
]
SEEN = ["Yes, and stays up", "Wakes", "Takes it at the first try", "Spins and stops, again and again", "Short chirps", "Yes, and tries again", "Unreadable"]


def focus(page, locator):
    """Reach something by Tab, as a hand on the keyboard does."""
    for _ in range(120):
        if locator.evaluate("e => e === document.activeElement || (e.type === 'radio' && e.name === document.activeElement.name)"):
            return
        page.keyboard.press("Tab")
    raise AssertionError(f"Tab does not reach {locator}")


def type_into(page, label, text):
    focus(page, page.get_by_label(label))
    page.keyboard.type(text)


def choose(page, group, label):
    radios = page.get_by_role("group", name=group, exact=True).get_by_role("radio")
    focus(page, radios.first)
    want = page.get_by_role("group", name=group, exact=True).get_by_role("radio", name=label, exact=True)
    page.keyboard.press("Space")
    while not want.is_checked():
        page.keyboard.press("ArrowRight")


def answer(page, question, label):
    """Give an answer by its number key, setting the mains first where the question needs it."""
    panel = page.get_by_role("group", name=f"Answers: {question}")
    panel.wait_for()
    if page.get_by_text("This needs the mains").is_visible():
        page.keyboard.press("Enter")
        expect(page.get_by_text("This needs the mains")).to_be_hidden()
    if page.get_by_text("Charge remains:").is_visible():
        measure_the_charge(page)
    button = panel.get_by_role("button", name=label)
    page.keyboard.press(button.get_attribute("aria-keyshortcuts"))


def take_in(page, prompts):
    focus(page, page.get_by_role("link", name="Take a unit in"))
    page.keyboard.press("Enter")
    choose(page, "Which console lies on the counter?", "Vessmark Orlo 3, revision C (drive VM-S41)")
    type_into(page, "Name", "Perrin Oakhanger")
    type_into(page, "How to reach them", "0491 570 313")
    type_into(page, "Complaint, in the owner's words", "Thinks about every disc and hands it back.")
    type_into(page, "May be spent without asking", "60")
    type_into(page, "Power supply the owner uses", "The one inside")
    for prompt, label in zip(prompts, CONDITION, strict=True):
        choose(page, prompt, label)
    focus(page, page.get_by_role("button", name="Take it in and make a tag"))
    page.keyboard.press("Enter")
    page.get_by_role("region", name="Taken in").wait_for()
    page.keyboard.press("Enter")  # opens it


def see_the_fault(page):
    """Answer what the baseline asks, by digits."""
    for label in SEEN:
        current = page.get_by_role("region", name="Asked now").get_by_role("heading")
        question = current.inner_text()
        answer(page, question, label)
        expect(current).not_to_have_text(question)
    answer(page, "If it plays: does it still read after ten minutes, at later data?", "Not reached")
    answer(page, "Does it eject?", "Ejects")
    answer(page, "Eject command with no disc in: does the loader run and come to rest?", "Runs and comes to rest")
    answer(page, "The same disc six times: is the fault always there?", "Every time")
    for name, label in (("game BD", "Fails"), ("film BD", "Fails"), ("film DVD", "Reads, but slowly")):
        answer(page, f"Does it read a {name}?", label)


def follow_the_moves(page):
    """Answer the next moves until one is a repair."""
    for _ in range(8):
        page.get_by_role("region", name="Next move").wait_for()
        if page.get_by_role("button", name="Propose it to the owner").is_visible():
            break
        move = page.get_by_role("region", name="Next move").get_by_role("heading").inner_text()
        answer(
            page,
            move,
            "Dust or haze"
            if move.startswith("Lens under")
            else page.get_by_role("group", name="Answers").get_by_role("button").first.inner_text().split("\n")[-1],
        )
        expect(page.get_by_role("region", name="Next move").get_by_role("heading")).not_to_have_text(move)
    expect(page.get_by_role("heading", name="Clean the lens")).to_be_visible()


def come_to_an_agreement(page):
    """From the fault seen to the repair agreed to, by the next moves."""
    expect(page.get_by_text("Everything that this stage needs is there.")).to_be_visible()
    page.keyboard.press("Enter")
    follow_the_moves(page)
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Go on to Agree")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_text("within the €60 agreed so far")).to_be_visible()
    page.keyboard.press("Enter")


def measure_the_charge(page):
    """Nobody waits minutes here: that no charge is left is measured."""
    page.keyboard.press("e")
    page.get_by_role("alert", name="Hands stay out").wait_for(state="hidden")


def lift_the_hold(page):
    """Nobody waits until it is dry, cold or warm here: the hold is lifted, by name and with a reason."""
    page.keyboard.press("a")
    focus(page, page.get_by_label("Why it is safe"))
    page.keyboard.type("Thumb test")
    page.keyboard.press("Enter")
    page.get_by_role("dialog").wait_for(state="hidden")
    page.wait_for_function("() => !document.querySelector('[aria-busy=true]')")


def log_by_choice(page):
    choose(page, "What did the trial show?", "Works")
    focus(page, page.get_by_role("button", name="Log the trial").last)
    page.keyboard.press("Enter")


def now_in_the_bar(page):
    bar = page.get_by_role("region", name="Now", exact=True)
    return bar.inner_text() if bar.is_visible() else ""


def wait_out(page):
    """What a bench would wait for: charge, drying, a cold and a warm start. Tells whether there was anything."""
    bar = now_in_the_bar(page)
    if "Charge remains" in bar or "Hands in at" in bar:
        measure_the_charge(page)
    elif re.search(r"(Dry|Cold|Warm) at", bar):
        lift_the_hold(page)
    else:
        return False
    return True


def repair_it(page, wait=wait_out, log=log_by_choice):
    """Do every step, and log a clean trial."""
    page.get_by_role("list", name="Steps").wait_for()
    while not page.get_by_role("dialog").is_visible():  # done, done, mains live, trial
        if not wait(page):
            said = page.get_by_role("region", name="Now", exact=True).get_by_role("button").last.inner_text()
            page.keyboard.press("Enter")
            if "trial" in said:
                break
        page.wait_for_function("t => !document.querySelector('[aria-busy=true]')", arg=None)
    page.get_by_role("dialog").wait_for()
    log(page)


def prove_it(page, good=("1",), wait=wait_out):
    """Close the unit and let every check and pass be clean, by the first of the keys that is offered."""
    page.get_by_role("heading", name="The proof so far").wait_for()
    for _ in range(60):
        if page.get_by_role("button", name="Go on to Hand back").is_visible():
            break
        if not wait(page):
            is_tried = page.get_by_role("button", name="Enter").is_hidden() and page.locator("[aria-keyshortcuts='Enter']").count() == 0
            page.keyboard.press(next(key for key in good if page.locator(f"[aria-keyshortcuts='{key}']").count()) if is_tried else "Enter")
        page.wait_for_function("() => !document.querySelector('[aria-busy=true]')")


def test_one_unit_from_the_counter_to_the_report_by_keyboard_alone(page, shop):
    sign_in(page, shop)
    take_in(page, [p.ask for p in PROMPTS if not p.may_stay_open])
    page.get_by_role("heading", name="K-0115").wait_for()
    page.keyboard.press("Enter")  # goes on to the baseline

    see_the_fault(page)
    come_to_an_agreement(page)

    repair_it(page)
    page.get_by_role("button", name="Go on to Prove").wait_for()
    page.keyboard.press("Enter")

    prove_it(page)
    page.keyboard.press("Enter")
    page.get_by_text("Ready to hand back").wait_for()
    focus(page, page.get_by_label("Fetched by"))
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Hand it over, close the job").wait_for()

    link = page.get_by_role("link", name="Open the report for the owner (PDF)")
    focus(page, link)
    pdf = page.request.get(f"{shop}{link.get_attribute('href')}")
    text = " ".join(PdfReader(io.BytesIO(pdf.body())).pages[0].extract_text().split())
    for words in (
        "K-0115",
        "Repaired",
        "Lens dirty or hazy",
        "Perrin Oakhanger",
        "Thinks about every disc",
        "We did this: clean the lens. It has worked since.",
        "60 days",
        "times in a row without a slip",
        "Do not open the unit",
    ):
        assert words in text
    page.keyboard.press("Escape")
    focus(page, page.get_by_role("button", name="Hand it over, close the job"))
    page.keyboard.press("Enter")
    expect(page.get_by_text("This job is closed")).to_be_visible()
