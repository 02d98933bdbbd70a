"""The server: one listener, two worker processes, beside them one for deeper looks and one for the week, and a parent that starts another when one ends.

A worker reads a whole request before any of our code sees it, so that a body which is never sent to its end holds up nobody; it
refuses what is too large by its header alone. Workers end with their parent, and nobody else may listen on the port.

    python -m config.serve --port 8420 --workers 2
"""

from __future__ import annotations

import argparse
import ctypes
import os
import signal
import socket
import sys
import time
from collections.abc import Callable, Sequence
from functools import partial
from types import FrameType
from typing import Final

import waitress
from config.beside import Beside
from config.wsgi import application
from django.conf import settings
from django.db import connections
from django.urls import get_resolver

MAX_BODY_BYTES: Final = 12_500_000
"""A photo of 12 MB with what stands around it: the largest thing that anybody sends. Forms have a limit of their own in the settings."""
SILENCE_S: Final = 20
"""A connection that says nothing for so long is closed."""
THREADS: Final = 6
CONNECTIONS: Final = 500
QUICK_S: Final = 3.0
"""A worker that ends sooner than this after its start has not served anybody."""
QUICK_DEATHS: Final = 5
"""After so many of those in a row something is wrong that another start will not mend."""
GRACE_S: Final = 8.0
SWITCH_S: Final = 0.0005
"""How long one thread keeps the interpreter from another that is back from the database. Python's own 5 ms, at each of a dozen queries,
made two answers at a time wait half as long again."""
LOOKS_NICE: Final = 10
LOOKS_PAUSE_S: Final = 0.1
"""Somebody waits for a deeper look, and has waited for over a second before it was asked for."""
WEEK_NICE: Final = 15
WEEK_PAUSE_S: Final = 2.0
WEEK_RESTS: Final = 6.0
"""An answer at the bench is always nearer than the week: so old is it at most beyond the time that it takes."""
_DIE_WITH_PARENT: Final = 1  # PR_SET_PDEATHSIG of prctl(2)
_SET_NAME: Final = 15  # PR_SET_NAME


def listen(port: int) -> socket.socket:
    """Return the one listener. The port is nobody else's: a second server is refused here.

    Raises
    ------
    OSError
        If somebody listens there already.
    """
    listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM)
    listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    listener.bind(("127.0.0.1", port))
    listener.listen(256)
    return listener


def work(listener: socket.socket, parent: int) -> None:
    """Serve until told to stop, or until the parent is gone."""
    if not _born("worker", parent):
        return
    sys.setswitchinterval(SWITCH_S)
    waitress.serve(
        application,
        sockets=[listener],
        threads=THREADS,
        ident="",
        connection_limit=CONNECTIONS,
        channel_timeout=SILENCE_S,
        cleanup_interval=5,
        max_request_body_size=MAX_BODY_BYTES,
        channel_request_lookahead=1,  # so that a long look can tell that its asker has left
        _quiet=True,
    )


def beside(task: str, parent: int) -> None:
    """Do what goes on beside the workers and never before them: ``looks``, or ``week``."""
    if not _born(task, parent):
        return
    from api.jobs.diagnosis_views import told_look  # noqa: PLC0415  # models can be read once the settings are
    from apps.day.keeping import keep_day  # noqa: PLC0415
    from apps.jobs.outlook import keep_looks  # noqa: PLC0415

    tasks = {
        "looks": Beside("a deeper look was not made", LOOKS_NICE, LOOKS_PAUSE_S, lambda goes_on: keep_looks(told_look, goes_on)),
        "week": Beside("the week was not worked out", WEEK_NICE, WEEK_PAUSE_S, keep_day, rests=WEEK_RESTS),
    }
    tasks[task].run(parent)


def _born(name: str, parent: int) -> bool:
    """Begin as a process of that name which ends with its parent; False if that is gone already."""
    libc = ctypes.CDLL(None)
    libc.prctl(_DIE_WITH_PARENT, signal.SIGTERM)
    libc.prctl(_SET_NAME, name.encode())
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # Ctrl-C is the parent's to pass on
    signal.signal(signal.SIGTERM, _leave)
    return os.getppid() == parent


