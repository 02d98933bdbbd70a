"""How many keys a job takes: what is typed into one field counts as one, every other key as itself."""

from playwright.sync_api import expect

from .conftest import sign_in
from .test_whole_slice import come_to_an_agreement, focus, prove_it, repair_it, see_the_fault, wait_out

COUNT = """() => {
  let typedInto = null
  window.keysPressed = 0
  document.addEventListener('keydown', event => {
    const isText = event.key.length === 1 && event.target.matches('textarea, input:not([type=radio], [type=checkbox])')
    if (!(isText && typedInto === event.target)) window.keysPressed++
    typedInto = isText ? event.target : null
  }, true)
}"""
TO_THE_FIRST_QUESTION, TO_THE_END = 25, 80


def pressed(page):
    return page.evaluate("window.keysPressed")


def uncounted(page):
    """What a technician would wait for is no key of a plain job."""
    before = pressed(page)
    waited = wait_out(page)
    page.evaluate(f"window.keysPressed = {before}")
    return waited


def log_by_digit(page):
    page.keyboard.press("1")
    page.keyboard.press("Enter")


def tab_to(page, label):
    focus(page, page.get_by_label(label))


def take_in_by_the_short_way(page):
    page.keyboard.press("n")
    expect(page.get_by_label("Maker, console or drive")).to_be_focused()
    page.keyboard.type("orlo 3 c")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Name", exact=True)).to_be_focused()
    page.keyboard.type("Perrin Oakhanger")
    for label, text in (("How to reach them", "0491 570 313"), ("Complaint, in the owner's words", "Thinks about every disc and hands it back.")):
        tab_to(page, label)
        page.keyboard.type(text)
    for label, text in (("May be spent without asking", "60"), ("Power supply the owner uses", "The one inside")):
        tab_to(page, label)
        page.keyboard.type(text)
    focus(page, page.get_by_role("button", name="All as usual"))
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")  # the way on has the focus by now
    page.get_by_role("region", name="Taken in").wait_for()
    page.keyboard.press("Enter")  # opens it


def test_a_known_console_is_at_its_first_question_and_a_plain_job_at_its_end_within_few_keys(page, shop):
    sign_in(page, shop)
    page.evaluate(COUNT)
    take_in_by_the_short_way(page)
    page.get_by_role("heading", name="K-0115").wait_for()
    page.keyboard.press("Enter")  # goes on to the baseline
    current = page.get_by_role("region", name="Asked now").get_by_role("heading")
    current.wait_for()
    assert pressed(page) <= TO_THE_FIRST_QUESTION

    see_the_fault(page)
    come_to_an_agreement(page)
    repair_it(page, wait=uncounted, log=log_by_digit)
    page.get_by_role("button", name="Go on to Prove").wait_for()
    page.keyboard.press("Enter")
    prove_it(page, good=("3", "1"), wait=uncounted)
    page.keyboard.press("Enter")
    page.get_by_text("Ready to hand back").wait_for()
    page.keyboard.press("Enter")  # the owner has come for it
    page.get_by_role("button", name="Hand it over, close the job").wait_for()
    page.keyboard.press("Enter")
    expect(page.get_by_text("This job is closed")).to_be_visible()
    print("keys", pressed(page))
    assert pressed(page) <= TO_THE_END
