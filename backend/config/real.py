"""Settings of a real shop behind a proxy that speaks TLS. They refuse to be used half-set: see docs/howto/run-a-shop.md."""

from __future__ import annotations

import os

from config.settings import *  # noqa: F403  # a settings module is made of its names
from config.settings import LOGGING, SILENCED_SYSTEM_CHECKS
from django.core.exceptions import ImproperlyConfigured


def _wanted(name: str, what: str) -> str:
    value = os.environ.get(name, "").strip()
    if not value:
        raise ImproperlyConfigured(f"{name} is not set: {what}. See docs/howto/run-a-shop.md.")
    return value


IS_REAL = True
ALLOWED_HOSTS = _wanted("SPINDLE_HOSTS", "the names under which the shop is reached, as shop.example").split()
if "*" in ALLOWED_HOSTS:
    raise ImproperlyConfigured("SPINDLE_HOSTS is *: name the hosts, or owners' pages could be made for any address.")
CSRF_TRUSTED_ORIGINS = [f"https://{host}" for host in ALLOWED_HOSTS]
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
SECURE_SSL_REDIRECT = True
SECURE_REDIRECT_EXEMPT = [r"^health$", r"^ready$", r"^metrics$"]
SECURE_HSTS_SECONDS = 365 * 24 * 3600
SILENCED_SYSTEM_CHECKS = [*SILENCED_SYSTEM_CHECKS, "security.W005", "security.W021"]  # what else lives under the shop's domain is not ours to bind to TLS
SESSION_COOKIE_SECURE = True
CSRF_COOKIE_SECURE = True
SESSION_COOKIE_NAME = "__Host-session"
CSRF_COOKIE_NAME = "__Host-csrf"
AXES_IPWARE_PROXY_COUNT = 1
AXES_IPWARE_META_PRECEDENCE_ORDER = ["HTTP_X_FORWARDED_FOR", "REMOTE_ADDR"]
LOGGING = {**LOGGING, "formatters": {"json": {"()": "config.logs.AsJson"}}, "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "json"}}}
