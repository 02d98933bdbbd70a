"""What the evidence amounts to: likelihoods, the posterior, contradictions, two faults, and whether it is cured."""
