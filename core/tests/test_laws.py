"""What holds of a job whatever is asked of it, in whatever order, by two hands at once. ``./dev laws`` plays many more."""

import os
from dataclasses import replace

import pytest
from hypothesis import HealthCheck, settings
from hypothesis import strategies as st
from hypothesis.stateful import RuleBasedStateMachine, initialize, invariant, rule, run_state_machine_as_test
from spindle.bench.opening.order import first_needed
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.diagnosis.given.case import Answer, Change, Remark, Trial, TrialResult
from spindle.drives.levels import LEVEL_OF_REPAIR
from spindle.errors import SpindleError
from spindle.faults.model import CANT_TELL, QuestionKind
from spindle.job.hazards import HAZARDS, Bars
from spindle.job.kinds.check import MarkCheck
from spindle.job.kinds.collected import Collect
from spindle.job.kinds.consent import Consent
from spindle.job.kinds.custody import BringOwnBack, ReleaseOwn, TakeOutOwn
from spindle.job.kinds.depth import SetDepth
from spindle.job.kinds.drive import Identify
from spindle.job.kinds.fit import Fit
from spindle.job.kinds.hold import ClearHold, LiftHold
from spindle.job.kinds.intake import Amend
from spindle.job.kinds.left import LeaveUnit
from spindle.job.kinds.mains import SetMains
from spindle.job.kinds.measured import Measure
from spindle.job.kinds.paid import TakePayment, Tender
from spindle.job.kinds.part import NotePart, PutBack, TakePart
from spindle.job.kinds.passed import AddPass
from spindle.job.kinds.proposal import Propose
from spindle.job.kinds.restore import Restore
from spindle.job.kinds.stage import Advance, GoBack
from spindle.job.kinds.step import MarkStep
from spindle.job.kinds.strike import Strike
from spindle.job.kinds.tick import Tick
from spindle.job.kinds.told import Means, TellOwner
from spindle.job.kinds.void import Unvoid, Void
from spindle.job.ledger import ASKS
from spindle.job.prompts import PROMPTS
from spindle.job.stages import Stage
from spindle.job.state import state_of, steps_of
from spindle.repairs.procedure import OPENING_IDS, OPENS_TO, PLUG
from spindle.words.bench import Mains, Power
from spindle.words.health import Health
from spindle.words.witness import Witness

from .house import ECONOMY, SHEETS, House, StaleError, forward, on_the_way, value_of
from .unit_asks import unit_asks

SEQUENCES = int(os.environ.get("SPINDLE_LAWS", "2000"))
TAGS = st.sampled_from(["K-1", "K-2"])


VOLTS = {"quantity": "voltage", "mains": "running", "disc": "in", "switch": "any", "low": "11.6 V", "high": "12.3 V", "values": ["11.58 V"]}
MEASURED = [
    ("reading", VOLTS, "supply_reading"),
    ("reading", VOLTS | {"limit_mains": "standby"}, "supply_reading"),
    ("reading", {"quantity": "resistance", "mains": "out", "disc": "any", "switch": "any", "values": ["OL"]}, "fuse_test"),
    ("blown", {"rating": "1.5 A fast", "supply": "12 V", "ohm": "0.4 ohm"}, "short_test"),
    ("blown", {"rating": "1.5 A fast", "supply": "12 V", "ohm": "400 ohm"}, "short_test"),
    ("flex", {"tracks": 2, "pitch": "1 mm", "readings": [{"where": "through", "from": 1, "to": 2, "closed": True}]}, ""),
    ("belt", {"way": "moon"}, ""),
]


def one_of(data, things):
    """One of some things, by its place: Hypothesis would hash the things themselves, and a job is slow to hash."""
    listed = list(things)
    return listed[data.draw(st.integers(0, len(listed) - 1))]


