"""The drive sheet in a case file."""

from __future__ import annotations

from dataclasses import asdict, fields
from typing import Final

from spindle.drives.sheet import DriveSheet, LevelPoint, Pairing, PartPrice, ReferenceTime
from spindle.errors import CaseError, SheetError
from spindle.faults.library import MODELS
from spindle.formats.place import MAX_TEXT, Place, is_unfit, kind_of

_FLAGS: Final = {f.name: f.default for f in fields(DriveSheet) if f.type == "bool"}
"""Features of the sheet that are there or not, with what is taken if the file does not say."""


def read_drive(value: object, place: str) -> DriveSheet:
    """Return the drive sheet of a JSON object.

    Raises
    ------
    CaseError
        If it is wrong anywhere.
    """
    drive = Place(value, place, [f.name for f in fields(DriveSheet)])
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
            fuse_rating=drive.text("fuse_rating", ""),
            lid_switches=drive.count("lid_switches") or 1,
            level_point=drive.choice("level_point", LevelPoint, LevelPoint.UNKNOWN),
            reference_times=_times(drive),
            label_faces={k: _text(v, f"{drive.at('label_faces')}/{k}") for k, v in drive.pairs("label_faces").items()},
            **{name: drive.flag(name, bool(default)) for name, default in _FLAGS.items()},
            prior_factors=_factors(drive, {f.id for f in model.faults}),
            prices=_prices(drive, {r.id for r in model.repairs}),
        )
    except SheetError as error:
        raise CaseError(f"{place}{error.place}", error.message.removeprefix(f"{error.place}: ")) from error


def _text(value: object, place: str) -> str:
    if not isinstance(value, str):
        raise CaseError(place, f"expected a text, got {kind_of(value)}")
    if is_unfit(value):
        raise CaseError(place, f"longer than {MAX_TEXT} characters, or with a NUL or half a character in it")
    return value


def _factors(drive: Place, faults: set[str]) -> dict[str, float]:
    found = {}
    for key in drive.pairs("prior_factors"):
        if key not in faults:
            raise CaseError(f"{drive.at('prior_factors')}/{key}", "no such fault in this loader family")
        found[key] = Place(drive.pairs("prior_factors"), drive.at("prior_factors"), faults).number(key, 1.0, low=0.01, high=100)
    return found


def _prices(drive: Place, repairs: set[str]) -> dict[str, PartPrice]:
    found = {}
    for key, value in drive.pairs("prices").items():
        place = f"{drive.at('prices')}/{key}"
        if key not in repairs:
            raise CaseError(place, "no such repair in this loader family")
        price = Place(value, place, ("price_eur", "wait_days"))
        found[key] = PartPrice(price.number("price_eur", 0.0, high=10_000), price.number("wait_days", 0.0, high=365))
    return found


def _times(drive: Place) -> dict[str, ReferenceTime]:
    found = {}
    for key, value in drive.pairs("reference_times").items():
        time = Place(value, f"{drive.at('reference_times')}/{key}", ("mean_s", "sd_s", "n"))
        found[key] = ReferenceTime(time.number("mean_s", 0.0, high=3600), time.number("sd_s", 0.0, high=3600), time.count("n") or 10)
    return found


def write_drive(sheet: DriveSheet) -> dict[str, object]:
    """Return the JSON object of a drive sheet; :func:`read_drive` gives the same sheet back."""
    return {
        "variant": sheet.variant,
        "family": sheet.family,
        "pairing": sheet.pairing.value,
        "classes": sorted(sheet.classes),
        "fuse_rating": sheet.fuse_rating,
        "lid_switches": sheet.lid_switches,
        "level_point": sheet.level_point.value,
        **{name: getattr(sheet, name) for name in _FLAGS},
        "reference_times": {k: asdict(t) for k, t in sheet.reference_times.items()},
        "label_faces": dict(sheet.label_faces),
        "prior_factors": dict(sheet.prior_factors),
        "prices": {k: asdict(p) for k, p in sheet.prices.items()},
    }
