"""An unknown drive is found by looking, from the counter, with a few keys; one slip of the eye does not lose it."""

from playwright.sync_api import expect

from .conftest import sign_in

LOOKS = {"How does a disc go in?": "Under a lid", "What are the pickup's rails made of?": "Metal rods", "How are the motors joined to the board?": "By plugs"}


def test_an_unknown_drive_is_identified_at_the_counter(page, shop):
    sign_in(page, shop, "counter")
    page.goto(f"{shop}/take-in")
    page.get_by_role("button", name="Not sure which: find it by looking").click()
    dialog = page.get_by_role("dialog")
    for ask, label in LOOKS.items():
        if dialog.get_by_role("heading", name=ask).is_hidden():
            other = dialog.get_by_role("button", name=ask)
            if other.is_hidden():
                dialog.get_by_text("Something else can be seen").click()
            other.click()
        dialog.get_by_role("group", name=f"Answers: {ask}").get_by_role("button", name=label).click()
        expect(dialog.get_by_role("list", name="What was seen")).to_contain_text(label)
    dialog.get_by_role("button", name="Take OP-L5").click()
    expect(dialog).to_be_hidden()
    expect(page.get_by_role("radio", name="Ostrin Pell 2, revision 1 (drive OP-L5)")).to_be_checked()


def test_the_key_is_answered_by_number_keys_at_the_bench_and_goes_onto_the_tape(bench):
    page = bench("K-0107")
    page.keyboard.press("i")
    dialog = page.get_by_role("dialog")
    seen = dialog.get_by_role("list", name="What was seen").get_by_role("listitem")
    for n, key in enumerate(["1", "0"], start=1):
        asked = dialog.get_by_role("group").first
        asked.wait_for()
        before = asked.get_attribute("aria-label")
        page.keyboard.press(key)
        expect(seen).to_have_count(n)
        expect(asked).not_to_have_attribute("aria-label", before)
    page.keyboard.press("u")
    expect(seen).to_have_count(1)


def test_a_unit_whose_label_lies_gets_the_sheet_of_what_is_inside(bench):
    page = bench("K-0112")
    expect(page.get_by_text("This looks like a BW-T14, not a BW-T9")).to_be_visible()
    page.keyboard.press("i")
    page.get_by_role("button", name="Take BW-T14").click()
    expect(page.get_by_role("complementary", name="Tape")).to_contain_text("BW-T9 v1 → BW-T14 v1")
    expect(page.get_by_text("This looks like a")).to_be_hidden()
