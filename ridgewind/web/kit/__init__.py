"""Kit: cameras, lenses, supports, set-ups, and the bench."""
