"""Money in words. Amounts are whole cents of the shop's own currency."""

from __future__ import annotations

from types import MappingProxyType
from typing import Final

SYMBOLS: Final = MappingProxyType({"EUR": "€", "GBP": "£", "USD": "$", "JPY": "¥", "CHF": "CHF", "SEK": "kr", "PLN": "zł"})
"""Signs of common currencies; any other is written with its own three letters."""


def sign_of(currency: str) -> str:
    """Return the sign of a currency by its three letters (ISO 4217).

    Examples
    --------
    >>> sign_of("EUR"), sign_of("NOK")
    ('€', 'NOK')
    """
    return SYMBOLS.get(currency, currency)


def money(cents: int, sign: str) -> str:
    """Return an amount to the cent, as it is written on a bill.

    Examples
    --------
    >>> money(3330, "€"), money(500, "CHF")
    ('€33.30', 'CHF 5.00')
    """
    return f"{sign}{' ' if sign.isalpha() and len(sign) > 1 else ''}{cents / 100:.2f}"


def rounded(amount: float, sign: str) -> str:
    """Return an amount without its cents, as it is said.

    Examples
    --------
    >>> rounded(41.7, "€")
    '42 €'
    """
    return f"{amount:.0f} {sign}"
