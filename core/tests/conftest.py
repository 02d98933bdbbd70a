from dataclasses import replace

import pytest
from hypothesis import Phase, settings
from spindle.diagnosis.explaining.diagnose import Diagnosis, diagnose
from spindle.diagnosis.given.case import Answer, Case, Change, Finding, Setting, Stock, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel, compile_model
from spindle.drives.sheet import DriveSheet, Pairing
from spindle.words.bench import Depth
from spindle.words.health import Health
from spindle.words.witness import Witness

PAIRED = DriveSheet("HM-90B", "slot", Pairing.BOARD, frozenset({"game_bd", "film_bd", "film_dvd"}), True, "1.5 A fast")
FREE = DriveSheet("QL-3", "slot", Pairing.NONE, frozenset({"game_dvd", "film_dvd", "music_cd"}), True, "")
TRAY = DriveSheet("BW-T9", "tray", Pairing.BOARD, frozenset({"game_dvd", "film_dvd", "music_cd"}), True, "1 A fast", has_electrolytics=True)
LID = DriveSheet("OP-L3", "lid", Pairing.NONE, frozenset({"game_cd", "music_cd"}), True, "0.5 A slow", True, 2, has_electrolytics=True, has_alignment=True)
FAMILIES = {"tray": TRAY, "slot": PAIRED, "lid": LID}
RETRIES = "takes_disc=takes spins=cycles sled_sound=seeks nudges_out=yes"


settings.register_profile("mutants", phases=(Phase.explicit, Phase.generate), derandomize=True, max_examples=40, deadline=None)


@pytest.fixture(scope="session")
def model() -> CompiledModel:
    return compile_model(PAIRED)


class Bench:
    """A case written as words: ``spins=cycles@4/6`` answers (4 of 6 failed), ``replace_pickup:P1:new!no_change`` trials, ``+`` joins changes.

    ``spins=never~wrong`` was seen with the disc the wrong way round, ``~other`` with another board fitted, ``~owner`` by the owner;
    ``:stays`` leaves an item in.
    """

    def __init__(self, words: str, sheet: DriveSheet = PAIRED, depth: Depth = Depth.CLOSED):
        self.model = compile_model(sheet)
        self.case = Case(sheet, tuple(self.read(w, n) for n, w in enumerate(words.split())), depth)

    @staticmethod
    def read(word: str, n: int) -> Finding:
        if "!" not in word:
            question, outcome = word.split("=")
            outcome, _, seen = outcome.partition("~")
            outcome, _, count = outcome.partition("@")
            failed, tries = map(int, count.split("/")) if count else (None, None)
            setting = Setting(disc_side=seen if seen == "wrong" else "", board=seen if seen == "other" else "")
            source = Witness.OWNER if seen == "owner" else Witness.BENCH
            return Finding(f"f{n}", Answer(question, outcome, source, tries=tries, failed=failed, setting=setting))
        changes, result = word.split("!")
        result, _, passes = result.partition("*")
        parts = [([*c.removesuffix(":stays").split(":"), "", ""][:3], c.endswith(":stays")) for c in changes.split("+")]
        made = tuple(Change(r, i, Health(h or "new"), stays=stays) for (r, i, h), stays in parts)
        return Finding(f"f{n}", Trial(made, TrialResult(result), int(passes or 0)))

    def with_stock(self, repair: str, *items: str) -> "Bench":
        """The same with these on the shelf for a repair, at no price."""
        self.case = replace(self.case, stock=tuple(Stock(repair, i, Health.UNKNOWN) for i in items))
        return self

    @property
    def found(self) -> Diagnosis:
        return diagnose(self.case, self.model)

    def p(self, name: str) -> float:
        return {**{s.id: s.p for s in self.found.suspects}, **{f"part:{s.id}": s.p for s in self.found.parts}}[name]


def p_of(words: str, name: str, sheet: DriveSheet = PAIRED) -> float:
    return Bench(words, sheet).p(name)


def codes(bench: Bench) -> set[str]:
    return {n.code for n in bench.found.notices}
