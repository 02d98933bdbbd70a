"""What counts as evidence: what replaces what, what is left out and why."""