def draw(data, job, house):
    """Anything that somebody might ask."""
    pick = lambda xs: one_of(data, xs)  # noqa: E731
    repairs = [r.id for r in job.model.repairs]
    things = [*house.shelf, *house.own, "D-1", "x-9"]
    if data.draw(st.integers(0, 2)) == 0:
        return forward(job)
    kind = pick(ASKS.values()).body
    match kind.__name__:
        case "Answer":
            question = pick(job.model.family_questions.values())
            tries = data.draw(st.none() | st.integers(1, 4))
            outcome = pick([*(o.id for o in question.outcomes), CANT_TELL])
            return Answer(question.id, outcome, pick(Witness), tries, None if tries is None else data.draw(st.integers(0, tries)))
        case "Trial":
            change = st.builds(Change, st.sampled_from(repairs), st.sampled_from(["", *things]), st.sampled_from(list(Health)), stays=st.booleans())
            return Trial(tuple(data.draw(st.lists(change, min_size=1, max_size=3))), pick(TrialResult), 1)
        case "Fit":
            change = st.builds(Change, st.sampled_from(repairs), st.sampled_from(["", "D-1", "X-9", *things]), st.sampled_from(list(Health)))
            return Fit(tuple(data.draw(st.lists(change, max_size=2))))
        case "Amend":
            prompt = pick(PROMPTS)
            return Amend(limit_cents=data.draw(st.none() | st.integers(0, 9_000)), condition={prompt.id: pick(prompt.choices).id})
        case "Identify":
            return Identify({}, pick([1, 2, 3, 9]))
        case "MarkStep":
            return MarkStep(pick([*(s.id for s in steps_of(job)), "sing"]), data.draw(st.booleans()), pick(["", "1.5 A fast", "a bit of wire"]))
        case "MarkCheck":
            return MarkCheck(
                pick([*(c.id for c in state_of(job, ECONOMY).checks), "dance"]), data.draw(st.booleans()), data.draw(st.booleans()), pick([None, None, 14.0])
            )
        case "NotePart" | "TakePart":
            repair = pick([r for r in repairs if r in LEVEL_OF_REPAIR])
            fitting = [t for t, (level, _) in house.shelf.items() if level == LEVEL_OF_REPAIR[repair]]
            return NotePart(repair, "X-1", pick(Health)) if kind is NotePart else TakePart(pick([*fitting, "D-1", *things]), repair)
    return plainly(kind, data, job)


def plainly(kind, data, job):
    """An ask of a kind that needs few words."""
    pick = lambda xs: one_of(data, xs)  # noqa: E731
    repairs, numbers = [r.id for r in job.model.repairs], st.integers(1, max(len(job.lines), 1) + 1)
    simple = {
        **unit_asks(data, job, pick),
        Measure: lambda: Measure(*pick(MEASURED)),
        PutBack: lambda: PutBack(data.draw(numbers), {"reads": data.draw(st.booleans())}),
        Strike: lambda: Strike(data.draw(numbers)),
        Restore: lambda: Restore(data.draw(numbers)),
        SetMains: lambda: SetMains(pick(Power)),
        SetDepth: lambda: SetDepth(data.draw(st.integers(0, 3))),
        Advance: lambda: Advance(pick([job.stage, *Stage])),
        GoBack: lambda: GoBack(pick(Stage), "again"),
        Propose: lambda: Propose(pick(["", *repairs])),
        Consent: lambda: Consent(data.draw(st.booleans()), data.draw(st.integers(0, 9_000)), "Wenna", "by phone"),
        TakeOutOwn: lambda: TakeOutOwn(pick(["board", "pickup"]), "tray"),
        BringOwnBack: lambda: BringOwnBack(pick([*job.away, "x"])),
        ReleaseOwn: lambda: ReleaseOwn(pick([*job.away, "x"]), pick(["", "Wenna"])),
        Tick: lambda: Tick(pick(["drive", "wing"]), "there_photo_1", "Photo", data.draw(st.booleans())),
        AddPass: lambda: AddPass(data.draw(st.booleans()), pick([1, 3])),
        Void: lambda: Void("twice"),
        Unvoid: Unvoid,
        TellOwner: lambda: TellOwner(pick(Means), "ready"),
        TakePayment: lambda: TakePayment(pick([0, 4_500]), Tender.CASH),
        LeaveUnit: lambda: LeaveUnit("Wenna"),
        Collect: lambda: Collect(pick(["Wenna", "Odo"])),
        Remark: lambda: Remark("hm"),
        ClearHold: lambda: ClearHold(pick(HAZARDS)),
        LiftHold: lambda: LiftHold(pick(HAZARDS), pick(["", "Bram"]), "measured"),
    }
    return simple[kind]()


