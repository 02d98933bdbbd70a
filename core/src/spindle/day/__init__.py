"""The shop's day: what is left of each job, in which order it is done, and what may be promised."""
