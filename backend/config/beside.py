"""What runs beside the workers, each in a process of its own that leaves the processor to answers."""

from __future__ import annotations

import logging
import os
import time
from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

from django.db import DatabaseError, close_old_connections

AFTER_S: Final = 60.0
"""Seconds after a mistake of ours: it will be the same again."""
_log = logging.getLogger(__name__)


@dataclass(frozen=True)
class Beside:
    """A task that goes on for as long as the server does.

    Attributes
    ----------
    what : what was not done, in the log, when something goes wrong
    nice : how far it stands back behind answers, as nice(2) has it
    pause_s : seconds between two looks at whether there is something to do
    do : does what there is; it is told whether to go on
    rests : it rests so many times as long as it worked, where that is longer than ``pause_s``: of a core that answers want it takes no more than its share
    """

    what: str
    nice: int
    pause_s: float
    do: Callable[[Callable[[], bool]], None]
    rests: float = 0.0

    def run(self, parent: int) -> None:
        """Do it again and again for as long as that parent lives. Whatever goes wrong is told, and tried again later."""
        os.nice(self.nice)

        def goes_on() -> bool:
            return os.getppid() == parent

        while goes_on():
            close_old_connections()
            begun = time.monotonic()
            is_well = self._did(goes_on)
            time.sleep(max(self.pause_s, self.rests * (time.monotonic() - begun)) if is_well else AFTER_S)

    def _did(self, goes_on: Callable[[], bool]) -> bool:
        """Do what there is; False after a mistake of ours."""
        try:
            self.do(goes_on)
        except DatabaseError as error:  # it may be starting again
            _log.warning("%s: %s", self.what, error)
        except Exception:
            _log.exception(self.what)  # nobody waits for it: the server must not go down with it
            return False
        return True
