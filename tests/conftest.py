"""Made motion and made films with known truth, shared by all tests."""

from __future__ import annotations

import fcntl
import os
import shutil
import time
from fractions import Fraction
from pathlib import Path

import av
import cv2
import numpy as np
import pytest
from hypothesis import settings

from ridgewind.core.motion import Motion, Shot
from ridgewind.core.motion.tracker import Tracker
from ridgewind.library.library import Library
from ridgewind.media.formats import in_format
from ridgewind.store import database
from tests import warm
from tests.clips import FilmStore

# No deadline, since more tests run than there are cores; the same examples each time, so that a
# change is never refused for what it did not touch. `HYPOTHESIS=explore` looks for new ones.
settings.register_profile("steady", deadline=None, derandomize=True)
settings.register_profile("explore", deadline=None)
settings.load_profile(os.environ.get("HYPOTHESIS", "steady"))

ASPECT = 9 / 16
LONGEST_FIRST = (
    "e2e/test_decision_interface", "e2e/test_practice_interface", "e2e/test_taking_in",
    "standin/test_card", "e2e/test_kit_interface", "e2e/test_interface", "films/test_rendering",
    "standin/test_faults", "standin/test_truth", "standin", "e2e", "jobs", "films", "services",
    "media",
)  # fmt: skip
"""Files and folders of long tests, begun first so that two processes end at about the same time.
Only one of the first two needs the demo, which takes half a minute to be there."""


def pytest_collection_modifyitems(items):
    def place(item):
        path = str(item.path)
        return next((k for k, name in enumerate(LONGEST_FIRST) if f"tests/{name}" in path), 99)

    items.sort(key=place)


def make_motion(
    *, rate_hz: float, seconds: float, pan=None, tilt=None, roll=None, zoom=None, t_s=None
) -> Motion:
    """A path from functions of time, all trusted, one shot."""
    times = np.arange(round(rate_hz * seconds)) / rate_hz if t_s is None else np.asarray(t_s)
    columns = [np.zeros(len(times)) if f is None else f(times) for f in (pan, tilt, roll, zoom)]
    return Motion(
        times,
        *columns,
        trust=np.ones(len(times)),
        error=np.zeros((len(times), 4)),
        aspect=ASPECT,
        shots=(Shot(0, len(times), None),),
    )


def sine(amplitude: float, hz: float):
    return lambda t: amplitude * np.sin(2 * np.pi * hz * t)


def texture(width: int, height: int, *, seed: int = 0) -> np.ndarray:
    """A picture with detail at every size, uint8."""
    rng = np.random.default_rng(seed)
    base = rng.normal(0, 1, (height, width)).astype(np.float32)
    image = sum(cv2.GaussianBlur(base, (0, 0), s) * s * 22 for s in (1.2, 2.5, 5, 10, 20))
    return np.clip(image + 128, 0, 255).astype(np.uint8)


def view(image: np.ndarray, size: tuple[int, int], *, x=0.0, y=0.0, turn_deg=0.0, scale=1.0):
    """What a camera sees of a larger picture: x, y: shift of the content, px; turn: clockwise
    turn of the content about the picture's centre."""
    width, height = size
    middle = (image.shape[1] / 2 - 0.5, image.shape[0] / 2 - 0.5)
    angle = np.radians(turn_deg)
    linear = scale * np.array([[np.cos(angle), -np.sin(angle)], [np.sin(angle), np.cos(angle)]])
    target = np.array([(width - 1) / 2 + x, (height - 1) / 2 + y])
    matrix = np.column_stack([linear, target - linear @ middle])
    return cv2.warpAffine(image, matrix, size, flags=cv2.INTER_LINEAR)


def track(frames, *, rate_hz: float = 30.0) -> Motion:
    """Measure frames in memory."""
    tracker = None
    for index, frame in enumerate(frames):
        tracker = tracker or Tracker((frame.shape[1], frame.shape[0]))
        tracker.feed(index / rate_hz, frame)
    return tracker.finish()


QUICK = {"libx264": {"preset": "superfast", "crf": "18", "threads": "1"}}
"""Settings that take a fraction of the usual ones' time and lose less."""


