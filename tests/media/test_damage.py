"""Damaged files end in a measurement or a clear refusal, in bounded time and memory."""

from __future__ import annotations

import multiprocessing
import os
import random
import re
import time
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.films.measuring import measure_film
from ridgewind.media.errors import MediaError
from tests.conftest import shaken, write_film

COUNT = int(os.environ.get("DAMAGED_FILES", "72"))
"""How many; a thousand by hand: `DAMAGED_FILES=1000`."""

LONGEST_S, MOST_MB = 10.0, 600.0
KINDS = (
    ("h264.mp4", "libx264", "yuv420p", {"g": "8"}),
    ("h264.mkv", "libx264", "yuv420p", {"g": "8"}),
    ("mjpeg.avi", "mjpeg", "yuvj420p", {}),
    ("mpeg2.mpg", "mpeg2video", "yuv420p", {"b": "2000000"}),
    ("vp9.webm", "libvpx-vp9", "yuv420p", {"cpu-used": "8", "deadline": "realtime"}),
    ("hevc.mov", "libx265", "yuv420p10le", {"x265-params": "log-level=0"}),
)


@pytest.fixture(scope="module")
def whole(tmp_path_factory):
    folder = tmp_path_factory.mktemp("whole")
    return [
        write_film(
            folder / name, shaken(20, size=(160, 96)), codec=codec, pix_fmt=pix_fmt, options=options
        )
        for name, codec, pix_fmt, options in KINDS
    ]


def damaged(data: bytes, rng: random.Random) -> bytes:
    """One of: bytes changed, a stretch lost, doubled, zeroed or made of noise, the end cut off."""
    out = bytearray(data)
    start, length = rng.randrange(len(out)), rng.randrange(1, max(2, len(out) // 3))
    match rng.randrange(6):
        case 0:
            for _ in range(rng.randrange(1, 60)):
                out[rng.randrange(len(out))] = rng.randrange(256)
        case 1:
            del out[start : start + length]
        case 2:
            out[start:start] = out[start : start + length]
        case 3:
            out[start : start + length] = bytes(len(out[start : start + length]))
        case 4:
            out[start : start + length] = rng.randbytes(len(out[start : start + length]))
        case _:
            del out[start:]
    return bytes(out)


def outcome(path):
    """What was measured and could be judged, or why nothing was; anything else that is raised fails
    the test."""
    try:
        found = measure_film(path)
    except MediaError as error:
        return None, error
    size = (found.width, found.height)
    clip = Clip(found.fps, found.duration_s, found.has_sound, size, 26.0)
    assess(Analysis(found.motion), clip, usual_brief())
    return found, None


def peak_mb() -> float:
    """The most memory that this process held; getrusage's also counts who started it."""
    return int(re.search(r"VmHWM:\s+(\d+) kB", Path("/proc/self/status").read_text())[1]) / 1024


def measure_damaged(whole, folder):
    """(measured, refused, MB that memory grew by), of COUNT damaged files."""
    rng = random.Random(11)
    measured = refused = 0
    before_mb = peak_mb()
    for number in range(COUNT):
        source = whole[number % len(whole)]
        path = folder / f"{number}{source.suffix}"
        path.write_bytes(damaged(source.read_bytes(), rng))
        begun = time.monotonic()
        found, refusal = outcome(path)
        if refusal is None:
            measured += 1
            good = found.motion.trusted
            assert np.isfinite(found.motion.pan_pct[good]).all()
            assert (np.diff(found.motion.t_s) > 0).all()
        else:
            refused += 1
            assert all((refusal.code, refusal.what, refusal.next_step))
        assert time.monotonic() - begun < LONGEST_S, path
        path.unlink()
    return measured, refused, peak_mb() - before_mb


def test_damaged_files_end_well(whole, tmp_path):
    # The most that a process held never falls, so what other tests held would hide what these
    # files take: a new process measures them.
    with ProcessPoolExecutor(1, multiprocessing.get_context("spawn")) as alone:
        measured, refused, grown_mb = alone.submit(measure_damaged, whole, tmp_path).result()
    assert measured > 0.1 * COUNT
    assert refused > 0.1 * COUNT
    assert 0 < grown_mb < MOST_MB
