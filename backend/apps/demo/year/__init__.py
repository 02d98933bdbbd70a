"""A year of closed jobs for the demo, drawn from a world that differs from the shipped model in stated ways, so that learning has something to find."""
