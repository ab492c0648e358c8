"""How a piece moves as it is seen: its path through the speeds, the way round, the polish and the
window by which it is shown, frame by frame, as it would be measured in the finished film.

Whatever is done to a piece is done to its path, and the path is read like any other. So uneven
frames, a ramp, a narrower window that shakes more, or one that goes along with the subject need no
rule of their own, and what is predicted is what the rendered film measures.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.judge.recipe import WindowMaker, Windows
from ridgewind.core.motion.path import TRUSTED, Motion, split_shots
from ridgewind.core.motion.subject import Subject
from ridgewind.core.moves.move import INTENDED_HZ
from ridgewind.core.sequence.joins import EDGE_S
from ridgewind.core.sequence.piece import (
    SHORTEST_S,
    Piece,
    beginning_at,
    ending_at,
    film_times,
)
from ridgewind.core.sequence.shapes import Cutout, cutout, middles
from ridgewind.core.sequence.timeline import frames_of, shown_pictures, times_of
from ridgewind.core.shake.gust import in_long_sides, to_gust
from ridgewind.core.shake.lowpass import lowpass
from ridgewind.core.shake.reading import EvenShot, Reading, evened, read_motion
from ridgewind.core.units import aspect_to_rho

Floats = NDArray[np.float64]

EDGE_POINTS = 9
"""Over the half second at an end of a piece, between which its velocity is added up."""

TRIM_STEP_S = 0.1
SWEEP_PCT_S, SWEEP_WITHIN_S = 15.0, 3.0
"""Speed from which a move at an end is a sweep, and how far beyond the piece one is looked for
(chosen here: what crosses a quarter of the picture in under two seconds, on purpose)."""


@dataclass(frozen=True)
class PieceMotion:
    """What a piece's motion is as it is shown. gust: None where nothing can be trusted. entry,
    exit: (3,) velocity of pan, tilt and push at its ends, percent of the long side a second."""

    gust: float | None
    entry: Floats
    exit: Floats


@dataclass(frozen=True)
class Footage:
    """A measured take, as pieces are cut from it. motion: of its whole film. meant: of each shot,
    the even times (m,) and the path (m, 4) that was meant; None where it cannot be measured.
    upright: the picture is higher than wide. subject: that is marked in it, s of the path."""

    motion: Motion
    meant: tuple[tuple[Floats, Floats] | None, ...]
    upright: bool
    subject: Subject | None

    @property
    def first_s(self) -> float:
        """The film's first frame, s in the file."""
        return float(self.motion.t_s[0])

    @property
    def picture(self) -> float:
        """Width over height."""
        return self.motion.aspect if self.upright else 1.0 / self.motion.aspect


@dataclass(frozen=True)
class Look:
    """How a sequence is shown. rate_hz: its frames a second. shape: width over height."""

    rate_hz: float
    shape: float
    screen_deg: float


def footage_of(
    motion: Motion,
    *,
    upright: bool,
    subject: Subject | None = None,
    even: tuple[EvenShot | None, ...] | None = None,
) -> Footage:
    """even: the path at even times, where it is known already."""
    meant = tuple(_meant(one) for one in even or evened(motion))
    return Footage(motion, meant, upright, subject)


def _meant(even: EvenShot | None) -> tuple[Floats, Floats] | None:
    if even is None:
        return None
    return even.even_s, lowpass(even.path, corner_hz=INTENDED_HZ, rate_hz=even.rate_hz)


