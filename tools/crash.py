"""kill -9 in the middle of writes, again and again: is anything lost, is anything doubled? ``./dev crash [KILLS]``, 200 if none is said.

A database server of its own (with fsync on) and a shop of its own, in a folder that is thrown away. Four people write remarks to four jobs
without a pause, each write with its key, and ask again with the same key until they are answered. Meanwhile one process after another is
killed: the whole server, one of its workers, the process of the looks or of the week, a session of the database, the database whole. In the end every remark
that was answered stands on its tape once, and what is kept beside each tape is what the tape says.
"""

from __future__ import annotations

import http.client
import itertools
import json
import os
import random
import re
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import time
import uuid
from collections import Counter, defaultdict
from contextlib import suppress
from dataclasses import dataclass, field
from pathlib import Path

import psycopg

ROOT = Path(__file__).resolve().parents[1]
WRITERS = json.loads((ROOT / "demo" / "scenario.json").read_text(encoding="utf-8"))["people"][1]
TAGS = ("K-0102", "K-0104", "K-0106", "K-0107")
KINDS = ("server", "worker", "looks", "week", "session", "database")
UNANSWERED = (OSError, http.client.HTTPException, ValueError)


@dataclass
class House:
    """A database server and a shop that can be killed."""

    home: Path
    port: int = 0
    server: subprocess.Popen[bytes] | None = None
    env: dict[str, str] = field(default_factory=dict)

    def open(self) -> None:
        """Start both, and fill the shop."""
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.env = {**os.environ, "PG_STATE": str(self.home)}
        self.env.pop("PG_PORT", None)
        self.start_database()
        for command in ("migrate", "load_demo"):
            subprocess.run([sys.executable, "backend/manage.py", command, "-v0"], cwd=ROOT, env=self.env, check=True, stdout=subprocess.DEVNULL)
        self.start_server()

    def start_database(self) -> None:
        """Start the database, whatever was left of it."""
        for _ in range(20):
            if subprocess.run([ROOT / "tools" / "pg", "start"], env=self.env, capture_output=True, check=False).returncode == 0:
                break
            time.sleep(0.5)
        self.env["DATABASE_URL"] = subprocess.run([ROOT / "tools" / "pg", "url"], env=self.env, capture_output=True, text=True, check=True).stdout.strip()

    def start_server(self) -> None:
        """Start the server, as ./start does."""
        self.server = subprocess.Popen(
            [sys.executable, "-m", "config.serve", "--port", str(self.port)], cwd=ROOT / "backend", env=self.env, stderr=subprocess.DEVNULL
        )

    def kill(self, kind: str, rng: random.Random) -> None:
        """Kill one of them without a word, and start again what does not come back by itself."""
        assert self.server is not None
        children = self.processes()
        if kind == "server":
            self.server.kill()
            self.server.wait()
            time.sleep(0.5)  # its workers see that it is gone
            self.start_server()
        elif kind in ("worker", "looks", "week"):
            end(rng.choice(children[kind]))
        else:
            main = int((self.home / "pg" / "postmaster.pid").read_text(encoding="ascii").split()[0])
            sessions = [int(p) for p in Path(f"/proc/{main}/task/{main}/children").read_text(encoding="ascii").split()]
            end(main if kind == "database" else rng.choice(sessions))
            if kind == "database":
                for pid in sessions:
                    end(pid)
                self.start_database()

    def processes(self) -> dict[str, list[int]]:
        """Return the workers and the processes beside them, by their name; a server that has just begun has none for a moment."""
        assert self.server is not None
        until = time.monotonic() + 60
        while time.monotonic() < until:
            with suppress(OSError):
                found = [int(p) for p in Path(f"/proc/{self.server.pid}/task/{self.server.pid}/children").read_text(encoding="ascii").split()]
                named = defaultdict(list)
                for pid in found:
                    named[Path(f"/proc/{pid}/comm").read_text(encoding="utf-8").strip()].append(pid)
                if {"worker", "looks", "week"} <= set(named):
                    return named
            time.sleep(0.1)
        raise TimeoutError("the server has not begun")

    def close(self) -> None:
        """Stop both."""
        if self.server is not None:
            self.server.kill()
            self.server.wait()
        subprocess.run([ROOT / "tools" / "pg", "stop"], env=self.env, check=False)


def end(pid: int) -> None:
    """Kill a process, if it is there."""
    with suppress(ProcessLookupError):
        if pid > 1:
            os.kill(pid, signal.SIGKILL)


