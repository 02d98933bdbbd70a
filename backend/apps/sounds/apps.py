"""The sounds app."""

from __future__ import annotations

from django.apps import AppConfig


class SoundsConfig(AppConfig):
    """Recordings of drives."""

    name = "apps.sounds"
