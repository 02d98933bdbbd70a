"""The open formats: reading and writing cases and drive sheets, with the place of every mistake."""
