"""Settings of the one process that serves the application on loopback."""

from __future__ import annotations

import os
import secrets
from pathlib import Path
from typing import Any
from urllib.parse import unquote, urlsplit

from csp.constants import NONE, SELF, UNSAFE_INLINE

ROOT = Path(__file__).resolve().parents[2]
STATE = Path(os.environ.get("SPINDLE_STATE", ROOT / ".data"))
PHOTOS = STATE / "photos"
SOUNDS = STATE / "sounds"
FRONTEND_DIST = ROOT / "web" / "dist"
DEMO = ROOT / "demo"


def _secret() -> str:
    """Return the key of this checkout, made at the first start and readable by its owner alone."""
    file = STATE / "secret-key"
    if not file.exists() or not file.stat().st_size:  # an interrupted first start leaves no half of one
        STATE.mkdir(parents=True, exist_ok=True)
        new = file.with_suffix(f".{os.getpid()}")
        new.touch(mode=0o600)
        new.write_text(secrets.token_urlsafe(50), encoding="ascii")
        new.replace(file)
    return file.read_text(encoding="ascii")


SECRET_KEY = _secret()
DEBUG = False
IS_REAL = False
"""Whether this is a shop with customers: see config/real.py."""
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]", "testserver"]
INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.postgres",
    "django.contrib.sessions",
    "axes",
    "csp",
    "ninja",
    "apps.people",
    "apps.writing",
    "apps.shop",
    "apps.drives",
    "apps.photos",
    "apps.sounds",
    "apps.shelf",
    "apps.jobs",
    "apps.owner_page",
    "apps.day",
    "apps.record",
    "apps.practice",
    "apps.tags",
    "apps.reports",
    "apps.exchange",
    "apps.demo",
]
MIDDLEWARE = [
    "config.metrics.Metrics",
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]
APPEND_SLASH = False
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]


def _database(url: str) -> dict[str, Any]:
    told = urlsplit(url)
    return {
        "ENGINE": "django.db.backends.postgresql",
        "NAME": told.path.lstrip("/"),
        "USER": told.username,
        "PASSWORD": unquote(told.password or ""),
        "HOST": told.hostname,
        "PORT": told.port,
        "CONN_MAX_AGE": 60,
        "CONN_HEALTH_CHECKS": True,
    }


DATABASES = {"default": _database(os.environ.get("DATABASE_URL", "postgresql://app@127.0.0.1:54329/app"))}
HAS_COPY = bool(os.environ.get("SPINDLE_COPY_URL"))
"""Whether a read replica follows the database: see apps/writing/copy.py."""
if HAS_COPY:
    DATABASES["copy"] = _database(os.environ["SPINDLE_COPY_URL"])
    DATABASE_ROUTERS = ["apps.writing.copy.Router"]
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
USE_TZ = True
TIME_ZONE = "UTC"
LANGUAGE_CODE = "en-gb"

AUTH_USER_MODEL = "people.User"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
PASSWORD_HASHERS = ["django.contrib.auth.hashers.ScryptPasswordHasher"]
_RULES = "django.contrib.auth.password_validation"
AUTH_PASSWORD_VALIDATORS: list[dict[str, object]] = [
    {"NAME": f"{_RULES}.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": f"{_RULES}.CommonPasswordValidator"},
    {"NAME": f"{_RULES}.NumericPasswordValidator"},
    {"NAME": f"{_RULES}.UserAttributeSimilarityValidator"},
]
SESSION_ENGINE = "apps.people.sessions"
SESSION_COOKIE_AGE = 12 * 60 * 60  # a long bench day
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SECURE = False
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
CSRF_FAILURE_VIEW = "api.problems.csrf_failure"
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = 0.25  # hours
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_USERNAME_CALLABLE = "apps.people.browsers.counted_name"
AXES_LOCKOUT_CALLABLE = "api.problems.locked_out"
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False
SILENCED_SYSTEM_CHECKS = ["axes.W003"]

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "script-src": [SELF],
        "media-src": [SELF, "blob:"],  # a recording is replayed before it is sent
        # React and Radix set style attributes (bar widths, scroll lock); no style can run code under this script policy
        "style-src": [SELF, UNSAFE_INLINE],
        "img-src": [SELF, "data:"],
        "object-src": [NONE],
        "base-uri": [SELF],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
    }
}
X_FRAME_OPTIONS = "DENY"
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"

METRICS_TOKEN = os.environ.get("SPINDLE_METRICS_TOKEN", "").strip()
"""Who knows it may read how long answers take; where none is set, nobody may."""
METRICS = STATE / "metrics"
METRICS.mkdir(parents=True, exist_ok=True)
os.environ.setdefault("PROMETHEUS_MULTIPROC_DIR", str(METRICS))

LOOKS_APART = False
"""A process beside the workers makes the deeper looks: the server says so as it starts it. Elsewhere whoever asks for one makes it."""

STATIC_URL = "/static/"
WHITENOISE_ROOT = FRONTEND_DIST if FRONTEND_DIST.exists() else None
WHITENOISE_MAX_AGE = 3600
DATA_UPLOAD_MAX_MEMORY_SIZE = 1_000_000


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # noqa: N802  # the setting's own name
    """Tell whether a file may be cached for good: the build puts a hash into every name under /assets/."""
    return url.startswith("/assets/")


LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
