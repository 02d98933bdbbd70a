"""What the screens say of it: moves with their reasons, notices, signal paths, swaps, the whole answer."""
