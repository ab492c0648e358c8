"""All that a remedy is weighed by."""

from __future__ import annotations

from dataclasses import dataclass, replace

from ridgewind.core.brief import Brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.cost import Price, Weights
from ridgewind.core.judge.polish import PolishPoint
from ridgewind.core.judge.polish_warnings import enlarging
from ridgewind.core.motion.subject import Subject
from ridgewind.core.shake.gust import to_gust
from ridgewind.core.shake.reading import Reading


@dataclass(frozen=True)
class Asked:
    """What is asked of a take, and what is known of it. subject: that was marked, s in the
    file. step: frames filmed for each one that is shown at full speed."""

    analysis: Analysis
    brief: Brief
    clip: Clip
    weights: Weights
    subject: Subject | None = None
    step: float = 1.0

    def as_shot(self) -> Reading:
        """The reading of what is seen at full speed."""
        return self.analysis.reading(step=self.step)

    @property
    def enlarge(self) -> float:
        return enlarging(self.brief, self.clip, crop_pct=0.0)

    def price(self, **values: object) -> float:
        return replace(Price(enlarge=self.enlarge), **values).points(self.weights)  # type: ignore[arg-type]


def seen_after(point: PolishPoint, brief: Brief) -> tuple[float, float]:
    """Gust and peak that a polish leaves, as seen on the brief's screen."""
    screen = brief.screen_deg
    return (
        to_gust(point.speed_pct_s, screen_deg=screen),
        to_gust(point.peak_pct_s, screen_deg=screen),
    )
