"""Many takes: the threshold of the shooter's own eye, and takes compared."""
