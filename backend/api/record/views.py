"""Views of what the closed jobs teach."""

from __future__ import annotations

from api.record.schemas import LayerView, LearningView, LearntPartView, LearntRowView
from apps.drives.models import Layer
from apps.record.learning import Learning
from spindle.learning.layer import Part


def learning_view(learning: Learning) -> LearningView:
    """Return what the closed jobs teach as it is shown."""
    used = learning.used
    return LearningView(
        jobs=len(learning.closed),
        confirmed=sum(p.is_confirmed for p in learning.pasts),
        parts=[LearntPartView(part=part, n=j.n, gain=j.gain, error=j.error, is_better=j.is_better) for part, j in learning.judged.items()],
        rows=[LearntRowView.model_validate(row) for row in learning.rows],
        in_use=None if used is None else _layer(used),
    )


def _layer(used: Layer) -> LayerView:
    parts = [Part(p["part"]) for p in used.parts if p["is_used"]]
    return LayerView(number=used.number, at=used.at, by=used.by.shown_name, jobs=used.jobs, parts=parts)
