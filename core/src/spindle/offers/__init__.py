"""What repairs are offered for, and how their levels compare."""
