"""A switch at its pads, and a flex track by track."""

from __future__ import annotations

from typing import Any, Final

from spindle.bench.flex import Flex, Pair, Read, foil_readings, judge_flex
from spindle.bench.flex import said as flex_said
from spindle.bench.switch import STATES, Press, Table, answer_weights, expected_table, is_closed, judge_switch
from spindle.bench.tools.fields import Field, Inputs, choice, flag, quantity, rows
from spindle.bench.tools.told import Number, Speaks, Start, Told, Tool
from spindle.drives.full_sheet import FullSheet
from spindle.words.bench import Mains
from spindle.words.chances import percent

_STATE_WORDS: Final = {
    "sound": "It works each time.",
    "dirty": "Its contact is dirty: it has ohms, or misses now and then. Clean it, and press it twenty times.",
    "dead": "It is dead.",
    "late": "It closes late in its travel: what presses it may not reach that far.",
    "stuck": "It stays closed.",
}

SWITCH_FIELDS: Final[tuple[Field, ...]] = (
    Field("name", "Which switch", "text", optional=True),
    choice("at_rest", "At rest, by the sheet", (("open", "Open"), ("closed", "Closed"), ("not known", "Not known")), start="not known"),
    quantity("rest", "Ohms at rest", "resistance", optional=True, may_be_open=True),
    quantity("pressed", "Ohms pressed", "resistance", optional=True, may_be_open=True),
    rows(
        "presses",
        "Presses",
        (
            Field("closes", "Did it switch?", "flag"),
            quantity("ohm", "Ohms closed", "resistance", low=0.0, optional=True),
            quantity("travel", "At which share of its travel", "share", low=0.0, high=100.0, optional=True),
            flag("opens", "Did it switch back?"),
        ),
        hint="Five presses are a test.",
    ),
)


def _switch(inputs: Inputs) -> Told:
    table = _table(inputs)
    presses = [Press(bool(r["closes"]), r["ohm"], None if r["travel"] is None else r["travel"] / 100.0) for r in inputs["presses"]]
    if not presses:
        told = table.text if table else "Read it at rest and pressed; then press it five times."
        return Told(told, numbers=_switch_numbers(inputs), picture=_switch_picture(inputs), mains=Mains.OUT)
    found = judge_switch(presses, releases=[r["opens"] for r in inputs["presses"] if r["opens"] is not None])
    headline = _STATE_WORDS[found.likeliest]
    if table is not None and table.agrees is False:
        headline = table.text
    few = () if len(presses) >= 5 else (f"{len(presses)} of five presses: a contact that misses now and then is not found by fewer.",)
    missed = sum(not p.closes for p in presses)
    if missed and found.likeliest == "sound":
        few = (*few, f"It missed {missed} of {len(presses)}: press it twenty times before it is called sound.")
    blind = () if all(p.travel is not None for p in presses) else ("Without travel one in nine that fail is missed: most of the late ones.",)
    weights = answer_weights(found)
    return Told(
        headline=headline,
        numbers=(
            *_switch_numbers(inputs),
            Number("Closed", f"{sum(p.closes for p in presses)} of {len(presses)}"),
            Number("Works", percent(found.chances["sound"])),
        ),
        notes=(*((table.text,) if table and table.text != headline else ()), *few, *blind),
        mains=Mains.OUT,
        picture={**_switch_picture(inputs), "chances": {s: found.chances[s] for s in STATES}},
        speaks=() if table is not None and table.agrees is False else tuple(Speaks(q, weights) for q in _SWITCHES),
    )


_SWITCHES: Final = (
    "switch_insert_test",
    "switch_home_test",
    "switch_open_test",
    "switch_shut_test",
    "switch_lid_a_test",
    "switch_lid_b_test",
    "sled_switch_test",
)


def _table(inputs: Inputs) -> Table | None:
    if inputs["rest"] is None or inputs["pressed"] is None:
        return None
    return expected_table(inputs["rest"], inputs["pressed"], at_rest=inputs["at_rest"])


