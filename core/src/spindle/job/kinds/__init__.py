"""The kinds of line, one module each: its body, what its asks need, how they are decided, how it is folded and said."""
