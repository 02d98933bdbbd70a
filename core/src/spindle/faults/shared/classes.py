"""The disc-class matrix: one question a class, each with the light it needs."""

from __future__ import annotations

from typing import Final

from spindle.faults.model import Mains, Outcome, Question, QuestionKind, Row
from spindle.faults.shared.groups import SLED


def _disc_class(id_: str, name: str, nm: int, *, is_game: bool = False) -> Question:
    """Return the question for one disc class: light of its own diode, everything else shared."""
    shared_fail = {405: (20, 24, 56), 650: (24, 34, 42), 780: (24, 36, 40)}[nm]  # dirt and current hurt the short wave first
    tilted = {405: (10, 30, 60), 650: (24, 36, 40), 780: (46, 30, 24)}[nm]  # tilt bites with the narrow spot
    own_hit, own_other = (3, 9, 88), (93, 5, 2)
    return Question(
        id_,
        QuestionKind.DISC_CLASS,
        f"Does it read a {name}?",
        f"Known-clean {name}. It reads at {nm} nm. Compare the time to play with the usual one.",
        (
            Outcome("reads", "Reads, usual time", f"Reads a {name} in the usual time"),
            Outcome("slow", "Reads, but slowly or at a second try", f"Reads a {name} slowly or at a second try"),
            Outcome("fails", "Fails", f"Does not read a {name}"),
        ),
        (
            Row("*", (4, 4, 92), "not taken, not spun or not seen: no class reads"),
            Row(f"diode:{nm}", own_hit, "this class needs the very diode that is weak"),
            Row(f"diode:not{nm}", own_other, "another diode's trouble"),
            Row("lens_dirty trimmer_off", shared_fail, "hurts every class, the short wave first"),
            Row("pickup_tilt", tilted, "the narrower the spot, the less tilt it bears"),
            Row("@margin", (50, 20, 30), "once the disc is in, it reads"),
            Row("@loading", (16, 6, 78), "the disc seldom gets in"),
            Row(SLED, (40, 32, 28), "the start is easy to reach, long seeks are not"),
            Row("switch_sled", (26, 24, 50), "finds the start by luck"),
            Row("@grip", (22, 34, 44), "slips at speed"),
            Row("hub_slipped", (14, 26, 60), "height and speed off for every class"),
            Row("driver_joint connector_joint", (18, 18, 64), "works between openings"),
            Row("caps_leak", (24, 30, 46), "on the edge of its supply"),
            Row("flex_pickup_loose", (12, 14, 74), "most tracks are shared by the classes"),
            Row("wrong_board", (4, 4, 92) if is_game else (78, 10, 12), "the foreign key bars the console's own discs only"),
            Row("not_listed", (30, 20, 50), "kept flat"),
        ),
        bench_min=1.5,
        mains=Mains.LIVE,
        needs=f"class:{id_}",
        temper=0.8,  # classes share lens, spindle and supply: two that fail are not twice the news
        fails=("slow", "fails"),
    )


DISC_CLASSES: Final = (
    _disc_class("game_bd", "game BD", 405, is_game=True),
    _disc_class("film_bd", "film BD", 405),
    _disc_class("game_dvd", "game DVD", 650, is_game=True),
    _disc_class("film_dvd", "film DVD", 650),
    _disc_class("game_cd", "game CD", 780, is_game=True),
    _disc_class("music_cd", "music CD", 780),
    _disc_class("data_cd", "data CD", 780),
)
