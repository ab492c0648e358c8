"""The demo: its story, its clips, and how a library is filled with them."""
