"""What changes of the shop itself, and of who works there."""
