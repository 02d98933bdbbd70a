"""Labelled sounds, made by a seed: for tests, the demo and practice. No sound file ships; nothing here was recorded from a drive."""
