"""Making anew what is kept of each job beside its tape: after an upgrade, or after the shop's figures changed."""

from __future__ import annotations

from apps.jobs.folding import value_of
from apps.jobs.selectors import economy_of, whole_jobs
from apps.jobs.services.writing import KEPT_AS, keep
from apps.shop.selectors import the_shop
from django.db.models import Q
from spindle.errors import SpindleError
from spindle.job.stages import Stage
from spindle.job.state import state_of


def rebuild() -> list[tuple[str, str]]:
    """Make anew what is kept of each job that is open, and of closed ones that were kept by older rules. Return those that cannot be read, each with why.

    Such a job stays in the lists and says there that it cannot be read: one of them takes nothing else away.
    """
    shop, bad = the_shop(), []
    settled = Q(stage=Stage.CLOSED.value) & (Q(kept_as=KEPT_AS) | Q(lines__isnull=True))
    for row in whole_jobs().exclude(settled).order_by("pk").distinct().iterator(chunk_size=200):
        if row.returns:  # it may just have been made anew itself
            row.returns.refresh_from_db(fields=["bridged"])
        try:
            job = value_of(row)
            keep(row, state_of(job, economy_of(job, shop)), shop)
        except (SpindleError, LookupError, ValueError, TypeError) as error:
            row.waits_for = f"This job cannot be read: {error}"
            row.save(update_fields=["waits_for"])
            bad.append((row.tag, str(error)))
    return bad
