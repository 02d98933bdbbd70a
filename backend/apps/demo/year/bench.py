"""One invented job carried through, ask by ask, by the ledger itself: what stands on its tape is what a bench could have done."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import asdict, dataclass, replace
from datetime import datetime, timedelta
from typing import Any, Final

import numpy as np
from apps.demo.year.world import YearWorld
from spindle.bench.opening.order import way_back
from spindle.diagnosis.belief.items import p_bad
from spindle.diagnosis.given.case import Answer, Change, Trial, TrialResult
from spindle.diagnosis.planning.futures import Unit
from spindle.diagnosis.planning.lookahead import Position, information
from spindle.diagnosis.planning.plan import TRIAL_MIN, ask_minutes, bench_minutes
from spindle.errors import SpindleError
from spindle.faults.model import QuestionKind
from spindle.job.asking import Decision
from spindle.job.hazards import Bars
from spindle.job.kinds.check import MarkCheck
from spindle.job.kinds.collected import Collect
from spindle.job.kinds.confirmed import ConfirmCause
from spindle.job.kinds.consent import Consent
from spindle.job.kinds.depth import SetDepth
from spindle.job.kinds.hold import ClearHold, LiftHold
from spindle.job.kinds.mains import SetMains
from spindle.job.kinds.opened import OpenStep
from spindle.job.kinds.paid import TakePayment, Tender
from spindle.job.kinds.part import NotePart
from spindle.job.kinds.passed import AddPass
from spindle.job.kinds.stage import Advance, GoBack
from spindle.job.kinds.step import MarkStep
from spindle.job.ledger import after, decide
from spindle.job.line import Draft
from spindle.job.stages import Stage
from spindle.job.state import JobState, state_of
from spindle.job.value import Job
from spindle.offers.quote import quote
from spindle.repairs.procedures import procedure_for
from spindle.study.policies import start_of
from spindle.study.worlds import Setup
from spindle.words.bench import Depth, Mains, Power
from spindle.words.health import Health
from spindle.words.known import Known

LOOKS: Final = 3
MOST_TRIES: Final = 3
WORTH: Final = 0.08
"""Below this chance the technician of the year gives up."""
OWN_MIND: Final = 0.2
"""One proposal in five is the technician's own second choice."""
SPREAD: Final = 0.3
"""Of the log of minutes from job to job."""
_KNOWN: Final = (Known.SEEN, Known.MEASURED, Known.FAULT_FOLLOWED)


@dataclass(frozen=True)
class Hand:
    """Who works, and how many times as long as planned it takes, soldering, otherwise, and at looks."""

    name: str
    solder: float
    other: float
    look: float


@dataclass(frozen=True)
class Hidden:
    """What is true of a unit: its fault with all its dice, which repairs cure it, and what a part is when it goes in."""

    unit: Unit
    success: np.ndarray
    part: Callable[[str], tuple[str, Health, bool]]
    """The tag, what is known of it, and whether it is good, of a part for a repair."""
    p_confirmed: float


