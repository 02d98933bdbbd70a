"""From samples to events: pictures of the sound, columns for each frame, one small layer, and what is likely as a whole."""
