"""What has to be said beside the next move, loudly where a trap is near."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Final

from spindle.diagnosis.belief.contradictions import Contradiction
from spindle.diagnosis.belief.ending import CONFIDENCE, tries_to_be_sound
from spindle.diagnosis.belief.posterior import Belief
from spindle.diagnosis.belief.two_faults import PairFit
from spindle.diagnosis.evidence.gather import LeftOut
from spindle.diagnosis.explaining.moves import Advice, MoveKind, Notice
from spindle.diagnosis.explaining.swaps import swapped_twice
from spindle.diagnosis.given.case import Answer, Case, Trial, TrialResult
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.diagnosis.planning.outlook import Outlook
from spindle.words.chances import percent
from spindle.words.money import rounded

SOUND_FROM: Final = 0.3
"""Chance from which "nothing wrong" is spoken of: below one in three there is a likelier story to follow."""
TRIES: Final = 3
"""Stop-loss looks at three more tries: with the first two the mind is still made up."""


def notices(
    case: Case, model: CompiledModel, belief: Belief, outlook: Outlook, *, advice: Advice, contradictions: tuple[Contradiction, ...], pair: PairFit | None
) -> tuple[Notice, ...]:
    """Return the notices of a case, the most urgent first."""
    told: list[Notice] = []
    for find in (_new_symptom, _twice, _objects, _left_out):
        told += find(case, model, belief)
    told += _contradicting(case, contradictions, model)
    if pair is not None:
        names = {f.id: f.name for f in model.faults}
        times = "more than 1000" if pair.bayes_factor > 1000 else f"{pair.bayes_factor:.0f}"
        told.append(
            Notice(
                "two_faults",
                f"It fits better as two faults: “{names[pair.one]}” and “{names[pair.other]}” explain the findings {times} times better than any one.",
            )
        )
    if advice.should_think:
        told.append(Notice("think", "Much of the weight is off the list. Stop and think: what has not been looked at, and is every finding right?"))
    if advice.held_back:
        told.append(
            Notice("cheap_first", f"“{_name(advice.held_back, model)}” would be next by cost, but a cheap untested cause still has real weight: that first.")
        )
    told += _stop_loss(outlook, model)
    told += _blocked(belief, model)
    told += _nothing_wrong(belief, model)
    if advice.moves[0].kind is MoveKind.STOP and not _is_clean(belief) and not model.sound[int(belief.p.argmax())]:
        told.append(Notice("probable", "Stop looking: hand it back with the probable cause, said as probable. It is a valid end."))
    return tuple(told)


def _nothing_wrong(belief: Belief, model: CompiledModel) -> Iterator[Notice]:
    """Say how likely it is that nothing is wrong, and what would make it sure (C65)."""
    p = float(belief.p @ model.sound)
    if p < SOUND_FROM or _is_clean(belief):
        return
    if p >= CONFIDENCE:
        home = "hand it back as it is, and say what to watch at home: the disc, the supply, the plug"
        yield Notice("nothing_wrong", f"Nothing is wrong here ({percent(p)}): {home}.")
        return
    more = tries_to_be_sound(belief, model)
    sure = f"{more} more tries that go well, with known-clean discs and counted at a stage or a class, make it {percent(CONFIDENCE)} sure"
    yield Notice("nothing_wrong", f"Perhaps nothing is wrong here ({percent(p)}). {sure}; one that fails ends it.")


def _name(repair: str, model: CompiledModel) -> str:
    return model.repairs[model.repair_index[repair]].name


def _is_clean(belief: Belief) -> bool:
    return bool(belief.evidence.trials) and belief.evidence.trials[-1].result is TrialResult.CLEAN


def _new_symptom(_case: Case, model: CompiledModel, belief: Belief) -> Iterator[Notice]:
    if belief.evidence.news:
        ids = tuple(o.finding for o in belief.evidence.news.values())
        p = sum(float(belief.p[i]) for i, f in enumerate(model.faults) if f.opened_by)
        yield Notice("new_symptom", f"This is new since our own last step: look there first, before any new suspect ({percent(p)} by our hands).", ids)


def _twice(case: Case, model: CompiledModel, _belief: Belief) -> Iterator[Notice]:
    names = {p.id: p.name.lower() for p in model.parts}
    for part in swapped_twice(case, model):
        yield Notice("swapped_twice", f"Two different parts for the {names.get(part, part)}, no change: it is nearly cleared. Look elsewhere.")


def _objects(case: Case, _model: CompiledModel, belief: Belief) -> Iterator[Notice]:
    removed = any(isinstance(f.what, Trial) and any(c.repair == "remove_object" for c in f.what.changes) for f in case.standing)
    found = belief.evidence.said.get("object_search")
    if removed or (found is not None and found.outcome == "found"):
        yield Notice("search_on", "One object found is not the last: both magnets, under the slider or tray, behind the flap.")


_LEFT_OUT_SAYS = {
    LeftOut.DISC_WRONG_WAY: "The disc lay the wrong way round for this position: that reads like a dead drive, and counts for nothing. Turn it over.",
    LeftOut.UNPAIRED_BOARD: "With a board that is not this console's own, “does not read” says nothing. It can only show whether something spins.",
    LeftOut.NOT_REACHED: "The drive did not come that far: what it did not do at a later stage says nothing about that stage.",
    LeftOut.UNPOWERED: "The console has no power: what the drive did or did not do says nothing about the drive.",
    LeftOut.WRONG_STATE: "A finding was seen in another state than the question asks for, and counts for nothing.",
    LeftOut.TOO_MANY_ITEMS: "More items were in it than can be told apart: what was seen with the last of them counts for nothing.",
    LeftOut.NO_BASELINE: "Without a failure seen here before, an improvement is no evidence. Make the fault show first.",
}


def _left_out(_case: Case, _model: CompiledModel, belief: Belief) -> Iterator[Notice]:
    for reason, text in _LEFT_OUT_SAYS.items():
        ids = tuple(i for i, r in belief.evidence.left_out.items() if r is reason)
        if ids:
            yield Notice(reason.value, text, ids)


def _contradicting(case: Case, contradictions: tuple[Contradiction, ...], model: CompiledModel) -> Iterator[Notice]:
    line = _lines(case, model)
    for found in contradictions[:2]:
        others = " and ".join(f"“{line(i)}”" for i in found.disagrees_with[:2])
        against = f" It disagrees with {others}." if others else ""
        yield Notice(
            "check_again",
            f"Please check again: “{line(found.finding)}” is {percent(found.p_false)} likely to be a slip.{against}",
            (found.finding, *found.disagrees_with),
        )


def _lines(case: Case, model: CompiledModel) -> Callable[[str], str]:
    of = {f.id: f.what for f in case.findings}

    def line(finding: str) -> str:
        what = of[finding]
        outcome = model.questions[what.question].outcome(what.outcome) if isinstance(what, Answer) else None
        return outcome.line if outcome else finding

    return line


def _stop_loss(outlook: Outlook, model: CompiledModel) -> Iterator[Notice]:
    """Say when three more tries cost more than the whole drive and cure less."""
    if "replace_drive" not in model.repair_index:
        return
    problem, at, sign = outlook.plan.problem, outlook.position, outlook.plan.economy.sign
    whole = model.repair_index["replace_drive"]
    if not at.free[whole]:
        return
    start, spent, cured = at, 0.0, 0.0
    for _ in range(TRIES):
        ratio = [(float(problem.aims[a] @ start.w) / problem.cost[start.state, a] if start.free[a] and a != whole else 0.0) for a in range(len(problem.aims))]
        a = max(range(len(ratio)), key=ratio.__getitem__)
        if ratio[a] <= 0.0:
            return
        spent += float(start.w.sum()) * float(problem.cost[start.state, a])
        cured += float(problem.aims[a] @ start.w)
        start = start.after_repair(a, problem)
    dear, sure = float(problem.cost[at.state, whole]), float(problem.aims[whole] @ at.w)
    if spent > dear and sure > cured:
        tries = f"Three more tries cost about {rounded(spent, sign)} and cure {percent(cured)}"
        yield Notice("stop_loss", f"{tries}; the whole drive costs {rounded(dear, sign)} and cures {percent(sure)}.")


def _blocked(belief: Belief, model: CompiledModel) -> Iterator[Notice]:
    said = {f"{q}={a.outcome}": o.line for q, a in belief.evidence.said.items() if (o := model.questions[q].outcome(a.outcome)) is not None}
    for repair in model.repairs:
        if repair.blocked_by in said:
            yield Notice("not_offered", f"“{said[repair.blocked_by]}”: {repair.blocked_why}, so “{repair.name}” is not offered.")
