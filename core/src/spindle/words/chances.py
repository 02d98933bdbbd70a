"""A chance in words, by one rule wherever it is said."""

from __future__ import annotations


def percent(p: float) -> str:
    """Return a probability as it is said: in whole percent, and never as certain.

    Examples
    --------
    >>> percent(0.534), percent(0.002), percent(0.999)
    ('53%', '<1%', '>99%')
    """
    return "<1%" if p < 0.01 else ">99%" if p > 0.99 else f"{round(100 * p)}%"
