"""The API: thin routers over services and selectors."""

from __future__ import annotations

from ninja import NinjaAPI
from ninja.security import django_auth

from api.errors import add_handlers
from api.routers import bench, jobs, session

api = NinjaAPI(title="Tidy Spindle", version="1", docs_url=None, auth=django_auth, urls_namespace="api")
add_handlers(api)
api.add_router("/session", session.router)
api.add_router("", jobs.router)
api.add_router("/jobs/{tag}", bench.router)
