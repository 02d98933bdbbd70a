"""What closed jobs teach: read from what is kept beside their tapes, judged, and told before it is put to use."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator, Mapping
from dataclasses import asdict, dataclass, replace
from datetime import datetime
from functools import cached_property
from typing import Any

from apps.drives.models import Layer as StoredLayer
from apps.drives.models import Sheet
from apps.drives.selectors import layer_in_use, layer_number, shipped_models
from apps.jobs.folding import value_of
from apps.jobs.models import Job
from apps.jobs.selectors import whole_jobs
from apps.record.models import Kept
from apps.shelf.models import Part
from django.db.models import Count, Max
from django.utils import timezone
from spindle.diagnosis.belief.posterior import believe
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.errors import SpindleError
from spindle.job.stages import Stage
from spindle.job.state import REPAIRED
from spindle.learning.judging import Judgement, judge
from spindle.learning.lasting import Away
from spindle.learning.layer import Layer, Lessons, learn
from spindle.learning.layer import Part as LayerPart
from spindle.learning.past import read_past
from spindle.learning.telling import Row, Told, told

MONTH_DAYS = 30.44
WORKED_OUT_AS = 4
"""Raised when something else is worked out of the closed jobs: what is kept of it is old then."""
MOST_KEPT = 4
"""So many are kept: what is taken back was there a moment ago, and nobody waits for it again."""
MOST_OPEN = 80
"""So many open jobs are looked through for another first suspect, the newest first."""


class Learning:
    """What the shop's closed jobs say now; each part worked out when it is first asked for. Three queries, and none of them opens a tape."""

    def __init__(self) -> None:
        rows = Job.objects.filter(closed_at__isnull=False, past__isnull=False).order_by("closed_at", "pk").values_list("closed_at", "past")
        kept = [(at, read_past(past)) for at, past in rows if at is not None and past is not None]
        self._closed = [at for at, _ in kept]
        self.pasts = [past for _, past in kept]
        """What each closed job teaches, oldest first."""
        self.through = kept[-1][0] if kept else timezone.now()
        self.models: Mapping[str, CompiledModel] = shipped_models()

    @cached_property
    def lessons(self) -> Lessons:
        """What they say together."""
        return learn(self.pasts, self.models, source_of=self._source_of, away=list(_away(timezone.now())))

    @cached_property
    def judged(self) -> dict[LayerPart, Judgement]:
        """How each part of it has gone on predicting, against what is in use."""
        knows = 0 if self._used is None else bisect_right(self._closed, self._used.through)
        return judge(self.pasts, self.models, lambda jobs: learn(jobs, self.models, source_of=self._source_of).layer(), self._standing, knows)

    @cached_property
    def layer(self) -> Layer:
        """What would be put to use: what is in use, with those parts in their place that predict better."""
        whole = self.lessons.layer()
        return replace(self._standing, lasts=whole.lasts).with_parts(whole, [part for part, found in self.judged.items() if found.is_better])

    @cached_property
    def _used(self) -> StoredLayer | None:
        return layer_in_use()

    @cached_property
    def _standing(self) -> Layer:
        return Layer() if self._used is None else Layer.read(self._used.body)

    @property
    def rows(self) -> tuple[Row, ...]:
        """What was learnt, row by row."""
        return told(self.lessons, self.models)

    @cached_property
    def _source_of(self) -> dict[str, str]:
        items = {t.item for p in self.pasts for t in p.tried if t.item}
        rows = Part.objects.filter(tag__in=items).values_list("tag", "lot", "order__supplier__name", "donor__tag")
        return {tag: name for tag, lot, supplier, donor in rows if (name := _source(lot, supplier, donor))}


@dataclass(frozen=True)
class Taught:
    """What the closed jobs teach, as it was last worked out: over how many jobs, how each part is judged, row by row, and the layer of it."""

    jobs: int
    confirmed: int
    judged: Mapping[LayerPart, Judgement]
    rows: tuple[Row, ...]
    layer: Layer
    through: datetime
    """When the last of them closed."""


