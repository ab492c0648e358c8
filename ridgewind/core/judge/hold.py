"""Hold the subject: every frame is moved so that what was marked stays where it is, or glides.

Where a polish moves the whole picture by the motion of its background, this moves it by the
subject's own: one marked point shifts the frame, two turn and scale it too. It suits a subject
that is rigid and always in the picture; what is behind it moves as it may, so both are told.

Places are percent of the long side from the picture's middle, right and down positive.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.judge.easing import progress
from ridgewind.core.judge.polish import enlargements
from ridgewind.core.motion.path import Motion, typical_interval
from ridgewind.core.motion.subject import Mark, Subject, SubjectPath
from ridgewind.core.shake.gust import part_speeds, power_at_playback, to_gust, weight
from ridgewind.core.shake.reading import Reading

Floats = NDArray[np.float64]

MOST_GAP = 3
"""Frames in a row in which a subject may be missed and its place be drawn between (chosen here: a
tenth of a second, in which a hand does not turn back)."""

EASE_S = 1.0
"""Time in which a glide begins and ends."""

LEAST_APART_PCT = 5.0
"""Distance between two points under which their turn is mostly error (chosen here: a follower's
0.007 % would turn the picture by a tenth of a degree)."""

THIRD_DIFFERENCE = 20.0**0.5
"""Spread of third differences over that of the samples, for errors that know nothing of each other
(1 + 9 + 9 + 1 = 20)."""

MIDDLE_OF_NORMAL = 0.6745
"""Middle size of a normal error in standard deviations."""


@dataclass(frozen=True)
class Hold:
    """What a recipe holds. glide: along a straight eased line rather than still. marks: by which
    the subject was marked, so that a film is never made of another."""

    glide: bool
    marks: tuple[Mark, ...]


@dataclass(frozen=True)
class HeldFrames:
    """A subject held over a stretch. t_s: (n,), s in the file. x_pct, y_pct, turn_deg, growth:
    (n,) window of each frame before it is enlarged: centre, turn clockwise, size. first: (2,)
    where the point that was marked first is in the first frame. crop_pct: of the long side, so
    that no corner is empty."""

    t_s: Floats
    x_pct: Floats
    y_pct: Floats
    turn_deg: Floats
    growth: Floats
    first: Floats
    crop_pct: float

    def at(self, t_s: Floats) -> Floats:
        """(m, 4) x %, y %, turn ° and growth at the times (m,)."""
        columns = (self.x_pct, self.y_pct, self.turn_deg, self.growth)
        return np.column_stack([np.interp(t_s, self.t_s, column) for column in columns])

    def seen_path(self, path: Floats, t_s: Floats) -> Floats:
        """(m, 4) path of the background as it is seen, not enlarged. path: (m, 4) as shot, at the
        times (m,)."""
        x_pct, y_pct, turn_deg, growth = self.at(t_s).T
        zoom = 100.0 * ((1.0 + path[:, 3] / 100.0) / growth - 1.0)
        return np.column_stack(
            [path[:, 0] + x_pct, path[:, 1] - y_pct, path[:, 2] + turn_deg, zoom]
        )


def followed_stretch(subject: Subject, reading: Reading) -> tuple[float, float] | None:
    """The longest stretch of one shot in which every point is followed, s in the file; None where
    there is none."""
    t_s, places = _places(subject)
    seen = np.isfinite(places).all(axis=1)
    best: tuple[float, float] | None = None
    for shot in reading.shots:
        if not shot.counted.any():
            continue
        inside = seen & (t_s >= shot.start_s - 1e-6) & (t_s <= shot.end_s + 1e-6)
        index = np.flatnonzero(inside)
        for run in np.split(index, np.flatnonzero(np.diff(index) > MOST_GAP + 1) + 1):
            if len(run) < 2:
                continue
            found = float(t_s[run[0]]), float(t_s[run[-1]])
            if best is None or found[1] - found[0] > best[1] - best[0]:
                best = found
    return best


def hold_frames(
    subject: Subject,
    *,
    start_s: float,
    end_s: float,
    glide: bool,
    aspect: float,
    upright: bool,
) -> HeldFrames:
    """Windows that hold a subject between two times, at which it must be followed. glide: it may
    travel along a straight eased line, whichever fits its way best. Raises InvalidArgumentError
    where it is not seen there."""
    t_s, places = _places(subject)
    inside = (t_s >= start_s - 1e-6) & (t_s <= end_s + 1e-6)
    t_s, places = t_s[inside], places[inside]
    known = np.isfinite(places).all(axis=1)
    if known.sum() < 2:
        raise InvalidArgumentError("subject", int(known.sum()), "it must be seen in that stretch")
    filled = np.column_stack([np.interp(t_s, t_s[known], column[known]) for column in places.T])
    way = progress(t_s, start_s=start_s, end_s=end_s, ease_s=EASE_S) if glide else None
    middle, turn, growth = _pose(filled)
    goal = np.column_stack([_fitted(column, way) for column in middle.T])
    turn = turn - _fitted(turn, way)
    growth = growth - _fitted(growth, way)
    # Windows only ever grow, so that the crop that is told is that of the tightest frame.
    growth = np.exp(growth - growth.min())
    cosine, sine = np.cos(turn) * growth, np.sin(turn) * growth
    x_pct = middle[:, 0] - cosine * goal[:, 0] + sine * goal[:, 1]
    y_pct = middle[:, 1] - sine * goal[:, 0] - cosine * goal[:, 1]
    turn_deg = np.degrees(turn)
    off = np.column_stack([x_pct, y_pct, turn_deg, 100.0 * (growth - 1.0)])
    enlarge = float(enlargements(off, aspect=aspect, upright=upright).max())
    crop_pct = 100.0 * (1.0 - 1.0 / enlarge)
    return HeldFrames(t_s, x_pct, y_pct, turn_deg, growth, filled[0, :2], crop_pct)


def subject_gust(path: SubjectPath, *, aspect: float, screen_deg: float) -> float | None:
    """Gust of a followed point, bridged where it was lost; None where too little was seen."""
    known = np.isfinite(path.x_pct)
    if known.sum() < 3:
        return None
    t_s = path.t_s[known]
    step = typical_interval(path.t_s)
    even = np.arange(t_s[0], t_s[-1] + step / 2, step)
    places = np.zeros((len(even), 4))
    places[:, 0] = np.interp(even, t_s, path.x_pct[known])
    places[:, 1] = np.interp(even, t_s, path.y_pct[known])
    speeds = part_speeds(places, rate_hz=1.0 / step, aspect=aspect)
    power = power_at_playback(speeds, rate_hz=1.0 / step, playback=1.0)
    return to_gust(float(power.mean()) ** 0.5, screen_deg=screen_deg)


def held_gust(
    subject: Subject,
    motion: Motion,
    *,
    start_s: float,
    end_s: float,
    enlarge: float,
    shown_hz: float,
    screen_deg: float,
) -> float:
    """Gust of the held subject that is to be expected: that of the follower's own error, told from
    how its path trembles against the background's over a stretch. shown_hz: frames a second."""
    t_s, places = _places(subject)
    inside = (t_s >= start_s - 1e-6) & (t_s <= end_s + 1e-6)
    at = places[inside, :2]
    pan, tilt = (
        np.interp(t_s[inside], motion.t_s, one) for one in (motion.pan_pct, motion.tilt_pct)
    )
    own = at + np.column_stack([pan, -tilt])
    rough = np.abs(np.diff(own[np.isfinite(own).all(axis=1)], n=3, axis=0))
    if not len(rough):
        return 0.0
    error_pct = np.median(rough, axis=0) / (THIRD_DIFFERENCE * MIDDLE_OF_NORMAL)
    hz = np.linspace(0.0, shown_hz / 2.0, 256)
    gain = np.mean((2.0 * shown_hz * np.sin(np.pi * hz / shown_hz) * weight(hz)) ** 2)
    speed = enlarge * float(np.sqrt(gain * (error_pct**2).sum()))
    return to_gust(speed, screen_deg=screen_deg)


