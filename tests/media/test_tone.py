"""HLG and PQ films on ordinary screens, and pixels that are not square."""

from __future__ import annotations

from fractions import Fraction

import av
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.motion.pyramid import to_working
from ridgewind.films.measuring import measure_film
from ridgewind.media.decode import Film
from ridgewind.media.encode import BrowserCopy, still_of
from ridgewind.media.tone import HLG, PQ, mapped
from tests.conftest import shaken, write_film

WHITE = {HLG: 0.75, PQ: 0.58}
"""Signals of a white sheet, and of a grey card below (ITU-R BT.2408, table 1)."""

GREY = {HLG: 0.38, PQ: 0.38}


def grey(signal: float, transfer: int) -> float:
    return float(mapped(np.full((1, 3), signal), transfer)[0, 1])


@pytest.mark.parametrize("transfer", [HLG, PQ])
def test_a_white_sheet_is_nearly_white_and_a_grey_card_is_grey(transfer):
    assert 0.85 < grey(WHITE[transfer], transfer) < 0.95
    assert 0.30 < grey(GREY[transfer], transfer) < 0.45
    assert grey(0.0, transfer) == pytest.approx(0.0, abs=0.01)
    assert grey(1.0, transfer) == pytest.approx(1.0, abs=0.01)


@given(st.sampled_from([HLG, PQ]), st.floats(0, 0.98), st.floats(0.005, 0.02))
def test_what_is_brighter_stays_brighter(transfer, signal, more):
    assert grey(signal + more, transfer) >= grey(signal, transfer)


@pytest.mark.parametrize("transfer", [HLG, PQ])
def test_copies_and_stills_of_a_wide_range_look_as_they_were_meant(transfer, tmp_path):
    path, copied = tmp_path / "wide.mp4", tmp_path / "copy.mp4"
    flat = np.full((180, 320), round(64 + WHITE[transfer] * 876), np.uint16)
    with av.open(str(path), "w") as out:
        stream = out.add_stream("libx265", rate=30)
        stream.width, stream.height, stream.pix_fmt = 320, 180, "yuv420p10le"
        stream.options = {"x265-params": "log-level=0"}
        context = stream.codec_context
        context.color_trc, context.color_primaries, context.colorspace = transfer, 9, 9
        context.color_range = 1
        for _ in range(6):
            frame = av.VideoFrame(320, 180, "yuv420p10le")
            for index, plane in enumerate(frame.planes):
                values = np.frombuffer(plane, np.uint16).reshape(-1, plane.line_size // 2)
                values[:] = flat[0, 0] if index == 0 else 512
            frame.color_trc, frame.color_primaries = transfer, 9
            frame.colorspace, frame.color_range = 9, 1
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    with (
        Film(path) as film,
        BrowserCopy(copied, size=(320, 180), rate_hz=30, sound=None) as copy,
    ):
        for picture in film.pictures(to_working):
            copy.feed(picture)
            still = still_of(picture, long_side_px=320)
    meant = grey(WHITE[transfer], transfer)
    assert still.mean() / 255 == pytest.approx(meant, abs=0.02)
    with av.open(str(copied)) as made:
        shown = next(made.decode(video=0))
        assert shown.color_trc == 1
        luma = shown.to_ndarray()[:180].mean()
    assert (luma - 16) / 219 == pytest.approx(meant, abs=0.02)


@pytest.mark.parametrize(
    ("aspect", "size"), [(Fraction(4, 3), (427, 180)), (Fraction(3, 4), (320, 240))]
)
def test_wide_and_tall_pixels_keep_all_their_lines(aspect, size, tmp_path):
    path = write_film(tmp_path / "odd.mp4", shaken(20), aspect=aspect)
    found = measure_film(path)
    assert (found.width, found.height) == size
