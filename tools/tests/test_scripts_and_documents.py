"""The scripts say plainly what is wrong, and the documents stay true."""

import ast
import json
import os
import re
import socket
import subprocess
from pathlib import Path

import pytest
from spindle import errors
from spindle.faults.library import MODELS

ROOT = Path(__file__).parents[2]
DOCUMENTS = [ROOT / "README.md", *sorted((ROOT / "docs").rglob("*.md"))]


def run(*command):
    return subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=False, timeout=60)


@pytest.mark.parametrize(
    ("command", "code", "says"),
    [
        (["./start", "--port", "none"], 2, "--port takes a number"),
        (["./start", "--port", "70000"], 2, "--port takes a number"),
        (["./start", "--colour"], 2, "unknown option --colour"),
        (["./start", "--help"], 0, "--fresh-demo"),
        (["./dev", "help"], 0, "screenshots"),
        (["./spindle", "diagnose"], 2, "CASE.json"),
        (["./spindle", "sing"], 2, "invalid choice"),
    ],
)
def test_a_script_called_wrongly_says_how(command, code, says):
    done = run(*command)
    assert done.returncode == code
    assert says in done.stdout + done.stderr


def test_a_taken_port_is_named_with_another():
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        done = run("./start", "--port", str(port))
    assert done.returncode == 1
    assert f"port {port} is taken" in done.stderr
    assert str(port + 1) in done.stderr


@pytest.mark.parametrize("document", DOCUMENTS, ids=lambda p: str(p.relative_to(ROOT)))
def test_every_link_of_a_document_leads_somewhere(document):
    links = re.findall(r"\]\((?!http)([^)#]+)", document.read_text(encoding="utf-8"))
    assert [link for link in links if not (document.parent / link).exists()] == []


def test_the_readme_is_short_and_its_figures_are_the_models():
    text = (ROOT / "README.md").read_text(encoding="utf-8")
    assert text.count("\n") < 80
    for name, model in MODELS.items():
        assert f"{name} {len(model.faults)} faults, {len(model.questions)} questions and tests, {len(model.repairs)} repairs" in text.replace("\n", " ")


def test_decisions_are_numbered_without_a_gap():
    numbers = [int(p.name[:4]) for p in sorted((ROOT / "docs" / "decisions").glob("*.md"))]
    assert numbers == list(range(1, len(numbers) + 1))


def test_every_screenshot_is_linked():
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    pictures = {p.name for p in (ROOT / "docs" / "screenshots").glob("*.png")}
    assert 0 < len(pictures) < 20
    assert {p for p in pictures if f"docs/screenshots/{p}" not in readme} == set()


def test_the_error_tree_in_its_docstring_is_the_tree():
    drawn = set(re.findall(r"[A-Z]\w+Error", errors.__doc__))
    made = {n for n, x in vars(errors).items() if isinstance(x, type) and issubclass(x, Exception) and not n.startswith("_")}
    assert drawn == made
    codes = [getattr(errors, n).code for n in made]
    assert len(set(codes)) == len(codes)


@pytest.mark.parametrize("key", ["family", "pairing", "classes", "has_trimmer", "fuse_rating", "prior_factors", "prices", "depth", "economy", "strikes"])
def test_every_key_of_the_case_format_is_described(key):
    schema = json.dumps(json.loads((ROOT / "docs/formats/case.schema.json").read_text(encoding="utf-8")))
    assert f'"{key}"' in schema
    assert key in (ROOT / "docs/formats/case.md").read_text(encoding="utf-8")


def test_the_core_reads_no_clock_and_prints_nothing():
    banned = {"print", "open", "input"}
    for file in (ROOT / "core" / "src").rglob("*.py"):
        tree = ast.parse(file.read_text(encoding="utf-8"))
        called = {n.func.id for n in ast.walk(tree) if isinstance(n, ast.Call) and isinstance(n.func, ast.Name)}
        imported = {a.name.split(".")[0] for n in ast.walk(tree) if isinstance(n, ast.Import) for a in n.names}
        assert called & banned == set(), file
        assert imported & {"time", "datetime", "random", "logging", "os"} == set(), file


def test_a_database_whose_folder_was_closed_is_told_and_never_begun_anew(tmp_path):
    state = tmp_path / "state"
    state.mkdir()
    (state / "pg.place").write_text(str(tmp_path / "gone"), encoding="utf-8")
    done = subprocess.run(["tools/pg", "start"], cwd=ROOT, capture_output=True, text=True, check=False, timeout=60, env={**os.environ, "PG_STATE": str(state)})
    assert (done.returncode, "not there any more" in done.stderr) == (1, True)
    assert not (tmp_path / "gone").exists()
