"""A second factor for whoever wants one, and above all for who runs the shop: codes of half a minute, and some on paper."""

from __future__ import annotations

import secrets
from datetime import datetime
from typing import Final

import pyotp
from apps.people.models import SecondFactor, User
from apps.refusals import NotAllowedError
from django.utils import timezone
from django.utils.crypto import salted_hmac
from spindle.errors import NotNowError

STEP_S: Final = 30
DRIFT: Final = 1
"""A clock may be off by one step either way."""
ON_PAPER: Final = 8


def factor_of(user: User) -> SecondFactor | None:
    """Return somebody's second factor if it is on."""
    return SecondFactor.objects.filter(user=user, is_on=True).first()


def begin(user: User) -> SecondFactor:
    """Make a new secret for somebody; it asks for nothing before the first code was right.

    Raises
    ------
    NotNowError
        If one is on: it is switched off first.
    """
    if factor_of(user) is not None:
        raise NotNowError("A second factor is on already. Switch it off first.", reason="factor_on")
    found, _ = SecondFactor.objects.update_or_create(user=user, defaults={"secret": pyotp.random_base32(), "last_step": 0, "recovery": []})
    return found


def address_of(factor: SecondFactor, shop: str) -> str:
    """Return what an authenticator scans."""
    return pyotp.TOTP(factor.secret).provisioning_uri(name=factor.user.username, issuer_name=shop or "Tidy Spindle")


def switch_on(user: User, code: str) -> list[str]:
    """Switch it on by its first code, and return the codes for paper: they are shown once.

    Raises
    ------
    NotNowError
        If nothing was begun.
    NotAllowedError
        If the code is wrong.
    """
    factor = SecondFactor.objects.select_for_update().filter(user=user, is_on=False).first()
    if factor is None:
        raise NotNowError("Scan the square first: there is nothing to switch on.", reason="no_factor")
    if not takes(factor, code, timezone.now()):
        raise NotAllowedError("That code is not right. Codes change every half minute: take the one that shows now.", reason="code")
    codes = [f"{secrets.token_hex(3)}-{secrets.token_hex(3)}" for _ in range(ON_PAPER)]
    factor.is_on, factor.recovery = True, [_hash(c) for c in codes]
    factor.save(update_fields=["is_on", "recovery"])
    return codes


def drop(user: User) -> bool:
    """Switch somebody's second factor off and forget it; tell whether there was one."""
    return SecondFactor.objects.filter(user=user).delete()[0] > 0


def takes(factor: SecondFactor, code: str, now: datetime) -> bool:
    """Tell whether a code is the one of now, or one from paper; either is good once."""
    told = code.replace(" ", "").lower()
    step = next((s for s in _steps(now) if secrets.compare_digest(pyotp.TOTP(factor.secret).generate_otp(s).encode(), told.encode())), None)
    if step is not None:
        return SecondFactor.objects.filter(pk=factor.pk, last_step__lt=step).update(last_step=step) == 1
    left = [h for h in factor.recovery if not secrets.compare_digest(h, _hash(told))]
    if len(left) == len(factor.recovery):
        return False
    return SecondFactor.objects.filter(pk=factor.pk, recovery=factor.recovery).update(recovery=left) == 1


def _hash(code: str) -> str:
    """Return what is kept of a code on paper: it is long and random, so a keyed digest is enough, and nobody waits for eight slow ones."""
    return salted_hmac("second factor on paper", code).hexdigest()


def _steps(now: datetime) -> range:
    at = int(now.timestamp()) // STEP_S
    return range(at - DRIFT, at + DRIFT + 1)
