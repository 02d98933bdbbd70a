"""What an owner's page says: what is wrong and how sure, what can be done, for how much, and how likely it helps. In words for whoever plays on it."""

from __future__ import annotations

from dataclasses import fields
from typing import Any, Final

from apps.jobs.selectors import OpenJob
from spindle.diagnosis.explaining.diagnose import diagnose
from spindle.offers.quote import Quote, offers
from spindle.repairs.procedures import procedure_for
from spindle.words.chances import percent
from spindle.words.money import money

MOST_OTHERS: Final = 2
"""Offers beside the one that is proposed: more are a list, and a list is not read."""


def told_to_owner(shown: OpenJob) -> dict[str, Any]:
    """Return everything that the page of a job says, as it stands now: the proposal first among the offers."""
    job, state, proposal = shown.job, shown.state, shown.job.proposal
    assert proposal is not None  # who makes a page has looked
    found = diagnose(state.case, job.model, belief=state.belief, ending=state.ending)
    quotes = offers(found.advice.moves, job.model, price_cents_per_min=shown.shop.price_cents_per_min)
    line = next(x for x in job.lines if x.number == proposal.number)
    sold: dict[str, Any] = {f.name: line.body.get(f.name) for f in fields(Quote)}
    first = _offer(Quote(**sold), shown, cents=proposal.total_cents)
    others = [_offer(q, shown, cents=job.charged(q.total_cents)) for q in quotes if q.repair != proposal.repair][:MOST_OTHERS]
    sheet = shown.row.sheet
    return {
        "unit": f"{sheet.maker} {sheet.console}",
        "complaint": job.notes.complaint,
        "owner": job.notes.owner_name,
        "cause": state.cause.text,
        "sureness": state.cause.sureness,
        "offers": [first, *others],
    }


def _offer(quote: Quote, shown: OpenJob, *, cents: int) -> dict[str, Any]:
    procedure = procedure_for(shown.job.model.sheet.family, quote.repair)
    days = shown.shop.guarantee(procedure.guarantee_days)
    return {
        "repair": quote.repair,
        "name": quote.name,
        "total_cents": cents,
        "price": money(cents, shown.shop.sign),
        "chance": f"It mends {percent(quote.p_success)} of consoles with the signs that yours has.",
        "lasts": f"A year later {percent(quote.p_lasts_year)} still work." if quote.p_lasts_year is not None else "",
        "wait": f"The part takes about {round(quote.wait_days)} days to come." if quote.wait_days >= 1 else "",
        "guarantee": f"Guarantee: {days} days on what we do." if days else "No guarantee goes with it.",
        "to_know": procedure.alters_unit,
    }
