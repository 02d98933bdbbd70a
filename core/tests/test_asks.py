"""What may be asked of a job and what comes of it: one line for each rule, in the words that the bench reads."""

import json
import tomllib
from pathlib import Path

import pytest
from pydantic import TypeAdapter
from spindle.errors import SpindleError
from spindle.job.asking import Speech
from spindle.job.ledger import ASKS, fold, says
from spindle.job.stages import Stage

from .house import SHEETS, House, on_the_way

BODIES = {a.name: TypeAdapter(a.body) for a in ASKS.values()}
CASES = tomllib.loads((Path(__file__).parent / "asks.toml").read_text(encoding="utf-8"))["case"]


def value(text):
    try:
        return json.loads(text)
    except ValueError:
        return (text[1:].replace("_", " ") or " ") if text.startswith("_") else text


def read(words):
    """``own_out level=board place=tray`` as an ask; a value that begins with ``_`` has blanks for its other ``_``."""
    name, *fields = words.split()
    return BODIES[name].validate_python({k: value(v) for k, v in (f.split("=", 1) for f in fields)})


def house_at(stage, family="slot"):
    """A house whose job K-1 has just come to a stage on its straightforward way."""
    house, at = House(SHEETS[family]), next(j for j in on_the_way(family) if j.stage == stage)
    house.jobs["K-1"] = fold(type(at.start)("K-1", at.start.sheet, at.start.notes), at.lines)
    return house


def answered(house, words):
    """What an ask comes to: the last line in words and what else it moves, or why not."""
    job = house.jobs["K-1"]
    try:
        if not house.ask("K-1", read(words), key=str(len(house.used)), version=job.version):
            return "nothing changes"
    except SpindleError as error:
        params = {k: v for k, v in error.params.items() if k in ("reason", "place")}
        more = "".join(f" [{m['code']}] {m['text']}" for m in error.params.get("missing", []))
        return f"{error.code} {' '.join(params.values())}: {error}{more}".replace(" :", ":")
    now = house.jobs["K-1"]
    return "; ".join([*(says(line, Speech(now)) for line in now.lines[len(job.lines) :]), *house.moved])


@pytest.mark.parametrize("case", CASES, ids=lambda c: f"{c['at']}: {c['asks'][-1][0]}")
def test_an_ask_comes_to(case):
    house = house_at(Stage(case["at"]), case.get("family", "slot"))
    assert [[words, answered(house, words)] for words, _ in case["asks"]] == case["asks"]
    house.can_be_read("K-1")


def test_a_unit_that_was_turned_lies_as_it_was_turned_to():
    house = house_at(Stage.ISOLATE, "tray")
    for words in ("mains state=out", "clear_hold code=charge", "open_step step=drive:Screws is_open=true turned_to=underside"):
        answered(house, words)
    assert house.jobs["K-1"].mat.side == "underside"


def test_what_was_left_out_of_a_proof_is_none_of_the_next():
    house = house_at(Stage.PROVE)
    answered(house, "leave_check check=own_disc why=gone")
    assert house.jobs["K-1"].left_out == {"own_disc": "gone"}
    for words in ("go_back to=isolate why=again", "propose repair=clean_lens"):
        answered(house, words)
    assert house.jobs["K-1"].left_out == {}
