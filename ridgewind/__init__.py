"""Ridgewind measures camera shake on hand-held takes and judges them against a brief."""

__version__ = "0.1.0"
