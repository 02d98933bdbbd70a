"""Meters and other outside devices: the real adapter and its stand-in behind one protocol."""
