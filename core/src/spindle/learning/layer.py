"""What closed jobs teach, as one layer over the shipped models: learnt, written down, laid over a model, taken away again.

Nothing of the shipped model is changed by it. A layer holds numbers alone, small enough to be kept as a version with its date, and it is
laid over the model of a drive once, however many jobs use it.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import asdict, dataclass, field, replace
from enum import StrEnum
from types import MappingProxyType
from typing import Any, Final, Self

import numpy as np

from spindle.diagnosis.given.compiled import CompiledModel, Floats
from spindle.drives.sheet import DriveSheet, ReferenceTime
from spindle.learning.causes import Causes, learn_causes, listed
from spindle.learning.hands import Hands, learn_hands
from spindle.learning.lasting import Away, Lasts, learn_lasting
from spindle.learning.past import Past
from spindle.learning.playing import Played, learn_playing
from spindle.learning.repairs import Repairs, learn_repairs
from spindle.learning.rows import Counted, Rows, learn_rows
from spindle.words.health import Health


class Part(StrEnum):
    """A part of a layer: each is judged by itself, and used or left out."""

    CAUSES = "causes"
    REPAIRS = "repairs"
    PACE = "pace"
    LOOKS = "looks"
    PLAYING = "playing"
    ROWS = "rows"


_FIELDS: Final = MappingProxyType(
    {
        Part.CAUSES: ("share",), Part.REPAIRS: ("success", "bad_item"), Part.PACE: ("pace",), Part.LOOKS: ("looks",),
        Part.PLAYING: ("playing",), Part.ROWS: ("rows",),
    }
)  # fmt: skip


@dataclass(frozen=True)
class Layer:
    """Numbers that take the place of shipped ones.

    Attributes
    ----------
    share : variant -> fault -> its share among the faults of the list
    success, lasts : loader family -> repair -> fault -> P(cures), and months until one unit of two is back: of what came back too often or
        too seldom for what was shipped, beyond doubt
    bad_item : what is known of a part -> P(bad itself)
    pace, looks : repair, and question -> how many times as long as planned it takes
    playing : variant -> class of disc -> time to play of healthy units, as a sheet has it
    rows : loader family -> question -> fault -> answer -> how often it was given under that fault, in soft counts
    """

    share: Mapping[str, Mapping[str, float]] = field(default_factory=dict)
    success: Mapping[str, Mapping[str, Mapping[str, float]]] = field(default_factory=dict)
    lasts: Mapping[str, Mapping[str, float]] = field(default_factory=dict)
    bad_item: Mapping[str, float] = field(default_factory=dict)
    pace: Mapping[str, float] = field(default_factory=dict)
    looks: Mapping[str, float] = field(default_factory=dict)
    playing: Mapping[str, Mapping[str, Mapping[str, float]]] = field(default_factory=dict)
    rows: Mapping[str, Mapping[str, Mapping[str, Mapping[str, float]]]] = field(default_factory=dict)

    def over(self, model: CompiledModel) -> CompiledModel:
        """Return a shipped model with this laid over it. Faults, answers and everything that was not learnt stay as they are."""
        family, index = model.model.family, model.repair_index
        success, lasts = model.success.copy(), model.lasts_months.copy()
        for repair, own in self.success.get(family, {}).items():
            for fault, p in own.items():
                if repair in index and fault in model.fault_index and success[index[repair], model.fault_index[fault]] > 0.0:
                    success[index[repair], model.fault_index[fault]] = p
        for repair, months in self.lasts.get(family, {}).items():
            if repair in index:
                lasts[index[repair]] *= months / model.repairs[index[repair]].lasts_months
        prior = self.prior_over(model)
        bad = {**model.bad_item, **{Health(h): p for h, p in self.bad_item.items()}}
        sheet = replace(model.sheet, reference_times=self.times_over(model.sheet))
        learnt: dict[str, Any] = {
            "sheet": sheet,
            "prior": prior,
            "likelihood": {**model.likelihood, **self.rows_over(model)},
            "success": success,
            "lasts_months": lasts,
            "bad_item": bad,
            "pace": {**self.pace, **self.looks},
        }
        return replace(model, **learnt, learnt_over=model, log_rows={}, after_answers={})

    def times_over(self, sheet: DriveSheet) -> dict[str, ReferenceTime]:
        """Return the times to play of a sheet with those of this layer in their place, of the classes that the drive reads."""
        learnt = self.playing.get(sheet.variant, {})
        return {**sheet.reference_times, **{c: ReferenceTime(t["mean_s"], t["sd_s"], int(t["n"])) for c, t in learnt.items() if c in sheet.classes}}

    def rows_over(self, model: CompiledModel) -> dict[str, Floats]:
        """Return the tables P(answer | fault) of a model that this changes, by question, each of shape (n_outcomes, n_faults)."""
        found = {}
        for name, faults in self.rows.get(model.model.family, {}).items():
            if name in model.questions:
                table = model.likelihood[name].copy()
                for fault in faults.keys() & model.fault_index.keys():
                    place = model.fault_index[fault]
                    table[:, place] = Counted(faults[fault]).over(table[:, place], model.questions[name])
                found[name] = table
        return found

    def prior_over(self, model: CompiledModel) -> Floats:
        """Return the shipped prior with the shares of this layer, of shape (n_faults,): together the listed faults stay as likely as they were."""
        own = self.share.get(model.sheet.variant)
        if own is None:
            return model.prior
        is_listed = listed(model)
        share = np.array([own.get(f.id, 0.0) for f in model.faults]) * is_listed
        mass = float(model.prior @ is_listed)
        return np.asarray(np.where(is_listed > 0.0, mass * share / max(float(share.sum()), 1e-12), model.prior))

    def holds(self, part: Part) -> bool:
        """Return whether any number of a part is in it."""
        return any(getattr(self, name) for name in _FIELDS[part])

    def with_parts(self, other: Layer, parts: Collection[Part]) -> Layer:
        """Return this one with some parts of another in place of its own."""
        return replace(self, **{name: getattr(other, name) for part in parts for name in _FIELDS[part]})

    def written(self) -> dict[str, Any]:
        """Return it as JSON."""
        return asdict(self)

    @classmethod
    def read(cls, told: Mapping[str, Any]) -> Self:
        """Return it from its JSON."""
        return cls(**told)


@dataclass(frozen=True)
class Lessons:
    """What a shop's closed jobs say, with its counts: causes and lasting by loader family."""

    jobs: int
    causes: Mapping[str, Causes]
    repairs: Repairs
    lasting: Mapping[str, Mapping[str, Lasts]]
    hands: Hands
    playing: Mapping[tuple[str, str], Played]
    rows: Rows

    def layer(self) -> Layer:
        """Return the numbers that are to take the place of shipped ones."""
        success: dict[str, dict[str, Mapping[str, float]]] = {}
        for (family, repair), own in self.repairs.success.items():
            success.setdefault(family, {})[repair] = own
        playing: dict[str, dict[str, Mapping[str, float]]] = {}
        for (variant, disc), played in self.playing.items():
            playing.setdefault(variant, {})[disc] = asdict(played.now)
        return Layer(
            share={v: own for causes in self.causes.values() for v, own in causes.share.items()},
            success=success,
            lasts={family: {r: x.months for r, x in own.items() if x.is_beyond_doubt} for family, own in self.lasting.items()},
            bad_item={h.value: x.mean for h, x in self.repairs.health.items()},
            pace={r: x.factor for r, x in self.hands.repairs.items()},
            looks={q: x.factor for q, x in self.hands.looks.items()},
            playing=playing,
            rows={family: {q: {f: dict(x.outcomes) for f, x in faults.items()} for q, faults in own.items()} for family, own in self.rows.items()},
        )


def learn(pasts: Sequence[Past], models: Mapping[str, CompiledModel], *, source_of: Mapping[str, str] | None = None, away: Sequence[Away] = ()) -> Lessons:
    """Return what closed jobs say.

    Parameters
    ----------
    models : the shipped model of each drive variant that is in use
    source_of : tag of a part -> the lot or donor that it came from
    away : repaired units that went home
    """
    families = sorted({m.model.family for m in models.values()})
    causes, lasting = {}, {}
    for family in families:
        own = {v: m for v, m in models.items() if m.model.family == family}
        jobs = [p for p in pasts if p.variant in own]
        causes[family] = learn_causes(jobs, own)
        shipped = {r.id: r.lasts_months for m in own.values() for r in m.repairs}
        lasting[family] = learn_lasting([a for a in away if a.variant in own], shipped)
    repairs = learn_repairs(pasts, models, source_of or {})
    hands = learn_hands([t for p in pasts for t in p.took], [k for p in pasts for k in p.looked])
    return Lessons(len(pasts), causes, repairs, lasting, hands, learn_playing(pasts, models), learn_rows(pasts, models))