class BenchJob:
    """A job of the year while it is worked on."""

    def __init__(self, job: Job, ready: Setup, hidden: Hidden, hand: Hand, *, at: datetime, rng: np.random.Generator) -> None:
        self.job, self._ready, self._hidden, self._hand, self._rng = job, ready, hidden, hand, rng
        self.now = at
        self._watch = rng.spawn(1)[0]
        self._position: Position = start_of(ready)

    def done(self) -> Job:
        """Carry the job through until it is closed, and return it."""
        self._ask(Advance(Stage.TAKEN_IN), 20)
        self._see()
        self._isolate()
        while self.job.stage is not Stage.CLOSED:
            self._one_round()
        return self.job

    def _ask(self, ask: Any, minutes: float = 2.0, *, by: str = "") -> None:
        self._write(decide(self.job, ask, YearWorld(self.now)), minutes, by=by)

    def _write(self, decision: Decision, minutes: float, *, by: str = "") -> None:
        self.now += timedelta(minutes=minutes)
        self.job = after(self.job, decision, at=self.now, by=by or self._hand.name)

    def _state(self) -> JobState:
        return state_of(self.job, YearWorld.economy)

    def _mains(self, power: Power) -> None:
        if self.job.power is power:
            return
        if power is Power.LIVE:
            self._release()
        self._ask(SetMains(power), 1)
        self._wait(Bars.OPENING)

    def _wait(self, bars: Bars) -> None:
        """Let the clock run until nothing bars that any more."""
        self.now = max([self.now, *(h.until for h in self.job.hazards(self.now, bars) if h.until)])

    def _release(self) -> None:
        """Wait until it is dry, and clear what holds the power."""
        self._wait(Bars.POWER)
        for hazard in self.job.hazards(self.now):
            self._ask(ClearHold(hazard.code) if hazard.clears else LiftHold(hazard.code, self._hand.name, "looked at, and well"), 1)

    def _see(self) -> None:
        """The stages and the classes of disc."""
        classes = [q.id for q in self.job.model.questions.values() if q.kind is QuestionKind.DISC_CLASS]
        for name in (*self.job.model.model.seen_at_least, *classes):
            if name in self.job.model.questions:
                self._answer(name)
        self._mains(Power.LIVE)
        self._ask(Advance(Stage.FAULT_SEEN))

    def _answer(self, name: str) -> None:
        question = self.job.model.questions[name]
        place = next(n for n, a in enumerate(self._ready.plan.asks) if a.id == name)
        shown = int(self._hidden.unit.shows[place])
        if question.mains is not Mains.ANY:
            self._mains(Power.LIVE if question.mains is Mains.LIVE else Power.OUT)
        takes = ask_minutes(self._ready.plan.asks[place], self.job.model) * self._hand.look * float(np.exp(self._watch.normal(0.0, SPREAD)))
        self._ask(Answer(name, question.outcomes[shown].id), takes)
        self._position = self._position.after_answer(place, shown, self._ready.problem)

    def _isolate(self) -> None:
        """A few looks, the most telling for their minutes first."""
        for _ in range(LOOKS):
            problem, asks = self._ready.problem, self._ready.plan.asks
            can = np.array([a.question is not None and (a.question.mains is not Mains.LIVE or a.question.depth is Depth.CLOSED) for a in asks])
            worth = np.where(self._position.open_ & can, information(self._position, problem) / np.maximum(problem.ask[self._position.state], 0.3), 0.0)
            name = asks[int(worth.argmax())].id
            depth = self.job.model.questions[name].depth
            try:
                if depth > self.job.depth:
                    self._mains(Power.OUT)
                    self._ask(SetDepth(depth), self.job.model.model.depths.open_min[int(depth)])
                self._answer(name)
            except SpindleError:  # this bench cannot look there: another look, or none
                self._position = replace(self._position, open_=self._position.open_ & ~(worth >= worth.max()))

    def _one_round(self) -> None:
        """Propose what is likeliest to pay, do it, and prove it; or hand the unit back."""
        repair = self._choice()
        self._propose(repair)
        self._ask(Advance(Stage.ISOLATE), 3)
        state = self._state()
        if {m.code for m in state.missing} & {"consent", "consent_kind"}:
            self._ask(Consent(True, state.facts.proposed_cents, self.job.notes.owner_name, "by phone"), 90)
        self._ask(Advance(Stage.AGREE), 5)
        if repair and not self._repaired(repair):
            return
        self._prove()
        self._hand_back()

    def _choice(self) -> str:
        at, problem = self._position, self._ready.problem
        chance = self._chances()
        worth = np.where(at.free & (chance >= WORTH), chance / np.maximum(problem.cost[at.state], 1.0), 0.0)
        if worth.max() <= 0.0 or len(self.job.trials) >= MOST_TRIES:
            return ""
        order = np.argsort(-worth)
        own_mind = self._rng.random() < OWN_MIND and worth[order[1]] > 0.0
        return self._ready.plan.repairs[int(order[1 if own_mind else 0])].id

    def _chances(self) -> np.ndarray:
        """Return the chance that each repair cures, by what is believed now and a new part."""
        w = self._state().belief.p
        items = np.array([r.uses_item for r in self._ready.plan.repairs])
        return np.asarray((self.job.model.success @ w) * np.where(items, 1.0 - self.job.model.bad_item[Health.NEW], 1.0))

    def _propose(self, repair: str) -> None:
        if not repair:
            body: dict[str, Any] = {"repair": "", "end": "unrepaired", "name": "Handed back as it is", "total_cents": 0, "p_success": 0.0}
        else:
            chance = self._chances()
            a = self.job.model.repair_index[repair]
            p = float(chance[a])
            told = quote(repair, p, p * float(self._ready.plan.p_year[a].mean()), self.job.model, price_cents_per_min=YearWorld.price_cents_per_min)
            best = int((chance / np.maximum(self._ready.problem.cost[self._position.state], 1.0)).argmax())
            body = {**asdict(told), "total_cents": told.total_cents, "is_advised": best == a}
        self._write(Decision((Draft("proposal", body),)), 4)

    def _repaired(self, repair: str) -> bool:
        """Do the repair and try it. Return whether it came out clean; if not, the job is back at Isolate."""
        begun, model = self.now, self.job.model
        a = model.repair_index[repair]
        spread = float(np.exp(self._rng.normal(0.0, SPREAD)))
        tag, health, is_good = self._hidden.part(repair) if model.repairs[a].uses_item else ("", Health.NEW, True)
        for step in self._state().steps:
            if step.takes_part:
                self._ask(NotePart(repair, tag, health), 0.2)
            elif not step.is_trial:
                if step.mains is not Mains.ANY:
                    self._mains(Power.OUT if step.mains is Mains.OUT else Power.LIVE)
                if "wet" in step.clears:
                    self._release()
                self._ask(MarkStep(step.id, True, model.sheet.fuse_rating), 0.2)
        self._mains(Power.LIVE)
        is_iron = procedure_for(model.model.family, repair).skill == "soldering"
        opened = model.model.depths.open_min
        way = max(opened[int(model.repairs[a].depth)] - opened[int(self.job.repair_depth)], 0.0)
        takes = (bench_minutes(model.repairs[a], model) + TRIAL_MIN + way) * (self._hand.solder if is_iron else self._hand.other)
        self.now = max(self.now, begun + timedelta(minutes=takes * spread))
        is_clean = bool(is_good and self._rng.random() < self._hidden.success[a, self._hidden.unit.fault])
        change = Change(repair, tag, health)
        self._ask(Trial((change,), TrialResult.CLEAN if is_clean else TrialResult.NO_CHANGE, 1 if is_clean else 0), 0.5)
        works = model.success[a] * (1.0 - p_bad(change, model) if tag else 1.0)
        at = self._position.after_repair(a, self._ready.problem)
        self._position = at if is_clean else replace(at, w=self._position.w * (1.0 - works))
        if not is_clean:
            self._ask(GoBack(Stage.ISOLATE, "It made no difference."), 1)
        return is_clean

    def _prove(self) -> None:
        if self.job.stage is Stage.REPAIR:
            self._ask(Advance(Stage.REPAIR), 1)
        self._shut()
        if self.job.proposal is not None and self.job.proposal.repair:
            self._mains(Power.LIVE)
            self._timed()
            for check in self._state().checks:
                if check.waits_for:
                    self._rest(Bars(check.waits_for))
                self._ask(MarkCheck(check.id, True), 1.5)
                while check.id not in self.job.checks:
                    self._ask(MarkCheck(check.id, True), 1.5)
            wanted = self._state().facts
            if wanted.passes < wanted.passes_needed:
                self._ask(AddPass(True, min(wanted.passes_needed - wanted.passes, 50)), 2.0 * (wanted.passes_needed - wanted.passes))
            self._mains(Power.OUT)
        self._ask(Advance(self.job.stage), 2)

    def _rest(self, start: Bars) -> None:
        """Let the unit get cold, or warm."""
        if start is Bars.COLD_START:
            self._mains(Power.OUT)
        self._wait(start)
        self._mains(Power.LIVE)

    def _timed(self) -> None:
        """A time to play, by the watch: the proven unit is what others are held against."""
        asked = next((q for q in self.job.model.questions.values() if q.kind is QuestionKind.DISC_CLASS), None)
        if asked is not None:
            known = self.job.model.sheet.reference_times.get(asked.id)
            seconds = round((14.0 if known is None else known.mean_s) * float(np.exp(self._rng.normal(0.0, 0.08))), 1)
            self._ask(Answer(asked.id, asked.outcomes[0].id, seconds=seconds), 1)

    def _shut(self) -> None:
        self._mains(Power.OUT)
        for move in way_back(self.job.opening, self.job.mat.open).moves:
            self._ask(OpenStep(move.step.id, False), 0.5)
        if self.job.depth is not Depth.CLOSED:
            self._ask(SetDepth(Depth.CLOSED), 2)

    def _hand_back(self) -> None:
        while self.job.stage is not Stage.HAND_BACK:
            self._ask(Advance(self.job.stage), 1)
        if self.job.is_trial_clean and self._rng.random() < self._hidden.p_confirmed:
            fault = self.job.model.faults[self._hidden.unit.fault].id
            if fault not in ("nothing_wrong", "not_listed"):
                self._ask(ConfirmCause(_KNOWN[int(self._rng.integers(len(_KNOWN)))], fault), 1)
        self.now += timedelta(days=float(self._rng.integers(0, 4)))
        proposal = self.job.proposal
        if proposal is not None and proposal.total_cents:
            self._ask(TakePayment(proposal.total_cents, Tender.CARD), 5, by="nia")
        self._ask(Collect(self.job.notes.owner_name), 2, by="nia")
        self._ask(Advance(Stage.HAND_BACK), 1, by="nia")
