"""The page itself: plain HTML without a script, no cookie, nothing from outside, in no index. It shows one job's proposal and no other's."""

from __future__ import annotations

from typing import Final

from apps.owner_page.models import OwnerPage
from apps.owner_page.selectors import Standing, page_by, standing_of
from apps.owner_page.services import OwnerAnswer, answer_page, note_seen
from apps.shop.selectors import the_shop
from apps.writing.limiting import is_guessing
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils import timezone
from django.views.decorators.csrf import csrf_exempt
from django.views.decorators.http import require_http_methods
from spindle.errors import InvalidError, NotNowError, SpindleError

HEADERS: Final = {
    "Content-Security-Policy": "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'",
    "Referrer-Policy": "no-referrer",
    "X-Robots-Tag": "noindex, nofollow, noarchive",
    "Cache-Control": "no-store",
}
LONGEST: Final = {"by_name": 120, "text": 2_000, "repair": 40}
_SAYS: Final = {
    Standing.ANSWERED: "Your answer is with the shop. Thank you.",
    Standing.ENDED: "This offer has ended. Please call the shop: it will make you a new one.",
    Standing.WITHDRAWN: "The shop has gone on since this page was made. Please use the newer page, or call.",
}


@csrf_exempt  # the secret in the address is all that is needed, and no cookie adds to it: nothing can be forged that is not known
@require_http_methods(["GET", "HEAD", "POST"])
def owner_page(request: HttpRequest, secret: str) -> HttpResponse:
    """Show a page, or take its answer."""
    page = page_by(secret)
    if page is None:
        status = 429 if is_guessing(request.META.get("REMOTE_ADDR", "")) else 404
        return _page(request, {"says": "There is no such page. Please check the address, or call the shop."}, status)
    if request.method == "POST":
        return _answered(request, page)
    standing = standing_of(page, timezone.now())
    if standing is not Standing.OPEN:
        return _page(request, {"says": _SAYS[standing]}, 200)
    note_seen(page)
    return _page(request, {"told": page.told, "tag": page.job.tag, "ends_on": page.ends_at}, 200)


def _answered(request: HttpRequest, page: OwnerPage) -> HttpResponse:
    given = {name: request.POST.get(name, "").replace("\x00", "")[:most] for name, most in LONGEST.items()}
    choice, _, repair = request.POST.get("choice", "").partition(":")
    told = {"told": page.told, "tag": page.job.tag, "ends_on": page.ends_at, "given": given, "choice": request.POST.get("choice", "")}
    if choice not in ("yes", "no", "another", "question"):
        return _page(request, told | {"wrong": "Please pick one of the answers."}, 422)
    try:
        answer_page(page, OwnerAnswer(choice, given["by_name"], given["text"], repair[:40]))  # type: ignore[arg-type]  # looked at above
    except InvalidError as error:
        return _page(request, told | {"wrong": error.message}, 422)
    except NotNowError:
        return _page(request, {"says": _SAYS.get(standing_of(page_now(page), timezone.now()), _SAYS[Standing.WITHDRAWN])}, 409)
    except SpindleError:
        return _page(request, told | {"wrong": "The shop was writing to your job just now. Please send it once more."}, 409)
    return _page(request, {"says": _SAYS[Standing.ANSWERED]}, 200)


def page_now(page: OwnerPage) -> OwnerPage:
    """Return a page as it stands now."""
    return OwnerPage.objects.select_related("job__sheet", "job__returns").get(pk=page.pk)


def _page(request: HttpRequest, context: dict[str, object], status: int) -> HttpResponse:
    shop = the_shop()
    answer = render(request, "owner_page/page.html", {"shop": shop} | context, status=status)
    for name, value in HEADERS.items():
        answer[name] = value
    return answer
