"""Frames to path: tracking, robust fit, shots and trust."""

from ridgewind.core.motion.path import Motion, Shot
from ridgewind.core.motion.tracker import METHOD, Tracker

__all__ = ["METHOD", "Motion", "Shot", "Tracker"]
