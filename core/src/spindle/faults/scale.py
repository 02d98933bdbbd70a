"""Where the numbers of the fault models come from.

They are invented, by us, for invented drives: judgements in whole percent by the rules of thumb below, so that each can
be argued with at a bench and replaced by a shop's own counts. Nobody can tell 72 from 75 percent at a bench; a scale of
seven steps costs a few percent more than exact numbers, so the step matters and the last digit does not.

===========  =======  ==============================================
step         percent  a technician would say
===========  =======  ==============================================
never        0 to 1   "I have not seen that" (still floored, see below)
rare         2 to 5   "once in a year of these"
seldom       6 to 15  "it happens"
sometimes    16 to 35 "one in four"
even         36 to 60 "could be either"
mostly       61 to 88 "usually"
always       89 to 99 "if not, I doubt the look, not the fault"
===========  =======  ==============================================
"""

from typing import Final

ROW_FLOOR: Final = 0.004
"""Least chance of any answer given any fault: no single answer may rule a fault out for good (one look in 250 is
simply wrong, on top of the unreliability of the source)."""
NEVER_FLOOR: Final = 0.001
"""The same where a row says 0: what physics forbids (a motor that runs behind an open fuse) is seen by mistake alone."""
