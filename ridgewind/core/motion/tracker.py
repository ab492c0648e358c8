"""Follow the background from frame to frame, in one pass and constant memory.

Frames are compared with a reference that moves only when it must: every move of the reference
adds a little error for good, and comparing neighbours only would hide slow sway in a random
walk. Points carry a memory of how far they have agreed with the background; what newly enters
the picture has to earn its weight.
"""

from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion import patches, pyramid
from ridgewind.core.motion.dissolve import DissolveWatch, correlation, overlap
from ridgewind.core.motion.fit import (
    Fit,
    Similarity,
    apply,
    build_equations,
    read_at_centre,
    robust_fit,
    rough_similarity,
)
from ridgewind.core.motion.path import TRUSTED, Motion
from ridgewind.core.motion.reference import MIN_POINTS, Kept, Reference, make_reference
from ridgewind.core.motion.rows import Row, assemble, in_path_units, without_tiny_shots

METHOD = "patches-2"
"""Version of the measuring method; stored with every measurement."""

Floats = NDArray[np.float64]
Float32s = NDArray[np.float32]

NOISE_PX = 0.03
"""Least scatter of aligned patches, px at the working size (measured on sharp made clips)."""

COARSE_NOISE_PX = 0.25
"""Scatter of patches at the quarter size, px there."""

PLACE_OF_LEVEL = {pyramid.FULL: 0, pyramid.QUARTER: 1, pyramid.EIGHTH: 2}
FIT_ROUNDS = 2
SURE_PX = 1.0
"""While predictions have been off by less, px at the working size, the coarse search is spared."""

SURPRISE_DECAY = 0.9
FINE_ITERATIONS = 2
MIN_SCORE = 0.6
"""Correlation with its template from which a patch is believed."""

MEMORY = 0.12
"""Share of the newest frame in a point's memory of agreement."""

REFERENCE_SHIFT = 0.14
REFERENCE_LOG_SCALE = 0.12
REFERENCE_TURN_RAD = 0.14
REFERENCE_AGREE = 0.6
REFERENCE_REST = 8
"""Frames for which a new reference stays although fewer points agree with it: what crosses the
picture would otherwise move it in every frame, each time at a little error for good."""

REPEAT_GREY = 0.02
"""Two pictures that differ by less, in mean grey levels, are one picture shown twice."""

OUTLIER_WEIGHT, BELIEVED_WEIGHT = 0.1, 0.3
LOST_FRAMES = 8
"""Frames after which a lost reference is given up, and a suspected cut is believed."""

CUT_CORRELATION = 0.5
"""Two neighbouring pictures that correlate less, at the best shift, are different shots."""

DARK_MEAN, DARK_SPREAD = 36.0, 6.0
"""Mean and spread of luma (black is 16 in most films) under which a picture is too dark."""

ERROR_SCALE_PX = 0.25
"""Standard error of the centre at which trust falls to a half, px at the working size."""


