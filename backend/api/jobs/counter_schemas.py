"""What goes over the wire of a job that the counter says: told, paid, came back; and who looks at it."""

from __future__ import annotations

from datetime import datetime

from api.common import View


class ToldView(View):
    """The owner was told something, or could not be reached."""

    at: datetime
    by: str
    means: str
    what: str


class PaidView(View):
    """What was paid in all."""

    cents: int
    how: str
    at: datetime
    by: str


class PulseView(View):
    """The version that a job has now, and who else has it on their screen."""

    version: int
    others: list[str]


class ReturnView(View):
    """The unit came back after an earlier job."""

    tag: str
    is_covered: bool
    """The same fault inside the guarantee: the owner pays nothing."""
