"""Which jobs hold some words: every word typed has to be in it somewhere, a slip of the keys allowed for."""

from __future__ import annotations

import re
from functools import reduce
from operator import and_
from typing import Final

from apps.jobs.models import Job
from django.contrib.postgres.search import SearchQuery, SearchVector, TrigramWordSimilarity
from django.db.models import F, Func, Q, QuerySet, TextField, Value
from django.db.models.functions import Concat, Lower

LEAST_ALIKE: Final = 0.55
"""Share of a word's three-letter groups that have to be found together: "vesmark" finds "Vessmark" (0.63), "orla" does not find "Orlo" in a name."""
LEAST_LETTERS: Final = 5
"""Shorter words are taken as they stand: half of three groups is chance."""
MOST_WORDS: Final = 6
_TAG: Final = re.compile(r"^([kpdo])-?(\d{1,6})$")
_NUMBER: Final = re.compile(r"[\d\s()+./-]+")
_OWNER: Final = ("owner_name", "owner_contact")
_UNIT: Final = ("tag", "sheet__maker", "sheet__console", "sheet__revision", "sheet__variant", *_OWNER, "complaint")


def digits_of(field: str) -> Func:
    """Return the digits of a field alone: phone numbers are typed in many ways."""
    return Func(F(field), Value("[^0-9]"), Value(""), Value("g"), function="regexp_replace", output_field=TextField())


def text_of(fields: tuple[str, ...]) -> Lower:
    """Return some fields as one text in small letters."""
    parts = [x for f in fields for x in (F(f), Value(" "))]
    return Lower(Concat(*parts, output_field=TextField()))


def words_of(typed: str) -> list[str]:
    """Return the words of what somebody typed, in small letters, each once; a tag as it is printed, however it was typed."""
    return list(dict.fromkeys(_TAG.sub(lambda m: f"{m[1]}-{int(m[2]):04d}", w) for w in typed.lower().split()))[:MOST_WORDS]


def alike(word: str, text: str) -> Q:
    """Return what holds where a word stands in a text, or nearly so."""
    exact = Q(**{f"{text}__contains": word})
    return exact | Q(**{f"like_{_name(word)}__gte": LEAST_ALIKE}) if _may_slip(word) else exact


def _may_slip(word: str) -> bool:
    """Letters are slipped, and a number that is nearly right is another one."""
    return len(word) >= LEAST_LETTERS and word.isalpha()


def _name(word: str) -> str:
    return word.encode().hex()


def with_alike(rows: QuerySet, words: list[str], text: str) -> QuerySet:  # type: ignore[type-arg]  # of any model
    """Return rows with how alike each longer word is to their text, for :func:`alike`."""
    told: QuerySet = rows.annotate(**{f"like_{_name(w)}": TrigramWordSimilarity(w, text) for w in words if _may_slip(w)})  # type: ignore[type-arg]
    return told


def matching(typed: str, *, in_owner: bool = False) -> QuerySet[Job]:
    """Return jobs that hold every word: in unit, owner, phone number or complaint (its word stems too), or ``in_owner`` alone."""
    words = words_of(typed)
    rows = Job.objects.annotate(text=text_of(_OWNER if in_owner else _UNIT), phone=digits_of("owner_contact"))
    rows = with_alike(rows.annotate(said=SearchVector("complaint", config="english")), words, "text")
    held = [alike(w, "text") | _by_number(w) | (Q() if in_owner else Q(said=SearchQuery(w, config="english"))) for w in words]
    whole = _by_number(typed) if _NUMBER.fullmatch(typed) else Q(pk__in=[])
    return rows.filter(reduce(and_, held, Q()) | whole)


def _by_number(word: str) -> Q:
    """A phone number however it is written."""
    digits = re.sub(r"[^0-9]", "", word)
    return Q(phone__contains=digits) if len(digits) >= LEAST_LETTERS else Q(pk__in=[])
