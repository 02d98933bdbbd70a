"""Views of what the closed jobs teach."""

from __future__ import annotations

from api.record.schemas import LayerView, LearningView, LearntPartView, LearntRowView
from apps.drives.models import Layer
from apps.drives.selectors import layer_in_use
from apps.record.learning import Taught
from spindle.learning.layer import Part


def learning_view(found: Taught) -> LearningView:
    """Return what the closed jobs teach as it is shown, beside what of it is in use."""
    used = layer_in_use()
    held = set() if used is None else {Part(p["part"]) for p in used.parts if p["is_used"]}
    return LearningView(
        jobs=found.jobs,
        confirmed=found.confirmed,
        parts=[
            LearntPartView(part=part, n=j.n, gain=j.gain, error=j.error, is_better=j.is_better, since_version=part in held) for part, j in found.judged.items()
        ],
        rows=[LearntRowView.model_validate(row) for row in found.rows],
        in_use=None if used is None else _layer(used),
    )


def _layer(used: Layer) -> LayerView:
    parts = [Part(p["part"]) for p in used.parts if p["is_used"]]
    return LayerView(number=used.number, at=used.at, by=used.by.shown_name, jobs=used.jobs, parts=parts)
