"""Whatever a path is like, everything that reads it answers with values or with reasons."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.brief import Brief, usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.verdict import verdict_from
from ridgewind.core.motion.compression import with_compression_told
from ridgewind.core.motion.path import (
    DOUBTS,
    REASONS,
    TRUSTED,
    UNSETTLED_TRUST,
    Motion,
    RivalPath,
    Shot,
    clipped,
)
from ridgewind.core.shake.doubt import with_noise_told
from ridgewind.core.shake.trace import trace
from ridgewind.services.assessing import first_cause, small_ridge, spectrum, top_band
from ridgewind.services.figures import figures_of, hand_of, lasting_of

CLIP = Clip(fps=30.0, duration_s=4.0, has_sound=True, size_px=(1080, 1920), focal_eq_mm=26.0)


def _runs(draw, count, values):
    """An array (count,) of stretches that each have one of the values."""
    out = np.empty(count)
    at = 0
    while at < count:
        length = draw(st.integers(1, 60))
        out[at : at + length] = draw(st.sampled_from(values))
        at += length
    return out


@st.composite
def motions(draw):
    """Any path that a film could leave behind: gaps, odd times, shots of every kind."""
    count = draw(st.integers(2, 180))
    steps = _runs(draw, count, [1 / 30, 1 / 60, 1 / 24, 0.001, 0.4, 3.0])
    t_s = draw(st.sampled_from([0.0, 0.5, 3600.0])) + np.cumsum(steps)
    rng = np.random.default_rng(draw(st.integers(0, 2**16)))
    size = draw(st.sampled_from([0.0, 1e-6, 0.3, 40.0]))
    path = np.cumsum(rng.normal(0, size, (count, 4)), axis=0)
    trust = _runs(draw, count, [0.0, 0.4, 0.5, UNSETTLED_TRUST, 1.0])
    path[:, 3] = np.clip(path[:, 3], -60.0, 300.0)  # a picture never shrinks to nothing
    path[_runs(draw, count, [0.0, 0.0, 1.0]) > 0] = np.nan
    cuts = sorted(draw(st.sets(st.integers(1, count - 1), max_size=4)))
    edges = [0, *cuts, count]
    shots = []
    for start, stop in pairwise(edges):
        reason = draw(st.sampled_from([None, None, None, *REASONS]))
        rivals = tuple(
            RivalPath(path[start:stop] * k, trust[start:stop], 0.1 * k, -0.2, 30.0, 0.4, k == 0)
            for k in range(draw(st.integers(0, 2)))
        )
        doubt = draw(st.sampled_from([None, *DOUBTS]))
        shots.append(Shot(start, stop, reason, doubt, rivals))
    held = _runs(draw, count, [0.0, 0.0, 1.0]) > 0
    return Motion(
        t_s, *path.T, trust=trust, error=rng.normal(0, size / 9, (count, 4)),
        aspect=draw(st.sampled_from([9 / 16, 1.0])), shots=tuple(shots),
        held=held if draw(st.booleans()) else None,
    )  # fmt: skip


def finite(value: float | None) -> bool:
    return value is None or bool(np.isfinite(value))


def answers(motion: Motion, clip: Clip, brief: Brief) -> None:
    """Judge it, and everything that a page shows of it."""
    analysis = Analysis(motion, stretch=clip.stretch)
    found = assess(analysis, clip, brief)
    line = trace(found.reading, found.band_powers, screen_deg=brief.screen_deg, most_points=400)
    assert all(finite(value) for value in (found.gust, found.peak_gust, found.body_deg_s))
    assert found.gust is not None or found.reading.reason in REASONS.values()
    verdict_from(found, motion)
    figures_of(found, None)
    lasting_of(found)
    hand_of(found, clip.focal_eq_mm)
    small_ridge(line)
    spectrum(found)
    top_band(found)
    first_cause(found)


@settings(max_examples=150)
@given(
    motions(),
    st.sampled_from(["locked", "smooth", "raw"]),
    st.booleans(),
    st.sampled_from([None, 120.0, 12.0]),
)
def test_any_motion_is_judged_or_refused(motion, feel, moves, capture_fps):
    clip = replace(CLIP, move_expected=moves, capture_fps=capture_fps)
    answers(with_noise_told(motion), clip, usual_brief(feel))
    length_s = float(motion.t_s[-1] - motion.t_s[0])
    if length_s > 0.02:
        part = clipped(motion, from_s=0.3 * length_s, to_s=0.8 * length_s)
        if part.shots:
            answers(part, clip, usual_brief(feel))


@given(motions(), st.floats(0.55, 1.0))
def test_compression_takes_no_frame_out(motion, believed):
    told = replace(motion, trust=with_compression_told(motion.trust, believed))
    assert np.array_equal(told.trusted, motion.trusted)
    assert np.all(told.trust <= motion.trust)
    assert told.trust.max(initial=0.0) <= max(TRUSTED, believed)
