"""A loading belt: its length on its pulleys, and whether it then opens the tray."""
