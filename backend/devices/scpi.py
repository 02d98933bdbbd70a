"""A meter that speaks SCPI, over PyVISA with its pure-Python backend: a TCP socket, a serial line, USB where the system allows it."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from concurrent.futures import TimeoutError as FutureTimeoutError
from contextlib import contextmanager, suppress
from typing import Any, Final, TypeVar

import pyvisa
from devices.meter import Meter, MeterError, Taken, understood

ADDRESS: Final = re.compile(
    r"^(TCPIP\d*::[A-Za-z0-9.\-]{1,80}::(\d{1,5}::SOCKET|[a-z0-9]{1,20}(::INSTR)?)|ASRL[A-Za-z0-9/._\-]{1,60}(::INSTR)?|USB\d*::[A-Za-z0-9:]{1,80}::INSTR)$"
)
"""The kinds of address that a bench meter has."""
QUERIES: Final = {"voltage": "MEAS:VOLT:DC?", "resistance": "MEAS:RES?", "current": "MEAS:CURR:DC?"}
ANSWER_MS: Final = 1_200
"""A reading takes 0.1 to 1 s; what takes longer is not there."""
HARD_S: Final = 4.5
"""Whoever waits in a browser is answered by then, whatever the meter does."""
_NO_ERROR: Final = re.compile(r"^\s*[+-]?0\s*(,|$)")
NO_USB: Final = "This machine reads no meter over USB: libusb is not installed here. Over the network or a serial line it can."
MOST_ANSWER: Final = 200
"""Characters: the longest that an identity has."""

_T = TypeVar("_T")


class ScpiMeter:
    """A meter on an open line."""

    def __init__(self, device: Any) -> None:
        self._device = device

    def identify(self) -> str:
        """Return who it says it is.

        Raises
        ------
        MeterError
        """
        text = self._ask("*IDN?")
        if not text or not text.isprintable():
            raise MeterError(
                f"Something answers there, and it is no meter: {text[:40]!r}." if text else "Nothing answers there. Is it on, and is its cable in?",
                reason="silent" if not text else "rubbish",
            )
        return text

    def read(self, quantity: str) -> Taken:
        """Return one reading, after which the meter has reported no error.

        Raises
        ------
        MeterError
        """
        taken = understood(self._ask(QUERIES[quantity]), quantity)
        trouble = self._ask("SYST:ERR?")
        if trouble and not _NO_ERROR.match(trouble):
            raise MeterError(f"The meter reports an error: {trouble[:80]}.", reason="reports")
        return taken

    def _ask(self, query: str) -> str:
        try:
            answer = str(self._device.query(query)).strip()
        except pyvisa.errors.VisaIOError as error:
            late = error.error_code == pyvisa.constants.StatusCode.error_timeout
            raise MeterError(
                "The meter does not answer in time. Is it on, and set to be read from outside?" if late else "The line to the meter broke.",
                reason="late" if late else "broke",
            ) from error
        except UnicodeDecodeError as error:
            raise MeterError("The meter's answer is no text: it speaks another language, or at another speed.", reason="rubbish") from error
        except (OSError, pyvisa.errors.Error, ValueError, TypeError, AttributeError) as error:  # the backend raises what its sockets raise
            raise MeterError("The line to the meter broke. Is it on, and is its cable in?", reason="broke") from error
        if len(answer) > MOST_ANSWER:  # a number of a thousand nines is no overload
            raise MeterError(f"The meter does not stop talking: {answer[:20]!r}…", reason="rubbish")
        return answer


@contextmanager
def opened(address: str, *, backend: str = "@py") -> Iterator[ScpiMeter]:
    """Open a meter at its address, and close it.

    Raises
    ------
    MeterError
        If the address is none of a bench meter, or nothing is there.
    """
    if not ADDRESS.match(address):
        raise MeterError(
            f"{address[:60]!r} is no address of a meter: write it as TCPIP0::192.168.0.9::5025::SOCKET or ASRL/dev/ttyUSB0::INSTR.", reason="address"
        )
    try:
        manager = pyvisa.ResourceManager(backend)
        if backend.endswith("@sim") and address not in manager.list_resources("?*"):
            raise MeterError("Nothing answers there. Is it on, and is its cable in?", reason="silent")
        device: Any = manager.open_resource(address, read_termination="\n", write_termination="\n", open_timeout=ANSWER_MS)
        device.timeout = ANSWER_MS
    except (OSError, pyvisa.errors.Error, ValueError) as error:
        if address.startswith("USB") and "PyUSB" in str(error):
            raise MeterError(NO_USB, reason="no_usb") from error
        raise MeterError("Nothing answers there. Is it on, and is its cable in?", reason="silent") from error
    try:
        yield ScpiMeter(device)
    finally:
        with suppress(Exception):  # it is let go of either way
            device.close()


def within_time(address: str, work: Callable[[Meter], _T], *, backend: str = "@py") -> _T:
    """Return what some work with a meter comes to, or say in time that it does not: its line is left to run out by itself.

    Raises
    ------
    MeterError
    """

    def whole() -> _T:
        with opened(address, backend=backend) as meter:
            return work(meter)

    pool = ThreadPoolExecutor(max_workers=1, thread_name_prefix="meter")
    try:
        return pool.submit(whole).result(timeout=HARD_S)
    except FutureTimeoutError as error:
        raise MeterError("The meter does not answer in time. Type what it shows.", reason="late") from error
    finally:
        pool.shutdown(wait=False, cancel_futures=True)
