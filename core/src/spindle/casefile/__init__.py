"""The open JSON format of bench cases (``docs/formats/case.md``): reading with the place of every mistake, and writing."""
