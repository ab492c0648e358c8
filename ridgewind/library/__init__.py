"""The library on disk: originals, what is made from them, and folders and cards to bring in."""