def write_film(
    path: Path, frames, *, rate=30, codec="libx264", pix_fmt="yuv420p", times=None, rotation=0,
    options=None, sound=False, aspect=None,
) -> Path:  # fmt: skip
    """Encode gray frames (height, width) uint8; times: their own timestamps in s."""
    with av.open(str(path), "w") as film:
        stream = film.add_stream(codec, rate=rate)
        frames = list(frames)
        stream.height, stream.width = frames[0].shape[:2]
        stream.pix_fmt = pix_fmt
        stream.options = QUICK.get(codec, {}) if options is None else options
        if aspect is not None:
            stream.codec_context.sample_aspect_ratio = aspect
        if times is not None:
            stream.codec_context.time_base = Fraction(1, 90_000)
        if rotation:
            stream.set_display_rotation(rotation)
        audio = film.add_stream("aac", rate=48_000, layout="mono") if sound else None
        for index, frame in enumerate(frames):
            picture = in_format(av.VideoFrame.from_ndarray(frame, format="gray"), pix_fmt)
            if times is not None:
                picture.time_base = stream.codec_context.time_base
                picture.pts = round(times[index] * 90_000)
            film.mux(stream.encode(picture))
        film.mux(stream.encode(None))
        if audio is not None:
            silence = av.AudioFrame.from_ndarray(
                np.zeros((1, 1024), np.float32), format="fltp", layout="mono"
            )
            silence.rate = 48_000
            for k in range(40):
                silence.pts = 1024 * k
                film.mux(audio.encode(silence))
            film.mux(audio.encode(None))
    return path


def shaken(count: int = 45, *, size=(320, 180), rate_hz: float = 30.0, amplitude_px: float = 4.0):
    """Frames of a texture shaken across at 2 Hz."""
    image = texture(size[0] * 2, size[1] * 2)
    for k in range(count):
        yield view(image, size, x=amplitude_px * np.sin(2 * np.pi * 2 * k / rate_hz))


def wait_for(condition, seconds: float = 30.0) -> None:
    """Wait until it happens; an AssertionError where it does not."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        if condition():
            return
        time.sleep(0.05)
    raise AssertionError("it did not happen in time")


@pytest.fixture(scope="session", autouse=True)
def starter():
    """Nothing is started any more once the last test is over."""
    yield
    warm.end()


@pytest.fixture(scope="session")
def short_film(tmp_path_factory) -> Path:
    """A small shaken film, one and a half seconds."""
    return write_film(tmp_path_factory.mktemp("film") / "short.mp4", shaken(amplitude_px=2.0))


@pytest.fixture(scope="session")
def shared_folder(tmp_path_factory, worker_id) -> Path:
    """A folder that all processes of this run share."""
    own = tmp_path_factory.getbasetemp()
    return own if worker_id == "master" else own.parent


@pytest.fixture(scope="session")
def long_film(shared_folder) -> Path:
    """A small shaken film that takes some seconds to measure, made once a run."""
    path = shared_folder / "long.mp4"
    with (shared_folder / "long.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not path.exists():
            write_film(shared_folder / "long-begun.mp4", shaken(900)).rename(path)
    return path


@pytest.fixture(scope="session")
def films(shared_folder) -> FilmStore:
    """Made clips with known truth, see tests/clips.py."""
    return FilmStore(shared_folder / "films")


@pytest.fixture(scope="session")
def empty_database(tmp_path_factory) -> Path:
    """The database of a library in which nothing is, brought up to date once a process."""
    shelf = Library(tmp_path_factory.mktemp("empty") / "library")
    shelf.prepare()
    with database.opened(shelf.database) as db:
        db.execute("pragma wal_checkpoint(truncate)")
    return shelf.database


@pytest.fixture
def library(tmp_path, empty_database) -> Library:
    shelf = Library(tmp_path / "library")
    shelf.root.mkdir()
    shutil.copy(empty_database, shelf.database)
    shelf.prepare()
    return shelf


@pytest.fixture
def db(library):
    with database.opened(library.database) as connection:
        yield connection
