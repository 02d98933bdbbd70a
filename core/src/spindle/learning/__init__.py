"""What the shop's own record teaches."""