def _leave(_signal: int, _frame: FrameType | None) -> None:
    raise SystemExit(0)


class Parent:
    """Keeps processes alive, one for each of their tasks, until it is told to stop."""

    def __init__(self, tasks: Sequence[Callable[[], None]]) -> None:
        self._tasks = tasks
        self._born: dict[int, tuple[float, Callable[[], None]]] = {}
        self._is_stopping = False
        self._quick = 0

    def run(self) -> int:
        """Start the workers and start others as they end; return the exit code."""
        for which in (signal.SIGTERM, signal.SIGINT):
            signal.signal(which, self._stop)
        for task in self._tasks:
            self._start(task)
        while self._born:
            pid, status = _next_end()
            known = self._born.pop(pid, None)
            if known is None or self._is_stopping:
                continue
            born, task = known
            self._quick = self._quick + 1 if time.monotonic() - born < QUICK_S else 0
            sys.stderr.write(f"serve: worker {pid} ended ({os.waitstatus_to_exitcode(status)}); starting another\n")
            if self._quick >= QUICK_DEATHS:
                sys.stderr.write("serve: workers end as soon as they start; giving up\n")
                self._stop(signal.SIGTERM, None)
                self._quick = -1
                continue
            self._start(task)
        return 1 if self._quick < 0 else 0

    def _start(self, task: Callable[[], None]) -> None:
        pid = os.fork()
        if pid:
            self._born[pid] = time.monotonic(), task
            return
        code = 0
        try:
            task()
        except SystemExit:
            pass
        except BaseException as error:
            sys.stderr.write(f"serve: {error!r}\n")
            code = 1
        os._exit(code)

    def _stop(self, _signal: int, _frame: FrameType | None) -> None:
        if not self._is_stopping:
            self._is_stopping = True
            signal.signal(signal.SIGALRM, lambda *_: self._tell(signal.SIGKILL))
            signal.setitimer(signal.ITIMER_REAL, GRACE_S)
        self._tell(signal.SIGTERM)

    def _tell(self, which: int) -> None:
        for pid in self._born:
            try:
                os.kill(pid, which)
            except ProcessLookupError:
                continue


def _next_end() -> tuple[int, int]:
    try:
        return os.wait()
    except ChildProcessError:
        return -1, 0


def _published() -> str:
    """Return who signs in with a published password; the connection is closed again before anybody is born with it."""
    from apps.demo.services import published_sign_ins  # noqa: PLC0415  # models can be read once the settings are

    known = ", ".join(published_sign_ins())
    connections.close_all()
    return known


def main() -> int:
    """Run."""
    asked = argparse.ArgumentParser(description="Serve Tidy Spindle on loopback.")
    asked.add_argument("--port", type=int, default=8420)
    asked.add_argument("--workers", type=int, default=2)
    asked.add_argument("--without-week", action="store_true", help="another machine on the same database works the week out")
    given = asked.parse_args()
    try:
        listener = listen(given.port)
    except OSError as error:
        sys.stderr.write(f"serve: port {given.port} cannot be had ({error.strerror}); is Tidy Spindle running already?\n")
        return 1
    if settings.IS_REAL and (known := _published()):
        sys.stderr.write(f"serve: {known} can sign in with the demo's passwords, which everybody can read: change them first.\n")
        return 1
    get_resolver().url_patterns  # noqa: B018  # loads the whole application once, before the workers: they are ready as soon as they are born
    for counted in settings.METRICS.glob("*.db"):  # by the processes of a server that has ended: they would be added up for ever
        counted.unlink(missing_ok=True)
    settings.LOOKS_APART = True
    parent = os.getpid()
    besides = ("looks",) if given.without_week else ("looks", "week")
    return Parent([*[lambda: work(listener, parent)] * given.workers, *(partial(beside, task, parent) for task in besides)]).run()


if __name__ == "__main__":
    raise SystemExit(main())
