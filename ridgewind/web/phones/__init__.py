"""Phones on the local network: opening to them, pairing, and what they alone use."""
