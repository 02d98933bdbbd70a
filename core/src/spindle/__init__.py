"""The rules and the arithmetic of the disc drive bench: no framework, no files, no clock, no printing."""
