"""Reading the fault models: one TOML file for the shared part, one for each loader family, put together here.

The files are data, so that a number can be argued with by somebody who does not write code. They ship inside the package;
nothing else is read. A mistake in one is a :class:`~spindle.errors.ModelError` that names file and entry.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import fields, replace
from typing import Any, Final, TypeVar

from spindle.errors import ModelError
from spindle.faults.classes import classes_of
from spindle.faults.model import ChartNode, Claim, Depths, Fault, FaultModel, Link, Outcome, Pair, Path, Question, QuestionKind, Repair, Row, SubAssembly
from spindle.shipped import read_toml
from spindle.words.bench import Depth, Mains, Reach

_T = TypeVar("_T")
EVERY_CLASS: Final = "every class"
_KIND_ORDER: Final = (QuestionKind.INTAKE, QuestionKind.BASELINE, QuestionKind.DISC_CLASS)
_TUPLES: Final = ("cautions", "fails", "tested_by", "passed_by", "do")


def read_family(name: str) -> FaultModel:
    """Return the fault model of one loader family: the shared part and its own.

    Raises
    ------
    ModelError
        If an entry lacks something, or has a word that it cannot have.
    """
    shared, own = read_toml("spindle.faults", "shared"), read_toml("spindle.faults", name)
    links = {key: tuple(_entry(Link, k, name) for k in entries) for key, entries in shared["links"].items()}
    both = [*own.get("paths", ()), *shared["paths"]]
    return FaultModel(
        family=own["family"],
        parts=tuple(SubAssembly(*p) for p in (*own["parts"], *shared["parts"])),
        faults=_faults(shared, own, name),
        questions=_questions(shared, own, name),
        repairs=_repairs(shared, own, name),
        depths=Depths(tuple(own["open_min"]), tuple(own["close_min"])),
        groups={**shared["groups"], **own["groups"]},
        seen_at_least=tuple(own["seen_at_least"]),
        reseats={Depth[key.upper()]: cured for key, cured in shared["reseats"].items()},
        pairs=tuple(Pair(*p) for p in (*shared["pairs"], *own["pairs"])),
        paths=tuple(Path(p["id"], p["title"], tuple(_links(p["links"], links, name))) for p in both),
        chart={key: _entry(ChartNode, n, name) for key, n in {**shared["chart"], **own["chart"]}.items()},
        claims=tuple(_entry(Claim, c, name) for c in (*shared["claims"], *own.get("claims", ()))),
        home=own["reach"]["home"],
        way_in=tuple(own["reach"]["way_in"].split()),
        schools={key: (s["name"], tuple(s["order"])) for key, s in {**own["schools"], **shared["schools"]}.items()},
    )


def _as_it_is(value: object) -> object:
    return value


def _entry(kind: type[_T], entry: Mapping[str, Any], file: str) -> _T:
    """Return an entry as its dataclass; depth, mains and kind by their names, lists as tuples."""
    known = {f.name for f in fields(kind)}  # type: ignore[arg-type]  # every kind here is a dataclass
    unknown = {*entry, *(key for told in entry.get("where", {}).values() for key in told)} - known
    if unknown:
        raise ModelError(f"{file}.toml, {entry.get('id', entry)!r}: unknown {', '.join(sorted(unknown))}")
    try:
        read = {key: _READERS.get(key, _as_it_is)(value) for key, value in entry.items()}
        return kind(**read)
    except (TypeError, ValueError, KeyError) as error:
        raise ModelError(f"{file}.toml, {entry.get('id', entry)!r}: {error}") from error


def _where(value: Mapping[str, Mapping[str, Any]]) -> dict[str, dict[str, object]]:
    return {feature: {key: _READERS.get(key, _as_it_is)(told) for key, told in own.items()} for feature, own in value.items()}


_READERS: Final[Mapping[str, Callable[[Any], Any]]] = {
    "depth": lambda v: Depth[v.upper()],
    "mains": Mains,
    "kind": QuestionKind,
    "where": _where,
    **dict.fromkeys(_TUPLES, tuple),
}


def _links(entries: Iterable[Any], sets: Mapping[str, tuple[Link, ...]], file: str) -> Iterable[Link]:
    for entry in entries:
        if isinstance(entry, str):
            yield from sets[entry.removeprefix("@")]
        else:
            yield _entry(Link, entry, file)


def _faults(shared: Mapping[str, Any], own: Mapping[str, Any], file: str) -> tuple[Fault, ...]:
    """Return shared faults with the family's own priors, its own, and last those that our own hands bring."""
    every = [_entry(Fault, f, file) for f in (*shared["faults"], *own["faults"])]
    unknown = set(own.get("priors", {})) - {f.id for f in every}
    if unknown:
        raise ModelError(f"{file}.toml: priors of unknown faults: {', '.join(sorted(unknown))}")
    weighed = [replace(f, prior=own.get("priors", {}).get(f.id, f.prior)) for f in every]
    return tuple(sorted(weighed, key=lambda f: bool(f.opened_by)))


