"""Every remedy shows every picture of its stretch, whatever the file is wrapped in."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import av
import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.recipe import Recipe, recipe_of
from ridgewind.films.measuring import measure_film
from ridgewind.films.rendering import Source, render_film, render_preview
from ridgewind.media.formats import in_format
from tests.conftest import shaken

SECONDS, RATE, GREY = 3, 30, 60
PATCH = (slice(60, 120), slice(120, 200))

WRAPPINGS = {
    "mp4": ("mp4", "libx264", {"g": "40"}),
    "mkv": ("matroska", "libx264", {"g": "40"}),
    "avi": ("avi", "mpeg4", {"b": "5000000"}),
    "flv": ("flv", "libx264", {"g": "40"}),
    "transport stream": ("mpegts", "libx264", {"g": "30"}),
    "transport stream, one long group": ("mpegts", "libx264", {"g": "9999", "bf": "2"}),
    "transport stream, HEVC": ("mpegts", "libx265", {"x265-params": "log-level=0:keyint=400"}),
    "programme stream": ("vob", "mpeg2video", {"b": "6000000", "g": "15", "bf": "2"}),
}


def numbered():
    """Shaken pictures, each with its number in the grey of its middle."""
    for index, frame in enumerate(shaken(SECONDS * RATE, amplitude_px=2.0)):
        marked = frame.copy()
        marked[PATCH] = GREY + index
        yield marked


def wrapped(path: Path, fmt: str, codec: str, options: dict[str, str]) -> Path:
    with av.open(str(path), "w", format=fmt) as film:
        stream = film.add_stream(codec, rate=RATE)
        stream.width, stream.height, stream.pix_fmt = 320, 180, "yuv420p"
        stream.options = options
        audio = film.add_stream("mp2", rate=48_000, layout="stereo") if fmt == "mpegts" else None
        for frame in numbered():
            picture = av.VideoFrame.from_ndarray(frame, format="gray")
            film.mux(stream.encode(in_format(picture, "yuv420p")))
        film.mux(stream.encode(None))
        if audio is not None:
            for k in range(SECONDS * 48_000 // 1152):
                silence = av.AudioFrame.from_ndarray(
                    np.zeros((1, 2304), np.int16), format="s16", layout="stereo"
                )
                silence.rate, silence.pts = 48_000, 1152 * k
                film.mux(audio.encode(silence))
            film.mux(audio.encode(None))
    return path


def numbers_in(path: Path) -> list[int]:
    with av.open(str(path)) as film:
        middles = [f.to_ndarray(format="gray")[75:105, 145:175] for f in film.decode(video=0)]
    return [round(float(middle.mean())) - GREY for middle in middles]


def taken(recipe: Recipe, first: int, last: int, t_s: np.ndarray) -> Recipe:
    return replace(recipe, start_s=float(t_s[first]), end_s=float(t_s[last]))


@pytest.mark.parametrize("kind", WRAPPINGS)
def test_every_picture_of_a_stretch_is_shown_from_the_first_on(kind, tmp_path):
    path = wrapped(tmp_path / "film", *WRAPPINGS[kind])
    found = measure_film(path)
    assert found.frames == SECONDS * RATE
    size, t_s = (found.width, found.height), found.motion.t_s
    analysis = Analysis(found.motion)
    clip = Clip(found.fps, found.duration_s, found.has_sound, size, 26.0)
    source = Source(path, 0.0, size, found.fps)
    whole = recipe_of(assess(analysis, clip, usual_brief()).decision.of("keep"))
    polished = replace(whole, kind="polish", corner_hz=1.0, crop_pct=4.0)
    slowed = replace(whole, rate=0.5)
    for render, recipe, (first, last) in (
        (render_film, whole, (0, 89)),
        (render_film, polished, (47, 80)),
        (render_preview, whole, (33, 60)),
        (render_preview, slowed, (65, 89)),
    ):
        render(
            taken(recipe, first, last, t_s), analysis, clip, source, tmp_path / "out.mp4",
            on_progress=lambda _: None,
        )  # fmt: skip
        shown = numbers_in(tmp_path / "out.mp4")
        assert len(shown) == last - first + 1
        assert shown[0] == pytest.approx(first, abs=1)
        assert shown[-1] == pytest.approx(last, abs=1)
