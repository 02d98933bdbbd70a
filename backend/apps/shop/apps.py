from django.apps import AppConfig


class ShopConfig(AppConfig):
    name = "apps.shop"
