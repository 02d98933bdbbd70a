"""How long a repair holds: a second chance beside the one that it works at all (C67).

The time until the same fault is back is log-normal, as for what wears, fatigues or corrodes: few come back early, half by the median.

References
----------
.. [1] W. Q. Meeker, L. A. Escobar, *Statistical Methods for Reliability Data*, Wiley 1998, ch. 4.
"""

from __future__ import annotations

from typing import Final

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.special import ndtr

SPREAD: Final = 0.5
"""Standard deviation of the log of the time: wear-out, as a Weibull of shape 2.5; of ordinary repairs 2 to 8 in a hundred are then back within a
year. Invented."""
USED_SHARE: Final = 0.5
"""What a donor's part has left of the life of a new one, on average: it failed nobody yet, and is about as old as the one that did. Invented."""
YEAR_MONTHS: Final = 12.0


def well_after(median_months: ArrayLike, months: float = YEAR_MONTHS) -> NDArray[np.float64]:
    """Return P(still well after that many months | it worked), of the shape of the medians.

    Examples
    --------
    >>> well_after([36.0, 12.0, 4.0]).round(2)
    array([0.99, 0.5 , 0.01])
    """
    return np.asarray(ndtr(np.log(np.asarray(median_months, dtype=float) / months) / SPREAD))
