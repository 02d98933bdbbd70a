"""Mutants of the core that no test kills: ``./dev mutants [PATTERN …]``; writes docs/mutants.md when it is run without a pattern.

The mutation tool works on a copy under .data. A pattern is a mutant's name with ``*``, as ``spindle.stock.*`` or ``spindle.job.*_5``.
Without one, every mutant of ``stock`` is tried, every third of ``job`` and every tenth of ``diagnosis``: all of them take a night.
"""

from __future__ import annotations

import json
import os
import re
import shutil
import subprocess
import sys
from collections import Counter
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
PLACE = ROOT / ".data" / "mutants"
SAMPLE = ("spindle.stock.*", "spindle.job.*_*[147]", "spindle.diagnosis.*_*5")
DIED, LIVED, UNSEEN = {1, 3}, {0}, {33}
SETTINGS = """[tool.mutmut]
source_paths = ["src"]
only_mutate = ["src/spindle/job/*", "src/spindle/diagnosis/*", "src/spindle/stock/*"]
also_copy = ["core", "demo", "docs"]
pytest_add_cli_args_test_selection = ["core/tests", "--deselect", "core/tests/test_study.py"]
pytest_add_cli_args = ["-p", "no:cacheprovider", "--hypothesis-profile=mutants"]
use_git_change_detection = false

[tool.pytest.ini_options]
pythonpath = ["src", "."]
"""


def prepare() -> None:
    """Lay a copy out as the mutation tool wants it: the package at the top, the tests and what they read beside it."""
    shutil.rmtree(PLACE, ignore_errors=True)
    shutil.copytree(ROOT / "core" / "src", PLACE / "src")
    shutil.copytree(ROOT / "core" / "tests", PLACE / "core" / "tests")
    for name in ("demo", "docs"):
        shutil.copytree(ROOT / name, PLACE / name, ignore=shutil.ignore_patterns("screenshots"))
    (PLACE / "pyproject.toml").write_text(SETTINGS, encoding="utf-8")


def outcomes() -> dict[str, int]:
    """Return the exit code of every mutant that was tried."""
    found: dict[str, int] = {}
    for file in (PLACE / "mutants").rglob("*.meta"):
        found |= {k: v for k, v in json.loads(file.read_text(encoding="utf-8"))["exit_code_by_key"].items() if v is not None}
    return found


def change_of(name: str) -> str:
    """Return what a mutant changed, in one line."""
    shown = subprocess.run(["mutmut", "show", name], cwd=PLACE, capture_output=True, text=True, check=False).stdout
    lines = [line[1:].strip() for line in shown.splitlines() if re.match(r"^[-+] ", line)]
    return " → ".join(f"`{line[:110]}`" for line in lines)


def page(codes: dict[str, int], patterns: tuple[str, ...]) -> str:
    """Return the result as a page."""
    rooms: dict[str, Counter[str]] = {}
    for name, code in codes.items():
        state = "died" if code in DIED else "lived" if code in LIVED | UNSEEN else "other"
        rooms.setdefault(".".join(name.split(".")[1:3]), Counter())[state] += 1
    total = sum(rooms.values(), Counter())
    rows = [f"| {room} | {sum(c.values())} | {c['died']} | {100 * c['died'] / sum(c.values()):.0f} % |" for room, c in sorted(rooms.items())]
    left = sorted(n for n, code in codes.items() if code not in DIED)
    listed = [f"- {n.removeprefix('spindle.')}: {change_of(n)}" for n in left]
    head = f"# Mutants\n\nWritten by `./dev mutants` over {', '.join(f'`{p}`' for p in patterns)}.\n"
    share = f"{total['died']} of {sum(total.values())} mutants died ({100 * total['died'] / sum(total.values()):.1f} %).\n"
    table = "| Room | Mutants | Died | Share |\n| --- | --- | --- | --- |\n" + "\n".join(rows)
    return f"{head}\n{share}\n{table}\n\n## Those that lived\n\n" + "\n".join(listed) + "\n"


def main(*patterns: str) -> int:
    """Run."""
    prepare()
    env = {**os.environ, "SPINDLE_LAWS": "24", "PYTHONPATH": ""}
    subprocess.run(["mutmut", "run", "--max-children", str(os.cpu_count() or 1), *(patterns or SAMPLE)], cwd=PLACE, env=env, check=True)
    text = page(outcomes(), patterns or SAMPLE)
    if patterns:
        sys.stdout.write(text)
    else:
        (ROOT / "docs" / "mutants.md").write_text(text, encoding="utf-8")
    return 0


if __name__ == "__main__":
    raise SystemExit(main(*sys.argv[1:]))
