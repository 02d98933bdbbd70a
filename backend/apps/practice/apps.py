"""The practice app."""

from __future__ import annotations

from django.apps import AppConfig


class PracticeConfig(AppConfig):
    """Simulated units that people learn on: nothing of them is a job."""

    name = "apps.practice"
