"""The tables of docs/study.md from docs/study/*.json, each between its marks. Run by tools/study after the commands."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator, Mapping
from pathlib import Path
from typing import Any, Final

DOCS: Final = Path(__file__).resolve().parents[1] / "docs"
FAMILIES: Final = ("tray", "slot", "lid")
RIVALS: Final = {
    "one_step": "each question seen alone",
    "information_first": "information, then p/c",
    "depth_blind": "depth-blind advice",
    "flow_chart": "flow chart (looks, meter)",
    "no_tests": "p/c without tests",
    "drive_first": "whole drive first",
    "clean_first": "clean first",
    "pickup_first": "pickup first",
    "cheapest_first": "cheapest first",
}
WORLDS: Final = {
    "chain": "a disc that does not spin is read in no class",
    "priors": "every fault up to three times likelier or rarer",
    "rows": "every answer’s chance off by a step or two",
    "repairs": "repairs cure less often",
    "slips": "one answer in eight is a guess",
    "perturbed": "priors, answers and repairs all at once",
}
SHOPS: Final = {
    "matched": "every instrument, parts ordered (above)",
    "shop-meter": "a meter and hand tools, parts ordered",
    "shop-donors": "a meter, and one donor drive",
    "shop-everything": "every instrument, every part in the drawer, one donor drive",
}
MATTERS: Final = ("sound", "a plug that comes and goes", "a bad disc in the drawer")
Found = Mapping[str, Any]


def _read(name: str) -> Found:
    found: Found = json.loads((DOCS / "study" / f"{name}.json").read_text(encoding="utf-8"))
    return found.get("families", found)  # type: ignore[no-any-return]  # JSON


def _row(*cells: object) -> str:
    return f"| {' | '.join(map(str, cells))} |"


def _head(*cells: str) -> Iterator[str]:
    yield _row(*cells)
    yield "|" + "---|" * len(cells)


def _percent(share: float, digits: int = 0) -> str:
    return f"{100 * share:.{digits}f} %"


def families() -> Iterator[str]:
    """Yield what each family's model holds, and the ceiling of any diagnosis on it."""
    yield from _head("family", "faults", "questions to ask", "repairs", "top-1 / top-3 ceiling")
    for family, own in _read("matched").items():
        top = own["ceiling"]
        yield _row(family, own["faults"], own["questions"], own["repairs"], f"{_percent(top['top1'])} / {_percent(top['top3'])}")


def _paid(own: Found) -> str:
    return f"{own['mean_eur']:.0f} ({own['p90_eur']:.0f}), {_percent(own['repaired'])}, {own['needless_parts']:.2f}"


def costs() -> Iterator[str]:
    """Yield what every policy pays in the matched world, cheapest on tray drives first."""
    yield from _head("policy", *(f"{f}: euro (p90), well, needless parts" for f in FAMILIES))
    found = _read("matched")
    names = {"oracle": "knowing the fault", "planner": "the advice", **RIVALS}
    for name in sorted(names, key=lambda n: found["tray"]["policies"][n]["mean_eur"]):
        yield _row(names[name], *(_paid(found[f]["policies"][name]) for f in FAMILIES))


def _saves(own: Found) -> str:
    return f"{own['saves_percent']:.1f} % ({abs(own['standard_errors']):.0f} SE)"


def against() -> Iterator[str]:
    """Yield how much cheaper the advice is than each rival, paired."""
    yield from _head("against", *FAMILIES)
    found = _read("matched")
    for name, said in RIVALS.items():
        yield _row(said, *(_saves(found[f]["planner_against"][name]) for f in FAMILIES))


def rest() -> Iterator[str]:
    """Yield how far the advice is from knowing the fault, and what the rest goes into."""
    kinds = ("looking_eur", "in_vain_eur", "giving_up_eur", "coming_back_eur")
    yield from _head(
        "family",
        "knowing the fault",
        "the advice",
        "flow chart",
        "of the way from the chart to the fault",
        "of what is left: looking, repairs in vain, giving up, coming back",
    )
    for family, own in _read("matched").items():
        knows, advice, chart = (own["policies"][n] for n in ("oracle", "planner", "flow_chart"))
        gap = advice["mean_eur"] - knows["mean_eur"]
        shares = ", ".join(f"{100 * (advice[k] - knows[k]) / gap:.0f}" for k in kinds)
        way = (chart["mean_eur"] - advice["mean_eur"]) / (chart["mean_eur"] - knows["mean_eur"])
        yield _row(family, *(f"{p['mean_eur']:.0f} €" for p in (knows, advice, chart)), _percent(way), f"{shares} %")


def worlds() -> Iterator[str]:
    """Yield saving, regret and calibration in the worlds unlike the model."""
    yield from _head("world", "what is off", *(f"{f}: saves, regret, calibration" for f in FAMILIES), "knowing the fault")
    for world, off in WORLDS.items():
        found = _read(world)
        cells = []
        for f in FAMILIES:
            mine, knowing = (found[f]["policies"][n] for n in ("planner", "knowing"))
            regret = mine["mean_eur"] / knowing["mean_eur"] - 1.0
            cells.append(f"{found[f]['planner_against']['flow_chart']['saves_percent']:.0f} %, {_percent(regret, 1)}, {mine['calibration_error']:.3f}")
        knows = " / ".join(f"{found[f]['policies']['oracle']['mean_eur']:.0f}" for f in FAMILIES)
        yield _row(world, off, *cells, f"{knows} €")