def taught() -> Taught:
    """Return what the closed jobs teach: kept for as long as what it rests on stays the same, else worked out, which takes a few seconds."""
    rests_on = _rests_on()
    kept = Kept.objects.filter(rests_on=rests_on).order_by("-pk").first()
    if kept is None:
        kept = Kept.objects.create(rests_on=rests_on, body=_written(Learning()))
        Kept.objects.filter(pk__lte=kept.pk - MOST_KEPT).delete()
    body = kept.body
    return Taught(
        jobs=body["jobs"],
        confirmed=body["confirmed"],
        judged={part: Judgement(*body["judged"][part]) for part in LayerPart},
        rows=tuple(Row(**{**row, "about": Told(row["about"])}) for row in body["rows"]),
        layer=Layer.read(body["layer"]),
        through=datetime.fromisoformat(body["through"]),
    )


def _rests_on() -> str:
    """Return what it rests on, in a few words: which jobs have closed, which drives there are, what is in use, and the day, for what has not come back yet."""
    jobs = Job.objects.filter(closed_at__isnull=False, past__isnull=False).aggregate(n=Count("pk"), last=Max("closed_at"), kept=Max("kept_as"))
    return f"{WORKED_OUT_AS} {jobs['n']} {jobs['last']} {jobs['kept']} {Sheet.objects.aggregate(m=Max('pk'))['m']} {layer_number()} {timezone.localdate()}"


def _written(learning: Learning) -> dict[str, Any]:
    return {
        "jobs": len(learning.pasts),
        "confirmed": sum(p.is_confirmed for p in learning.pasts),
        "judged": {part.value: [j.n, j.gain, j.error] for part, j in learning.judged.items()},
        "rows": [asdict(row) for row in learning.rows],
        "layer": learning.layer.written(),
        "through": learning.through.isoformat(),
    }


def _source(lot: str, supplier: str | None, donor: str | None) -> str:
    if donor:
        return f"Donor {donor}"
    return f"Lot {lot}{f', {supplier}' if supplier else ''}" if lot else ""


def _away(now: datetime) -> Iterator[Away]:
    """Yield each repaired unit with how long it was away: until it came back with the same fault inside its guarantee, or until now."""
    rows = Job.objects.filter(closed_at__isnull=False, outcome=REPAIRED).exclude(judged=[])
    back = dict(Job.objects.filter(returns__isnull=False, is_covered=True).order_by("-taken_in_at").values_list("returns_id", "taken_in_at"))
    for pk, variant, closed, judged in rows.values_list("pk", "sheet__variant", "closed_at", "judged"):
        cured = next((repair for repair, _, _, is_clean in reversed(judged) if is_clean), "")
        if cured and closed is not None:
            until = back.get(pk, now)
            yield Away(variant, cured, max((until - closed).total_seconds() / 86_400 / MONTH_DAYS, 0.01), pk in back)


@dataclass(frozen=True)
class OtherSuspect:
    """An open job that would get another first suspect: its tag and drive, which one it has and which it would have, each with its chance."""

    tag: str
    variant: str
    was: str
    p_was: float
    now: str
    p_now: float


def other_suspects(layer: Layer) -> list[OtherSuspect]:
    """Return the open jobs that would get another first suspect by a layer, against what is in use now."""
    rows = whole_jobs().exclude(stage__in=[Stage.CLOSED.value, Stage.TAKEN_IN.value]).order_by("-pk")[:MOST_OPEN]
    return [found for row in rows if (found := _suspect(row, layer)) is not None]


def _suspect(row: Job, layer: Layer) -> OtherSuspect | None:
    try:
        job = value_of(row)
    except (SpindleError, LookupError, ValueError, TypeError):
        return None  # the day names it
    over = layer.over(job.model.shipped)
    was, now = believe(job.findings, job.model).p, believe(job.findings, over).p
    a, b = int(was.argmax()), int(now.argmax())
    if a == b or not job.findings:
        return None
    faults = job.model.faults
    return OtherSuspect(row.tag, row.sheet.variant, faults[a].name, float(was[a]), faults[b].name, float(now[b]))
