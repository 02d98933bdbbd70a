"""Meters over the wire: a stand-in on loopback in fifty troubles, and the library's own simulation."""

import math
import os
import threading
import tty
from pathlib import Path

import pytest
from devices import scpi
from devices.meter import MeterError, Taken, is_steady, understood
from devices.scpi import within_time
from devices.stand_in import FAULTS, IDENTITY, StandIn

READINGS = {"voltage": 12.02, "resistance": 748.0, "current": 0.41}
PLACES = {"*IDN?": "identify", "MEAS:VOLT": "voltage", "MEAS:RES": "resistance", "MEAS:CURR": "current", "SYST:ERR?": "voltage"}


def at(server, what):
    """Who it is, or a reading of a quantity."""
    return within_time(server.address, lambda m: m.identify() if what == "identify" else m.read(what))


@pytest.mark.parametrize("what", READINGS)
def test_a_meter_that_is_well_reads(what):
    with StandIn(READINGS) as server:
        assert at(server, "identify") == IDENTITY
        assert at(server, what) == Taken(what, READINGS[what])


FINE = {("overload", p) for p in ("MEAS:VOLT", "MEAS:RES", "MEAS:CURR")} | {
    ("wrong_unit", "*IDN?"),
    ("overload", "*IDN?"),
    ("rubbish", "*IDN?"),
    ("no_number", "*IDN?"),
}
"""Of an identity any words will do; an overload is a reading."""


@pytest.mark.parametrize("place", PLACES)
@pytest.mark.parametrize("fault", FAULTS)
def test_no_trouble_of_a_meter_hangs_whoever_waits_and_each_has_a_word(fault, place):
    with StandIn(READINGS, faults={place: fault}) as server:
        if (fault, place) in FINE:
            found = at(server, PLACES[place])
            assert fault != "overload" or place == "*IDN?" or math.isinf(found.value)
        else:
            with pytest.raises(MeterError) as caught:
                at(server, PLACES[place])
            assert caught.value.params["reason"] in ("silent", "late", "broke", "rubbish", "reports")


def test_whoever_waits_is_answered_while_the_meter_is_still_asked(monkeypatch):
    monkeypatch.setattr(scpi, "HARD_S", 0.05)
    over = threading.Event()
    with StandIn(READINGS) as server, pytest.raises(MeterError, match="Type what it shows"):
        within_time(server.address, lambda _: over.wait(5))
    over.set()


@pytest.mark.parametrize("address", ["TCPIP0::127.0.0.1::9::SOCKET", "ASRL/dev/nothing::INSTR", "file:///etc/passwd", "", "TCPIP0::a b::1::SOCKET"])
def test_where_no_meter_is_it_says_so_in_time(address):
    with pytest.raises(MeterError) as caught:
        within_time(address, lambda m: m.identify())
    assert caught.value.params["reason"] in ("silent", "broke", "late", "address")


def test_a_machine_without_usb_says_so_instead_of_a_silent_meter(monkeypatch):
    monkeypatch.setattr(scpi.pyvisa.ResourceManager, "open_resource", lambda *_, **__: (_ for _ in ()).throw(ValueError("PyUSB does not seem to be there")))
    with pytest.raises(MeterError, match="libusb") as caught:
        within_time("USB0::0x1234::0x5678::SN1::INSTR", lambda m: m.identify())
    assert caught.value.params["reason"] == "no_usb"


SIM = f"{Path(__file__).parent / 'meter.yaml'}@sim"


def test_the_library_reads_its_own_simulation_as_it_reads_a_meter():
    assert within_time("ASRL1::INSTR", lambda m: m.identify(), backend=SIM) == "BENCH,METER,7,1.0"
    assert within_time("TCPIP0::127.0.0.1::5025::SOCKET", lambda m: m.read("resistance"), backend=SIM) == Taken("resistance", 100.0)
    with pytest.raises(MeterError):
        within_time("TCPIP0::127.0.0.1::5026::SOCKET", lambda m: m.identify(), backend=SIM)


@pytest.mark.parametrize(("text", "value"), [("+1.234000E+01", 12.34), ("12.34 mV", 0.01234), ("9.90000000E+37", math.inf), ("-0.5", -0.5), ("4,7", 4.7)])
def test_an_answer_with_its_unit_or_without_is_understood(text, value):
    assert understood(text, "voltage").value == pytest.approx(value)


@pytest.mark.parametrize(
    ("values", "steady"), [([1, 1], False), ([5, 12, 12.01, 12.02], True), ([12, 12.5, 12], False), ([math.inf] * 3, True), ([1, math.inf, math.inf], False)]
)
def test_a_reading_holds_when_three_in_a_row_lie_together(values, steady):
    assert is_steady([Taken("voltage", v) for v in values]) is steady


def test_what_was_taken_is_written_as_somebody_types_it():
    assert [Taken("resistance", math.inf).text, Taken("resistance", 748.0).text] == ["OL", "748 ohm"]


def test_a_meter_on_a_serial_line_reads_as_one_on_the_network():
    ours, its = os.openpty()
    tty.setraw(its)
    server = StandIn(READINGS)

    def answers():
        for query in iter(lambda: os.read(ours, 80).decode().strip(), ""):
            os.write(ours, f"{server.answer(query)}\n".encode())

    threading.Thread(target=answers, daemon=True).start()
    assert within_time(f"ASRL{os.ttyname(its)}::INSTR", lambda m: (m.identify(), m.read("resistance"))) == (IDENTITY, Taken("resistance", 748.0))
    server.server_close()
