"""The API: thin routers over services and selectors."""

from __future__ import annotations

from typing import Any

from api.errors import PROBLEM, add_handlers
from api.routers import bench, drives, jobs, session
from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema
from ninja.security import django_auth


class _Api(NinjaAPI):
    """An API whose schema says what really goes over the wire: problems as problem+json, the report as a PDF."""

    def get_openapi_schema(self, **settings: Any) -> OpenAPISchema:
        """Return the schema."""
        schema = super().get_openapi_schema(**settings)
        for operations in schema["paths"].values():
            for operation in operations.values():
                for answer in operation["responses"].values():
                    _name_content(answer, is_report=operation["operationId"] == "report")
        return schema


def _name_content(answer: dict[str, Any], *, is_report: bool) -> None:
    content = answer.get("content", {})
    if content.get("application/json", {}).get("schema", {}).get("$ref", "").endswith("/Problem"):
        answer["content"] = {PROBLEM: content["application/json"]}
    elif is_report:
        answer["content"] = {"application/pdf": {"schema": {"type": "string", "format": "binary"}}}


api = _Api(title="Tidy Spindle", version="1", docs_url=None, auth=django_auth, urls_namespace="api")
add_handlers(api)
api.add_router("/session", session.router)
api.add_router("", jobs.router)
api.add_router("", drives.router)
api.add_router("/jobs/{tag}", bench.router)