class Tracker:
    """Feed working pictures in order, then finish().

    size: (width, height) of the working pictures in px, display orientation.
    """

    def __init__(self, size: tuple[int, int]) -> None:
        width, height = size
        if min(width, height) < 32:
            raise InvalidArgumentError("size", size, "both sides must be at least 32 px")
        self._size = size
        self._long = float(max(size))
        self._centre = np.array([(width - 1) / 2.0, (height - 1) / 2.0])
        self._rows: list[Row] = []
        self._cuts: list[int] = []
        self._reference: Reference | None = None
        self._error_before = np.zeros(4)  # left behind by earlier references
        self._thumb: Float32s | None = None  # the last picture that could be placed
        self._suspect: Tracker | None = None  # what follows a suspected cut, on probation
        self._last: pyramid.Image | None = None
        self._watch = DissolveWatch()

    def feed(self, t_s: float, luma: pyramid.Image) -> None:
        """Measure the next frame. luma: (height, width) uint8 at the working size."""
        if luma.shape[::-1] != self._size:
            raise InvalidArgumentError("luma", luma.shape, f"its size must be {self._size}")
        if self._last is not None and self._rows and _difference(luma, self._last) < REPEAT_GREY:
            self._repeat(t_s)
        else:
            self._take(t_s, luma, pyramid.build(luma))
        self._last = luma

    def finish(self) -> Motion:
        """The path of everything fed so far."""
        if self._suspect is not None:
            self._believe_cut()
        rows, cuts = without_tiny_shots(self._rows, self._cuts)
        return assemble(rows, cuts, min(self._size) / self._long)

    def _repeat(self, t_s: float) -> None:
        """The same picture again; whether it stood still or hides motion, the path will tell."""
        self._rows.append(replace(self._rows[-1], t_s=t_s, repeat=True))
        if self._suspect is not None:
            self._suspect._repeat(t_s)

    def _take(self, t_s: float, luma: pyramid.Image, levels: list[Float32s]) -> None:
        row = self._step(t_s, luma, levels)
        self._rows.append(row)
        if row.step is not None:
            self._thumb = levels[-1]
        if self._suspect is not None and len(self._suspect._rows) > LOST_FRAMES:
            self._believe_cut()

    def _step(self, t_s: float, luma: pyramid.Image, levels: list[Float32s]) -> Row:
        if self._reference is None:
            return self._begin(t_s, luma, levels)
        reference = self._reference
        fit, seen = self._locate(reference, levels)
        trust = 0.0 if fit is None else self._trust(reference, fit, seen)
        if fit is None or trust < TRUSTED:
            retried, seen_again = self._locate(reference, levels, start=self._jump(levels))
            again = 0.0 if retried is None else self._trust(reference, retried, seen_again)
            if again > trust:
                fit, seen, trust = retried, seen_again, again
        if fit is None or trust < TRUSTED:
            return self._lose(t_s, luma, levels)
        self._suspect = None  # the old picture is back: it was no cut
        return self._accept(t_s, luma, levels, fit, seen, trust)

    def _begin(self, t_s: float, luma: pyramid.Image, levels: list[Float32s]) -> Row:
        self._reference = make_reference(luma, levels, t_s=t_s)
        if self._reference is None:
            return Row(t_s, None, None, 0.0, _poor_picture(luma))
        still = Similarity(0.0, 0.0, 0.0, 0.0)
        return Row(t_s, still, self._error_before.copy(), 1.0, "")

    def _locate(
        self, reference: Reference, levels: list[Float32s], start: Floats | None = None
    ) -> tuple[Fit | None, NDArray[np.bool_]]:
        """Align every patch, coarse to fine, and fit the motion.

        start: (2,) a shift of the picture since the last frame, long sides, to begin from;
        otherwise the motion of the last frame is taken to go on.
        """
        h = self._predict(reference, start)
        plan = [(reference.quarter, 2), (reference.fine, FINE_ITERATIONS)]
        if start is not None:
            plan = [(reference.eighth, 3), (reference.quarter, 3), (reference.fine, 4)]
        elif reference.surprise * self._long < SURE_PX:
            plan = [(reference.fine, FINE_ITERATIONS + 1)]
        gain: Float32s | None = None
        for templates, iterations in plan:
            guess = apply(h, reference.points)
            start_px = pyramid.to_level(guess * self._long + self._centre, templates.level)
            aligned = patches.align(
                templates,
                levels[PLACE_OF_LEVEL[templates.level]],
                start_px=start_px.astype(np.float32),
                linear=_linear_at_centre(h).astype(np.float32),
                iterations=iterations,
                gain=gain,
            )
            gain = aligned.gain
            fine_px = (aligned.position_px.astype(np.float64) + 0.5) * 2**templates.level - 0.5
            found = (fine_px - self._centre) / self._long
            seen = (aligned.score > MIN_SCORE) & self._inside(fine_px)
            if seen.sum() < MIN_POINTS:
                return None, seen
            if templates.level:
                noise = COARSE_NOISE_PX * 2**templates.level / self._long
                weights = reference.agree[seen]
                h = rough_similarity(guess[seen], found[seen], weights, noise=noise) @ h
        equations = build_equations(
            reference.points[seen], found[seen], noise=NOISE_PX / self._long
        )
        fit = robust_fit(equations, reference.agree[seen], start=h, rounds=FIT_ROUNDS)
        weights = np.zeros(len(found))
        weights[seen] = fit.weights
        return replace(fit, weights=weights), seen

    def _predict(self, reference: Reference, start: Floats | None) -> Floats:
        if start is None:
            h = reference.h @ np.linalg.inv(reference.h_before) @ reference.h
            steady: Floats = h / h[2, 2]
            return steady
        move = np.eye(3)
        move[:2, 2] = start
        return move @ reference.h

    def _inside(self, at_px: Floats) -> NDArray[np.bool_]:
        width, height = self._size
        edge = 4.0
        x, y = at_px[:, 0], at_px[:, 1]
        # Two comparisons instead of four: within so far of the middle.
        inside: NDArray[np.bool_] = np.abs(x - (width - 1) / 2) < (width - 1) / 2 - edge
        inside &= np.abs(y - (height - 1) / 2) < (height - 1) / 2 - edge
        return inside

    def _trust(self, reference: Reference, fit: Fit, seen: NDArray[np.bool_]) -> float:
        """How far the fit can be believed: agreement, spread over the picture, sharpness."""
        in_frame = self._inside(apply(fit.h, reference.points) * self._long + self._centre)
        weight = fit.weights * reference.agree
        total, possible = float(weight.sum()), float(reference.agree @ in_frame)
        if np.count_nonzero(fit.weights > 0.1) < MIN_POINTS or possible <= 0:
            return 0.0
        middle = weight @ reference.points / total
        variance = weight @ (reference.points**2) / total - middle**2
        # Root mean square distance along either side, 0.29 of it where the picture is full.
        spread = float((np.sqrt(variance) * self._long / self._size).min())
        sharp = 1.0 / (1.0 + (fit.centre_se * self._long / ERROR_SCALE_PX) ** 2)
        return min(1.0, total / possible / 0.5) * min(1.0, spread / 0.12) * sharp

    def _jump(self, levels: list[Float32s]) -> Floats:
        """Shift of the whole picture since the last frame, by phase correlation, long sides."""
        thumb = levels[-1]
        assert self._thumb is not None
        window = cv2.createHanningWindow(thumb.shape[::-1], cv2.CV_32F)
        (dx, dy), _ = cv2.phaseCorrelate(self._thumb, thumb, window)
        shift: Floats = np.array([dx, dy]) * 2**pyramid.EIGHTH / self._long
        return shift

    def _accept(
        self,
        t_s: float,
        luma: pyramid.Image,
        levels: list[Float32s],
        fit: Fit,
        seen: NDArray[np.bool_],
        trust: float,
    ) -> Row:
        reference = self._reference
        assert reference is not None
        expected = self._predict(reference, None)[:2, 2]
        off = float(np.abs(fit.h[:2, 2] - expected).max())
        reference.surprise = max(off, SURPRISE_DECAY * reference.surprise)
        step = read_at_centre(fit.h @ np.linalg.inv(reference.h))
        error = self._error_before + in_path_units(fit.split)
        reference.agree += MEMORY * (fit.weights - reference.agree) * seen
        gone = reference.missed + 1
        reference.h_before = reference.h if gone == 1 else fit.h
        reference.h, reference.missed = fit.h, 0
        reference.age += 1
        counted = max(int(np.count_nonzero(seen)), 1)
        outlier_share = float(np.count_nonzero(fit.weights[seen] < OUTLIER_WEIGHT)) / counted
        if self._worn(reference, fit):
            self._move_reference(luma, levels, fit, t_s)
            self._error_before = error
        believed = reference.born_s[fit.weights > BELIEVED_WEIGHT]
        if self._watch.replaced(t_s, levels[-1], step, believed):
            self._cuts.append(len(self._rows))
            self._error_before = np.zeros(4)
            step, error = Similarity(0.0, 0.0, 0.0, 0.0), np.zeros(4)
        return Row(t_s, step, error, trust, "", outlier_share=outlier_share)

    def _worn(self, reference: Reference, fit: Fit) -> bool:
        moved = read_at_centre(fit.h)
        agreeing = float((fit.weights * reference.agree).sum())
        return (
            np.hypot(moved.dx, moved.dy) > REFERENCE_SHIFT
            or abs(moved.log_scale) > REFERENCE_LOG_SCALE
            or abs(moved.turn) > REFERENCE_TURN_RAD
            or (agreeing < REFERENCE_AGREE * reference.usual and reference.age > REFERENCE_REST)
        )

    def _move_reference(
        self, luma: pyramid.Image, levels: list[Float32s], fit: Fit, t_s: float
    ) -> None:
        reference = self._reference
        assert reference is not None
        here = apply(fit.h, reference.points)
        inside = self._inside(here * self._long + self._centre)
        keep = (fit.weights > BELIEVED_WEIGHT) & inside
        lost = here[inside & ~keep]
        kept = Kept(here[keep], reference.agree[keep], reference.born_s[keep], lost)
        made = make_reference(luma, levels, t_s=t_s, kept=kept)
        if made is not None:
            drift = np.linalg.inv(reference.h @ np.linalg.inv(reference.h_before))
            made.h_before = drift / drift[2, 2]
            made.surprise = reference.surprise
            self._reference = made

    def _lose(self, t_s: float, luma: pyramid.Image, levels: list[Float32s]) -> Row:
        """The frame does not fit the reference: a cut, a blurred frame, or a lost picture.

        After a suspected cut the new picture is followed on probation, beside the old one:
        should the old one come back soon, something had only come between.
        """
        reference = self._reference
        assert reference is not None
        reference.missed += 1
        reference.h_before = reference.h
        # At once after a hard cut; later after a dissolve, or while something large goes by.
        asked = reference.missed in (1, LOST_FRAMES + 1)
        if self._suspect is None and asked and self._is_cut(levels):
            self._suspect = Tracker(self._size)
        if self._suspect is not None:
            self._suspect._take(t_s, luma, levels)
        elif reference.missed > LOST_FRAMES:
            self._reference = make_reference(luma, levels, t_s=t_s)
        poor = _poor_picture(luma) if self._reference is None else "blur"
        return Row(t_s, None, None, 0.0, poor)

    def _believe_cut(self) -> None:
        """Go on from the picture that was followed on probation."""
        after = self._suspect
        assert after is not None
        start = len(self._rows) - len(after._rows)
        self._rows[start:] = after._rows
        self._cuts += [start, *(start + cut for cut in after._cuts)]
        self._reference, self._error_before = after._reference, after._error_before
        self._thumb, self._suspect = after._thumb, after._suspect
        self._watch = after._watch

    def _is_cut(self, levels: list[Float32s]) -> bool:
        assert self._thumb is not None
        before, now = self._thumb, levels[-1]
        dx, dy = (self._jump(levels) * self._long / 2**pyramid.EIGHTH).round().astype(int)
        height, width = now.shape
        if abs(dx) > width // 2 or abs(dy) > height // 2:
            return True
        a, b = overlap(before, now, dx, dy)
        return min(correlation(a, b), 1.0) < CUT_CORRELATION and (
            correlation(before, now) < CUT_CORRELATION
        )


def _difference(a: pyramid.Image, b: pyramid.Image) -> float:
    """Mean difference of two pictures, grey levels."""
    return float(cv2.norm(a, b, cv2.NORM_L1)) / a.size


def _linear_at_centre(h: Floats) -> Floats:
    """(2, 2) derivative of a homography at the origin."""
    shift = h[:2, 2:] / h[2, 2]
    out: Floats = (h[:2, :2] - shift @ h[2:, :2]) / h[2, 2]
    return out


def _poor_picture(luma: pyramid.Image) -> str:
    mean, spread = cv2.meanStdDev(luma)
    return "dark" if mean[0, 0] < DARK_MEAN and spread[0, 0] < DARK_SPREAD else "detail"
