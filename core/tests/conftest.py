import pytest
from spindle.diagnosis.case import Answer, Case, Change, Finding, Health, Trial, TrialResult
from spindle.diagnosis.compiled import CompiledModel, compile_model
from spindle.diagnosis.diagnose import Diagnosis, diagnose
from spindle.drives.sheet import DriveSheet, Pairing
from spindle.faults.model import Depth

PAIRED = DriveSheet("HM-90B", "slot", Pairing.BOARD, frozenset({"game_bd", "film_bd", "film_dvd"}), True, "1.5 A fast")
FREE = DriveSheet("QL-3", "slot", Pairing.NONE, frozenset({"game_dvd", "film_dvd", "music_cd"}), True, "")
RETRIES = "takes_disc=takes spins=cycles sled_sound=seeks nudges_out=yes"


@pytest.fixture(scope="session")
def model() -> CompiledModel:
    return compile_model(PAIRED)


class Bench:
    """A case written as words: ``takes_disc=takes`` answers, ``replace_pickup:P1!no_change`` trials."""

    def __init__(self, words: str, sheet: DriveSheet = PAIRED, depth: Depth = Depth.CLOSED):
        self.model = compile_model(sheet)
        self.case = Case(sheet, tuple(self.read(w, n) for n, w in enumerate(words.split())), depth)

    @staticmethod
    def read(word: str, n: int) -> Finding:
        if "!" not in word:
            question, outcome = word.split("=")
            return Finding(f"f{n}", Answer(question, outcome))
        changes, result = word.split("!")
        result, _, passes = result.partition("*")
        parts = [(c.split(":")[0], *(c.split(":")[1:] or [""])) for c in changes.split("+")]
        return Finding(f"f{n}", Trial(tuple(Change(r, i, *map(Health, h)) for r, i, *h in parts), TrialResult(result), int(passes or 0)))

    @property
    def found(self) -> Diagnosis:
        return diagnose(self.case, self.model)

    def p(self, name: str) -> float:
        return {**{s.id: s.p for s in self.found.suspects}, **{f"part:{s.id}": s.p for s in self.found.parts}}[name]


def p_of(words: str, name: str, sheet: DriveSheet = PAIRED) -> float:
    return Bench(words, sheet).p(name)
