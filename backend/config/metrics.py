"""Figures for whoever watches the machine, in the format of Prometheus: how long answers take, and how the house stands. Nobody's name is in them.

They are shown to who knows ``SPINDLE_METRICS_TOKEN``, and to nobody where none is set. Each worker counts in a file of its own
(``PROMETHEUS_MULTIPROC_DIR``), and whichever is asked adds all of them up.
"""

from __future__ import annotations

import secrets
import time
from collections.abc import Callable, Iterator
from typing import Final

from apps.day.models import WeekPlan
from apps.jobs.models import Job
from django.conf import settings
from django.db import DatabaseError
from django.http import Http404, HttpRequest, HttpResponse
from django.utils import timezone
from django.views.decorators.http import require_safe
from prometheus_client import CONTENT_TYPE_LATEST, CollectorRegistry, Histogram, generate_latest
from prometheus_client.core import GaugeMetricFamily, Metric
from prometheus_client.multiprocess import MultiProcessCollector
from prometheus_client.registry import Collector
from spindle.job.stages import Stage

BUCKETS: Final = (0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1.0, 2.5, 5.0, 10.0)
METHODS: Final = frozenset({"GET", "HEAD", "POST", "DELETE"})
"""A caller may send any word as its method: each would be a series of its own, for ever."""
_TOOK: Final = Histogram("spindle_request_seconds", "How long answers take", ("route", "method", "status"), buckets=BUCKETS)


class Metrics:
    """Counts every answer by the route that gave it, never by its address: addresses hold tags and secrets."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self._get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer, and count."""
        begun = time.perf_counter()
        answer = self._get_response(request)
        match = request.resolver_match
        route = match.route if match is not None else "nowhere"
        _TOOK.labels(route, request.method if request.method in METHODS else "other", f"{answer.status_code // 100}xx").observe(time.perf_counter() - begun)
        return answer


class _House(Collector):
    """What is asked of the database when somebody asks."""

    def collect(self) -> Iterator[Metric]:
        """Yield how many jobs are open, and how old the week is."""
        try:
            yield GaugeMetricFamily("spindle_open_jobs", "Jobs in the house", value=Job.objects.exclude(stage=Stage.CLOSED.value).count())
            at = WeekPlan.objects.filter(pk=1).values_list("computed_at", flat=True).first()
        except DatabaseError:
            return
        if at is not None:
            yield GaugeMetricFamily("spindle_week_age_seconds", "How long ago the week was worked out", value=(timezone.now() - at).total_seconds())


@require_safe
def metrics(request: HttpRequest) -> HttpResponse:
    """Return the figures of all workers."""
    token = settings.METRICS_TOKEN
    told = request.headers.get("Authorization", "").removeprefix("Bearer ")
    if not token or not secrets.compare_digest(told.encode(), token.encode()):
        raise Http404
    registry = CollectorRegistry()
    MultiProcessCollector(registry)  # type: ignore[no-untyped-call]  # the library says nothing of its types there
    registry.register(_House())
    return HttpResponse(generate_latest(registry), content_type=CONTENT_TYPE_LATEST)
