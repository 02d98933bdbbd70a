"""Hearing the drive: what a recording holds, and what may be concluded from it. The figures stand in ``docs/sound.md``."""
