"""A moving preview of a planned move: the stand-in camera films a scene of three distances.

The scene is Harrow Top in outline: the mill tower far off, a sack on a stone post as the
subject, and grass with a gate post in front, each where the plan says. Ground joins them.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.kit.moving import Plan, stations
from ridgewind.media.encode import FilmWriter
from ridgewind.standin import SIMULATED, paint
from ridgewind.standin.paint import Canvas
from ridgewind.standin.pose import PinholeLens, facing, ground
from ridgewind.standin.render import Renderer
from ridgewind.standin.scenes import EYE_M, LIME, OAK, TEAL, Layer, Scene, layer, sack

Floats = NDArray[np.float64]

LONG_SIDE_PX = 400
FPS = 24.0
LONGEST_S, SHORTEST_S = 6.0, 1.0
"""A preview plays at most so long; longer moves are shown faster, which the page says."""

WIDEST_DEG = 68.0
"""Angle from the middle that a flat painting can still be seen under (chosen here)."""

SHUTTER = 0.5
NOISE = 0.8


@dataclass(frozen=True)
class Preview:
    """How a preview shows its move. faster: than life. share: of a turn that is too wide to be
    painted, its middle part is shown; 1 for all of it."""

    faster: float
    share: float


def described(plan: Plan) -> Preview:
    """What a preview of this plan will show."""
    share = _share(plan)
    on_screen_s = plan.seconds * share / plan.playback
    return Preview(on_screen_s / float(np.clip(on_screen_s, SHORTEST_S, LONGEST_S)), share)


def film_preview(plan: Plan, path: Path) -> Preview:
    """Render a move to an H.264 file.

    The move is filmed without shake, so that it can be judged by itself.
    """
    found = described(plan)
    shown = replace(plan, amount=plan.amount * found.share, seconds=plan.seconds * found.share)
    count = max(2, round(shown.seconds / shown.playback / found.faster * FPS))
    poses = _poses(shown, 2 * count + 1)
    short = max(2, round(LONG_SIDE_PX * plan.aspect / 2) * 2)
    lens = PinholeLens(plan.focal_eq_mm, (LONG_SIDE_PX, short))
    margin = _margin(shown, poses)
    renderer = Renderer(
        lambda canvas: _scene(canvas, plan), lens, seed=3, margin=margin, noise=NOISE
    )
    options = {"preset": "ultrafast", "crf": "22", "threads": "1"}
    with FilmWriter(
        path, size=lens.size, rate_hz=FPS, options=options, metadata=SIMULATED
    ) as writer:
        for index in range(count):
            here, after = poses[2 * index], poses[2 * index + 1]
            exposure = np.linspace(here, after, renderer.samples_for(np.array([here, after])))
            times = np.full(len(exposure), index / FPS)
            image = renderer.frame(exposure, times, index)
            writer.write_image(image, index / FPS)
    return found


def _half_view_deg(plan: Plan) -> float:
    return float(np.degrees(np.arctan(18.0 / plan.focal_eq_mm)))


def _share(plan: Plan) -> float:
    turns = abs(plan.amount) / 2 if plan.kind in ("pan", "tilt") else 0.0
    room = max(5.0, WIDEST_DEG - _half_view_deg(plan))
    return min(1.0, room / turns) if turns else 1.0


def _poses(plan: Plan, count: int) -> Floats:
    """(count, 7) yaw, pitch, roll °, x, y down, z m, and zoom against the first station."""
    path = stations(plan, count)
    return np.array(
        [
            (s.yaw_deg, s.pitch_deg, s.roll_deg, s.x_m, -s.y_m, s.z_m,
             s.focal_mm / plan.focal_eq_mm)
            for s in path
        ]
    )  # fmt: skip


def _margin(plan: Plan, poses: Floats) -> float:
    """How much wider than the picture to paint, so that the move stays on the canvas."""
    half = _half_view_deg(plan)
    turn = min(half + float(np.abs(poses[:, :2]).max()), WIDEST_DEG + 4.0)
    reach = np.tan(np.radians(turn)) / np.tan(np.radians(half))
    slide = float(np.abs(poses[:, 3:5]).max()) / plan.foreground_m * plan.focal_eq_mm / 36.0
    lean = float(np.abs(poses[:, 2]).max()) / 40.0
    return float(np.clip((reach + 2 * slide + lean) / float(poses[:, 6].min()) + 0.1, 1.3, 4.5))


def _scene(canvas: Canvas, plan: Plan) -> Scene:
    back = max(plan.background_m, plan.subject_m * 1.001)
    horizon = canvas.at(0, 0, 1)[1]
    low, tall = 0.8 * EYE_M, canvas.half_height
    sky = paint.gradient(canvas, (150, 180, 192), (228, 224, 210))
    sky += paint.grain(canvas, strength=20, finest_px=3.0)[..., None]
    layers = [
        layer("sky", sky, None, facing(max(40.0 * back, 3000.0))),
        _hill(canvas, back, horizon, tall),
        _ground(canvas, back, horizon),
    ]
    size = 0.42 * tall * plan.subject_m
    layers.append(_subject(canvas, plan.subject_m, min(size, low)))
    layers.append(_foreground(canvas, plan.foreground_m, tall))
    return Scene(tuple(layers), background=1)


def _hill(canvas: Canvas, z_m: float, horizon: float, tall: float) -> Layer:
    px = canvas.focal_px * tall
    mask = paint.ridge_line(canvas, level_px=horizon - 0.02 * px, height_px=0.16 * px, rough=1.2)
    hill = paint.tint(mask.shape, (112, 132, 108)) + paint.grain(canvas, strength=24)[..., None]
    wide, high = 0.16 * tall * z_m, 0.75 * tall * z_m
    x = 0.3 * tall * z_m
    tower = paint.polygon(
        canvas, [(x - wide, 0.1 * high), (x - 0.6 * wide, -high), (x + 0.6 * wide, -high),
                 (x + wide, 0.1 * high)], z_m
    )  # fmt: skip
    lime = paint.tint(tower.shape, LIME) + paint.grain(canvas, strength=16)[..., None]
    paint.lay(hill, tower, lime)
    window = paint.rectangle(canvas, x - 0.2 * wide, -0.6 * high, 0.4 * wide, 0.16 * high, z_m)
    paint.lay(hill, window, paint.tint(window.shape, TEAL))
    return layer("hill and mill", hill, np.maximum(mask, tower), facing(z_m))


def _ground(canvas: Canvas, back_m: float, horizon: float) -> Layer:
    rows = np.arange(canvas.size[1], dtype=np.float32)[:, None]
    mask = np.clip((rows - canvas.at(0, EYE_M, back_m)[1]) / 2.0, 0, 1) * (rows > horizon)
    colour = paint.tint(canvas.size[::-1], (148, 144, 122))
    colour += paint.stones(canvas, horizon, EYE_M, 0.25)[..., None]
    colour += paint.grain(canvas, strength=14)[..., None]
    whole = np.broadcast_to(mask.astype(np.float32), canvas.size[::-1]).copy()
    return layer("ground", colour, whole, ground(EYE_M))


def _subject(canvas: Canvas, z_m: float, size_m: float) -> Layer:
    colour = paint.tint(canvas.size[::-1], (190, 166, 124))
    colour += paint.grain(canvas, strength=20)[..., None]
    mask = sack(canvas, (0.0, 0.0), size_m, z_m)
    post = paint.rectangle(canvas, -0.35 * size_m, 0.95 * size_m, 0.7 * size_m, 9 * size_m, z_m)
    stone = paint.tint(post.shape, (150, 148, 140)) + paint.grain(canvas, strength=20)[..., None]
    paint.lay(colour, post, stone)
    band = paint.rectangle(canvas, -size_m, -0.1 * size_m, 2 * size_m, 0.18 * size_m, z_m)
    paint.lay(colour, band, paint.tint(band.shape, TEAL))
    return layer("sack on its post", colour, np.maximum(mask, post), facing(z_m))


def _foreground(canvas: Canvas, z_m: float, tall: float) -> Layer:
    blades, mask = paint.grass(canvas, z_m=z_m, tall_m=0.5 * tall * z_m, count=260)
    left, wide = -0.62 * tall * z_m / 0.5625, 0.1 * tall * z_m
    post = paint.rectangle(canvas, left, -0.35 * tall * z_m, wide, 3 * tall * z_m, z_m)
    wood = paint.tint(post.shape, OAK) + paint.grain(canvas, strength=16)[..., None]
    paint.lay(blades, post, wood)
    return layer("grass and gate post", blades, np.maximum(mask, post), facing(z_m))
