"""Path to readings: gust, bands, lee and the floor."""

from ridgewind.core.shake.reading import Reading, ShotReading, read_motion

__all__ = ["Reading", "ShotReading", "read_motion"]
