"""Practice: the drill library, what is due, and sessions built from both."""
