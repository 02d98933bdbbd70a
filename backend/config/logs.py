"""Logs as one JSON object a line: what, where, since when; never what somebody typed, and no owner's name."""

from __future__ import annotations

import json
import logging
from datetime import UTC, datetime
from typing import Any


class AsJson(logging.Formatter):
    """A log record as JSON. Of an error it tells the kind and the places in our code, not its words: those may quote a row."""

    def format(self, record: logging.LogRecord) -> str:
        """Return the line."""
        told: dict[str, Any] = {
            "at": datetime.fromtimestamp(record.created, UTC).isoformat(timespec="milliseconds"),
            "level": record.levelname.lower(),
            "from": record.name,
            "says": record.getMessage(),
            "process": record.process,
        }
        if record.exc_info and record.exc_info[0] is not None:
            told["error"] = record.exc_info[0].__name__
            told["places"] = _places(record)
        return json.dumps(told, default=str)


def _places(record: logging.LogRecord) -> list[str]:
    at, found = record.exc_info[2] if record.exc_info else None, []
    while at is not None:
        found.append(f"{at.tb_frame.f_code.co_filename}:{at.tb_lineno}")
        at = at.tb_next
    return found[-12:]
