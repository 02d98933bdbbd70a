"""Reading a bench case from its open JSON format (``docs/formats/case.md``), with the place of every mistake."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping
from difflib import get_close_matches
from enum import StrEnum
from typing import Final, TypeVar

from spindle.diagnosis.case import Answer, Case, Change, Finding, Health, Remark, Source, Trial, TrialResult
from spindle.diagnosis.cost import Economy
from spindle.drives.sheet import DriveSheet, Pairing, PartPrice
from spindle.errors import CaseError, SheetError
from spindle.faults.library import MODELS
from spindle.faults.model import Depth

FORMAT: Final = "tidy-spindle-case"
VERSION: Final = 1
MAX_FINDINGS: Final = 2_000
MAX_TEXT: Final = 4_000
_E = TypeVar("_E", bound=StrEnum)
_DEPTHS: Final = {d.name.lower(): d for d in Depth}


class _Object:
    """A JSON object being read: knows its place, hands out checked values, and names what it does not know."""

    def __init__(self, value: object, place: str, known: Iterable[str]) -> None:
        if not isinstance(value, dict):
            raise CaseError(place or "/", f"expected an object, got {_kind(value)}")
        known = list(known)
        for key in value:
            if key not in known:
                near = get_close_matches(str(key), known, n=1)
                raise CaseError(f"{place}/{key}", f"unknown key{f'; did you mean {near[0]!r}?' if near else ', known: ' + ', '.join(known)}")
        self._value: Mapping[str, object] = value
        self.place = place

    def __contains__(self, key: str) -> bool:
        return key in self._value

    def at(self, key: str) -> str:
        return f"{self.place}/{key}"

    def raw(self, key: str) -> object:
        if key not in self._value:
            raise CaseError(self.at(key), "is missing")
        return self._value[key]

    def text(self, key: str, default: str | None = None) -> str:
        if default is not None and key not in self._value:
            return default
        value = self.raw(key)
        if not isinstance(value, str):
            raise CaseError(self.at(key), f"expected a text, got {_kind(value)}")
        if len(value) > MAX_TEXT or "\0" in value:
            raise CaseError(self.at(key), f"longer than {MAX_TEXT} characters, or with a NUL in it")
        return value

    def number(self, key: str, default: float, *, low: float = 0.0, high: float = 1e6) -> float:
        value = self._value.get(key, default)
        if isinstance(value, bool) or not isinstance(value, int | float) or not math.isfinite(value) or not low <= value <= high:
            raise CaseError(self.at(key), f"expected a number from {low:g} to {high:g}, got {_kind(value)}")
        return float(value)

    def count(self, key: str) -> int | None:
        if key not in self._value:
            return None
        value = self.number(key, 0.0, high=1000)
        if value != int(value):
            raise CaseError(self.at(key), f"expected a whole number, got {value}")
        return int(value)

    def flag(self, key: str, default: bool) -> bool:
        value = self._value.get(key, default)
        if not isinstance(value, bool):
            raise CaseError(self.at(key), f"expected true or false, got {_kind(value)}")
        return value

    def choice(self, key: str, kind: type[_E], default: _E | None = None) -> _E:
        value = self.text(key, None if default is None else default.value)
        try:
            return kind(value)
        except ValueError:
            raise CaseError(self.at(key), f"{value!r} is none of {', '.join(k.value for k in kind)}") from None

    def items(self, key: str, read: Callable[[object, str], object]) -> list[object]:
        value = self._value.get(key, [])
        if not isinstance(value, list):
            raise CaseError(self.at(key), f"expected a list, got {_kind(value)}")
        if len(value) > MAX_FINDINGS:
            raise CaseError(self.at(key), f"{len(value)} entries; at most {MAX_FINDINGS}")
        return [read(item, f"{self.at(key)}/{n}") for n, item in enumerate(value)]

    def pairs(self, key: str) -> dict[str, object]:
        value = self._value.get(key, {})
        if not isinstance(value, dict):
            raise CaseError(self.at(key), f"expected an object, got {_kind(value)}")
        return value


def _kind(value: object) -> str:
    names = {dict: "an object", list: "a list", str: "a text", bool: "true or false", type(None): "null"}
    return names.get(type(value), f"the number {value!r}" if isinstance(value, int | float) else type(value).__name__)


def read_case(document: object) -> Case:
    """Return the case that a parsed JSON document describes.

    Raises
    ------
    CaseError
        If the document is wrong anywhere; ``place`` is a JSON pointer to where.
    """
    top = _Object(document, "", ("format", "version", "drive", "bench", "economy", "findings", "strikes"))
    if top.text("format") != FORMAT:
        raise CaseError("/format", f"expected {FORMAT!r}, got {top.text('format')!r}")
    if top.raw("version") != VERSION:
        raise CaseError("/version", f"this program reads version {VERSION}, the file says {top.raw('version')!r}")
    sheet = read_drive(top.raw("drive"), "/drive")
    findings = [f for f in top.items("findings", _finding) if isinstance(f, Finding)]
    struck = _strikes(top, findings)
    depth = Depth.CLOSED
    if "bench" in top:
        bench = _Object(top.raw("bench"), "/bench", ("depth",))
        name = bench.text("depth", "closed")
        if name not in _DEPTHS:
            raise CaseError("/bench/depth", f"{name!r} is none of {', '.join(_DEPTHS)}")
        depth = _DEPTHS[name]
    return Case(sheet=sheet, findings=tuple(Finding(f.id, f.what, f.id in struck) for f in findings), depth=depth, economy=_economy(top))


def _strikes(top: _Object, findings: list[Finding]) -> set[str]:
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


def read_drive(value: object, place: str) -> DriveSheet:
    """Return the drive sheet of a JSON object.

    Raises
    ------
    CaseError
        If it is wrong anywhere.
    """
    keys = ("variant", "family", "pairing", "classes", "has_trimmer", "fuse_rating", "prior_factors", "prices")
    drive = _Object(value, place, keys)
    family = drive.text("family")
    if family not in MODELS:
        raise CaseError(drive.at("family"), f"no fault model for {family!r}; known: {', '.join(MODELS)}")
    model = MODELS[family]
    try:
        return DriveSheet(
            variant=drive.text("variant"),
            family=family,
            pairing=drive.choice("pairing", Pairing, Pairing.UNKNOWN),
            classes=frozenset(str(c) for c in drive.items("classes", _text)),
            has_trimmer=drive.flag("has_trimmer", True),
            fuse_rating=drive.text("fuse_rating", ""),
            prior_factors=_factors(drive, {f.id for f in model.faults}),
            prices=_prices(drive, {r.id for r in model.repairs}),
        )
    except SheetError as error:
        raise CaseError(f"{place}{error.place}", error.message.removeprefix(f"{error.place}: ")) from error


def _text(value: object, place: str) -> object:
    if not isinstance(value, str):
        raise CaseError(place, f"expected a text, got {_kind(value)}")
    return value


def _factors(drive: _Object, faults: set[str]) -> dict[str, float]:
    found = {}
    for key in drive.pairs("prior_factors"):
        if key not in faults:
            raise CaseError(f"{drive.at('prior_factors')}/{key}", "no such fault in this loader family")
        found[key] = _Object(drive.pairs("prior_factors"), drive.at("prior_factors"), faults).number(key, 1.0, low=0.01, high=100)
    return found


def _prices(drive: _Object, repairs: set[str]) -> dict[str, PartPrice]:
    found = {}
    for key, value in drive.pairs("prices").items():
        place = f"{drive.at('prices')}/{key}"
        if key not in repairs:
            raise CaseError(place, "no such repair in this loader family")
        price = _Object(value, place, ("price_eur", "wait_days"))
        found[key] = PartPrice(price.number("price_eur", 0.0, high=10_000), price.number("wait_days", 0.0, high=365))
    return found


def _economy(top: _Object) -> Economy:
    if "economy" not in top:
        return Economy()
    own = Economy()
    names = ("rate_eur_per_min", "day_eur", "give_up_eur", "damage_eur")
    given = _Object(top.raw("economy"), "/economy", names)
    return Economy(**{n: given.number(n, getattr(own, n), high=100_000) for n in names})


def _finding(value: object, place: str) -> Finding:
    entry = _Object(value, place, ("id", "at", "answer", "trial", "remark"))
    entry.text("at", "")
    kinds = [k for k in ("answer", "trial", "remark") if k in entry]
    if len(kinds) != 1:
        raise CaseError(place, f"a finding is one of answer, trial or remark; this has {', '.join(kinds) or 'none'}")
    read = _READERS[kinds[0]]
    return Finding(entry.text("id"), read(entry.raw(kinds[0]), entry.at(kinds[0])))


def _answer(value: object, place: str) -> Answer:
    entry = _Object(value, place, ("question", "outcome", "source", "tries", "failed"))
    tries, failed = entry.count("tries"), entry.count("failed")
    if failed is not None and (tries is None or failed > tries):
        raise CaseError(entry.at("failed"), f"{failed} failures of {tries} tries")
    return Answer(entry.text("question"), entry.text("outcome"), entry.choice("source", Source, Source.BENCH), tries, failed)


def _trial(value: object, place: str) -> Trial:
    entry = _Object(value, place, ("changes", "result", "clean_passes"))
    changes = [c for c in entry.items("changes", _change) if isinstance(c, Change)]
    if not changes:
        raise CaseError(entry.at("changes"), "a trial needs at least one change")
    return Trial(tuple(changes), entry.choice("result", TrialResult), entry.count("clean_passes") or 0)


def _change(value: object, place: str) -> Change:
    entry = _Object(value, place, ("repair", "item", "health"))
    return Change(entry.text("repair"), entry.text("item", ""), entry.choice("health", Health, Health.NEW))


def _remark(value: object, place: str) -> Remark:
    return Remark(_Object(value, place, ("text",)).text("text"))


_READERS: Final[Mapping[str, Callable[[object, str], Answer | Trial | Remark]]] = {"answer": _answer, "trial": _trial, "remark": _remark}


def write_case(case: Case) -> dict[str, object]:
    """Return the JSON document of a case; :func:`read_case` gives the same case back."""
    sheet = case.sheet
    return {
        "format": FORMAT,
        "version": VERSION,
        "drive": {
            "variant": sheet.variant,
            "family": sheet.family,
            "pairing": sheet.pairing.value,
            "classes": sorted(sheet.classes),
            "has_trimmer": sheet.has_trimmer,
            "fuse_rating": sheet.fuse_rating,
            "prior_factors": dict(sheet.prior_factors),
            "prices": {k: {"price_eur": p.price_eur, "wait_days": p.wait_days} for k, p in sheet.prices.items()},
        },
        "bench": {"depth": case.depth.name.lower()},
        "economy": {n: getattr(case.economy, n) for n in Economy.__dataclass_fields__},
        "findings": [_write_finding(f) for f in case.findings],
        "strikes": [f.id for f in case.findings if f.is_struck],
    }


def _write_finding(finding: Finding) -> dict[str, object]:
    what = finding.what
    if isinstance(what, Remark):
        return {"id": finding.id, "remark": {"text": what.text}}
    if isinstance(what, Trial):
        changes = [{"repair": c.repair, "item": c.item, "health": c.health.value} for c in what.changes]
        return {"id": finding.id, "trial": {"changes": changes, "result": what.result.value, "clean_passes": what.clean_passes}}
    counts = {k: v for k, v in (("tries", what.tries), ("failed", what.failed)) if v is not None}
    return {"id": finding.id, "answer": {"question": what.question, "outcome": what.outcome, "source": what.source.value, **counts}}
