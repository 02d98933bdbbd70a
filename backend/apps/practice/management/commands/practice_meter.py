"""``manage.py practice_meter NAME``: a stand-in meter whose tips lie where that person has laid them on a practice unit. ``./dev meter --practice NAME``."""

from __future__ import annotations

import math
import threading
from collections.abc import Callable
from contextlib import suppress
from functools import partial
from typing import Any

import numpy as np
from apps.people.models import User
from apps.practice.selectors import tips_of
from devices.stand_in import StandIn
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connection

OVER = 9.9e37
"""What a meter answers that is over its range, and one whose tips lie nowhere and that is asked for ohms."""


def readings_of(username: str) -> dict[str, Callable[[], float]]:
    """Return what a meter reads for somebody, by quantity, each time it is asked: with tips that lie nowhere nothing, and open."""
    rng = np.random.default_rng()

    def reads(quantity: str) -> float:
        try:
            tips = tips_of(username)
        finally:
            connection.close()  # each asker has a thread of its own
        if tips is None:
            return OVER if quantity == "resistance" else 0.0
        value = tips.read(rng, quantity)
        return OVER if math.isinf(value) else value

    return {q: partial(reads, q) for q in ("voltage", "resistance", "current")}


class Command(BaseCommand):
    """Stand in for a meter on a practice unit."""

    help = "A meter that is not there, on loopback: it reads the practice unit that somebody has open, where the tips were laid last."

    def add_arguments(self, parser: CommandParser) -> None:
        """Declare the arguments."""
        parser.add_argument("name")
        parser.add_argument("--port", type=int, default=5025)

    def handle(self, *args: Any, **options: Any) -> None:
        """Run until it is stopped."""
        if not User.objects.filter(username=options["name"]).exists():
            raise CommandError(f"Nobody here signs in as {options['name']}.")
        with StandIn(readings_of(options["name"]), port=options["port"]) as server:
            self.stdout.write(f"A stand-in meter is at {server.address}: it reads the practice unit of {options['name']}. Ctrl-C stops it.")
            with suppress(KeyboardInterrupt):
                threading.Event().wait()
