"""What the diagnosis is given: the case, the shop's figures, and the fault model cut to one drive."""