def shops() -> Iterator[str]:
    """Yield what the advice pays and saves in each shop."""
    yield from _head("shop", *(f"{f}: the advice, well, needless parts; under the flow chart" for f in FAMILIES))
    for name, said in SHOPS.items():
        found = _read(name)
        yield _row(
            said,
            *(
                f"{p['mean_eur']:.0f} €, {_percent(p['repaired'])}, {p['needless_parts']:.2f}; {_saves(found[f]['planner_against']['flow_chart'])}"
                for f in FAMILIES
                for p in (found[f]["policies"]["planner"],)
            ),
        )


def sound() -> Iterator[str]:
    """Yield what units that nothing is wrong with cost, and how often they get a part."""
    yield from _head("what is the matter", *FAMILIES, "the flow chart")
    found = _read("measure-sound")
    for matter in MATTERS:
        mine, chart = ([found[f][f"{matter}, {who}"] for f in FAMILIES] for who in ("planner", "flow_chart"))
        cells = [f"{x['mean_eur']:.0f} €, {_percent(x['given_a_part'], 1)}, {_percent(x['repaired'])}" for x in mine]
        euro, parts = " / ".join(f"{x['mean_eur']:.0f}" for x in chart), " / ".join(f"{100 * x['given_a_part']:.0f}" for x in chart)
        yield _row(matter, *cells, f"{euro} €, {parts} %")


def pairs() -> Iterator[str]:
    """Yield what a restart saves on two faults, and costs on one."""
    yield from _head("family", "restart", "blind", "saved", "repaired", "one fault: dearer by")
    for family, own in _read("measure-pairs").items():
        restart, blind, one, alone = (own[k] for k in ("pair_restart", "pair_blind", "single_restart", "single_blind"))
        saved, dearer = 1.0 - restart["mean_eur"] / blind["mean_eur"], one["mean_eur"] / alone["mean_eur"] - 1.0
        euro = (f"{x['mean_eur']:.0f} €" for x in (restart, blind))
        yield _row(family, *euro, _percent(saved), _percent(restart["repaired"]), _percent(dearer, 1))


def doubtful() -> Iterator[str]:
    """Yield how slips, doubtful donors and clean passes are told."""
    yield from _head(
        "family",
        "slip found: AUC",
        "ranks first",
        "cost of doubt on clean tapes",
        "donor as one bit / as two draws, log loss",
        "still faulty: after one pass, “probable”, “proven”",
    )
    slips, donors, proof = (_read(f"measure-{n}") for n in ("slips", "donors", "proof"))
    for f in FAMILIES:
        s, d, p = slips[f], donors[f], proof[f]
        still = f"{_percent(p['one_pass_still_faulty'], 1)}, {_percent(p['probable_still_faulty'])}, {_percent(p['proven_still_faulty'], 1)}"
        found = f"{s['item_auc']:.2f}", _percent(s["slip_ranks_first"]), f"{s['clean_loss_nat']:.3f} nat"
        yield _row(f, *found, f"{d['one_bit']:.3f} / {d['two_draws']:.3f}", still)


def money() -> Iterator[str]:
    """Yield the money shown against the money paid."""
    yield from _head("family", "shown", "paid", "off by", "one-step bound over paid", "80 % band held")
    for family, own in _read("measure-money").items():
        shown, paid, bound = own["shown_mean_eur"], own["paid_mean_eur"], own["bound_mean_eur"]
        off = f"{100 * (shown / paid - 1):+.1f} %", f"{100 * (bound / paid - 1):+.0f} %"
        yield _row(family, f"{shown:.1f} €", f"{paid:.1f} €", *off, f"{_percent(own['band_held'])} of {own['units']}")


def optimum() -> Iterator[str]:
    """Yield the gap to the exact optimum on small instances."""
    yield from _head("faults, repairs + tests", "one step", "two steps", "predicted over paid", "invariant broken")
    found = _read("optimum")
    for s in found["sizes"]:
        gaps = (f"{s[k]:.{n}f} %" for k, n in (("one_step_gap_percent", 2), ("two_step_gap_percent", 2), ("predicted_over_paid_percent", 1)))
        yield _row(f"{s['faults']}, {s['repairs']} + {s['tests']}", *gaps, f"{s['invariant_broken']} of {found['cases']}")


TABLES: Final[Mapping[str, Callable[[], Iterator[str]]]] = {
    t.__name__: t for t in (families, costs, against, rest, worlds, shops, sound, pairs, doubtful, money, optimum)
}


def main() -> None:
    """Write each table anew between its marks; a mark that is missing is a mistake of the document."""
    page = DOCS / "study.md"
    text = page.read_text(encoding="utf-8")
    for name, table in TABLES.items():
        lines = "\n".join(table())
        before, mark, after = text.partition(f"<!-- {name} -->\n")
        _, end, behind = after.partition("\n<!-- end -->")
        if not (mark and end):
            raise SystemExit(f"docs/study.md lacks the marks of the table {name!r}")
        text = before + mark + lines + end + behind
    page.write_text(text, encoding="utf-8")


if __name__ == "__main__":
    main()