def _questions(shared: Mapping[str, Any], own: Mapping[str, Any], file: str) -> tuple[Question, ...]:
    """Return the questions in the order of the bench: intake, baseline by its stages, classes, looks and tests by depth.

    The family's ``rows`` add its own faults to shared questions; their keys are question ids, space-separated, or :data:`EVERY_CLASS`.
    Its ``otherwise`` says in what a shared question is different there: a lid drive shows its hub while it is shut.
    """
    asked = (*shared["questions"], *classes_of(shared["classes"]), *own["questions"])
    added: dict[str, tuple[Row, ...]] = {}
    for ids, rows in own["rows"].items():
        for id_ in [e["id"] for e in asked if e["kind"] == QuestionKind.DISC_CLASS] if ids == EVERY_CLASS else ids.split():
            added[id_] = (*added.get(id_, ()), *_rows(rows))
    every = []
    for entry in asked:
        rows = (*_rows(entry["rows"]), *added.pop(entry["id"], ()))
        told = {**entry, **own.get("otherwise", {}).get(entry["id"], {})}
        every.append(_entry(Question, {**told, "rows": rows, "outcomes": tuple(Outcome(*o) for o in entry["outcomes"])}, file))
    if added:
        raise ModelError(f"{file}.toml: rows for unknown questions: {', '.join(added)}")
    every = _reaching(every, shared["reach"], own["reach"])
    place = {kind: n for n, kind in enumerate(_KIND_ORDER)}
    return tuple(sorted(every, key=lambda q: (place.get(q.kind, 9), q.order, q.depth if q.kind not in place else 0)))


def _reaching(questions: list[Question], *tables: Mapping[str, Any]) -> list[Question]:
    """Return the questions with what the drive must have reached for each, and what each answer says of that.

    ``needs`` names questions by what they need (any other with the mains live needs power); ``proves`` and ``stops`` name
    answers, as ``question=answer,answer``.

    Raises
    ------
    ModelError
        If a word names no question or no answer.
    """
    of = {q.id: q for q in questions}
    stage = {q.id: Reach.POWER if q.mains is Mains.LIVE else Reach.NOTHING for q in questions}
    said: dict[str, dict[str, dict[str, Reach]]] = {"proves": {}, "stops": {}}
    for table in tables:
        for reach, ids in table["needs"].items():
            stage.update(dict.fromkeys(ids.split(), Reach[reach.upper()]))
        for what, by_question in said.items():
            for reach, words in table[what].items():
                for word in words.split():
                    question, _, outcomes = word.partition("=")
                    by_question.setdefault(question, {}).update(dict.fromkeys(outcomes.split(","), Reach[reach.upper()]))
    unknown = {*stage, *said["proves"], *said["stops"]} - set(of)
    unknown |= {f"{q}={o}" for told in said.values() for q, outcomes in told.items() if q in of for o in outcomes if of[q].outcome(o) is None}
    if unknown:
        raise ModelError(f"reach: nobody knows {', '.join(sorted(unknown))}")
    return [replace(q, stage=stage[q.id], proves=said["proves"].get(q.id, {}), stops=said["stops"].get(q.id, {})) for q in questions]


def _rows(entries: Iterable[Any]) -> tuple[Row, ...]:
    return tuple(Row(faults, tuple(percent), *rest) for faults, percent, *rest in entries)


def _repairs(shared: Mapping[str, Any], own: Mapping[str, Any], file: str) -> tuple[Repair, ...]:
    """Return the family's repairs, then the shared ones; a whole drive takes the family's own parts along."""
    every = [_entry(Repair, {**r, **own.get("otherwise", {}).get(r["id"], {})}, file) for r in (*own["repairs"], *shared["repairs"])]
    return tuple(replace(r, cures={**r.cures, **own["whole_drive"]}) if r.id == "replace_drive" else r for r in every)
