"""Making report and receipt a PDF. Nothing is fetched: the fonts are the application's own files."""

from __future__ import annotations

from typing import Any

from apps.jobs.selectors import OpenJob
from apps.reports.selectors import receipt_of, report_of
from django.conf import settings
from django.template.loader import render_to_string
from weasyprint import HTML, URLFetcher


class _OwnFilesOnly(URLFetcher):  # type: ignore[misc]  # weasyprint ships no types
    """Refuses every address that is not one of our own built files or photos."""

    def fetch(self, url: str, headers: Any = None) -> Any:
        if not url.startswith((settings.FRONTEND_DIST.as_uri(), settings.PHOTOS.as_uri())):
            raise ValueError(f"the report does not fetch {url}")
        return super().fetch(url, headers)


def _font(name: str) -> str:
    """Return the address of a shipped font file, "" if the front end is not built."""
    found = sorted((settings.FRONTEND_DIST / "assets").glob(f"atkinson-hyperlegible-{name}-latin-wght-normal*.woff2"))
    return found[0].as_uri() if found else ""


def pdf_of(template: str, context: dict[str, Any]) -> bytes:
    """Return a template as a PDF in the application's own fonts."""
    html = render_to_string(template, {**context, "words": _font("next"), "figures": _font("mono")})
    pdf: bytes = HTML(string=html, url_fetcher=_OwnFilesOnly()).write_pdf()
    return pdf


def hand_back_pdf(shown: OpenJob) -> bytes:
    """Return the one-page report of a job as a PDF."""
    return pdf_of("reports/hand_back.html", {"r": report_of(shown)})


def receipt_pdf(shown: OpenJob) -> bytes:
    """Return the receipt of a unit that was handed in as a PDF."""
    return pdf_of("reports/receipt.html", {"r": receipt_of(shown)})
