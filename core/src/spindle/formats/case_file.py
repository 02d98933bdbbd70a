"""A bench case as a JSON document."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import asdict, fields, replace
from typing import Any, Final

from spindle.diagnosis.given.case import Answer, Bench, Case, Change, Finding, Remark, Setting, Stock, Trial, TrialResult, Weight
from spindle.diagnosis.given.economy import Economy
from spindle.drives.sheet import DriveSheet
from spindle.errors import CaseError, UnknownWordError
from spindle.faults.library import MODELS
from spindle.formats.drive_facts import read_drive, write_drive
from spindle.formats.place import Place
from spindle.words.bench import Depth, Instrument, Power
from spindle.words.health import FUNCTIONS, Health
from spindle.words.witness import Witness

FORMAT: Final = "tidy-spindle-case"
VERSION: Final = 1
_DEPTHS: Final = {d.name.lower(): d for d in Depth}
_SETTINGS: Final = {"mains": ("live", "out"), "cover": ("on", "off"), "disc_side": ("right", "wrong"), "board": ("own", "other"), "console": ("own", "other")}


def read_case(document: object) -> Case:
    """Return the case that a parsed JSON document describes.

    Raises
    ------
    CaseError
        If the document is wrong anywhere; ``place`` is a JSON pointer to where.
    """
    top = Place(document, "", ("format", "version", "drive", "bench", "economy", "stock", "findings", "strikes"))
    if top.text("format") != FORMAT:
        raise CaseError("/format", f"expected {FORMAT!r}, got {top.text('format')!r}")
    if top.raw("version") != VERSION:
        raise CaseError("/version", f"this program reads version {VERSION}, the file says {top.raw('version')!r}")
    sheet = read_drive(top.raw("drive"), "/drive")
    findings = [f for f in top.items("findings", _finding) if isinstance(f, Finding)]
    struck = _strikes(top, findings)
    depth, bench = _bench(Place(top.raw("bench") if "bench" in top else {}, "/bench", ("depth", "power", "no_power", "lacks")))
    stands = tuple(Finding(f.id, f.what, f.id in struck) for f in findings)
    return Case(sheet=sheet, findings=stands, depth=depth, economy=_economy(top), stock=_stock(top, sheet), bench=bench)


def _bench(bench: Place) -> tuple[Depth, Bench]:
    name = bench.text("depth", "closed")
    if name not in _DEPTHS:
        raise CaseError("/bench/depth", f"{name!r} is none of {', '.join(_DEPTHS)}")
    lacks = frozenset(Instrument(word) for word in bench.words("lacks", [i.value for i in Instrument]))
    return _DEPTHS[name], Bench(bench.choice("power", Power, Power.OUT), bench.text("no_power", "") if "no_power" in bench else None, lacks)


def _strikes(top: Place, findings: list[Finding]) -> set[str]:
    ids: set[str] = set()
    for n, finding in enumerate(findings):
        if finding.id in ids:
            raise CaseError(f"/findings/{n}/id", f"{finding.id!r} is there twice")
        ids.add(finding.id)

    def one(value: object, place: str) -> object:
        if not isinstance(value, str) or value not in ids:
            raise CaseError(place, f"{value!r} is the id of no finding")
        return value

    return {str(s) for s in top.items("strikes", one)}


def _economy(top: Place) -> Economy:
    if "economy" not in top:
        return Economy()
    own = Economy()
    names = [f.name for f in fields(Economy) if f.name != "sign"]
    given = Place(top.raw("economy"), "/economy", names)
    promise = given.number("promise_days", 0.0, high=365) if "promise_days" in given else None
    figures: dict[str, Any] = {n: given.number(n, getattr(own, n), high=100_000) for n in names if n != "promise_days"}
    return replace(own, promise_days=promise, **figures)


def _stock(top: Place, sheet: DriveSheet) -> tuple[Stock, ...]:
    return tuple(s for s in top.items("stock", lambda v, p: read_stock(v, p, sheet)) if isinstance(s, Stock))


def read_stock(value: object, place: str, sheet: DriveSheet) -> Stock:
    """Return a part at hand, a donor's or in transit, from its JSON object.

    Raises
    ------
    CaseError
        If it is wrong anywhere, or its repair takes no part.
    """
    repairs = {r.id: r for r in MODELS[sheet.family].repairs}

    entry = Place(value, place, [f.name for f in fields(Stock)])
    repair = entry.text("repair")
    if repair not in repairs:
        raise UnknownWordError(entry.at("repair"), "repair", repair, repairs)
    if not repairs[repair].uses_item:
        raise CaseError(entry.at("repair"), f"{repair!r} takes no part")
    return Stock(
        repair,
        entry.text("item", ""),
        entry.choice("health", Health, Health.NEW),
        entry.words("works", FUNCTIONS),
        entry.words("fails", FUNCTIONS),
        entry.number("price_eur", 0.0, high=10_000),
        entry.number("wait_days", 0.0, high=365),
        entry.flag("is_donor", False),
    )


def _finding(value: object, place: str) -> Finding:
    entry = Place(value, place, ("id", "at", "answer", "trial", "remark"))
    entry.text("at", "")
    kinds = [k for k in ("answer", "trial", "remark") if k in entry]
    if len(kinds) != 1:
        raise CaseError(place, f"a finding is one of answer, trial or remark; this has {', '.join(kinds) or 'none'}")
    return Finding(entry.text("id"), read_what(kinds[0], entry.raw(kinds[0]), entry.at(kinds[0])))


def read_what(kind: str, value: object, place: str) -> Answer | Trial | Remark:
    """Return an answer, trial or remark from its JSON object.

    Raises
    ------
    CaseError
        If it is wrong anywhere.
    """
    return _READERS[kind](value, place)


def _answer(value: object, place: str) -> Answer:
    entry = Place(value, place, ("question", "outcome", "source", "tries", "failed", "seconds", "setting", "weights"))
    tries, failed = entry.count("tries"), entry.count("failed")
    if failed is not None and (tries is None or failed > tries):
        raise CaseError(entry.at("failed"), f"{failed} failures of {tries} tries")
    seconds = entry.number("seconds", 0.0, low=0.1, high=3600) if "seconds" in entry else None
    setting = _setting(entry.raw("setting"), entry.at("setting")) if "setting" in entry else Setting()
    return Answer(
        entry.text("question"), entry.text("outcome"), entry.choice("source", Witness, Witness.BENCH), tries, failed, seconds, setting, _weights(entry)
    )


def _weights(entry: Place) -> tuple[Weight, ...]:
    """Return how far a measured answer speaks for each outcome: shares that sum to 1, the most for the outcome that is named."""
    found = tuple(w for w in entry.items("weights", _weight) if isinstance(w, Weight))
    if not found:
        return ()
    if abs(sum(w.share for w in found) - 1.0) > 1e-6 or len({w.outcome for w in found}) < len(found):
        raise CaseError(entry.at("weights"), "the shares of different outcomes have to sum to 1")
    if max(found, key=lambda w: w.share).outcome != entry.text("outcome"):
        raise CaseError(
            entry.at("weights"), f"the most speaks for {max(found, key=lambda w: w.share).outcome!r}, and the outcome says {entry.text('outcome')!r}"
        )
    return found


def _weight(value: object, place: str) -> Weight:
    entry = Place(value, place, ("outcome", "share"))
    return Weight(entry.text("outcome"), entry.number("share", 0.0, low=0.0, high=1.0))


def _setting(value: object, place: str) -> Setting:
    entry = Place(value, place, (*_SETTINGS, "fitted", "on"))
    fitted = read_changes(entry.raw("fitted"), entry.at("fitted")) if "fitted" in entry else ()
    return Setting(**{name: entry.one_of(name, known) for name, known in _SETTINGS.items()}, fitted=fitted, on=entry.text("on", ""))


def _trial(value: object, place: str) -> Trial:
    entry = Place(value, place, ("changes", "result", "clean_passes"))
    changes = read_changes(entry.raw("changes"), entry.at("changes"))
    if not changes:
        raise CaseError(entry.at("changes"), "a trial needs at least one change")
    return Trial(changes, entry.choice("result", TrialResult), entry.count("clean_passes") or 0)


def read_changes(value: object, place: str) -> tuple[Change, ...]:
    """Return what was changed, or sits in the unit, from a JSON list.

    Raises
    ------
    CaseError
        If it is wrong anywhere.
    """
    parent, _, key = place.rpartition("/")
    return tuple(c for c in Place({key: value}, parent, (key,)).items(key, _change) if isinstance(c, Change))


def _change(value: object, place: str) -> Change:
    entry = Place(value, place, [f.name for f in fields(Change)])
    known = entry.words("works", FUNCTIONS), entry.words("fails", FUNCTIONS)
    return Change(
        entry.text("repair"), entry.text("item", ""), entry.choice("health", Health, Health.NEW), *known, entry.text("lot", ""), entry.flag("stays", False)
    )


def _remark(value: object, place: str) -> Remark:
    return Remark(Place(value, place, ("text",)).text("text"))


_READERS: Final[Mapping[str, Callable[[object, str], Answer | Trial | Remark]]] = {"answer": _answer, "trial": _trial, "remark": _remark}


def write_case(case: Case) -> dict[str, object]:
    """Return the JSON document of a case; :func:`read_case` gives the same case back."""
    return {
        "format": FORMAT,
        "version": VERSION,
        "drive": write_drive(case.sheet),
        "bench": _write_bench(case),
        "economy": {k: v for k, v in asdict(case.economy).items() if v is not None and k != "sign"},
        "stock": [write_stock(s) for s in case.stock],
        "findings": [_write_finding(f) for f in case.findings],
        "strikes": [f.id for f in case.findings if f.is_struck],
    }


def _write_bench(case: Case) -> dict[str, object]:
    held = {} if case.bench.no_power is None else {"no_power": case.bench.no_power}
    return {"depth": case.depth.name.lower(), "power": case.bench.power.value, "lacks": sorted(case.bench.lacks), **held}


def _write_finding(finding: Finding) -> dict[str, object]:
    kind = {Answer: "answer", Trial: "trial", Remark: "remark"}[type(finding.what)]
    return {"id": finding.id, kind: write_what(finding.what)}


def write_what(what: Answer | Trial | Remark) -> dict[str, object]:
    """Return the JSON object of an answer, trial or remark; :func:`read_what` gives the same back."""
    if isinstance(what, Remark):
        return {"text": what.text}
    if isinstance(what, Trial):
        return {"changes": [write_stock(c) for c in what.changes], "result": what.result.value, "clean_passes": what.clean_passes}
    counts: dict[str, object] = {k: v for k, v in (("tries", what.tries), ("failed", what.failed), ("seconds", what.seconds)) if v is not None}
    setting = {k: v for k, v in asdict(what.setting).items() if v}
    setting |= {"fitted": [write_stock(c) for c in what.setting.fitted]} if what.setting.fitted else {}
    counts |= {"setting": setting} if setting else {}
    counts |= {"weights": [asdict(w) for w in what.weights]} if what.weights else {}
    return {"question": what.question, "outcome": what.outcome, "source": what.source.value, **counts}


def write_stock(item: Stock | Change) -> dict[str, object]:
    """Return the JSON object of a part, or of a change."""
    return {**asdict(item), "health": item.health.value, "works": sorted(item.works), "fails": sorted(item.fails)}
