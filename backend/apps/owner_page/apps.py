"""The owner's page."""

from __future__ import annotations

from django.apps import AppConfig


class OwnerPageConfig(AppConfig):
    """A page for whoever owns the unit, without signing in."""

    name = "apps.owner_page"
