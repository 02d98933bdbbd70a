from django.apps import AppConfig


class TagsConfig(AppConfig):
    name = "apps.tags"
