"""Frames to path: tracking, robust fit, shots and trust.

What only reads paths takes them from here, without the tracker and all that it sees with.
"""

from ridgewind.core.motion.path import Motion, Shot

__all__ = ["METHOD", "Motion", "Shot"]

METHOD = "rivals-3"
"""Version of the measuring method; stored with every measurement."""
