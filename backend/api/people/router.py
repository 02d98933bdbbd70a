"""Signing in and out, and one's own password."""

from __future__ import annotations

import segno
from api.common import READS, WRITES, ProblemDocument, SignedIn
from api.people.schemas import AccountView, BegunFactorView, CodeIn, Me, OwnPasswordIn, PaperView, PasswordIn, Session, ShopView, SignedInView, SignIn
from api.problems import csrf_failure, locked_out
from apps.people.browsers import remember
from apps.people.permissions import allowed
from apps.people.second_factor import address_of, begin, factor_of, switch_on
from apps.people.services import change_own_password, drop_own_factor, sign_in, sign_out
from apps.people.sessions import end_others, sessions_of
from apps.refusals import NotAllowedError
from apps.shop.selectors import the_shop
from apps.shop.services.figures import clear_once_a_day
from django.db.transaction import atomic
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from django.utils import timezone
from ninja import Router
from ninja.security import django_auth
from ninja.utils import check_csrf

router = Router(tags=["session"])


def _session(request: HttpRequest) -> Session:
    user = request.user
    me = None
    if user.is_authenticated:
        me = Me(
            username=user.username,
            name=user.shown_name,
            role=user.role,
            may=sorted(a.name.lower() for a in allowed(user)),
            has_first_password=user.has_first_password,
        )
    return Session(user=me, csrf_token=get_token(request), shop=ShopView.model_validate(the_shop()))


@router.get("", response=Session, auth=None, operation_id="session")
def read(request: HttpRequest) -> Session:
    """Return who is signed in, and the token for writes."""
    return _session(request)


@router.post("", response={200: Session, 403: ProblemDocument, 422: ProblemDocument, 429: ProblemDocument}, auth=None, operation_id="sign_in")
def create(request: HttpRequest, response: HttpResponse, body: SignIn) -> Session | HttpResponse:
    """Sign in."""
    if check_csrf(request):
        return csrf_failure(request)
    try:
        user = sign_in(request, body.username, body.password, body.code)
    except NotAllowedError:
        if getattr(request, "axes_locked_out", False):
            return locked_out(request)
        raise
    remember(request, response, user.username)
    clear_once_a_day(timezone.now(), the_shop())
    return _session(request)


@router.delete("", response={200: Session, 401: ProblemDocument, 403: ProblemDocument}, auth=django_auth, operation_id="sign_out")
def delete(request: HttpRequest) -> Session:
    """Sign out."""
    sign_out(request)
    return _session(request)


@router.post("/password", response={200: Session, **WRITES}, auth=django_auth, operation_id="own_password")
def password(request: SignedIn, body: OwnPasswordIn) -> Session:
    """Change one's own password."""
    change_own_password(request, request.user, body.old, body.new)
    return _session(request)


@router.get("/account", response={200: AccountView, **READS}, operation_id="account")
def account(request: SignedIn) -> AccountView:
    """Return where one is signed in, and whether a second factor is on."""
    factor, own = factor_of(request.user), request.session.session_key
    seen = [SignedInView(device=s.device, began_at=s.began_at, is_this=s.session_key == own) for s in sessions_of(request.user)]
    return AccountView(sessions=seen, has_factor=factor is not None, on_paper=len(factor.recovery) if factor else 0)


@router.post("/account/end-others", response={200: AccountView, **WRITES}, operation_id="end_other_sessions")
def end_other_sessions(request: SignedIn) -> AccountView:
    """Sign out everywhere else."""
    end_others(request.user, request.session.session_key)
    return account(request)


@router.post("/account/factor", response={200: BegunFactorView, **WRITES}, operation_id="begin_factor")
def begin_factor(request: SignedIn) -> BegunFactorView:
    """Begin a second factor: a square to scan. It asks for nothing before its first code was right."""
    found = begin(request.user)
    square = segno.make_qr(address_of(found, the_shop().name), error="m").svg_data_uri(scale=4, border=4, dark="#1c2b2a", light="#fbfaf5")
    return BegunFactorView(square=square, secret=found.secret)


@router.post("/account/factor/on", response={200: PaperView, **WRITES}, operation_id="switch_factor_on")
def switch_factor_on(request: SignedIn, body: CodeIn) -> PaperView:
    """Switch the second factor on by its first code, and return the codes for paper, once."""
    with atomic():
        codes = switch_on(request.user, body.code)
    end_others(request.user, request.session.session_key)
    return PaperView(codes=codes)


@router.post("/account/factor/off", response={200: AccountView, **WRITES}, operation_id="switch_factor_off")
def switch_factor_off(request: SignedIn, body: PasswordIn) -> AccountView:
    """Switch the second factor off, by the password."""
    drop_own_factor(request, request.user, body.password)
    return account(request)
