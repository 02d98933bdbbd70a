"""Keeping the week worked out, and what closed jobs teach, in a process of its own that leaves the processor to answers."""

from __future__ import annotations

import logging
import os
import time
from typing import Final

from apps.day.services import draw_unseen, refresh
from apps.record.learning import taught
from django.db import DatabaseError, close_old_connections
from django.utils import timezone

LOOKS_S: Final = 2.0
"""Seconds between two looks: so old is the week at most beyond the time that it takes."""
AFTER_S: Final = 60.0
"""Seconds after a mistake of ours: it will be the same again."""
NICE: Final = 15
"""An answer at the bench is always nearer than the week."""
_log = logging.getLogger(__name__)


def keep_day(parent: int) -> None:
    """Work the week out whenever something has changed, and then what closed jobs teach, for as long as that parent lives.

    Whatever goes wrong is told, and tried again later.
    """
    os.nice(NICE)

    def goes_on() -> bool:
        return os.getppid() == parent

    while goes_on():
        close_old_connections()
        try:
            if not refresh(timezone.now(), goes_on) and not draw_unseen(goes_on):
                taught()
        except DatabaseError as error:  # it may be starting again
            _log.warning("the week was not worked out: %s", error)
        except Exception:
            _log.exception("the week was not worked out")  # nobody waits for it: the server must not go down with it
            time.sleep(AFTER_S)
        time.sleep(LOOKS_S)
