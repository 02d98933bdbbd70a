"""The steps that open a unit, outside and in, and what of screws and plugs each undoes: read from the console's sheet and the drive's."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property
from types import MappingProxyType
from typing import Any, Final

from spindle.bench.screws import Screw
from spindle.drives.tables import TABLES, Row
from spindle.errors import SheetError
from spindle.words.bench import Depth, Mains

OUTSIDE: Final = "console"
INSIDE: Final = "drive"
"""Whose sheet a step is from: names are unique in one sheet, and this tells the two apart."""
DEPTHS: Final = MappingProxyType({"cover off": Depth.COVER_OFF, "drive open": Depth.DRIVE_OPEN, "deck out": Depth.DECK_OUT})
"""How a sheet says how far the unit is open after a step."""
SIDES: Final = tuple(s for s in next(c for c in TABLES["opening"].columns if c.id == "side").choices if s != "any")
"""The sides of a unit that can lie up."""


class Kind(StrEnum):
    """What a hand does at a step."""

    SCREWS = "screws"
    CLIP = "clip"
    TAPE = "tape"
    GLUE = "glue"
    FLAP = "flap"
    CONNECTOR = "connector"
    LIFT = "lift off"
    OTHER = "other"


@dataclass(frozen=True, slots=True)
class Group:
    """Equal screws that hold one thing. ``at`` are their places on the picture in percent from the left and the top; () if nobody measured."""

    id: str
    name: str
    count: int
    screw: Screw
    at: tuple[tuple[float, float], ...] = ()
    captive: bool = False
    under: str = ""
    reaches: str = ""

    @property
    def places(self) -> tuple[str, ...]:
        """The id of each place: what lies out, is missing or replaced is remembered by it."""
        return tuple(f"{self.id}#{n + 1}" for n in range(self.count))


@dataclass(frozen=True, slots=True)
class Plug:
    """A flex or plug and how it is held."""

    name: str
    latch: str
    lets_go: str
    tracks: int | None = None


@dataclass(frozen=True, slots=True)
class Way:
    """One of the ways in which shops do a disputed step, with its risk."""

    name: str
    how: str
    risk: str
    when: str = ""


@dataclass(frozen=True, slots=True)
class OpeningStep:
    """One step in.

    Attributes
    ----------
    after : clauses of step ids; of each clause one has to be done before
    minutes, back_min : in, and back
    side : the side of the unit that lies up for it; "" if any
    opens_to : how far the unit is open then; CLOSED if it changes nothing
    frees : the level of the drive that it lets come out; "" for none
    """

    id: str
    name: str
    kind: Kind
    minutes: float
    back_min: float
    after: tuple[frozenset[str], ...] = ()
    side: str = ""
    tool: str = ""
    mains: Mains = Mains.OUT
    opens_to: Depth = Depth.CLOSED
    frees: str = ""
    groups: tuple[Group, ...] = ()
    plugs: tuple[Plug, ...] = ()
    ways: tuple[Way, ...] = ()
    how: str = ""
    fragile: bool = False
    way_round: str = ""
    under: str = ""
    decoy: str = ""
    tether: str = ""
    falls: str = ""
    route: str = ""
    photo: bool = False
    picture: str = ""
    """The hash of how it looked when somebody wrote it down; "" if nobody took a picture."""

    @property
    def asks_photo(self) -> bool:
        """True if something polarised, routed or fragile is undone: a photo comes first (C43)."""
        return self.photo or bool(self.way_round or self.route or self.tether)


@dataclass(frozen=True)
class Opening:
    """How a unit is opened: every step by its id, in the order of the sheets. Empty where no sheet says anything."""

    steps: Mapping[str, OpeningStep] = field(default_factory=dict)

    @cached_property
    def groups(self) -> Mapping[str, Group]:
        """Every group of screws by its id."""
        return {g.id: g for s in self.steps.values() for g in s.groups}

    @cached_property
    def step_of(self) -> Mapping[str, OpeningStep]:
        """The step that takes a place's screw out, by the place."""
        return {p: s for s in self.steps.values() for g in s.groups for p in g.places}

    def says_of(self, whose: str) -> bool:
        """Tell whether a sheet of that kind says anything of how its part is opened."""
        return any(s.startswith(f"{whose}:") for s in self.steps)

    def leading_to(self, depth: Depth) -> frozenset[str]:
        """Return the steps after which the unit is open so far."""
        return frozenset(s.id for s in self.steps.values() if s.opens_to == depth)

    def freeing(self, level: str) -> frozenset[str]:
        """Return the steps that let a level come out."""
        return frozenset(s.id for s in self.steps.values() if s.frees == level)


