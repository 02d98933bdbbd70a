"""What the calculators of the bench are worth, on invented trimmers, rubber, hands and prices."""
