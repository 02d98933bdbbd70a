"""The server as a process: a lost worker is replaced, nobody shares its port, nothing outlives it, and no half-sent body holds it up."""

import http.client
import os
import signal
import socket
import subprocess
import sys
import time
from contextlib import ExitStack, closing, suppress
from pathlib import Path

import pytest

ROOT = Path(__file__).parents[2]


def serving(port, *more):
    return subprocess.Popen([sys.executable, "-m", "config.serve", "--port", str(port), *more], cwd=ROOT, stderr=subprocess.PIPE, text=True)


def asked(port, method="GET", path="/api/nowhere", headers=None):
    with closing(http.client.HTTPConnection("127.0.0.1", port, timeout=15)) as connection:
        connection.request(method, path, headers=headers or {})
        with connection.getresponse() as answer:
            return answer.status


def until(true, seconds=30):
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        with suppress(OSError, http.client.HTTPException):
            if true():
                return True
        time.sleep(0.05)
    return False


def workers(parent):
    return [int(pid) for pid in (Path("/proc") / str(parent) / "task" / str(parent) / "children").read_text(encoding="utf-8").split()]


@pytest.fixture
def server(request):
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    process = serving(port, *getattr(request, "param", ()))
    try:
        assert until(lambda: asked(port) == 404)
        yield process, port
    finally:
        process.kill()
        process.communicate()


def test_a_process_that_is_killed_is_replaced_those_beside_the_workers_too_and_another_server_is_refused(server):
    process, port = server
    before = workers(process.pid)
    for pid in before:
        os.kill(pid, signal.SIGKILL)
    assert len(before) == 4
    assert until(lambda: len(now := workers(process.pid)) == 4 and not set(before) & set(now))
    assert asked(port) == 404
    second = serving(port)
    assert (second.wait(60), "running already" in second.communicate()[1]) == (1, True)


@pytest.mark.parametrize("server", [("--workers", "1", "--without-week")], indirect=True)
def test_a_second_machine_leaves_the_week_to_the_first(server):
    def names():
        return sorted((Path("/proc") / str(pid) / "comm").read_text(encoding="utf-8").strip() for pid in workers(server[0].pid))

    assert until(lambda: names() == ["looks", "worker"])


def test_nothing_outlives_its_parent_and_the_port_is_free_again(server):
    process, port = server
    process.kill()
    process.wait()

    def is_free():
        with socket.socket() as other:
            other.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            return other.bind(("127.0.0.1", port)) is None

    assert until(is_free)


def test_half_sent_bodies_hold_up_nobody_and_a_body_too_large_is_refused_by_its_header(server):
    _, port = server
    with ExitStack() as open_ones:
        for _ in range(30):
            half = open_ones.enter_context(socket.create_connection(("127.0.0.1", port)))
            half.sendall(b"POST /api/session HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/json\r\nContent-Length: 1000\r\n\r\n{")
        assert [asked(port) for _ in range(10)] == [404] * 10
    assert asked(port, "POST", "/api/sheet-files", {"Content-Length": "90000000"}) == 413
