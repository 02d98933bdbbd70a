"""What to do next: costs, look-ahead, simulated futures, schools of thought."""
