"""Readings and a brief to remedies and a verdict."""

from ridgewind.core.judge.assessment import Analysis, Assessment, assess
from ridgewind.core.judge.brief import FEELS, SCREENS_DEG, Brief
from ridgewind.core.judge.remedies import Clip, Decision, Remedy

__all__ = [
    "FEELS",
    "SCREENS_DEG",
    "Analysis",
    "Assessment",
    "Brief",
    "Clip",
    "Decision",
    "Remedy",
    "assess",
]
