"""The one layer between columns and kinds: learnt from the library by ``./spindle hearing learn``, shipped at half precision."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from io import BytesIO
from typing import Final

import numpy as np

from spindle.sound.hearing.pictures import Floats
from spindle.sound.kinds import Kind

SPINDLE: Final = (None, Kind.SPIN_UP, Kind.HOLD, Kind.SPIN_DOWN, Kind.JERK)
LOADER: Final = (None, Kind.LOAD, Kind.SLIP, Kind.HUM)
"""States of which one is so at a time; None is at rest."""
OVERLAYS: Final = (Kind.CHIRP, Kind.TICKING, Kind.FOCUS, Kind.CLUNK, Kind.GRIND, Kind.SCRAPE)
N_SCORES: Final = len(SPINDLE) + len(LOADER) + len(OVERLAYS)


@dataclass(frozen=True, slots=True)
class Layer:
    """Weights. ``mean``, ``scale``: of shape (columns,); ``inner`` (columns, hidden) and ``outer`` (hidden, 15) with their offsets."""

    mean: Floats
    scale: Floats
    inner: Floats
    inner_at_zero: Floats
    outer: Floats
    outer_at_zero: Floats

    def scores(self, columns: Floats) -> Scores:
        """Return the chance of every state and overlay in each frame."""
        hidden = np.tanh(np.clip((columns - self.mean) / self.scale, -6.0, 6.0) @ self.inner + self.inner_at_zero)
        raw = hidden @ self.outer + self.outer_at_zero
        a, b = len(SPINDLE), len(SPINDLE) + len(LOADER)
        return Scores(softmax(raw[:, :a]), softmax(raw[:, a:b]), sigmoid(raw[:, b:]))

    def packed(self) -> bytes:
        """Return the weights as a file, at half precision."""
        out = BytesIO()
        np.savez_compressed(out, **{name: getattr(self, name).astype(np.float16 if name in ("inner", "outer") else np.float32) for name in self.__slots__})
        return out.getvalue()


@dataclass(frozen=True, slots=True)
class Scores:
    """Chances of shape (frames, 5), (frames, 4) and (frames, 6)."""

    spindle: Floats
    loader: Floats
    overlays: Floats


def softmax(raw: Floats) -> Floats:
    """Return chances that sum to 1 in each row."""
    out = np.exp(raw - raw.max(axis=1, keepdims=True))
    return np.asarray(out / out.sum(axis=1, keepdims=True))


def sigmoid(raw: Floats) -> Floats:
    """Return chances, each by itself."""
    return np.asarray(1.0 / (1.0 + np.exp(-np.clip(raw, -30.0, 30.0))))


def unpacked(content: bytes) -> Layer:
    """Return the weights that :meth:`Layer.packed` wrote."""
    with np.load(BytesIO(content)) as kept:
        return Layer(*(kept[name].astype(np.float32) for name in Layer.__slots__))


@cache
def shipped_layer() -> Layer:
    """Return the weights that ship with the product."""
    return unpacked((files("spindle.sound.hearing") / "layer.npz").read_bytes())
