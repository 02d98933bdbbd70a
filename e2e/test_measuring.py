"""Measuring at the bench: a trimmer set turn by turn, a short that forbids power, a belt bought by its size, a kit with one wrong voltage."""

import re

import pytest
from apps.shop.models import Meter
from devices.stand_in import StandIn
from playwright.sync_api import expect

SLOT, TRAY = "K-0102", "K-0110"


class Trimmer:
    """990 ohm as found; clockwise lowers it by four ohm a degree."""

    def __init__(self):
        self.ohm = 990.0

    def turn(self, headline):
        deg, way = re.search(r"Turn (\d+)° (clockwise|anticlockwise)", headline).groups()
        self.ohm -= 4.0 * int(deg) * (1 if way == "clockwise" else -1)


def measure(page, start):
    """Open the calculator of one thing that the sheet names."""
    page.keyboard.press("m")
    page.get_by_role("dialog").get_by_role("button", name=start, exact=True).first.click()
    return page.get_by_role("dialog")


def look(dialog, ohm, label, box):
    for n in (1, 2, 3):
        field = dialog.get_by_label(f"{label}, {n}", exact=True)
        (field.first if box == "first" else field.last).fill(f"{ohm:g}")


def mains_out(page):
    page.keyboard.press("l")
    expect(page.get_by_role("button", name="Mains out: set to live")).to_be_visible()
    hands = page.get_by_role("alert", name="Hands stay out")
    expect(hands).to_be_visible()
    page.keyboard.press("e")  # measured: no charge is left
    expect(hands).to_be_hidden()


@pytest.fixture
def slot(bench):
    page = bench(SLOT)
    if page.get_by_role("button", name="Mains live: set to out").is_visible():
        mains_out(page)
    return page


def test_a_trimmer_found_off_is_set_with_the_meter_turn_by_turn_and_stands_on_the_tape(slot):
    unit = Trimmer()
    with StandIn({"resistance": lambda: unit.ohm}) as server:
        Meter.objects.create(name="Bench 1", address=server.address, functions={"resistance": {"pct": 0.5, "digits": 3, "resolution": 0.1}})
        dialog = measure(slot, "DVD")
        told, read = dialog.get_by_role("status"), dialog.get_by_role("button", name="Read Bench 1")
        expect(told).to_contain_text("Read it three times")
        for _ in range(9):
            read.first.click()
            expect(dialog.get_by_label("Read, 3", exact=True).first).to_have_value(f"{unit.ohm:.7g} ohm")
            dialog.get_by_role("button", name="Add it").click()
            expect(dialog.get_by_role("img", name=re.compile(f"Stands at {unit.ohm:.4g} "))).to_be_visible()
            expect(told).to_contain_text(re.compile(r"Turn \d+°|It stands right"))
            if "It stands right" in told.inner_text():
                break
            unit.turn(told.inner_text())
        assert 690 < unit.ohm < 840
        read.last.click()
        expect(told).to_contain_text("Set: it stands in the band")
    dialog.get_by_role("button", name="Keep it on the tape").click()
    expect(slot.get_by_label("Tape").get_by_text("Trimmer, DVD: Set: it stands in the band")).to_be_visible()


def test_a_turn_the_wrong_way_is_asked_about(slot):
    dialog = measure(slot, "DVD")
    look(dialog, 990, "Read", "first")
    dialog.get_by_role("button", name="Add it").click()
    expect(dialog.get_by_role("status")).to_contain_text("Turn 5° clockwise")
    look(dialog, 1010, "Read", "first")
    dialog.get_by_role("button", name="Add it").click()
    expect(dialog.get_by_text("The reading went the other way. Was it turned as said")).to_be_visible()


def test_a_short_behind_a_blown_fuse_forbids_power(slot):
    slot.keyboard.press("m")
    dialog = slot.get_by_role("dialog")
    dialog.get_by_role("listitem").filter(has_text="Why it blew").get_by_role("button", name="F1").click()
    dialog.get_by_label("Fed side to ground, fuse out (if known)").fill("0.5")
    expect(dialog.get_by_role("status")).to_contain_text("a short. No power")
    dialog.get_by_role("button", name="Keep it on the tape").click()
    expect(slot.get_by_text("A short behind the fuse is not ruled out").first).to_be_visible()
    expect(slot.get_by_role("button", name="Mains held out")).to_be_disabled()
    slot.keyboard.press("u")
    expect(slot.get_by_role("button", name="Mains held out")).to_be_hidden()