NOTHING: Final = Opening()


def read_opening(inside: Mapping[str, tuple[Row, ...]], outside: Mapping[str, tuple[Row, ...]] | None = None) -> Opening:
    """Return how a unit is opened, from the tables of its drive's sheet and of its console's.

    A drive's step that comes after nothing comes after the console's cover.

    Raises
    ------
    SheetError
        With the place of the first mistake: a name that no row has, a circle, as many places as screws.
    """
    opening = joined(Opening(_steps(outside or {}, OUTSIDE)), Opening(_steps(inside, INSIDE)))
    _check_circle(opening)
    return opening


def joined(told: Opening, own: Opening) -> Opening:
    """Return how a unit is opened by what its sheets say and, where they say nothing, by something else. A drive's steps still come after the cover."""
    steps = {**told.steps, **{k: s for k, s in own.steps.items() if k not in told.steps}}
    cover = frozenset(s.id for s in steps.values() if s.id.startswith(f"{OUTSIDE}:") and s.opens_to is Depth.COVER_OFF)
    return Opening({k: replace(s, after=(cover,)) if cover and not s.after and k.startswith(f"{INSIDE}:") else s for k, s in steps.items()})


def _steps(tables: Mapping[str, tuple[Row, ...]], whose: str) -> dict[str, OpeningStep]:
    rows = tables.get("opening", ())
    names = {str(r["step"]) for r in rows}
    groups = {str(r["place"]): _group(r, n, whose) for n, r in enumerate(tables.get("screws", ()))}
    plugs = {str(r["name"]): _plug(r) for r in tables.get("connectors", ())}
    ways = [(str(r["step"]), Way(str(r["way"]), str(r["how"]), str(r["risk"]), str(r.get("when") or ""))) for r in tables.get("ways", ())]
    for n, (name, _) in enumerate(ways):
        if name not in names:
            raise SheetError(f"/tables/ways/{n}/step", f"there is no step {name!r}")
    named = [str(r["place"]) for r in tables.get("screws", ())] + [str(r["name"]) for r in tables.get("connectors", ())]
    found: dict[str, OpeningStep] = {}
    for n, row in enumerate(rows):
        place = f"/tables/opening/{n}"
        after = _after(row, names, whose, place)
        takes = _names(row.get("takes"))
        for name in takes:
            if named.count(name) != 1:
                raise SheetError(f"{place}/takes", f"{'no' if name not in named else 'more than one row of'} screws or plugs are called {name!r}")
        own = tuple(way for name, way in ways if name == row["step"])
        step = _step(row, whose, after, tuple(groups[t] for t in takes if t in groups), tuple(plugs[t] for t in takes if t in plugs))
        found[step.id] = replace(step, ways=own)
    _check_taken_once(found, rows)
    return found


def _names(value: object, sign: str = ";") -> tuple[str, ...]:
    return tuple(t.strip() for t in str(value or "").split(sign) if t.strip())


