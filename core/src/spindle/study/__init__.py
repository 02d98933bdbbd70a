"""What the advice is worth: simulated units played by the planner and by its rivals, and the exact optimum on small instances."""
