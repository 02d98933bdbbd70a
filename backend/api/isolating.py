"""Views of the isolating bench beside the moves: signal paths, swap table, the deeper look, the claims register."""

from __future__ import annotations

from apps.jobs.selectors import JobState
from spindle.diagnosis.explaining.diagnose import Diagnosis
from spindle.diagnosis.explaining.signal_path import PathState
from spindle.diagnosis.given.compiled import CompiledModel
from spindle.faults.model import FaultModel
from spindle.learning.claims import Register

from . import schemas as s


def path_view(path: PathState, model: CompiledModel) -> s.PathView:
    """Return a signal path with the test that halves it."""
    return s.PathView(
        id=path.id,
        title=path.title,
        p=path.p,
        links=[s.LinkView(id=k.id, name=k.name, state=k.state, p=k.p, says=k.says) for k in path.links],  # type: ignore[arg-type]  # pydantic checks the word
        next_test=path.next_test,
        next_ask=model.questions[path.next_test].ask if path.next_test else "",
        before=path.splits[0],
        behind=path.splits[1],
    )


def swaps_view(state: JobState, found: Diagnosis) -> s.SwapsView:
    """Return the swap table, and the parts that this job can use."""
    names = {r.id: r.name for r in state.model.repairs}
    parts = {p.id: p.name for p in state.model.parts}
    table = found.swaps
    return s.SwapsView(
        rows=[
            s.SwapRowView(
                line=int(r.finding),
                part=parts.get(r.part, r.part),
                repair=names[r.repair],
                item=r.item,
                health=r.health,
                result=r.result,
                p_bad=r.p_bad,
                goes_back=r.goes_back,
                stays=r.stays,
            )
            for r in table.rows
        ],
        parts=[
            s.PartLineView(
                line=number,
                repair=line.body["repair"],
                name=names[line.body["repair"]],
                item=line.body["item"],
                health=line.body["health"],
                works=line.body["works"],
                fails=line.body["fails"],
                price_cents=round(line.body["price_eur"] * 100),
                wait_days=line.body["wait_days"],
                is_donor=line.body["is_donor"],
                is_taken=bool(line.body.get("taking")),
            )
            for number, line in state.record.parts.items()
        ],
        next_item=table.next_item,
        next_repair=names.get(table.next_repair, ""),
        p_cures=table.p_cures,
    )


def claim_view(entry: Register, model: FaultModel) -> s.ClaimView:
    """Return a rule of thumb with the shop's own counts."""
    return s.ClaimView(
        id=f"{entry.family}_{entry.claim.id}",
        family=entry.family,
        text=entry.claim.text,
        repair=next(r.name for r in model.repairs if r.id == entry.claim.repair),
        limit=entry.claim.helps_at_least,
        counts=[s.ClaimCountView.model_validate(c, from_attributes=True) for c in entry.counts],
    )
