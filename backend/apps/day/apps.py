"""The day app."""

from __future__ import annotations

from django.apps import AppConfig


class DayConfig(AppConfig):
    """In which order jobs are done, and what may be promised."""

    name = "apps.day"
