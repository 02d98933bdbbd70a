"""What is wrong, and what to do next. Rooms along its spine: given, evidence, belief, planning, explaining."""
