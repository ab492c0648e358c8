"""Sequence: outings, their shots, and what comes of them."""
