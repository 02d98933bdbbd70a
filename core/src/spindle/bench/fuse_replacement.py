"""Which fuse may replace which. A bridge is never offered (trap T26)."""

from __future__ import annotations

import re

from spindle.drives.fuse import Fuse, parse_fuse
from spindle.errors import RefusedError, SheetError


def check_replacement(fitted: str, required: str) -> Fuse:
    """Return the fuse that is about to be fitted, if it may be.

    Raises
    ------
    RefusedError
        If it is a bridge, its rating is unknown, or it is larger, smaller or of another speed than the sheet's. A larger
        or slower one, or a wire, lets the next short burn the board instead of the fuse; a smaller one blows for nothing.
        Or if the sheet gives volts and it gives fewer or none: a fuse above its rated volts may arc on instead of parting
        the circuit (IEC 60127-1). More volts are no harm.
    """
    rule = parse_fuse(required)
    want = f"the sheet asks for {rule.rated_a:g} A {rule.speed}{f' {rule.rated_v} V' if rule.rated_v else ''}"
    if not fitted.strip():
        raise RefusedError(f"A fuse of unknown rating is not fitted: {want}. Measure or read it, or take one from a marked bag.", rule="T26")
    if re.search(r"bridg|wire|foil|solder|jumper|link", fitted, re.IGNORECASE):
        raise RefusedError(f"A bridge in place of a fuse is refused, always: {want}.", rule="T26")
    try:
        fuse = parse_fuse(fitted)
    except SheetError as error:
        raise RefusedError(f"{fitted!r} gives no rating and speed: {want}.", rule="T26") from error
    if (fuse.rated_a, fuse.speed) != (rule.rated_a, rule.speed):
        kind = "larger" if fuse.rated_a > rule.rated_a else "smaller" if fuse.rated_a < rule.rated_a else "of another speed"
        raise RefusedError(f"{fitted} is {kind}: {want}.", rule="T26")
    if fuse.rated_v < rule.rated_v:
        raise RefusedError(f"{fitted} gives {'fewer' if fuse.rated_v else 'no'} volts: {want}.", rule="T26")
    return fuse
