"""The photos app."""

from __future__ import annotations

from django.apps import AppConfig


class PhotosConfig(AppConfig):
    """Pictures that the bench takes."""

    name = "apps.photos"
