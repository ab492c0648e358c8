"""Takes: the list, one take, what to do with it, and takes side by side."""
