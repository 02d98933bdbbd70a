"""Addresses: the interface's data under /api/, files at the top by their name, everything else is the single page."""

from __future__ import annotations

from api.main import api
from apps.day.views import calendar
from apps.owner_page.views import owner_page
from config.health import health, ready
from config.metrics import metrics
from config.spa import spa
from django.urls import path, re_path

urlpatterns = [
    path("api/", api.urls),
    path("health", health),
    path("ready", ready),
    path("metrics", metrics),
    path("o/<str:secret>", owner_page),
    path("c/<str:secret>.ics", calendar),
    re_path(r"^(?!api/|static/|assets/|[^/]*\.[^/]*$)", spa),
]
handler404 = "api.problems.not_found"
handler500 = "api.problems.broken"
