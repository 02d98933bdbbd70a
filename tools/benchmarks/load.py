"""People at the bench at once, each giving one answer a second: how long they wait, and where it breaks. ``./dev load [SECONDS]``.

``./dev load --house [SECONDS]``: fifty people, each on a unit of their own, an answer every two seconds, in a house of 10,000 jobs and 50,000 parts.
``./dev load --machines [SECONDS]``: eight people against two servers on one database, each request on the other server than the one before it.
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
from itertools import cycle
from pathlib import Path

import psycopg

ROOT = Path(__file__).resolve().parents[2]
PEOPLE = json.loads((ROOT / "demo" / "scenario.json").read_text(encoding="utf-8"))["people"]
WANTED_MS = 250
CROWDS = (8, 12, 16, 24, 32)
HOUSE = 50
EVERY_S = 2.0
Servers = dict[int, subprocess.Popen[bytes]]
"""Port -> the parent of a server's processes."""


class Person:
    """Somebody at a browser, signed in, with a connection that stays open to each server; they are asked in turn."""

    def __init__(self, servers: Servers, account: dict[str, str], tag: str) -> None:
        self.tag, self.cookies, self.took, self.failed = tag, {}, defaultdict(list), []
        self.lines = cycle([http.client.HTTPConnection("127.0.0.1", port, timeout=30) for port in servers])
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
        begun, line = time.perf_counter(), next(self.lines)
        line.request(method, f"/api{path}", json.dumps(body) if body is not None else None, headers)
        answer = line.getresponse()
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


def children(servers: Servers) -> list[str]:
    """Return the process of each worker of the servers, and of what runs beside them."""
    return [pid for s in servers.values() for pid in (Path("/proc") / str(s.pid) / "task" / str(s.pid) / "children").read_text(encoding="utf-8").split()]


def cpu_seconds(servers: Servers) -> float:
    """Return the processor seconds that the processes of the servers have used."""
    pids = children(servers)
    ticks = [Path(f"/proc/{pid}/stat").read_text(encoding="utf-8").rsplit(")", 1)[1].split()[11:13] for pid in pids]
    return sum(int(t) for pair in ticks for t in pair) / os.sysconf("SC_CLK_TCK")


def crowd(n: int, seconds: float, servers: Servers) -> bool:
    """Let n people work; say how long they waited. True while it is as quick as it has to be."""
    tags = [f"K-{100 + k:04d}" for k in (2, 3, 4, 5, 7, 10, 11, 12, 13, 14)]
    accounts = [p for p in PEOPLE if p["role"] != "counter"]
    people = [Person(servers, accounts[k % len(accounts)], tags[k % len(tags)]) for k in range(min(n, len(tags)))]
    extra = [Person(servers, accounts[k % len(accounts)], tags[k % len(tags)]) for k in range(n - len(people))]
    return measured(people, extra, seconds, servers)


def measured(people: list[Person], extra: list[Person], seconds: float, servers: Servers, every_s: float = 1.0) -> bool:
    """Let some answer and others read, and say how long all of them waited."""
    before = cpu_seconds(servers)
    threads = [threading.Thread(target=p.work, args=(seconds, k, every_s)) for k, p in enumerate(people)]
    threads += [threading.Thread(target=reading, args=(p, seconds)) for p in extra]
    [t.start() for t in threads]
    [t.join() for t in threads]
    took = defaultdict(list)
    for name, times in (pair for p in [*people, *extra] for pair in p.took.items()):
        took[name] += times
    failed = [f for p in [*people, *extra] for f in p.failed]
    used = 1000 * (cpu_seconds(servers) - before) / max(len(took["answer"]), 1)
    p95 = {name: statistics.quantiles(times, n=20)[-1] if len(times) > 1 else times[0] for name, times in took.items()}
    words = "; ".join(f"{name} ×{len(times)}: median {statistics.median(times):.0f}, p95 {p95[name]:.0f} ms" for name, times in sorted(took.items()))
    who = f"{len(people) + len(extra):3} people, {len(people)} answer and {len(extra)} read"
    print(f"{who}: {words}; {used:.0f} ms of processor an answer, everything counted; {len(failed)} refused {failed[:2]}", flush=True)
    return p95["answer"] <= WANTED_MS and not failed


