"""WAV files, PCM of 16 bit: read from bytes, written to bytes. What cannot be read says why, each reason with a code of its own."""

from __future__ import annotations

import struct
from dataclasses import dataclass
from typing import Final

import numpy as np
from numpy.typing import NDArray

from spindle.errors import SoundError

RATES: Final = (8_000, 48_000)
SECONDS: Final = (1.0, 120.0)
MOST_BYTES: Final = 24_000_000
"""Two minutes at 48 kHz in two channels are 23 million."""
_PCM, _EXTENSIBLE = 1, 0xFFFE
_FULL: Final = 32768.0


@dataclass(frozen=True, slots=True)
class Recording:
    """Samples of shape (n, channels), float32 in [-1, 1); samples a second; and what was odd about the file (``cut_off``)."""

    samples: NDArray[np.float32]
    rate: int
    notes: tuple[str, ...] = ()

    @property
    def length_s(self) -> float:
        """Seconds that it lasts."""
        return len(self.samples) / self.rate


def read_wav(content: bytes) -> Recording:
    """Return what a WAV file holds.

    A data chunk that claims more than the file has is read as far as it goes, with the note ``cut_off``.

    Raises
    ------
    SoundError
        ``sound_too_big``, ``sound_not_wav``, ``sound_header_bad``, ``sound_not_pcm16``, ``sound_channels``, ``sound_rate``,
        ``sound_too_short`` or ``sound_too_long``.

    Examples
    --------
    >>> read_wav(write_wav(np.zeros((16000, 1), np.int16), 16000)).length_s
    1.0
    """
    if len(content) > MOST_BYTES:
        raise SoundError("sound_too_big", f"The file has {len(content) / 1e6:.0f} MB; {MOST_BYTES // 1_000_000} MB is the most. Record up to two minutes.")
    if len(content) < 12 or content[:4] != b"RIFF" or content[8:12] != b"WAVE":
        raise SoundError("sound_not_wav", f"This is no WAV file{_looks_like(content)}. Save the recording as WAV, 16 bit.")
    head, data, is_cut = _chunks(content)
    if len(head) < 16:
        raise SoundError("sound_header_bad", "The head of this WAV file is damaged: it does not say how the sound is stored.")
    form, channels, rate, _, _, bits = struct.unpack("<HHIIHH", head[:16])
    if form == _EXTENSIBLE and len(head) >= 26:
        form = struct.unpack("<H", head[24:26])[0]
    if form != _PCM or bits != 16:
        raise SoundError(
            "sound_not_pcm16",
            f"Sound of {bits} bit{'' if form == _PCM else ', packed or as fractions'}: only plain 16 bit is read. Save it again as WAV, 16 bit.",
            bits=bits,
        )
    if channels not in (1, 2):
        raise SoundError("sound_channels", f"{channels} channels: one or two are read.", channels=channels)
    if not RATES[0] <= rate <= RATES[1]:
        raise SoundError("sound_rate", f"{rate} samples a second: 8,000 to 48,000 are read.", rate=rate)
    frames = len(data) // (2 * channels)
    if frames < SECONDS[0] * rate:
        raise SoundError("sound_too_short", f"{frames / rate:.1f} s of sound: a second at least, better fifteen.")
    if frames > SECONDS[1] * rate:
        raise SoundError("sound_too_long", f"{frames / rate:.0f} s of sound: two minutes at most. Cut it to the try that counts.")
    samples = np.frombuffer(data[: frames * 2 * channels], "<i2").reshape(frames, channels)
    return Recording((samples / np.float32(_FULL)).astype(np.float32), rate, ("cut_off",) if is_cut else ())


def write_wav(samples: NDArray[np.int16], rate: int) -> bytes:
    """Return a WAV file of samples of shape (n,) or (n, channels)."""
    block = np.atleast_2d(samples.T).T.astype("<i2")
    channels, data = block.shape[1], block.tobytes()
    head = struct.pack(
        "<4sI4s4sIHHIIHH4sI", b"RIFF", 36 + len(data), b"WAVE", b"fmt ", 16, _PCM, channels, rate, rate * channels * 2, channels * 2, 16, b"data", len(data)
    )
    return head + data


def _chunks(content: bytes) -> tuple[bytes, bytes, bool]:
    """Return the head, the data, and whether the data breaks off."""
    head, at = b"", 12
    while at + 8 <= len(content):
        name, size = content[at : at + 4], struct.unpack("<I", content[at + 4 : at + 8])[0]
        body = content[at + 8 : at + 8 + size]
        if name == b"fmt ":
            head = body
        if name == b"data":
            return head, body, len(body) < size
        at += 8 + size + size % 2
    raise SoundError("sound_header_bad", "The head of this WAV file is damaged: no sound follows it.")


def _looks_like(content: bytes) -> str:
    """Return what the file seems to be instead."""
    marks = (
        (b"ID3", "an MP3 file"),
        (b"\xff\xfb", "an MP3 file"),
        (b"\xff\xf3", "an MP3 file"),
        (b"OggS", "an Ogg file"),
        (b"fLaC", "a FLAC file"),
        (b"\x1aE\xdf\xa3", "a WebM file"),
    )
    found = next((name for mark, name in marks if content.startswith(mark)), "an MP4 file" if content[4:8] == b"ftyp" else "")
    return f" (it looks like {found})" if found else ""