def _switch_numbers(inputs: Inputs) -> tuple[Number, ...]:
    read = [(name, inputs[key]) for name, key in (("At rest", "rest"), ("Pressed", "pressed"))]
    return tuple(Number(name, "closed" if is_closed(ohm) else "open") for name, ohm in read if ohm is not None)


def _switch_picture(inputs: Inputs) -> dict[str, Any]:
    presses = [{"closes": bool(r["closes"]), "travel": r["travel"], "ohm": r["ohm"]} for r in inputs["presses"]]
    return {"kind": "switch", "at_rest": inputs["at_rest"], "presses": presses}


SWITCH: Final = Tool(
    "switch",
    "Switch",
    "At rest and pressed, five presses, ohms and travel: works, dirty, late, dead or stuck.",
    SWITCH_FIELDS,
    _switch,
    _SWITCHES,
    lambda full: [Start(str(r["name"]), {"name": r["name"], "at_rest": r["at_rest"]}) for r in full.rows("switches")],
)

FLEX_FIELDS: Final[tuple[Field, ...]] = (
    Field("name", "Which flex", "text", optional=True),
    Field("tracks", "Tracks", "number", low=2, high=120),
    quantity("pitch", "Pitch", "length", low=0.2, high=5.0, start="1 mm"),
    rows(
        "readings",
        "Read",
        (
            choice("where", "Where", (("through", "End to end"), ("side", "Neighbours, one end"))),
            Field("from", "Track", "number", low=1, high=120),
            Field("to", "to contact", "number", low=1, high=120),
            Field("closed", "Is it closed?", "flag", choices=(("yes", "Closed"), ("no", "Open"))),
        ),
    ),
)


def pair_words(pair: Pair) -> str:
    """Return what to read next, in words."""
    where, i, j = pair
    return f"tracks {i} and {j} at one end, side by side" if where == "side" else f"track {i} here to contact {j} there"


def _flex(inputs: Inputs) -> Told:
    flex = Flex(int(inputs["tracks"]), inputs["pitch"])
    done = [Read((r["where"], int(r["from"]), int(r["to"])), bool(r["closed"])) for r in inputs["readings"]]
    found = judge_flex(flex, done)
    sure = found.next_pair is None
    headline = flex_said(found.likeliest, flex.tracks) if found.next_pair is None else f"Read {pair_words(found.next_pair)}."
    closed = 1.0 - found.chances["open"] - found.chances["torn"]
    notes = [] if sure else [f"So far: {flex_said(found.likeliest, flex.tracks)}"]
    if found.may_power is not True:
        notes.append("No power while one over or a short is not ruled out: a line stands on its neighbour's.")
    if not done:
        notes.append(f"With the far contacts tied together by foil, {foil_readings(flex.tracks)} readings find every open.")
    return Told(
        headline=headline,
        numbers=(Number("Readings", str(len(done))), Number("Sound", percent(found.chances["sound"]))),
        notes=tuple(notes),
        picture={
            "kind": "flex",
            "tracks": flex.tracks,
            "next": found.next_pair,
            "found": found.likeliest if sure else None,
            "done": [[*r.pair, r.closed] for r in done],
        },
        speaks=(Speaks("flex_pickup_tracks", {"closed": closed, "open": 1.0 - closed}),) if done else (),
        may_power=found.may_power,
        mains=Mains.OUT,
        next_rows={} if found.next_pair is None else {"readings": dict(zip(("where", "from", "to"), found.next_pair, strict=True))},
    )


def _flexes(full: FullSheet) -> list[Start]:
    return [
        Start(str(r["name"]), {"name": r["name"], "tracks": r["tracks"], "pitch": f"{r['pitch_mm']:g} mm"})
        for r in full.rows("connectors")
        if r.get("tracks") and r.get("pitch_mm")
    ]


FLEX: Final = Tool(
    "flex", "Flex", "Pair by pair, the most telling first: open, short, torn, or one over.", FLEX_FIELDS, _flex, ("flex_pickup_tracks",), _flexes
)
