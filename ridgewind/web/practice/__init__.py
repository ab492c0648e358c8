"""Practice: sessions and their takes, and which film belongs to which."""
