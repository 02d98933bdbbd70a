"""A loading belt: slack or glazed, whether it opens the tray, and the size to buy."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from spindle.bench.belts.geometry import DOUBT, Belt, Pulleys, loop_from_flat, loop_from_oval, loop_from_pins, nearest, size_to_buy
from spindle.bench.belts.opening import CLEAN, GLAZED_RUBBER, REVIVED, REVIVED_LATER, Loader, opens, slack_or_glazed, slips_at_speed
from spindle.bench.tools.fields import Field, Inputs, choice, flag, quantity, rows
from spindle.bench.tools.told import Number, Speaks, Start, Told, Tool
from spindle.bench.verdict import Reason, Verdict, refused
from spindle.drives.full_sheet import FullSheet
from spindle.errors import InputsError
from spindle.words.chances import percent

SEED: Final = 20
"""Chances are drawn from one seed: the same belt gives the same numbers."""
_WAYS: Final = (
    ("flat", "Laid flat and pressed: its length"),
    ("pins", "Over two pins: their middles apart"),
    ("oval", "Lying free: widest and narrowest, inside"),
    ("loop", "Its length around"),
)
SPACER_MM: Final = 0.8
WORTH: Final = 0.03
"""A belt that is stretched less is slack whatever its surface: no stopgap is worth its minutes."""

FIELDS: Final[tuple[Field, ...]] = (
    choice("way", "How it was measured", _WAYS, start="flat"),
    quantity("measured", "Measured", "length", low=5.0, high=600.0, hint="Off its pulleys, ten minutes at rest."),
    quantity("other", "Pin, or narrowest", "length", low=0.5, high=300.0, optional=True),
    quantity("section", "Section", "length", low=0.5, high=6.0),
    quantity("motor", "Motor pulley, bottom of its groove", "length", low=1.0, high=60.0),
    quantity("gear", "Gear pulley, bottom of its groove", "length", low=1.0, high=120.0),
    quantity("centres", "Middles apart", "length", low=5.0, high=250.0),
    quantity("sheet", "The sheet's length around", "length", low=20.0, high=600.0, optional=True),
    flag("shines", "Does its surface shine?"),
    flag("pattern", "Opens with a disc in, not empty?"),
    quantity("pull", "Balance on the tray: slips at", "force", low=0.05, high=100.0, optional=True, hint="A spring balance hooked to the tray while it opens."),
    quantity("need", "Balance: opens empty at", "force", low=0.05, high=100.0, optional=True, hint="Pulled open by hand, belt off."),
    Field("shore", "Hardness, Shore A", "number", low=30, high=90, optional=True, hint="With a gauge: it halves the doubt."),
    Field("tray_per_newton", "Tray's pull for a newton of belt", "number", low=1.0, high=200.0, optional=True, hint="The sheet's own, losses included."),
    quantity("gap", "Puck to hub, clamped", "length", low=0.0, high=5.0, optional=True),
    rows(
        "at_hand",
        "Belts at hand",
        (
            Field("name", "Which", "text"),
            quantity("loop", "Length around", "length", low=20.0, high=600.0),
            quantity("section", "Section", "length", low=0.5, high=6.0),
        ),
    ),
)


@dataclass(frozen=True, slots=True)
class AtHand:
    """A belt on the shelf: what it is called there, how long around it is when it lies free, and its section, in mm."""

    name: str
    loop_mm: float
    section_mm: float


def with_shelf(starts: Sequence[Start], belts: Sequence[AtHand]) -> list[Start]:
    """Return what a sheet says of its belts with what lies on the shelf beside; where no sheet says anything, the shelf alone."""
    if not belts:
        return list(starts)
    rows = [{"name": b.name, "loop": f"{b.loop_mm:g} mm", "section": f"{b.section_mm:g} mm"} for b in belts]
    return [Start(s.name, {**s.inputs, "at_hand": rows}, s.question) for s in starts or [Start("A belt", {})]]


def _loop(inputs: Inputs) -> float:
    way, measured, other, section = inputs["way"], inputs["measured"], inputs["other"], inputs["section"]
    if way in ("pins", "oval") and other is None:
        raise InputsError([("/other", "This way of measuring needs the pin's diameter, or the narrowest width.")])
    if way == "flat":
        return loop_from_flat(measured, section)
    if way == "pins":
        return loop_from_pins(measured, other, section)
    return loop_from_oval(measured, other, section) if way == "oval" else float(measured)


def _loader(inputs: Inputs) -> Loader:
    usual = Loader()
    each = inputs["tray_per_newton"]
    gap = inputs["gap"]
    return Loader(
        ratio=usual.ratio if each is None else (each * 0.97, each * 1.03),
        eta=usual.eta if each is None else (1.0, 1.0),
        gap_mm=usual.gap_mm if gap is None else (gap * 0.9, gap * 1.1),
    )


def _run(inputs: Inputs) -> Told:
    pulleys = Pulleys(inputs["motor"], inputs["gear"], inputs["centres"])
    belt = Belt(_loop(inputs), inputs["section"], pulleys)
    small, large = pulleys.radii(belt.section_mm)
    if pulleys.centres_mm <= small + large:
        text = f"The pulleys would touch: middles {pulleys.centres_mm:g} mm apart, radii {small:.3g} and {large:.3g} mm. Check the numbers."
        return Told(text, Verdict.REFUSED, (refused(text),), picture=_picture(belt, None))
    aim, low, high = size_to_buy(pulleys, belt.section_mm, sheet_mm=inputs["sheet"])
    ranked = nearest(pulleys, [(r["name"], r["loop"], r["section"]) for r in inputs["at_hand"]], belt.section_mm, sheet_mm=inputs["sheet"])
    shelf = f" From the shelf: {ranked[0].id}, {ranked[0].text}." if ranked and ranked[0].fits else " None at hand fits." if ranked else ""
    buy = f"Buy {aim:.0f} mm around, section {belt.section_mm:g} mm ({low:.0f} to {high:.0f} will do).{shelf}"
    reasons = _reasons(belt, inputs)
    numbers = [
        Number("Around, free", f"{belt.loop_mm:.1f} mm"),
        Number("Path on its pulleys", f"{pulleys.path(belt.section_mm):.1f} mm"),
        Number("Stretched", f"{100 * belt.strain:.1f} %"),
        *(Number(s.id, f"{s.loop_mm:g} mm: {s.text}") for s in ranked),
    ]
    if reasons and reasons[0].verdict is Verdict.REFUSED and belt.strain > DOUBT:
        return Told(reasons[0].text, Verdict.REFUSED, reasons, tuple(numbers), picture=_picture(belt, belt.strain))
    told, more = _chances(belt, inputs)
    return Told(f"{told} {buy}", None, reasons, (*numbers, *more), _stopgaps(belt, inputs), (), _picture(belt, belt.strain), _speaks(belt, inputs))


def _reasons(belt: Belt, inputs: Inputs) -> tuple[Reason, ...]:
    if belt.strain > DOUBT:
        text = f"Stretched {100 * belt.strain:.0f} %: no loading belt is. A number is wrong."
        if inputs["way"] == "loop" and Belt(belt.loop_mm * np.pi, belt.section_mm, belt.pulleys).strain < DOUBT:
            text += f" {belt.loop_mm:g} mm looks like a diameter: times pi it would be {belt.loop_mm * np.pi:.0f} mm."
        return (refused(text),)
    return (refused("It hangs on its pulleys: it pulls nothing."),) if belt.strain <= 0 else ()


def _chances(belt: Belt, inputs: Inputs) -> tuple[str, list[Number]]:
    rng, loader = np.random.default_rng(SEED), _loader(inputs)
    clean, glazed = (opens(belt, rubber, loader, rng) for rubber in (CLEAN, GLAZED_RUBBER))
    numbers = [
        Number("Opens with a disc, if clean", percent(clean.loaded)),
        Number("Opens empty, if clean", percent(clean.empty)),
        Number("Opens empty, if glazed", percent(glazed.empty)),
    ]
    if belt.strain <= 0:
        return "Slack: it hangs.", numbers
    if not inputs["pattern"]:
        return f"A clean one stretched like this opens empty in {percent(clean.empty)} of the tries.", numbers
    cause = slack_or_glazed(belt, loader, rng, shines=inputs["shines"], pull_n=inputs["pull"], need_n=inputs["need"], shore=inputs["shore"])
    numbers.append(Number("It is the surface, not the length", percent(cause.glazed)))
    if cause.ask_balance:
        return "Slack or glazed is not decided: hook a spring balance to the tray.", numbers
    if cause.undecided:
        return "Slack or glazed is not decided. A new belt is right for both.", numbers
    return ("Glazed: its surface slips." if cause.glazed > 0.5 else "Slack: it has lost its length."), numbers


def _stopgaps(belt: Belt, inputs: Inputs) -> tuple[str, ...]:
    if belt.strain < WORTH:
        return ()
    rng, loader = np.random.default_rng(SEED), _loader(inputs)
    now, revived, later = (percent(opens(belt, r, loader, rng).empty) for r in (GLAZED_RUBBER, REVIVED, REVIVED_LATER))
    spaced = percent(opens(belt, GLAZED_RUBBER, loader, rng, spacer_mm=SPACER_MM).empty)
    slip = [percent(slips_at_speed(loader, rng, spacer_mm=s)) for s in (0.0, SPACER_MM)]
    return (
        f"Stopgap, if it is glazed: a conditioner takes opening empty from {now} to {revived}, and {later} after sixty days.",
        f"Stopgap: a spacer of {SPACER_MM} mm under the puck takes it to {spaced}; a disc then slips at speed in {slip[1]} of the starts instead of {slip[0]}.",
    )


def _speaks(belt: Belt, inputs: Inputs) -> tuple[Speaks, ...]:
    """A belt that hangs or is under four percent is tired; a well stretched one that shines may be too: that is for the eye."""
    if inputs["shines"] is None and belt.strain > 0.04:
        return ()
    tired = 0.97 if belt.strain <= 0.02 else 0.85 if belt.strain <= 0.04 or inputs["shines"] else 0.08
    return (Speaks("belt_look", {"good": 1.0 - tired, "tired": tired, "off": 0.0}),)


def _picture(belt: Belt, strain: float | None) -> dict[str, Any]:
    p = belt.pulleys
    return {"kind": "belt", "motor": p.motor_mm, "gear": p.gear_mm, "centres": p.centres_mm, "section": belt.section_mm, "strain": strain}


def _prefill(full: FullSheet) -> list[Start]:
    names = {
        "section": "section_mm",
        "motor": "motor_pulley_mm",
        "gear": "gear_pulley_mm",
        "centres": "centres_mm",
        "sheet": "length_mm",
        "gap": "clamp_gap_mm",
    }
    found = []
    for row in full.rows("belts"):
        given: dict[str, Any] = {name: f"{row[column]:g} mm" for name, column in names.items() if row.get(column) is not None}
        if row.get("tray_per_newton") is not None:
            given["tray_per_newton"] = row["tray_per_newton"]
        found.append(Start(str(row["name"]), given))
    return found


BELT: Final = Tool(
    "belt", "Belt", "Stretch on its pulleys, opening with a disc and empty, the size to buy and the nearest at hand.", FIELDS, _run, ("belt_look",), _prefill
)