class Writer(threading.Thread):
    """Somebody who writes one remark after another to one job, and lets none go before it is answered."""

    def __init__(self, port: int, tag: str) -> None:
        super().__init__(daemon=True)
        self.port, self.tag, self.cookies, self.token = port, tag, {}, ""
        self.stops, self.answered, self.asked_again = threading.Event(), [], 0

    def ask(self, method: str, path: str, body: object = None) -> tuple[int, dict[str, object]]:
        """Ask once; raises one of ``UNANSWERED`` if nobody answers."""
        line = http.client.HTTPConnection("127.0.0.1", self.port, timeout=20)
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()), "X-CSRFToken": self.token, "Content-Type": "application/json"}
        try:
            line.request(method, f"/api{path}", None if body is None else json.dumps(body), headers)
            answer = line.getresponse()
            told = json.loads(answer.read())
        finally:
            line.close()
        for cookie in answer.headers.get_all("Set-Cookie") or []:
            self.cookies.update([cookie.split(";")[0].split("=", 1)])
        return answer.status, told

    def until_answered(self, method: str, path: str, body: object = None) -> tuple[int, dict[str, object]]:
        """Ask the same thing until somebody answers it: a broken server is no answer."""
        while True:
            with suppress(*UNANSWERED):
                status, told = self.ask(method, path, body)
                if status < 500:
                    return status, told
            self.asked_again += 1
            time.sleep(0.2)

    def run(self) -> None:
        """Write until it is stopped."""
        self.token = str(self.until_answered("GET", "/session")[1]["csrf_token"])
        self.token = str(self.until_answered("POST", "/session", {"username": WRITERS["username"], "password": WRITERS["password"]})[1]["csrf_token"])
        for n in itertools.count():
            if self.stops.is_set():
                return
            self.write(f"crash {self.tag} {n:05}")

    def write(self, text: str) -> None:
        """Write one remark, with one key, on whatever version the job has by now."""
        key = str(uuid.uuid4())
        version = self.until_answered("GET", f"/jobs/{self.tag}")[1]["version"]
        while True:
            status, told = self.until_answered("POST", f"/jobs/{self.tag}/lines", {"key": key, "version": version, "ask": {"do": "remark", "text": text}})
            if status == 200:
                self.answered.append(text)
                return
            assert status == 409, (status, told)
            version = self.until_answered("GET", f"/jobs/{self.tag}")[1]["version"]


def verdict(house: House, writers: list[Writer]) -> dict[str, object]:
    """Return what is lost, doubled or unlike its tape: all of it should be nothing."""
    with psycopg.connect(house.env["DATABASE_URL"]) as connection:
        rows = connection.execute(
            "SELECT j.tag, l.number, l.version, l.body->>'text' FROM jobs_tapeline l JOIN jobs_job j ON j.id = l.job_id ORDER BY 1, 2"
        ).fetchall()
        kept = dict(connection.execute("SELECT tag, version FROM jobs_job").fetchall())
    seen = Counter(text for *_, text in rows if text and re.match(r"crash K-\d+ \d{5}$", text))
    answered = {text for w in writers for text in w.answered}
    by_job: dict[str, list[tuple[int, int]]] = {}
    for tag, number, version, _ in rows:
        by_job.setdefault(tag, []).append((number, version))
    read = subprocess.run([sys.executable, "backend/manage.py", "rebuild_jobs"], cwd=ROOT, env=house.env, capture_output=True, text=True, check=False)
    return {
        "lost": sorted(answered - set(seen)),
        "doubled": sorted(t for t, n in seen.items() if n > 1),
        "gaps": [tag for tag, lines in by_job.items() if [n for n, _ in lines] != list(range(1, len(lines) + 1))],
        "unlike its tape": [tag for tag, lines in by_job.items() if kept[tag] != lines[-1][1]],
        "cannot be read": [] if read.returncode == 0 else [read.stderr[-300:]],
    }


def crash(kills: int, seed: int = 1) -> dict[str, object]:
    """Kill so often, and return what came of it."""
    rng = random.Random(seed)
    with tempfile.TemporaryDirectory(prefix="spindle-crash-", dir="/var/tmp") as home:
        Path(home).chmod(0o755)
        house = House(Path(home))
        try:
            house.open()
            writers = [Writer(house.port, tag) for tag in TAGS]
            for w in writers:
                w.start()
            while not all(w.answered for w in writers):
                time.sleep(0.1)
            killed: Counter[str] = Counter()
            for n in range(kills):
                before = [len(w.answered) for w in writers]
                time.sleep(rng.uniform(0.05, 1.2))
                kind = KINDS[n % len(KINDS)]
                house.kill(kind, rng)
                killed[kind] += 1
                until = time.monotonic() + 60
                while any(len(w.answered) <= b for w, b in zip(writers, before, strict=True)) and time.monotonic() < until:
                    time.sleep(0.05)
                sys.stderr.write(f"\r{n + 1} of {kills} killed, {sum(len(w.answered) for w in writers)} remarks answered ")
            for w in writers:
                w.stops.set()
            for w in writers:
                w.join(90)
            sys.stderr.write("\n")
            told = {"kills": dict(killed), "answered": sum(len(w.answered) for w in writers), "asked again": sum(w.asked_again for w in writers)}
            return {**told, "stuck": [w.tag for w in writers if w.is_alive()], **verdict(house, writers)}
        finally:
            house.close()


if __name__ == "__main__":
    found = crash(int(sys.argv[1]) if len(sys.argv) > 1 else 200)
    sys.stdout.write(json.dumps(found, indent=1) + "\n")
    sys.exit(any(found[k] for k in ("stuck", "lost", "doubled", "gaps", "unlike its tape", "cannot be read")))
