"""Views of the identification key."""

from __future__ import annotations

from api.drives import schemas as s
from apps.drives.models import Sheet
from spindle.drives.features import FEATURES
from spindle.drives.key import Reading

SHOWN = 6


def features_view() -> list[s.FeatureView]:
    """Return what the eye can look for, from the outside inwards."""
    return [
        s.FeatureView(
            id=f.id,
            ask=f.ask,
            how=f.how,
            where=f.reach.name.lower(),  # type: ignore[arg-type]  # pydantic checks the word
            values=[s.PromptChoiceView(id=v, label=label) for v, label in f.values.items()],
        )
        for f in FEATURES.values()
    ]


def key_view(reading: Reading, sheets: dict[str, Sheet]) -> s.KeyView:
    """Return where the key stands: every feature for answering in any order, and the likeliest candidates."""
    return s.KeyView(
        features=features_view(),
        candidates=[
            s.CandidateView(
                sheet_id=sheets[c.id].pk,
                name=f"{sheets[c.id].maker} {sheets[c.id].console}, revision {sheets[c.id].revision}",
                variant=c.id,
                p=c.p,
                against=[FEATURES[f].ask for f in c.against],
            )
            for c in reading.candidates[:SHOWN]
        ],
        next_feature=reading.next_feature,
        is_settled=reading.is_settled,
        differ=[FEATURES[f].ask for f in reading.differ],
    )
