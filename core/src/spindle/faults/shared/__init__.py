"""What the loader families have in common: pickup, spindle, sled, drive board, supply, and the disc classes."""
