from django.apps import AppConfig


class WritingConfig(AppConfig):
    name = "apps.writing"
