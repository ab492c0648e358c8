"""Arithmetic of the set-up: optics, timing, moves, balance and strap, all plain computation."""
