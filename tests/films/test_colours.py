"""Patches of known colour look alike as a copy, a still, a preview and a film of full size."""

from __future__ import annotations

import av
import numpy as np
import pytest

from ridgewind.core.clip import Clip
from ridgewind.core.judge.analysis import Analysis
from ridgewind.core.judge.recipe import Recipe
from ridgewind.core.motion.pyramid import to_working
from ridgewind.films.rendering import Source, render_film, render_preview
from ridgewind.media.decode import Film
from ridgewind.media.encode import BrowserCopy, still_of
from ridgewind.media.planes import view_of
from ridgewind.media.tone import HLG, PQ, mapped
from tests.conftest import make_motion

SIZE, FRAMES = (320, 192), 12
RED, GREEN, BLUE, SKIN, WHITE = (
    (0.7, 0.1, 0.1), (0.1, 0.6, 0.2), (0.1, 0.2, 0.7), (0.6, 0.45, 0.38), (0.7, 0.7, 0.7),
)  # fmt: skip
PATCHES = np.array([RED, GREEN, BLUE, SKIN, WHITE])
WEIGHTS = {1: (0.2126, 0.0722), 9: (0.2627, 0.0593), 5: (0.299, 0.114)}
"""Of red and blue, by the matrix that a frame names (ISO/IEC 23091-2)."""

FORMS = {
    "SDR, limited": (1, 1, 1, 1, 8), "SDR, full": (1, 1, 1, 2, 8),
    "HLG": (9, 9, HLG, 1, 10), "PQ": (9, 9, PQ, 1, 10),
}  # fmt: skip
"""Matrix, primaries, transfer, range and bits."""


def to_yuv(rgb, matrix, full, bits):
    kr, kb = WEIGHTS[matrix]
    luma = rgb @ np.array([kr, 1 - kr - kb, kb])
    blue, red = (rgb[:, 2] - luma) / (2 - 2 * kb), (rgb[:, 0] - luma) / (2 - 2 * kr)
    scale = 2 ** (bits - 8)
    if full:
        return np.stack([255 * luma, 255 * blue + 128, 255 * red + 128], 1) * scale
    return np.stack([219 * luma + 16, 224 * blue + 128, 224 * red + 128], 1) * scale


def to_rgb(yuv, matrix, full):
    """Of 8 bits, as a screen shows them that goes by what the film says of itself."""
    kr, kb = WEIGHTS[matrix]
    luma = yuv[:, 0] / 255 if full else (yuv[:, 0] - 16) / 219
    blue, red = ((yuv[:, k] - 128) / (255 if full else 224) for k in (1, 2))
    r, b = luma + (2 - 2 * kr) * red, luma + (2 - 2 * kb) * blue
    return np.stack([r, (luma - kr * r - kb * b) / (1 - kr - kb), b], 1)


def filmed(path, form):
    matrix, primaries, transfer, levels, bits = FORMS[form]
    yuv = np.round(to_yuv(PATCHES, matrix, levels == 2, bits))
    kind, fmt = (np.uint16, "yuv420p10le") if bits > 8 else (np.uint8, "yuv420p")
    with av.open(str(path), "w") as out:
        stream = out.add_stream("libx265" if bits > 8 else "libx264", rate=30)
        stream.width, stream.height = SIZE
        stream.pix_fmt = fmt
        stream.options = {"crf": "4"} | ({"x265-params": "log-level=0"} if bits > 8 else {})
        context = stream.codec_context
        context.color_trc, context.color_primaries, context.colorspace = transfer, primaries, matrix
        context.color_range = levels
        for _ in range(FRAMES):
            frame = av.VideoFrame(*SIZE, fmt)
            for index, plane in enumerate(frame.planes):
                values = np.frombuffer(plane, kind).reshape(-1, plane.line_size // kind().itemsize)
                wide = plane.width // len(PATCHES)
                values[:] = yuv[-1, index]
                for k in range(len(PATCHES)):
                    values[:, k * wide : (k + 1) * wide] = yuv[k, index]
            frame.color_trc, frame.color_primaries = transfer, primaries
            frame.colorspace, frame.color_range = matrix, levels
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    return path


def on_screen(frame) -> np.ndarray:
    """The patches of a frame of 8 bits, by its own description."""
    assert frame.color_trc not in (HLG, PQ)
    planes = [view_of(frame, index).astype(float) for index in range(3)]
    yuv = np.stack([middles(plane) for plane in planes], 1)
    return to_rgb(yuv, frame.colorspace, frame.color_range == 2)


def middles(plane: np.ndarray) -> np.ndarray:
    wide = plane.shape[1] // len(PATCHES)
    rows = slice(plane.shape[0] // 3, 2 * plane.shape[0] // 3)
    spans = [slice(k * wide + wide // 3, k * wide + 2 * wide // 3) for k in range(len(PATCHES))]
    return np.array([plane[rows, span].mean() for span in spans])


def first(path):
    with av.open(str(path)) as film:
        return next(film.decode(video=0))


def still_colours(path) -> np.ndarray:
    with Film(path) as film:
        picture = next(iter(film.pictures(to_working)))
        image = still_of(picture, long_side_px=SIZE[0]) / 255.0
    return np.stack([middles(image[..., k]) for k in (2, 1, 0)], 1)


@pytest.mark.parametrize("form", FORMS)
def test_a_colour_is_one_colour_wherever_it_is_seen(tmp_path, form):
    path = filmed(tmp_path / "patches.mp4", form)
    transfer = FORMS[form][2]
    meant = mapped(PATCHES, transfer) if transfer in (HLG, PQ) else PATCHES
    with (
        Film(path) as film,
        BrowserCopy(tmp_path / "copy.mp4", size=SIZE, rate_hz=30, sound=None) as copy,
    ):
        for picture in film.pictures(to_working):
            copy.feed(picture)
    motion = make_motion(rate_hz=30.0, seconds=FRAMES / 30)
    clip = Clip(30.0, FRAMES / 30, False, SIZE, 26.0)
    recipe = Recipe("keep", 0.0, FRAMES / 30, 1.0, 1.0, None, 0.0, None, 0.0, None)
    told = (recipe, Analysis(motion), clip, Source(path, 0.0, SIZE, 30.0))
    render_preview(*told, tmp_path / "preview.mp4", on_progress=lambda _: None)
    render_film(*told, tmp_path / "full.mp4", on_progress=lambda _: None)
    seen = {
        "copy": on_screen(first(tmp_path / "copy.mp4")),
        "preview": on_screen(first(tmp_path / "preview.mp4")),
        "still": still_colours(path),
        # It keeps what was recorded, for an editor; shown, it is the same.
        "full size": still_colours(tmp_path / "full.mp4"),
    }
    for name, colours in seen.items():
        assert np.abs(colours - meant).max() < 0.035, (name, colours, meant)
    assert first(tmp_path / "full.mp4").color_trc == transfer
