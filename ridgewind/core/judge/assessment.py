"""Everything that is said of one clip under one brief, recomputed from the path."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.brief import Brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.cadence import delivered_step
from ridgewind.core.judge.cost import Weights
from ridgewind.core.judge.lee import Lee, find_lee
from ridgewind.core.judge.likeness import Compared, compare, shakes
from ridgewind.core.judge.remedies import decide, least_strength
from ridgewind.core.judge.remedy import Decision, unsettled
from ridgewind.core.judge.shutter import KnownReadout, readout_of
from ridgewind.core.judge.slow import chosen_rate
from ridgewind.core.motion.subject import Subject
from ridgewind.core.moves.move import MoveReading
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.causes import NO_CAUSES, Causes
from ridgewind.core.shake.reading import Reading
from ridgewind.core.units import pct_to_deg

SideBySide = Callable[[Sequence[Callable[[], object]]], None]
"""Has some parts of one piece of work done at the same time, and returns when all are."""


@dataclass(frozen=True)
class Assessment:
    """Readings and decision. Gusts are as seen on the brief's screen.

    speed_pct_s: S of what was filmed, at capture speed. body_deg_s: what the body did, degrees a
    second. band_powers: per shot (n, 5), a row a sample of the reading. step: frames filmed for
    each one that is shown and read. readout: of its sensor. move: None where too little can be
    measured. doubt: why nothing can be drawn from the path, one of path.DOUBTS; then there are no
    causes, no lee, no move and no remedy. likeness: to the brief's example, None without one.
    """

    reading: Reading
    bands: tuple[Band, ...]
    band_powers: list[NDArray[np.float64]]
    lee: Lee | None
    gust: float | None
    peak_gust: float | None
    floor_gust: float | None
    speed_pct_s: float | None
    body_deg_s: float | None
    causes: Causes
    step: float
    readout: KnownReadout
    move: MoveReading | None
    decision: Decision
    doubt: str | None = None
    likeness: Compared | None = None


def assess(
    analysis: Analysis,
    clip: Clip,
    brief: Brief,
    *,
    weights: Weights | None = None,
    subject: Subject | None = None,
    as_filmed: bool = False,
    side_by_side: SideBySide | None = None,
) -> Assessment:
    """Decide under a brief. Milliseconds, so it is never stored. weights: what matters to the
    shooter, the usual ones where not given. subject: that was marked, s in the file. as_filmed:
    read every frame, also of a film from which its delivery leaves some out. side_by_side: has
    parts worked out at the same time, which is worth its threads for a film of minutes."""
    step = 1.0 if as_filmed else delivered_step(clip.fps, brief.delivery_fps)
    doubt = analysis.doubt
    if side_by_side is not None and doubt is None:
        analysis.reading()  # asked for by two of the parts
        side_by_side(_parts(analysis, clip, brief, step))
    reading = analysis.reading(step=step)
    bands, powers = analysis.bands()
    move, causes, lee, likeness = None, NO_CAUSES, None, None
    if doubt is None:
        move, causes = _as_filmed(analysis, clip)
        lee = find_lee(reading, brief)
    speed = analysis.at_capture().speed_pct_s
    if brief.likeness is not None and doubt is None and shakes(speed):
        likeness = compare(brief.likeness, bands, move)
    screen_deg = brief.screen_deg
    return Assessment(
        reading=reading,
        bands=bands,
        band_powers=[
            _at_samples(power, len(shot.t_s))
            for power, shot in zip(powers, reading.shots, strict=True)
        ],
        step=step,
        readout=readout_of(clip, analysis.motion),
        lee=lee,
        gust=reading.gust(screen_deg=screen_deg),
        peak_gust=reading.peak(screen_deg=screen_deg),
        floor_gust=reading.floor(screen_deg=screen_deg),
        speed_pct_s=speed,
        body_deg_s=None if speed is None else pct_to_deg(speed, focal_eq_mm=clip.focal_eq_mm),
        causes=causes,
        move=move,
        decision=unsettled(doubt)
        if doubt is not None
        else decide(
            analysis,
            brief,
            clip,
            weights=weights or Weights(),
            lee=lee,
            bands=bands,
            causes=causes,
            subject=subject,
            step=step,
        ),
        doubt=doubt,
        likeness=likeness,
    )


def _as_filmed(analysis: Analysis, clip: Clip) -> tuple[MoveReading | None, Causes]:
    """The move that was meant, and why it shakes."""
    move = analysis.move(focal_eq_mm=clip.focal_eq_mm, expected=clip.move_expected)
    return move, analysis.causes(moves=move is not None and move.move is not None)


def _parts(analysis: Analysis, clip: Clip, brief: Brief, step: float) -> list[Callable[[], object]]:
    """What a judgement takes longest for, in parts that need nothing of each other; the analysis
    keeps what they find."""

    def polished(playback: float, step: float) -> None:
        curve = analysis.polish(playback, step=step, upright=clip.upright)
        if curve is not None:
            least_strength(curve, brief)

    def slowed() -> None:
        rate = chosen_rate(analysis, brief, fps=clip.fps, duration_s=clip.duration_s)
        if rate is not None:
            polished(*rate)

    return [lambda: _as_filmed(analysis, clip), lambda: polished(1.0, step), slowed]


def _at_samples(power: NDArray[np.float64], count: int) -> NDArray[np.float64]:
    """Rows (count, k) of powers (n, k) at as many moments, evenly spread over the same time; no
    power where n is 0, as where no frame counts before some are left out."""
    if len(power) == count:
        return power
    if not len(power):
        return np.zeros((count, power.shape[1]))
    out: NDArray[np.float64] = power[np.linspace(0, len(power) - 1, count).round().astype(int)]
    return out