class Seen:
    """A piece of a take as it is seen. polish: windows by which its take is polished or its subject
    held; None for as filmed.

    Raises InvalidArgumentError where the subject that is held is not seen throughout.
    """

    def __init__(
        self, piece: Piece, footage: Footage, look: Look, *, polish: WindowMaker | None = None
    ) -> None:
        self.piece, self.look = piece, look
        self._footage, self.polish = footage, polish
        self.frames = frames_of(piece, rate_hz=look.rate_hz)
        self.window: Cutout = cutout(look.shape, footage.picture)

    @property
    def first_s(self) -> float:
        """Its film's first frame, s in the file."""
        return self._footage.first_s

    def time_of(self, number: int) -> float:
        """When what a frame shows was filmed, s of the path."""
        at_s = times_of(self.piece, self.frames, rate_hz=self.look.rate_hz)
        return float(at_s[number]) + self.first_s

    @cached_property
    def _pictures(self) -> NDArray[np.intp]:
        """(frames,) which picture of the film each frame shows."""
        at_s = times_of(self.piece, self.frames, rate_hz=self.look.rate_hz)
        motion = self._footage.motion
        found = shown_pictures(motion.t_s, at_s + self._footage.first_s)
        if motion.held is None:
            return found
        # A frame that repeats the picture before it shows that one's place.
        fresh = np.maximum.accumulate(np.where(motion.held, 0, np.arange(len(motion.held))))
        out: NDArray[np.intp] = fresh[found]
        return out

    @cached_property
    def polished(self) -> Windows | None:
        """What is seen of the picture in each frame, by the polish alone."""
        if self.polish is None:
            return None
        return self.polish.at(self._footage.motion.t_s[self._pictures])

    @cached_property
    def middles(self) -> Floats:
        """(frames, 2) middle of the sequence's window in the polished picture of each frame, right
        and down, percent of the picture's long side."""
        found = middles(
            self.piece.framing, self.window, self._places(), self.frames, rate_hz=self.look.rate_hz
        )
        # A picture that is shown again is shown the same.
        fresh = np.where(np.diff(self._pictures, prepend=-1) != 0, np.arange(self.frames), 0)
        out: Floats = found[np.maximum.accumulate(fresh)]
        return out

    def _places(self) -> Floats | None:
        """(frames, 2) where the marked subject is in the polished picture."""
        subject = self._footage.subject
        if subject is None or not self.piece.framing.follows:
            return None
        path = subject.paths[0]
        known = np.isfinite(path.x_pct)
        if known.sum() < 2:
            return None
        at_s = self._footage.motion.t_s[self._pictures]
        columns = (path.x_pct, path.y_pct)
        places = np.column_stack([np.interp(at_s, path.t_s[known], one[known]) for one in columns])
        outside = (at_s < path.t_s[known][0] - EDGE_S) | (at_s > path.t_s[known][-1] + EDGE_S)
        places[outside] = np.nan
        if self.polished is None:
            return places
        x, y = (places - np.column_stack([self.polished.x_pct, self.polished.y_pct])).T
        cosine, sine = (f(np.radians(self.polished.turn_deg)) for f in (np.cos, np.sin))
        turned = np.column_stack([cosine * x + sine * y, cosine * y - sine * x])
        out: Floats = turned / self.polished.size[:, None]
        return out

    @property
    def follows(self) -> bool:
        """Whether its window goes with the subject."""
        return self._places() is not None

    def motion(self) -> Motion:
        """The path that the finished film is to measure as. A picture that is shown again stands
        still meanwhile: whoever looks sees it stutter."""
        source, index = self._footage.motion, self._pictures
        at_s = np.arange(self.frames) / self.look.rate_hz
        shots = np.searchsorted([shot.stop for shot in source.shots], index, side="right")
        cuts = [int(k) + 1 for k in np.flatnonzero(np.diff(shots))]
        columns = (source.pan_pct, source.tilt_pct, source.roll_deg, source.zoom_pct)
        path = _bridged(np.column_stack([column[index] for column in columns]), at_s)
        path = self._through(path, self.polished, self.middles)
        path[~np.isfinite(source.pan_pct[index])] = np.nan
        trust = source.trust[index]
        reasons = [source.shots[min(k, len(source.shots) - 1)].reason or "" for k in shots]
        trusted = (trust >= TRUSTED) & np.isfinite(path[:, 0])
        pan, tilt, roll, zoom = path.T
        return Motion(
            at_s, pan, tilt, roll, zoom, trust=trust, error=source.error[index] / self._scale(),
            aspect=self.window.aspect, shots=split_shots(trusted, at_s, cuts, reasons),
        )  # fmt: skip

    def _scale(self) -> float:
        """The seen window's long side over the picture's."""
        polished = 1.0 if self.polished is None else float(self.polished.size.mean())
        return self.window.long_share * polished

    @cached_property
    def reading(self) -> Reading:
        """What the finished film is to read as."""
        return read_motion(self.motion())

    def gust(self) -> float | None:
        """Gust of it; None where nothing can be trusted."""
        reading = self.reading
        if reading.speed_pct_s is None:
            return None
        power = reading.speed_pct_s**2
        if self.polish is not None and reading.floor_pct_s is not None:
            power += reading.floor_pct_s**2  # what was measured wrongly is moved wrongly
        return to_gust(power**0.5, screen_deg=self.look.screen_deg)

    def velocity(self, *, at_end: bool) -> Floats | None:
        """(3,) what is meant at an end: pan, tilt and push, percent of the window's long side a
        second; None where it cannot be told."""
        whole_s = self.piece.seconds
        edge_s = min(EDGE_S, whole_s)
        screen_s = np.linspace(0.0, edge_s, EDGE_POINTS) + (whole_s - edge_s if at_end else 0.0)
        at_s = film_times(self.piece, screen_s) + self._footage.first_s
        meant = self._meant(at_s)
        if meant is None:
            return None
        windows = self._intended_windows(at_s)
        if self.piece.framing.follows:
            frames = np.clip(screen_s * self.look.rate_hz, 0, self.frames - 1)
            count = np.arange(self.frames)
            stands = np.column_stack([np.interp(frames, count, one) for one in self.middles.T])
        else:
            stands = np.tile(self.middles_fixed, (EDGE_POINTS, 1))
        path = self._through(meant, windows, stands)
        seen = in_long_sides(path, rho=aspect_to_rho(self.window.aspect))
        out: Floats = (seen[-1] - seen[0])[[0, 1, 3]] / edge_s
        return out

    @property
    def middles_fixed(self) -> Floats:
        """(2,) middle of a window that stands."""
        framing = self.piece.framing
        out: Floats = np.array([framing.right, framing.down]) * np.array(self.window.room_pct)
        return out

    def _meant(self, at_s: Floats) -> Floats | None:
        """(n, 4) the intended path at moments of one shot, s in the file."""
        middle_s = float(at_s[len(at_s) // 2])
        for shot, found in zip(self._footage.motion.shots, self._footage.meant, strict=True):
            if found is None:
                continue
            t_s = self._footage.motion.t_s
            if t_s[shot.start] <= middle_s <= t_s[shot.stop - 1]:
                even_s, path = found
                return np.column_stack([np.interp(at_s, even_s, column) for column in path.T])
        return None

    def _intended_windows(self, at_s: Floats) -> Windows | None:
        """Those of a polish leave alone what is meant, but for their size."""
        if self.polish is None:
            return None
        found, none = self.polish.at(at_s), np.zeros(len(at_s))
        if self.polish.recipe.hold is not None or self.polish.recipe.drift is not None:
            return found
        size = np.full(len(at_s), float(found.size.mean()))
        return Windows(none, none, none, size)

    def _through(self, path: Floats, windows: Windows | None, stands: Floats) -> Floats:
        """A path (n, 4) as it is seen through the polish and then through the sequence's window.
        stands: (n, 2) its middle."""
        steps = np.diff(path, axis=0)
        turn = np.radians(steps[:, 2])
        growth = np.diff(np.log1p(path[:, 3] / 100.0))
        right, up = steps[:, 0], steps[:, 1]
        if windows is not None:
            size = np.sqrt(windows.size[1:] * windows.size[:-1])
            right = (right + np.diff(windows.x_pct)) / size
            up = (up - np.diff(windows.y_pct)) / size
            turn = turn + np.radians(np.diff(windows.turn_deg))
            growth = growth - np.diff(np.log(windows.size))
        # Beside the middle, turning and growing move what is seen, too.
        x, y = (stands[1:] + stands[:-1]).T / 2.0
        right = right - (growth * x + turn * y) + np.diff(stands[:, 0])
        up = up + (growth * y - turn * x) - np.diff(stands[:, 1])
        scale = self.window.long_share
        sums = np.cumsum(np.column_stack([right / scale, up / scale, turn, growth]), axis=0)
        out = np.concatenate([np.zeros((1, 4)), sums])
        return np.column_stack(
            [out[:, 0], out[:, 1], np.degrees(out[:, 2]), 100.0 * np.expm1(out[:, 3])]
        )


def _bridged(path: Floats, at_s: Floats) -> Floats:
    """The path (n, 4) with lines where it is not known."""
    known = np.isfinite(path[:, 0])
    if known.all() or not known.any():
        return np.nan_to_num(path)
    return np.column_stack([np.interp(at_s, at_s[known], column[known]) for column in path.T])


def motion_of(seen: Seen) -> PieceMotion | None:
    """The motion of a piece; None where too little of it can be measured."""
    entry, leaving = seen.velocity(at_end=False), seen.velocity(at_end=True)
    if entry is None or leaving is None:
        return None
    return PieceMotion(seen.gust(), entry, leaving)


def trims(
    piece: Piece, footage: Footage, look: Look, *, at_end: bool, most_s: float,
    polish: WindowMaker | None = None,
) -> tuple[Floats, Floats]:  # fmt: skip
    """Points (n,) at which a piece could begin, or end, up to most_s inside of its own, s from the
    film's first frame, in the order of the film; and the velocities (n, 3) that are seen there, as
    played. Nothing where too little can be measured. A piece that is shown backwards begins at its
    out point."""
    none = np.zeros(0), np.zeros((0, 3))
    move_end = ending_at if at_end else beginning_at
    room_s = min(most_s, piece.out_s - piece.in_s - 2 * SHORTEST_S)
    if room_s <= 0:
        return none
    offsets = np.arange(0.0, room_s, TRIM_STEP_S)
    at_out = at_end != piece.backwards
    points = piece.out_s - offsets[::-1] if at_out else piece.in_s + offsets
    found = []
    for point in points:
        moved = Seen(move_end(piece, float(point)), footage, look, polish=polish)
        velocity = moved.velocity(at_end=at_end)
        if velocity is None:
            return none
        found.append(velocity)
    return points, np.array(found)


def sweep_at(piece: Piece, footage: Footage, look: Look, *, at_end: bool) -> float | None:
    """Where a deliberate sweep beyond an end of a piece is quickest, s from the film's first frame;
    None without one. Meant for a cut that hides in it."""
    at_out = at_end != piece.backwards
    edge_s = piece.out_s if at_out else piece.in_s
    length_s = float(footage.motion.t_s[-1]) - footage.first_s
    room_s = length_s - edge_s if at_out else edge_s
    offsets = np.arange(0.0, min(room_s, SWEEP_WITHIN_S), TRIM_STEP_S / 2)
    move_end = ending_at if at_end else beginning_at
    best: tuple[float, float] | None = None
    for point in edge_s + offsets if at_out else edge_s - offsets:
        moved = Seen(move_end(piece, float(point)), footage, look)
        velocity = moved.velocity(at_end=at_end)
        speed = 0.0 if velocity is None else float(np.hypot(velocity[0], velocity[1]))
        if speed >= SWEEP_PCT_S and (best is None or speed > best[0]):
            best = speed, float(point)
    return None if best is None else round(best[1], 3)