def _after(row: Row, names: set[str], whose: str, place: str) -> tuple[frozenset[str], ...]:
    clauses = [_names(clause, "|") for clause in _names(row.get("after"))]
    for name in (n for clause in clauses for n in clause):
        if name not in names:
            raise SheetError(f"{place}/after", f"there is no step {name!r}; steps stand apart by “;”, ways of which one will do by “|”")
    return tuple(frozenset(f"{whose}:{n}" for n in clause) for clause in clauses)


def _group(row: Row, n: int, whose: str) -> Group:
    count = int(str(row["count"]))
    at = _places(row.get("at"), f"/tables/screws/{n}/at")
    if at and len(at) != count:
        raise SheetError(f"/tables/screws/{n}/at", f"{count} screws have {count} places, got {len(at)}")
    depth = row.get("depth_mm")
    screw = Screw(
        float(str(row["length_mm"])), float(str(row["thread_mm"])), str(row["head"]), str(row.get("colour") or ""), None if depth is None else float(str(depth))
    )
    name = str(row["place"])
    return Group(f"{whose}:{name}", name, count, screw, at, bool(row.get("captive")), str(row.get("under") or ""), str(row.get("reaches") or ""))


def _places(value: object, place: str) -> tuple[tuple[float, float], ...]:
    found = []
    for pair in _names(value):
        try:
            x, y = (float(v) for v in pair.split(","))
        except ValueError as error:
            raise SheetError(place, f"{pair!r} is no place: write “12,80; 88,80”, in percent from the left and the top") from error
        if not (0 <= x <= 100 and 0 <= y <= 100):
            raise SheetError(place, f"{pair!r} lies off the picture: 0 to 100 from the left and the top")
        found.append((x, y))
    return tuple(found)


def _plug(row: Row) -> Plug:
    tracks = row.get("tracks")
    return Plug(str(row["name"]), str(row["latch"]), str(row["lets_go"]), None if tracks is None else int(str(tracks)))


def _step(row: Row, whose: str, after: tuple[frozenset[str], ...], groups: tuple[Group, ...], plugs: tuple[Plug, ...]) -> OpeningStep:
    texts: dict[str, Any] = {k: str(row.get(k) or "") for k in ("tool", "how", "way_round", "under", "decoy", "tether", "falls", "route", "frees", "picture")}
    minutes, back = float(str(row["minutes"])), row.get("back_min")
    return OpeningStep(
        id=f"{whose}:{row['step']}",
        name=str(row["step"]),
        kind=Kind(str(row["kind"])),
        minutes=minutes,
        back_min=minutes if back is None else float(str(back)),
        after=after,
        side="" if row.get("side") in (None, "any") else str(row["side"]),
        mains=Mains(str(row.get("mains") or "out")),
        opens_to=DEPTHS.get(str(row.get("opens_to")), Depth.CLOSED),
        groups=groups,
        plugs=plugs,
        fragile=bool(row.get("fragile")),
        photo=bool(row.get("photo")),
        **texts,
    )


def _check_taken_once(found: Mapping[str, OpeningStep], rows: Iterable[Row]) -> None:
    taken: dict[str, str] = {}
    for n, (step, _) in enumerate(zip(found.values(), rows, strict=True)):
        for name in [*(g.name for g in step.groups), *(p.name for p in step.plugs)]:
            if name in taken:
                raise SheetError(f"/tables/opening/{n}/takes", f"{name!r} is undone by {taken[name]!r} already: a screw comes out once")
            taken[name] = step.name


def _check_circle(opening: Opening) -> None:
    done: set[str] = set()
    while True:
        can = [s.id for s in opening.steps.values() if s.id not in done and all(clause & done for clause in s.after)]
        if not can:
            break
        done.update(can)
    stuck = [n for n, s in enumerate(s for s in opening.steps.values() if s.id.startswith(f"{INSIDE}:")) if s.id not in done]
    stuck = stuck or [n for n, s in enumerate(opening.steps.values()) if s.id not in done]
    if stuck:
        raise SheetError(f"/tables/opening/{stuck[0]}/after", "these steps wait for one another in a circle: none could ever be done")
