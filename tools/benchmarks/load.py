"""People at the bench at once, each giving one answer a second: how long they wait, and where it breaks. ``./dev load [SECONDS]``.

``./dev load --house [SECONDS]``: fifty people, each on a unit of their own, an answer every two seconds, in a house of 10,000 jobs and 50,000 parts.
``./dev load --memory [REQUESTS]``: how large the workers are while two people answer and read without a pause (20,000 requests).

A server of its own (two workers, as ./start runs it) on a database of its own, filled with the demo. Each person has a session, and the
first ten a job (they share the demo's few accounts); whoever comes after them reads. Now and then somebody looks at the day or takes the
deeper look.
"""

from __future__ import annotations

import http.client
import json
import os
import random
import re
import socket
import statistics
import subprocess
import sys
import threading
import time
import uuid
from collections import defaultdict
from contextlib import closing, suppress
from pathlib import Path

import psycopg

ROOT = Path(__file__).resolve().parents[2]
PEOPLE = json.loads((ROOT / "demo" / "scenario.json").read_text(encoding="utf-8"))["people"]
WANTED_MS = 250
CROWDS = (8, 12, 16, 24, 32)
HOUSE = 50
EVERY_S = 2.0


class Person:
    """Somebody at a browser, signed in, with a connection that stays open."""

    def __init__(self, port: int, account: dict[str, str], tag: str) -> None:
        self.tag, self.cookies, self.took, self.failed = tag, {}, defaultdict(list), []
        self.line = http.client.HTTPConnection("127.0.0.1", port, timeout=30)
        self.token = self.ask("GET", "/session")[1]["csrf_token"]
        self.token = self.ask("POST", "/session", {"username": account["username"], "password": account["password"]})[1]["csrf_token"]
        self.version = self.ask("GET", f"/jobs/{tag}")[1]["version"]
        self.questions = self.ask("GET", f"/jobs/{tag}/questions")[1]
        self.took.clear()

    def ask(self, method: str, path: str, body: object = None, name: str = "other") -> tuple[int, object]:
        headers = {
            "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
            "X-CSRFToken": getattr(self, "token", ""),
            "Content-Type": "application/json",
        }
        begun = time.perf_counter()
        self.line.request(method, f"/api{path}", json.dumps(body) if body is not None else None, headers)
        answer = self.line.getresponse()
        raw = answer.read()
        self.took[name].append(1000 * (time.perf_counter() - begun))
        for header in answer.headers.get_all("Set-Cookie") or []:
            self.cookies.update([header.split(";")[0].split("=", 1)])
        if answer.status not in (200, 409 if name == "deeper look" else 200):  # a look that somebody's newer look has superseded
            self.failed.append((answer.status, raw[:120]))
        return answer.status, json.loads(raw) if raw[:1] in (b"{", b"[") else None

    def answer(self, n: int) -> None:
        question = self.questions[n % len(self.questions)]
        outcome = question["outcomes"][n % len(question["outcomes"])]["id"]
        said = {"do": "answer", "question": question["id"], "outcome": outcome, "source": "remembered"}
        status, job = self.ask("POST", f"/jobs/{self.tag}/lines", {"key": str(uuid.uuid4()), "version": self.version, "ask": said}, "answer")
        if status == 200:
            self.version = job["version"]

    def work(self, seconds: float, seed: int, every_s: float = 1.0) -> None:
        chance, begun = random.Random(seed), time.perf_counter()
        for n in range(int(seconds / every_s)):
            due = begun + (n + chance.random()) * every_s  # whoever works beside others does not press when they do
            time.sleep(max(0.0, due - time.perf_counter()))
            self.answer(n)
            if chance.random() < 0.1:
                self.ask("GET", "/day", name="day")
            if chance.random() < 0.05:
                self.ask("GET", f"/jobs/{self.tag}/outlook", name="deeper look")


def cpu_seconds(parent: int) -> float:
    """Return the processor seconds that the workers have used."""
    pids = (Path("/proc") / str(parent) / "task" / str(parent) / "children").read_text(encoding="utf-8").split()
    ticks = [Path(f"/proc/{pid}/stat").read_text(encoding="utf-8").rsplit(")", 1)[1].split()[11:13] for pid in pids]
    return sum(int(t) for pair in ticks for t in pair) / os.sysconf("SC_CLK_TCK")


def crowd(n: int, seconds: float, port: int, parent: int) -> bool:
    """Let n people work; say how long they waited. True while it is as quick as it has to be."""
    tags = [f"K-{100 + k:04d}" for k in (2, 3, 4, 5, 7, 10, 11, 12, 13, 14)]
    accounts = [p for p in PEOPLE if p["role"] != "counter"]
    people = [Person(port, accounts[k % len(accounts)], tags[k % len(tags)]) for k in range(min(n, len(tags)))]
    extra = [Person(port, accounts[k % len(accounts)], tags[k % len(tags)]) for k in range(n - len(people))]
    return measured(people, extra, seconds, parent)


