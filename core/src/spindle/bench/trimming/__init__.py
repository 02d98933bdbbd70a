"""Turning a trimmer by numbers: to a value, or up until it reads."""
