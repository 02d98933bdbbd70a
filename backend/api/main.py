"""The API: thin routers over services and selectors."""

from __future__ import annotations

from typing import Any

from api.common import settled
from api.day.router import router as day
from api.drives.router import router as drives
from api.exchange.router import router as exchange
from api.jobs.house_router import router as house
from api.jobs.owner_page_router import router as owner_page
from api.jobs.router import router as job
from api.measuring.router import router as measuring
from api.people.router import router as people
from api.photos.router import router as photos
from api.practice.router import router as practice
from api.problems import PROBLEM, add_handlers
from api.record.router import router as record
from api.shelf.list_router import router as shelf_list
from api.shelf.order_router import router as shelf_orders
from api.shelf.router import router as shelf
from api.shop.router import router as shop
from api.sounds.router import router as sounds
from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema


class _Api(NinjaAPI):
    """An API whose schema says what really goes over the wire: problems as problem+json, files as what they are."""

    def get_openapi_schema(self, **settings: Any) -> OpenAPISchema:
        """Return the schema."""
        schema = super().get_openapi_schema(**settings)
        for operations in schema["paths"].values():
            for operation in operations.values():
                for answer in operation["responses"].values():
                    _name_content(answer, own=_CONTENT.get(operation["operationId"], ""))
        return schema


_CONTENT = {
    **dict.fromkeys(("report", "receipt", "labels"), "application/pdf"),
    "label": "image/svg+xml",
    "photo": "image/jpeg",
    "sound": "audio/wav",
    "sound_picture": "image/png",
    **dict.fromkeys(("sheet_table", "console_table"), "text/csv"),
    "calendar_file": "text/calendar",
    **dict.fromkeys(("archive", "job_archive"), "application/zip"),
    **dict.fromkeys(("record_months_table", "record_learning_table", "shelf_table", "orders_table"), "text/csv"),
}
"""Operations that answer with a file."""


def _name_content(answer: dict[str, Any], *, own: str) -> None:
    content = answer.get("content", {})
    if content.get("application/json", {}).get("schema", {}).get("$ref", "").endswith("/ProblemDocument"):
        answer["content"] = {PROBLEM: content["application/json"]}
    elif own:
        answer["content"] = {own: {"schema": {"type": "string", "format": "binary"}}}


api = _Api(title="Tidy Spindle", version="1", docs_url=None, auth=settled, urls_namespace="api")
add_handlers(api)
api.add_router("/jobs/{tag}", job)  # first: an address is looked for in this order, and an answer at the bench is what is waited for
api.add_router("/jobs/{tag}", owner_page)
api.add_router("/session", people)
for router in (house, drives, shelf_list, shelf_orders, shelf, shop, measuring, photos, sounds, practice, day, record, exchange):
    api.add_router("", router)
