"""Pixel formats: as the library makes them, whatever was made before, in any thread."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor

import av
import numpy as np

from ridgewind.media.formats import in_format

SIZES = ((64, 36), (320, 180), (64, 36), (62, 48))


def frame_of_noise(number: int) -> av.VideoFrame:
    width, height = SIZES[number % len(SIZES)]
    shape = (height, width, 3) if number % 2 else (height, width)
    noise = np.random.default_rng(number).integers(0, 255, shape, np.uint8)
    return av.VideoFrame.from_ndarray(noise, format="bgr24" if number % 2 else "gray")


def test_sizes_and_formats_may_change_from_frame_to_frame_in_several_threads():
    def is_same(number: int) -> bool:
        frame, wanted = frame_of_noise(number), ("yuv420p", "yuv444p")[number % 3 == 0]
        made, alone = in_format(frame, wanted), frame.reformat(format=wanted)
        assert made.format.name == wanted
        return np.array_equal(made.to_ndarray(), alone.to_ndarray())

    with ThreadPoolExecutor(4) as pool:
        assert all(pool.map(is_same, range(80)))


def test_a_frame_that_has_the_format_stays_as_it_is():
    frame = frame_of_noise(1)
    assert np.array_equal(in_format(frame, "bgr24").to_ndarray(), frame.to_ndarray())