def _places(subject: Subject) -> tuple[Floats, Floats]:
    """Times (n,) and places (n, 2 or 4) of the marked points, x and y of each."""
    t_s = subject.paths[0].t_s
    columns = []
    for path in subject.paths:
        at = np.searchsorted(path.t_s, t_s - 1e-4).clip(max=len(path.t_s) - 1)
        there = np.abs(path.t_s[at] - t_s) < 1e-3
        columns += [
            np.where(there, path.x_pct[at], np.nan),
            np.where(there, path.y_pct[at], np.nan),
        ]
    return t_s, np.column_stack(columns)


def _pose(places: Floats) -> tuple[Floats, Floats, Floats]:
    """Middle (n, 2), turn (n,) in radians clockwise, and logarithm of the growth (n,)."""
    if places.shape[1] == 2:
        none = np.zeros(len(places))
        return places, none, none
    across = places[:, 2:] - places[:, :2]
    apart = np.hypot(*across.T)
    if apart.min() < LEAST_APART_PCT:
        rule = f"its two points must be {LEAST_APART_PCT:g} % of the picture apart throughout"
        raise InvalidArgumentError("subject", round(float(apart.min()), 1), rule)
    turn = np.unwrap(np.arctan2(across[:, 1], across[:, 0]))
    return (places[:, :2] + places[:, 2:]) / 2.0, turn, np.log(apart / apart[0])


def _fitted(values: Floats, way: Floats | None) -> Floats:
    """(n,) what values are held at: their mid range, or a straight line over the way gone (n,)
    that leaves as much on either side."""
    line = np.zeros(len(values))
    if way is not None:
        line = np.polynomial.Polynomial.fit(way, values, 1)(way)
    rest = values - line
    out: Floats = line + (rest.max() + rest.min()) / 2.0
    return out
