"""Film a take with the stand-in camera, and know its true path."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from typing import Protocol

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.fit import read_at_centre
from ridgewind.core.motion.path import Motion, Shot
from ridgewind.media.encode import FilmWriter
from ridgewind.standin import SIMULATED
from ridgewind.standin.backdrops import BACKDROPS
from ridgewind.standin.body import Body, Technique
from ridgewind.standin.moves import MOVES
from ridgewind.standin.pose import PinholeLens, Plane, plane_to_picture
from ridgewind.standin.render import SHUTTER_STRIPS, Renderer
from ridgewind.standin.scenes import SCENES

Floats = NDArray[np.float64]
Spoil = Callable[[NDArray[np.uint8], int, float], NDArray[np.uint8]]
"""Changes a picture (height, width, 3) BGR, given its index and time in s."""


@dataclass(frozen=True)
class Script:
    """One take. shutter: share of the frame interval that the shutter is open, 0 to 1.
    read_out_s: time from the first line to the last, 0 for a global shutter. noise: grey
    levels. still: shake is left out, so that only the move remains."""

    scene: str = "ridge"
    move: str = "hold"
    technique: Technique = field(default_factory=Technique)
    focal_eq_mm: float = 26.0
    size: tuple[int, int] = (960, 540)
    fps: float = 30.0
    seconds: float = 6.0
    shutter: float = 0.5
    read_out_s: float = 0.0
    noise: float = 1.5
    crf: int = 18
    seed: int = 1
    still: bool = False


Spoiler = Callable[["Take", Renderer], Spoil]


class Moving(Protocol):
    """Whatever moves the camera without being meant to: `Body`, or a hand that was measured."""

    def pose(self, t_s: Floats) -> Floats:
        """Unwanted motion (n, 6) at instants (n,), see `Body.pose`."""


@dataclass(frozen=True)
class Take:
    """A planned take: poses at any instant, and the true path of the background."""

    script: Script
    body: Moving

    @property
    def lens(self) -> PinholeLens:
        return PinholeLens(self.script.focal_eq_mm, self.script.size)

    @property
    def frame_times_s(self) -> Floats:
        """Timestamps of the frames; each is the middle of its exposure."""
        count = max(1, round(self.script.seconds * self.script.fps))
        return np.arange(count) / self.script.fps

    def poses(self, t_s: Floats) -> Floats:
        """Poses (n, 6) at instants (n,); (n, 7) where the lens zooms."""
        pose = MOVES[self.script.move](t_s, self.script.seconds)
        if not self.script.still:
            pose[:, :6] += self.body.pose(t_s)
        return pose


def plan(script: Script) -> Take:
    return Take(script, Body(script.technique, seed=script.seed))


def true_motion(take: Take, renderer: Renderer) -> Motion:
    """The path that a perfect measurement of the background layer would find."""
    return true_path(take, renderer.scene.layers[renderer.scene.background].plane)


def true_path(take: Take, plane: Plane) -> Motion:
    """The path of a take whose background is this flat; nothing is rendered for it."""
    times = take.frame_times_s
    lens = take.lens
    width, height = lens.size
    long_side = float(max(lens.size))
    centred = np.array([[1, 0, -(width - 1) / 2], [0, 1, -(height - 1) / 2], [0, 0, long_side]])
    to_units = centred / long_side
    seen = to_units @ plane_to_picture(lens, plane, take.poses(times))
    path = np.zeros((len(times), 4))
    for k, change in enumerate(seen[1:] @ np.linalg.inv(seen[:-1]), start=1):
        step = read_at_centre(change)
        path[k] = path[k - 1] + [
            -100 * step.dx, 100 * step.dy, -np.degrees(step.turn), step.log_scale
        ]  # fmt: skip
    return Motion(
        t_s=times,
        pan_pct=path[:, 0],
        tilt_pct=path[:, 1],
        roll_deg=path[:, 2],
        zoom_pct=100 * np.expm1(path[:, 3]),
        trust=np.ones(len(times)),
        error=np.zeros((len(times), 4)),
        aspect=min(lens.size) / long_side,
        shots=(Shot(0, len(times), None),),
    )


def film(
    script: Script,
    path: Path,
    *,
    metadata: dict[str, str] | None = None,
    on_frame: Callable[[int, int], None] | None = None,
    spoil: Spoiler | None = None,
) -> Motion:
    """Film a take to an H.264 file and return its true path.

    metadata: written into the file, such as title. on_frame: called with the frame's index and
    the count of frames. spoil: makes what changes each picture before it is written.
    """
    return film_take(plan(script), path, metadata=metadata, on_frame=on_frame, spoil=spoil)


def film_take(
    take: Take,
    path: Path,
    *,
    metadata: dict[str, str] | None = None,
    on_frame: Callable[[int, int], None] | None = None,
    spoil: Spoiler | None = None,
) -> Motion:
    """Film a planned take, whoever holds the camera; see `film`."""
    script, times = take.script, take.frame_times_s
    renderer = renderer_of(take)
    change = None if spoil is None else spoil(take, renderer)
    options = {
        "preset": "veryfast",
        "crf": str(script.crf),
        # With more threads, or with its tree of macroblocks, which reads memory that was never
        # written, the encoder gives the same pictures in other bytes each time.
        "threads": "1",
        # Skipped blocks would freeze motion of a fraction of a pixel, as no camera does.
        "x264-params": "no-fast-pskip=1:no-mbtree=1",
    }
    with FilmWriter(
        path,
        size=script.size,
        rate_hz=script.fps,
        options=options,
        metadata=SIMULATED | (metadata or {}),
    ) as writer:
        for index, t_s in enumerate(times):
            image = render_frame(take, renderer, float(t_s), index)
            if change is not None:
                image = change(image, index, float(t_s))
            writer.write_image(image, float(t_s))
            if on_frame is not None:
                on_frame(index, len(times))
    return true_motion(take, renderer)


def renderer_of(take: Take) -> Renderer:
    """Paints the take's scene, wide enough for its move."""
    script = take.script
    return Renderer(
        (SCENES | BACKDROPS)[script.scene],
        take.lens,
        seed=script.seed,
        margin=_margin(take),
        noise=script.noise,
    )


def render_frame(take: Take, renderer: Renderer, t_s: float, index: int) -> NDArray[np.uint8]:
    """One frame (height, width, 3) BGR whose exposure is centred on t_s."""
    script = take.script
    exposure = script.shutter / script.fps
    ends = take.poses(np.array([t_s - exposure / 2, t_s + exposure / 2]))
    count = renderer.samples_for(ends)
    offsets = ((np.arange(count) + 0.5) / count - 0.5) * exposure
    if script.read_out_s <= 0:
        return renderer.frame(take.poses(t_s + offsets), t_s + offsets, index)
    lines = ((np.arange(SHUTTER_STRIPS) + 0.5) / SHUTTER_STRIPS - 0.5) * script.read_out_s
    strips = [(take.poses(t_s + line + offsets), t_s + line + offsets) for line in lines]
    return renderer.frame_rolling(strips, index)


def _margin(take: Take) -> float:
    """How much larger than the picture to paint, so that the move stays on the canvas."""
    poses = take.poses(np.linspace(0, take.script.seconds, 200))
    focal, width = take.lens.focal_px, max(take.lens.size)
    turn = np.tan(np.radians(np.abs(poses[:, :2]).max())) * focal
    slide = np.abs(poses[:, 3:5]).max() / 2.4 * focal
    return float(np.clip(1.12 + 2 * (turn + 0.6 * slide) / width, 1.25, 2.2))
