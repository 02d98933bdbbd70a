"""Signing in and out, and one's own password."""

from __future__ import annotations

from api.common import WRITES, ProblemDocument, SignedIn
from api.people.schemas import Me, OwnPasswordIn, Session, ShopView, SignIn
from api.problems import csrf_failure, locked_out
from apps.people.browsers import remember
from apps.people.permissions import allowed
from apps.people.services import change_own_password, sign_in, sign_out
from apps.refusals import NotAllowedError
from apps.shop.selectors import the_shop
from apps.shop.services.figures import clear_once_a_day
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
        user = sign_in(request, body.username, body.password)
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