def test_a_coin_that_is_not_found_again_holds_the_power_until_somebody_signs_for_it(slot):
    slot.keyboard.press("m")
    dialog = slot.get_by_role("dialog")
    dialog.get_by_role("listitem").filter(has_text="Things inside").get_by_role("button").first.click()
    missed = dialog.get_by_role("group", name="What the owner misses")
    missed.get_by_label("What", exact=True).first.fill("coin")
    missed.get_by_label("How many", exact=True).first.fill("1")
    missed.get_by_role("group", name="A magnet holds it").first.get_by_text("Yes").click()
    missed.get_by_role("button", name="Add it").click()
    dialog.get_by_label("Looked at: Under the deck (if known)").fill("2")
    expect(dialog.get_by_role("status")).to_contain_text("Look next at")
    dialog.get_by_role("button", name="Keep it on the tape").click()
    expect(slot.get_by_role("button", name="Mains held out")).to_be_disabled()
    slot.keyboard.press("a")
    slot.get_by_label("Why it is safe").fill("the owner found it at home")
    slot.get_by_role("button", name="Lift it", exact=True).click()
    expect(slot.get_by_role("button", name="Mains held out")).to_be_hidden()


def test_a_belt_is_measured_the_size_to_buy_named_and_one_taken_from_the_shelf(bench):
    page = bench(TRAY)
    dialog = measure(page, "Load belt")
    dialog.get_by_label("Measured", exact=True).fill("68")
    expect(dialog.get_by_role("status")).to_contain_text("Buy 142 mm around, section 1.2 mm")
    expect(dialog.get_by_role("status")).to_contain_text("From the shelf: P-")
    expect(dialog.get_by_role("img", name=re.compile("stretched"))).to_be_visible()
    dialog.get_by_role("button", name="Keep it on the tape").click()
    expect(page.get_by_label("Tape").get_by_text("Belt, Load belt:")).to_be_visible()
    page.keyboard.press("b")
    page.get_by_role("listitem").filter(has_text="BELT-71").get_by_role("button", name=re.compile("Take it, P-")).first.click()
    expect(page.get_by_role("complementary", name="Tape")).to_contain_text("Taken from the shelf: P-")


def test_a_kit_with_one_wrong_voltage_leaves_a_place_and_names_it(bench, shop):
    page = bench(TRAY)
    dialog = measure(page, "The board")
    kit = dialog.get_by_role("group", name="The kit")
    for name, uf, volt in (("K1", "47", "16"), ("K2", "100", "6.3"), ("K3", "10", "25")):
        for label, value in (("Which", name), ("Capacitance", uf), ("Volts", volt)):
            kit.get_by_label(label, exact=True).first.fill(value)
        for flag in ("Low ESR",):
            kit.get_by_role("group", name=flag).first.get_by_text("Yes").click()
        kit.get_by_label("Made for °C (if known)").first.fill("105")
        kit.get_by_role("button", name="Add it").click()
    expect(dialog.get_by_role("status")).to_contain_text("2 of 3 places have their part")
    expect(dialog.get_by_text("6.3 V is fewer than 10 V")).to_be_visible()


def test_signed_out_in_the_middle_of_a_reading_what_was_typed_waits_behind_the_sign_in(slot):
    dialog = measure(slot, "DVD trimmer")
    dialog.get_by_label("Read, 1", exact=True).fill("771")
    expect(dialog.get_by_role("status")).to_contain_text("771")
    slot.context.clear_cookies()
    dialog.get_by_label("Read, 2", exact=True).fill("772")
    slot.get_by_role("heading", name="Sign in").wait_for()
    slot.get_by_label("Name").fill("bram")
    slot.get_by_label("Password").fill("rope-kettle-72")
    slot.keyboard.press("Enter")
    slot.get_by_role("heading", name=SLOT).wait_for()
    dialog = measure(slot, "DVD trimmer")
    expect(dialog.get_by_label("Read, 2", exact=True)).to_have_value(re.compile("772"))
    dialog.get_by_role("button", name="Keep it on the tape").click()
    expect(slot.get_by_label("Tape").get_by_text("Reading, DVD trimmer: 771.5")).to_be_visible()
    expect(slot.get_by_label("Tape").get_by_text("against trimmer").last).to_be_visible()
    expect(measure(slot, "DVD trimmer").get_by_label("Read, 1", exact=True)).to_have_value("")
