"""The ear, learnt and judged on the library of labelled sounds."""
