"""Practice on a simulated unit with something hidden in it: the world answers, mistakes included, and afterwards each move is laid beside the best one."""
