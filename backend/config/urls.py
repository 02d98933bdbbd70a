"""Addresses: the interface's data under /api/, files at the top by their name, everything else is the single page."""

from __future__ import annotations

from api.main import api
from config.spa import spa
from django.urls import path, re_path

urlpatterns = [path("api/", api.urls), re_path(r"^(?!api/|static/|assets/|[^/]*\.[^/]*$)", spa)]
handler404 = "api.problems.not_found"
handler500 = "api.problems.broken"
