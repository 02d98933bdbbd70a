"""A meter that is not there: a small SCPI server on loopback. ``./dev meter`` starts one; the tests make it misbehave in every way that a real one does."""

from __future__ import annotations

import argparse
import random
import socket
import socketserver
import sys
import threading
import time
from collections.abc import Callable, Mapping
from typing import Any, Final

IDENTITY: Final = "STAND-IN,BENCH METER,0,1"
FAULTS: Final = ("silence", "half_line", "wrong_unit", "overload", "late", "disconnect", "rubbish", "binary", "flood", "no_number")
"""Each may befall the answer to one query."""
LATE_S: Final = 3.0


class StandIn(socketserver.ThreadingTCPServer):
    """A meter whose readings are given: a number, or a function that is asked each time.

    Parameters
    ----------
    faults : mapping of the beginning of a query to one of :data:`FAULTS`
    """

    allow_reuse_address = True
    daemon_threads = True

    def __init__(self, readings: Mapping[str, float | Callable[[], float]], *, port: int = 0, faults: Mapping[str, str] | None = None) -> None:
        super().__init__(("127.0.0.1", port), _Line)
        self.readings, self.faults = readings, dict(faults or {})
        self.asked: list[str] = []

    @property
    def address(self) -> str:
        """The address by which a meter is set up."""
        return f"TCPIP0::127.0.0.1::{self.server_address[1]}::SOCKET"

    def answer(self, query: str) -> str | None:
        """Return the answer to a query; None if it wants none."""
        self.asked.append(query)
        if query.startswith("*IDN?"):
            return IDENTITY
        if query.startswith("SYST:ERR?"):
            return '0,"No error"'
        for name, beginning in (("voltage", "MEAS:VOLT"), ("resistance", "MEAS:RES"), ("current", "MEAS:CURR")):
            if query.startswith(beginning):
                value = self.readings.get(name, 9.9e37)
                return f"{value() if callable(value) else value:.6E}"
        return None

    def __enter__(self) -> StandIn:
        threading.Thread(target=self.serve_forever, kwargs={"poll_interval": 0.02}, daemon=True).start()
        return self

    def __exit__(self, *gone: object) -> None:
        self.shutdown()
        self.server_close()


class _Line(socketserver.StreamRequestHandler):
    server: StandIn

    def handle(self) -> None:
        for raw in self.rfile:
            query = raw.decode("ascii", "replace").strip()
            fault = next((f for beginning, f in self.server.faults.items() if query.startswith(beginning)), "")
            answer = self.server.answer(query)
            if answer is None:
                continue
            try:
                if not self._said(answer, fault):
                    return
            except OSError:
                return

    def _said(self, answer: str, fault: str) -> bool:
        """Say the answer, or what befalls it; False if the line is cut."""
        if fault == "silence":
            return True
        if fault == "late":
            time.sleep(LATE_S)
        elif fault == "disconnect":
            self.wfile.write(answer[: len(answer) // 2].encode())
            self.connection.shutdown(socket.SHUT_RDWR)
            return False
        elif fault == "flood":
            for _ in range(40):
                self.wfile.write(b"9" * 4096)
        texts: dict[str, bytes] = {
            "half_line": answer[: len(answer) // 2].encode(),
            "wrong_unit": b"12.5 furlong\n",
            "overload": b"9.9E37\n",
            "rubbish": b"@@?? hello\n",
            "binary": b"\xff\xfe\x00\x80\n",
            "no_number": b"NAN\n",
        }
        self.wfile.write(texts.get(fault, answer.encode() + b"\n"))
        return True


def main(argv: list[str] | None = None) -> int:
    """Start a stand-in, and say its address."""
    parser = argparse.ArgumentParser(description="A meter that is not there, on loopback.")
    parser.add_argument("--port", type=int, default=5025)
    for name, usual in (("volts", 12.02), ("ohms", 748.0), ("amps", 0.41)):
        parser.add_argument(f"--{name}", type=float, default=usual)
    told = parser.parse_args(argv)

    def about(value: float) -> Callable[[], float]:
        return lambda: random.gauss(value, 0.001 * abs(value))

    readings: dict[str, Any] = {"voltage": about(told.volts), "resistance": about(told.ohms), "current": about(told.amps)}
    with StandIn(readings, port=told.port) as server:
        sys.stdout.write(f"A stand-in meter is at {server.address}: volts {told.volts}, ohms {told.ohms}, amps {told.amps}. Ctrl-C stops it.\n")
        sys.stdout.flush()
        try:
            threading.Event().wait()
        except KeyboardInterrupt:
            return 0
    return 0


if __name__ == "__main__":
    raise SystemExit(main())
