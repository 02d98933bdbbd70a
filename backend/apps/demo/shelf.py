"""Filling the shelf of the demo shop, and what it says about what fits, through the services."""

from __future__ import annotations

import json
from dataclasses import fields
from datetime import datetime, time, timedelta
from functools import cache
from typing import Any

from apps.drives.services import Said, save_console, save_sheet, say
from apps.people.models import User
from apps.shelf.models import Part
from apps.shelf.services.donors import add_donor, harvest
from apps.shelf.services.orders import Wanted, arrive, order
from apps.shelf.services.stock import Arrival, check_health, receive, set_minimum, set_size
from apps.writing.once import Command
from django.conf import settings
from django.utils import timezone
from spindle.formats.console_file import read_console
from spindle.formats.sheet_file import parse_json, read_sheet

SHEETS_BEFORE_DAYS = 120


@cache
def _shelf() -> dict[str, list[dict[str, Any]]]:
    found: dict[str, list[dict[str, Any]]] = json.loads((settings.DEMO / "shelf.json").read_text(encoding="utf-8"))
    return found


def _command(name: str, days_ago: float, *, by: str = "bram") -> Command:
    day = timezone.localdate() - timedelta(days=days_ago)
    return Command(User.objects.get(username=by), f"demo-shelf-{name}", timezone.make_aware(datetime.combine(day, time(8, 30))))


def load_sheets() -> None:
    """Load the sheets of consoles and drives, as files of the open formats."""
    for file in sorted((settings.DEMO / "consoles").glob("*.json")):
        console = read_console(parse_json(file.read_bytes()))
        save_console(_command(f"console-{file.stem}", SHEETS_BEFORE_DAYS, by="ida"), console, based_on=0, why="First version")
    for file in sorted((settings.DEMO / "sheets").glob("*.json")):
        save_sheet(_command(f"sheet-{file.stem}", SHEETS_BEFORE_DAYS, by="ida"), read_sheet(parse_json(file.read_bytes())), based_on=0, why="First version")


def load_shelf() -> None:
    """Load parts, donors, orders, minimums, and what is said to fit."""
    told, today = _shelf(), timezone.localdate()
    for n, said in enumerate(told["sayings"]):
        own = {f.name: said[f.name] for f in fields(Said) if f.name != "works"}
        say(_command(f"said-{n}", said["days_ago"], by=said["by"]), Said(**own, works=tuple(said.get("works", ()))))
    for n, past in enumerate([*told["past_orders"], *told["open_orders"]]):
        ordered = today - timedelta(days=past["days_ago"])
        own = {f.name: past[f.name] for f in fields(Wanted) if f.name != "ordered_on"}
        placed = order(_command(f"order-{n}", past["days_ago"]), Wanted(**own, ordered_on=ordered))
        if "took_days" in past:
            came = _command(f"arrive-{n}", past["days_ago"] - past["took_days"])
            arrive(came, placed.tag, on=ordered + timedelta(days=past["took_days"]), place=past["place"])
    for n, part in enumerate(told["parts"]):
        receive(_command(f"part-{n}", part["days_ago"]), Arrival(**{k: v for k, v in part.items() if k != "days_ago"}))
    for least in told["minimums"]:
        set_minimum(_command(f"least-{least['code']}", 60, by="ida"), **least)
    for belt in told["sizes"]:
        one = Part.objects.filter(kind__code=belt["code"]).values_list("tag", flat=True)[0]
        set_size(_command(f"size-{belt['code']}", 60, by="ida"), one, belt["around_mm"], belt["section_mm"])
    for n, donor in enumerate(told["donors"]):
        _load_donor(n, donor)


def _load_donor(n: int, told: dict[str, Any]) -> None:
    own = {k: told[k] for k in ("bought_cents", "origin", "place")}
    donor = add_donor(_command(f"donor-{n}", told["days_ago"]), told["variant"], **own)
    if told["seen"]:
        check_health(_command(f"seen-{n}", told["days_ago"] - 1), donor.tag, told["seen"], told["unit"])
    for piece in told["harvest"]:
        harvest(_command(f"harvest-{n}-{piece['level']}", told["days_ago"] - 2), donor.tag, piece["level"], piece["place"])
