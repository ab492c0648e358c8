"""Readings and a brief to remedies and a verdict."""

from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.assessment import Assessment, assess
from ridgewind.core.judge.cost import Weights
from ridgewind.core.judge.remedy import Decision, Remedy

__all__ = ["Analysis", "Assessment", "Decision", "Remedy", "Weights", "assess"]
