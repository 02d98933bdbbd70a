"""A job as a value, and everything that may happen to it. Nothing about a job is decided elsewhere."""