def measured(people: list[Person], extra: list[Person], seconds: float, parent: int, every_s: float = 1.0) -> bool:
    """Let some answer and others read, and say how long all of them waited."""
    before = cpu_seconds(parent)
    threads = [threading.Thread(target=p.work, args=(seconds, k, every_s)) for k, p in enumerate(people)]
    threads += [threading.Thread(target=reading, args=(p, seconds)) for p in extra]
    [t.start() for t in threads]
    [t.join() for t in threads]
    took = defaultdict(list)
    for name, times in (pair for p in [*people, *extra] for pair in p.took.items()):
        took[name] += times
    failed = [f for p in [*people, *extra] for f in p.failed]
    used = 1000 * (cpu_seconds(parent) - before) / max(len(took["answer"]), 1)
    p95 = {name: statistics.quantiles(times, n=20)[-1] if len(times) > 1 else times[0] for name, times in took.items()}
    words = "; ".join(f"{name} ×{len(times)}: median {statistics.median(times):.0f}, p95 {p95[name]:.0f} ms" for name, times in sorted(took.items()))
    who = f"{len(people) + len(extra):3} people, {len(people)} answer and {len(extra)} read"
    print(f"{who}: {words}; {used:.0f} ms of processor an answer, everything counted; {len(failed)} refused {failed[:2]}", flush=True)
    return p95["answer"] <= WANTED_MS and not failed


def house(seconds: float, port: int, parent: int) -> bool:
    """Let fifty people work in a full house; say how long they waited for answers and lists."""
    accounts = [p for p in PEOPLE if p["role"] != "counter"]
    first = Person(port, accounts[0], "K-0107")
    sheets = [s["id"] for s in first.ask("GET", "/sheets")[1]]
    tags = []
    for k in range(HOUSE):
        words = {"owner_name": f"Bench {k}", "owner_contact": "desk", "complaint": "Does not play.", "supply": "own"}
        told = {**words, "sheet_id": sheets[k % len(sheets)], "limit_cents": 9_000, "promised_on": None, "condition": {}}
        status, job = first.ask("POST", "/jobs", {**told, "key": str(uuid.uuid4())})
        if status != 200:
            raise SystemExit(f"a unit could not be taken in: {status} {job}")
        tags.append(job["tag"])
    people = [Person(port, accounts[k % len(accounts)], tag) for k, tag in enumerate(tags)]
    return measured(people, [], seconds, parent, every_s=EVERY_S)


def worker_mb(parent: int) -> list[int]:
    """Return how much memory each process of the server holds for itself and shares, in MB, largest first."""
    pids = (Path("/proc") / str(parent) / "task" / str(parent) / "children").read_text(encoding="utf-8").split()
    told = [re.search(r"VmRSS:\s+(\d+)", Path(f"/proc/{pid}/status").read_text(encoding="utf-8")) for pid in pids]
    return sorted((int(m.group(1)) // 1024 for m in told if m), reverse=True)


def memory(requests: int, port: int, parent: int) -> bool:
    """Ask and answer so many times; say how large the workers are on the way. True if the second half added no tenth to the first's end."""
    people = [Person(port, p, tag) for p, tag in zip([p for p in PEOPLE if p["role"] != "counter"], ("K-0102", "K-0107"), strict=False)]
    paths = ("/day", "/jobs/{tag}", "/jobs/{tag}/workbench", "/shelf/parts", "/closed", "/jobs/{tag}/questions", "/week", "/search?q=belt")
    sizes = []
    for part in range(10):
        for n in range(requests // 10 // len(people)):
            for person in people:
                if n % 50 == 0:
                    person.answer(part * 100 + n // 50)
                else:
                    person.ask("GET", paths[n % len(paths)].format(tag=person.tag))
        sizes.append(worker_mb(parent))
        print(
            f"after {(part + 1) * (requests // 10):6} requests: {', '.join(f'{mb} MB' for mb in sizes[-1])}; {sum(len(p.failed) for p in people)} refused",
            flush=True,
        )
    return max(sizes[-1]) <= 1.1 * max(sizes[4]) and not any(p.failed for p in people)


def reading(person: Person, seconds: float) -> None:
    """Somebody who reads the job and the day once a second: more than a person for each job would only be told that they were late."""
    end = time.perf_counter() + seconds
    while time.perf_counter() < end:
        person.ask("GET", f"/jobs/{person.tag}", name="job")
        time.sleep(max(0.0, 1.0 - person.took["job"][-1] / 1000))


def main() -> int:
    """Run."""
    is_house, is_memory = "--house" in sys.argv, "--memory" in sys.argv
    told = [a for a in sys.argv[1:] if not a.startswith("-")]
    seconds = float(told[0]) if told else 120.0 if is_house else 30.0
    url = os.environ["DATABASE_URL"]
    own = re.sub(r"/[^/]*$", "/spindle_load", url)
    with psycopg.connect(url, autocommit=True) as base:
        base.execute("DROP DATABASE IF EXISTS spindle_load WITH (FORCE)")
        base.execute("CREATE DATABASE spindle_load")
    env = {**os.environ, "DATABASE_URL": own}
    for command in ("migrate", "load_demo", *(["fill_shop"] if is_house else [])):
        subprocess.run([sys.executable, "backend/manage.py", command, "-v0"], cwd=ROOT, env=env, check=True, stdout=subprocess.DEVNULL)
    with closing(socket.socket()) as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    server = subprocess.Popen([sys.executable, "-m", "config.serve", "--port", str(port)], cwd=ROOT, env=env)
    try:
        for _ in range(200):
            with suppress(OSError), closing(socket.create_connection(("127.0.0.1", port))):
                break
            time.sleep(0.05)
        crowd(2, 5, port, server.pid)  # the models are compiled once a process
        if is_memory:
            return not memory(int(told[0]) if told else 20_000, port, server.pid)
        if is_house:
            return not house(seconds, port, server.pid)
        for n in CROWDS:
            if not crowd(n, seconds, port, server.pid):
                print(f"breaks at {n}: an answer takes longer than {WANTED_MS} ms, or is refused")
                return n <= CROWDS[0]
        print(f"holds at {CROWDS[-1]}")
        return 0
    finally:
        server.terminate()
        server.wait()


if __name__ == "__main__":
    raise SystemExit(main())
