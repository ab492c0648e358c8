"""Plain places to stand in front of: what is behind a person is seldom rich in detail."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.standin import paint
from ridgewind.standin.paint import Canvas
from ridgewind.standin.pose import facing
from ridgewind.standin.scenes import LIME, SCENES, Painter, Scene, layer

WALL_M, LIGHTS_M = 3.0, 30.0
FAINT_GREY, DARK_SHARE = 2.5, 0.09
LIGHTS, LIGHT_SIZE, SOFT_SHARE = 46, (0.010, 0.022), 0.006
"""How many, their radii, and how far out of focus, shares of the canvas's width."""


def bare(canvas: Canvas) -> Scene:
    """A plastered wall whose grain is a few grey levels."""
    wall = paint.gradient(canvas, (214, 208, 196), (190, 184, 172))
    wall += paint.grain(canvas, strength=FAINT_GREY, finest_px=3.0, octaves=4)[..., None]
    return Scene((layer("plaster", wall, None, facing(WALL_M)),), background=0)


def lights(canvas: Canvas) -> Scene:
    """Lamps of the yard at dusk, far out of focus."""
    width, height = canvas.size
    out: NDArray[np.float32] = paint.gradient(canvas, (34, 38, 52), (22, 24, 30))
    for _ in range(LIGHTS):
        x, y = canvas.rng.uniform(0, width), canvas.rng.uniform(0, height)
        radius = width * canvas.rng.uniform(*LIGHT_SIZE)
        warm = canvas.rng.uniform(0.4, 1.0, 3) * np.array([90.0, 150.0, 190.0])
        disc = np.zeros((height, width), np.float32)
        cv2.circle(disc, (round(x), round(y)), round(radius), 1.0, -1, cv2.LINE_AA)
        out += disc[..., None] * warm.astype(np.float32)
    soft = np.asarray(cv2.GaussianBlur(out, (0, 0), SOFT_SHARE * width), np.float32)
    return Scene((layer("lamps", soft, None, facing(LIGHTS_M)),), background=0)


def dark(canvas: Canvas) -> Scene:
    """The stone floor with the shutters closed."""
    lit = SCENES["stones"](canvas)
    wall = lit.layers[lit.background]
    dim = wall.image[..., :3].astype(np.float32) * DARK_SHARE + 14
    return Scene((layer("boards, dark", dim, None, wall.plane),), background=0)


def blank(canvas: Canvas) -> Scene:
    """A wall without any texture."""
    wall = paint.tint(canvas.size[::-1], LIME)
    return Scene((layer("white wall", wall, None, facing(WALL_M)),), background=0)


BACKDROPS: dict[str, Painter] = {"bare": bare, "lights": lights, "dark": dark, "blank": blank}