def needs_power(ask, job):
    """Power comes on, or something is done that only a powered drive does."""
    if isinstance(ask, SetMains):
        return ask.state is not Power.OUT and ask.state is not job.power
    if isinstance(ask, Answer):
        return ask.source is Witness.BENCH and ask.outcome != CANT_TELL and job.model.family_questions[ask.question].mains is Mains.LIVE
    if isinstance(ask, Measure):
        return ask.inputs.get("mains") == "running"
    return isinstance(ask, Trial | MarkCheck | AddPass)


class Laws(RuleBasedStateMachine):
    """Two jobs of one house, each somewhere on its way, asked anything."""

    family = "slot"

    @initialize(data=st.data())
    def open_the_house(self, data):
        self.house, self.keys = House(SHEETS[self.family]), 0
        for tag in ("K-1", "K-2"):
            at = one_of(data, on_the_way(self.family))
            self.house.jobs[tag] = replace(at, start=replace(at.start, tag=tag))

    def put(self, tag, ask, *, key=None, version=None):
        """Ask, and hold whatever comes of it against the laws of a single write."""
        house, before, asked_at = self.house, self.house.jobs[tag], self.house.now
        self.keys += 1
        pieces = {t: n for t, (_, n) in house.shelf.items()}
        try:
            wrote = house.ask(tag, ask, key=key or f"k{self.keys}", version=before.version if version is None else version)
        except (SpindleError, StaleError):
            wrote = None
        now = house.jobs[tag]
        assert now.version == before.version + bool(wrote)
        assert bool(wrote) == (len(now.lines) > len(before.lines))
        if not wrote:
            assert (now, {t: n for t, (_, n) in house.shelf.items()}) == (before, pieces)
            return wrote
        assert value_of(now) != value_of(before)
        assert before.stage is not Stage.CLOSED or isinstance(ask, Remark | TellOwner | TakePayment | Unvoid)
        if before.consents and not before.consents[-1].body["is_agreed"]:
            does = isinstance(ask, MarkStep) and ask.is_done
            tries = isinstance(ask, Trial) and before.stage is Stage.REPAIR
            goes = isinstance(ask, Advance) and ask.stage in (Stage.AGREE, Stage.REPAIR) and bool(before.proposal.repair)
            assert not does
            assert not tries
            assert not goes
        if needs_power(ask, before):
            assert not before.hazards(asked_at)
        if not isinstance(ask, Restore) and (now.depth > before.depth or now.mat.open != before.mat.open):
            assert not before.hazards(asked_at, Bars.OPENING) or isinstance(ask, Strike)
        return wrote

    @rule(tag=TAGS, data=st.data())
    def anything(self, tag, data):
        self.put(tag, draw(data, self.house.jobs[tag], self.house))

    @rule(tag=TAGS)
    def on_its_way(self, tag):
        self.put(tag, forward(self.house.jobs[tag]))

    @rule(tag=TAGS, data=st.data())
    def twice_the_same_press(self, tag, data):
        ask, key = draw(data, self.house.jobs[tag], self.house), f"again{self.keys}"
        if self.put(tag, ask, key=key) is not None:
            assert self.put(tag, ask, key=key, version=0) is False

    @rule(tag=TAGS, data=st.data())
    def from_an_old_screen(self, tag, data):
        job = self.house.jobs[tag]
        assert not self.put(tag, draw(data, job, self.house), version=job.version + one_of(data, [-1, 1, 7]))

    @rule(tag=TAGS, data=st.data())
    def struck_and_restored(self, tag, data):
        job = self.house.jobs[tag]
        if job.stage is Stage.CLOSED or not job.standing:
            return
        self.struck_and_restored_line(tag, one_of(data, sorted(job.standing)))

    def struck_and_restored_line(self, tag, number):
        job = self.house.jobs[tag]
        before, pieces = value_of(job), self.house.count() | {t: n for t, (_, n) in self.house.shelf.items()}
        assert self.put(tag, Strike(number))
        assert self.put(tag, Restore(number))
        assert value_of(self.house.jobs[tag]) == before
        assert pieces == self.house.count() | {t: n for t, (_, n) in self.house.shelf.items()}

    @rule(tag=TAGS, data=st.data())
    def a_part_is_taken_and_the_line_struck_and_restored(self, tag, data):
        job = self.house.jobs[tag]
        fitting = [TakePart(t, r.id) for t, (lv, n) in self.house.shelf.items() if n for r in job.model.repairs if LEVEL_OF_REPAIR.get(r.id) == lv]
        if job.stage is not Stage.CLOSED and fitting:
            self.put(tag, one_of(data, fitting))
            self.struck_and_restored_line(tag, len(self.house.jobs[tag].lines))

    @invariant()
    def pieces_are_neither_lost_nor_made(self):
        if hasattr(self, "house"):
            assert self.house.count() == self.house.born
            taken = {(tag, n): line.body["item"] for tag, job in self.house.jobs.items() for n, line in job.takings.items()}
            held = {k: v for k, v in taken.items() if self.house.jobs[k[0]].stage is not Stage.CLOSED}
            assert held == self.house.takings

    @invariant()
    def a_step_is_done_only_if_that_very_step_was_done(self):
        for job in self.house.jobs.values() if hasattr(self, "house") else ():
            shown = {s.id: s.text for s in steps_of(job)}
            begun = max((x.number for x in job.lines if x.kind == "stage" and x.body["to"] == "repair" and x.body["from"] == "agree"), default=0)
            for step, line in job.steps.items():
                assert line.number > begun or step not in OPENING_IDS or (step, line.number) == (PLUG, begun)  # out when it began
                body = line.body if line.kind == "step" else {"is_done": OPENS_TO[step] <= line.body["depth"], "step": step, "text": shown[step]}
                assert (body["is_done"], body["step"], shown.get(step, body["text"])) == (True, step, body["text"])

    @invariant()
    def the_mat_holds_what_is_open_and_nothing_lies_under_what_is_back(self):
        for job in self.house.jobs.values() if hasattr(self, "house") else ():
            opening, mat = job.opening, frozenset(job.mat.open)
            assert job.depth >= max((opening.steps[s].opens_to for s in mat if s in opening.steps), default=0)
            assert not mat or job.stage is not Stage.CLOSED or job.is_left or job.voided
            assert not any(first_needed(opening, s, mat) for s in mat if s in opening.steps)

    @invariant()
    def what_the_bench_sees_is_about_what_sits_in_it_and_it_leaves_with_its_own_parts(self):
        for job in self.house.jobs.values() if hasattr(self, "house") else ():
            fitted = []
            for line in job.lines:
                fitted = line.body["changes"] if line.kind == "fit" else fitted
                is_intake = line.kind == "answer" and job.model.family_questions[line.body["question"]].kind is QuestionKind.INTAKE
                if line.kind == "answer" and line.body["source"] == "bench" and not is_intake:
                    assert line.body.get("setting", {}).get("fitted", []) == fitted
            assert {c.item for c in job.on_trial if c.item in self.house.shelf} <= {x.body["item"] for x in job.takings.values()}
            assert not job.on_trial or job.stage in {Stage.TAKEN_IN, Stage.FAULT_SEEN, Stage.ISOLATE}

    def teardown(self):
        """Whatever was accepted can be read and said; the dearest, that it can be diagnosed, is held against one job in eight."""
        for tag, job in self.house.jobs.items() if hasattr(self, "house") else ():
            state = self.house.can_be_read(tag)
            if len(job.lines) % 8:
                continue
            assert diagnose(state.case, job.model, belief=state.belief, ending=state.ending).advice.moves


@pytest.mark.parametrize("family", SHEETS)
def test_the_laws_hold_over_random_sequences_of_asks(family):
    machine = type(f"Laws_{family}", (Laws,), {"family": family})
    checks = [HealthCheck.too_slow, HealthCheck.data_too_large, HealthCheck.filter_too_much]
    run_state_machine_as_test(
        machine, settings=settings(max_examples=SEQUENCES // 3 + 1, stateful_step_count=12, deadline=None, suppress_health_check=checks, database=None)
    )