def house(seconds: float, servers: Servers) -> bool:
    """Let fifty people work in a full house; say how long they waited for answers and lists."""
    accounts = [p for p in PEOPLE if p["role"] != "counter"]
    first = Person(servers, accounts[0], "K-0107")
    sheets = [s["id"] for s in first.ask("GET", "/sheets")[1]]
    tags = []
    for k in range(HOUSE):
        words = {"owner_name": f"Bench {k}", "owner_contact": "desk", "complaint": "Does not play.", "supply": "own"}
        told = {**words, "sheet_id": sheets[k % len(sheets)], "limit_cents": 9_000, "promised_on": None, "condition": {}}
        status, job = first.ask("POST", "/jobs", {**told, "key": str(uuid.uuid4())})
        if status != 200:
            raise SystemExit(f"a unit could not be taken in: {status} {job}")
        tags.append(job["tag"])
    people = [Person(servers, accounts[k % len(accounts)], tag) for k, tag in enumerate(tags)]
    return measured(people, [], seconds, servers, every_s=EVERY_S)


def worker_mb(servers: Servers) -> list[int]:
    """Return how much memory each process of the server holds for itself and shares, in MB, largest first."""
    pids = children(servers)
    told = [re.search(r"VmRSS:\s+(\d+)", Path(f"/proc/{pid}/status").read_text(encoding="utf-8")) for pid in pids]
    return sorted((int(m.group(1)) // 1024 for m in told if m), reverse=True)


def memory(requests: int, servers: Servers) -> bool:
    """Ask and answer so many times; say how large the workers are on the way. True if the second half added no tenth to the first's end."""
    people = [Person(servers, p, tag) for p, tag in zip([p for p in PEOPLE if p["role"] != "counter"], ("K-0102", "K-0107"), strict=False)]
    paths = ("/day", "/jobs/{tag}", "/jobs/{tag}/workbench", "/shelf/parts", "/closed", "/jobs/{tag}/questions", "/week", "/search?q=belt")
    sizes = []
    for part in range(10):
        for n in range(requests // 10 // len(people)):
            for person in people:
                if n % 50 == 0:
                    person.answer(part * 100 + n // 50)
                else:
                    person.ask("GET", paths[n % len(paths)].format(tag=person.tag))
        sizes.append(worker_mb(servers))
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


def started(n: int, env: dict[str, str]) -> Servers:
    """Start so many servers on one database, and wait until each listens."""
    servers = {}
    for _ in range(n):
        with closing(socket.socket()) as free:
            free.bind(("127.0.0.1", 0))
            port = free.getsockname()[1]
        servers[port] = subprocess.Popen([sys.executable, "-m", "config.serve", "--port", str(port)], cwd=ROOT, env=env)
    for port in servers:
        for _ in range(200):
            with suppress(OSError), closing(socket.create_connection(("127.0.0.1", port))):
                break
            time.sleep(0.05)
    return servers


def gaps(database: str) -> int:
    """Return in how many jobs a line of the tape is missing, doubled or out of its order."""
    wrong = "SELECT count(*) FROM (SELECT 1 FROM jobs_tapeline GROUP BY job_id HAVING count(*) <> max(number) OR count(DISTINCT number) <> count(*)) AS x"
    with psycopg.connect(database) as base:
        return int(base.execute(wrong).fetchone()[0])


def main() -> int:
    """Run."""
    is_house, is_memory, machines = "--house" in sys.argv, "--memory" in sys.argv, 2 if "--machines" in sys.argv else 1
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
    servers = started(machines, env)
    try:
        crowd(2, 5, servers)  # the models are compiled once a process
        if is_memory:
            return not memory(int(told[0]) if told else 20_000, servers)
        if is_house:
            return not house(seconds, servers)
        if machines > 1:
            is_quick = crowd(CROWDS[0], seconds, servers)
            print(f"{gaps(own)} tapes with a line missing, doubled or out of order")
            return not is_quick or gaps(own) > 0
        for n in CROWDS:
            if not crowd(n, seconds, servers):
                print(f"breaks at {n}: an answer takes longer than {WANTED_MS} ms, or is refused")
                return n <= CROWDS[0]
        print(f"holds at {CROWDS[-1]}")
        return 0
    finally:
        for server in servers.values():
            server.terminate()
        for server in servers.values():
            server.wait()


if __name__ == "__main__":
    raise SystemExit(main())
