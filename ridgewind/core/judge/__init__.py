"""Readings and a brief to remedies and a verdict."""

from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.assessment import Assessment, assess
from ridgewind.core.judge.brief import FEELS, SCREENS_DEG, Brief
from ridgewind.core.judge.cost import Weights
from ridgewind.core.judge.remedy import Decision, Remedy
from ridgewind.core.judge.warnings import Clip

__all__ = [
    "FEELS",
    "SCREENS_DEG",
    "Analysis",
    "Assessment",
    "Brief",
    "Clip",
    "Decision",
    "Remedy",
    "Weights",
    "assess",
]
