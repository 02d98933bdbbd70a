"""The track record."""

from __future__ import annotations

from django.apps import AppConfig


class RecordConfig(AppConfig):
    """The track record."""

    name = "apps.record"
