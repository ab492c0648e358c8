"""Large things that move by themselves in front of the camera: people, hands, vehicles, crowds.

Each is drawn over what the stand-in camera has filmed, through the same shaken camera but near to
it, so that the true path of what is behind stays known.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.standin.camera import Spoil, Spoiler, Take
from ridgewind.standin.pose import facing, plane_to_picture
from ridgewind.standin.render import Renderer

Image = NDArray[np.uint8]
Floats = NDArray[np.float64]
Float32s = NDArray[np.float32]
Place = Callable[[float], Floats]
"""Instant in s to the (3, 3) motion of a painting in picture px."""

NEAR_M = 1.3
SPIN_DEG = 38.0


@dataclass(frozen=True)
class Sprite:
    """A painted part. image: (height, width, 4) BGRA of the picture's size or larger, colour
    multiplied by its coverage. place: where it is."""

    image: Float32s
    place: Place


Cast = Callable[[tuple[int, int], float], list[Sprite]]
"""Picture size (width, height) and the share that is covered, to what is seen."""


def in_front(cast: Cast, cover: float, *, carried: bool = True) -> Spoiler:
    """Draw a cast over each picture. cover: share of the picture, 0 to 1. carried: it is shaken
    with the picture, as a thing that stands in the world; otherwise it stays where the camera
    points, as a subject that is followed."""

    def make(take: Take, renderer: Renderer) -> Spoil:
        size = take.lens.size
        parts = cast(size, cover)
        near = facing(NEAR_M)
        first = np.linalg.inv(plane_to_picture(take.lens, near, take.poses(np.zeros(1))[0]))

        def spoil(image: Image, index: int, t_s: float) -> Image:
            seen = plane_to_picture(take.lens, near, take.poses(np.array([t_s]))[0]) @ first
            out = image.astype(np.float32)
            for part in parts:
                place = part.place(t_s)
                matrix = seen @ place if carried else place
                drawn = cv2.warpPerspective(part.image, matrix, size)
                out *= 1.0 - drawn[..., 3:]
                out += drawn[..., :3]
            noise = np.random.default_rng([index, 17]).normal(0, 1.2, image.shape[:2])
            return np.clip(out + noise[..., None], 0, 255).astype(np.uint8)

        return spoil

    return make


def figure(size: tuple[int, int], cover: float) -> list[Sprite]:
    """Head and shoulders that sway; the head nods and turns."""
    return _person(size, cover, centre=0.5, seed=1)


def walker(size: tuple[int, int], cover: float) -> list[Sprite]:
    """Somebody who walks beside the camera: bobs with every step."""
    return _person(size, cover, centre=0.68, seed=2, bob_px=0.012 * size[0], bob_hz=1.9)


def visitor(size: tuple[int, int], cover: float) -> list[Sprite]:
    """Head and shoulders that enter after half a second, stay, and leave."""
    parts = _person(size, cover, centre=0.5, seed=3)
    away = 1.1 * size[0]

    def arriving(place: Place) -> Place:
        def put(t_s: float) -> Floats:
            come = np.clip((t_s - 0.5) / 0.6, 0, 1)
            go = np.clip((t_s - 2.6) / 0.6, 0, 1)
            return _shift(away * (come - 1.0 + go), 0.0) @ place(t_s)

        return put

    return [Sprite(part.image, arriving(part.place)) for part in parts]


def crowd(size: tuple[int, int], cover: float) -> list[Sprite]:
    """Seven people, each with a will of their own."""
    parts: list[Sprite] = []
    for k in range(7):
        parts += _person(size, 0.24 * cover, centre=(k + 0.5) / 7, seed=10 + k, walks=True)
    return parts


def vehicle(size: tuple[int, int], cover: float) -> list[Sprite]:
    """A vehicle's side that passes without end, over the lower part."""
    width, height = size
    tile = _cloth(2 * width, height, seed=4, scale=9.0)
    tile = np.concatenate([tile, tile], axis=1)
    mask = np.zeros((height, 4 * width), np.float32)
    mask[round(height * (1 - cover)) :] = 1.0
    panel = np.dstack([tile * mask[..., None], mask])

    def place(t_s: float) -> Floats:
        return _shift(-((0.45 * width * t_s) % (2 * width)), 0.0)

    return [Sprite(panel, place)]


def hand(size: tuple[int, int], cover: float) -> list[Sprite]:
    """A hand that turns a box before the lens."""
    width, height = size
    side = np.sqrt(0.8 * cover * width * height)
    box = np.zeros((height, width), np.float32)
    x, y = 0.5 * width, 0.5 * height
    tall = min(side, 1.1 * height)
    wide = 0.8 * cover * width * height / tall
    cv2.rectangle(box, (round(x - wide / 2), round(y - tall / 2)),
                  (round(x + wide / 2), round(y + tall / 2)), 1.0, -1)  # fmt: skip
    arm = np.zeros((height, width), np.float32)
    thick = round(0.2 * cover * height) + 20
    cv2.line(arm, (round(x), round(y)), (round(0.8 * width), height + 40), 1.0, thick)

    def turned(t_s: float) -> Floats:
        angle = SPIN_DEG * np.sin(2 * np.pi * 0.35 * t_s)
        squeeze = 1.0 - 0.18 * np.sin(2 * np.pi * 0.5 * t_s) ** 2
        return _shift(0, 0.01 * height * np.sin(2 * np.pi * 0.9 * t_s)) @ _about(
            x, y, angle, squeeze, 1.0
        )

    def held(t_s: float) -> Floats:
        return _shift(0, 0.01 * height * np.sin(2 * np.pi * 0.9 * t_s)) @ _about(
            0.8 * width, height, 0.15 * SPIN_DEG * np.sin(2 * np.pi * 0.35 * t_s), 1.0, 1.0
        )

    return [
        Sprite(_painted(arm, _cloth(width, height, seed=6, scale=14.0)), held),
        Sprite(_painted(box, _cloth(width, height, seed=5, scale=7.0)), turned),
    ]


def _person(
    size: tuple[int, int],
    cover: float,
    *,
    centre: float,
    seed: int,
    bob_px: float = 0.0,
    bob_hz: float = 1.0,
    walks: bool = False,
) -> list[Sprite]:
    width, height = size
    rng = np.random.default_rng([seed, 91])
    phase = rng.uniform(0, 2 * np.pi, 5)
    low, high = 0.05, 3.0
    for _ in range(24):  # the size that covers what is asked for
        middle = 0.5 * (low + high)
        trunk, head = _masks(size, middle, centre)
        low, high = (middle, high) if np.maximum(trunk, head).mean() < cover else (low, middle)
    trunk, head = _masks(size, low, centre)
    neck = (centre * width, height - 0.55 * low * height)
    pace = float(rng.uniform(-0.06, 0.06)) * width if walks else 0.0

    def sway(t_s: float) -> Floats:
        w = 2 * np.pi * t_s
        dx = 0.014 * width * np.sin(0.62 * w + phase[0]) + 0.006 * width * np.sin(
            1.45 * w + phase[1]
        )
        dy = 0.004 * height * np.sin(1.1 * w + phase[2]) + bob_px * np.sin(bob_hz * w + phase[3])
        roll = 1.2 * np.sin(0.8 * w + phase[4])
        return _shift(dx + pace * t_s, dy) @ _about(centre * width, height, roll, 1.0, 1.0)

    def nod(t_s: float) -> Floats:
        w = 2 * np.pi * t_s
        turn = 1.0 - 0.05 * (1 + np.sin(0.45 * w + phase[1]))
        tip = 1.0 + 0.03 * np.sin(0.9 * w + phase[2])
        own = _shift(0.006 * width * np.sin(0.45 * w + phase[3]), 0.0)
        return sway(t_s) @ own @ _about(*neck, 3.0 * np.sin(0.7 * w + phase[0]), turn, tip)

    coat = _cloth(width, height, seed=seed, scale=8.0)
    face = _cloth(width, height, seed=seed + 50, scale=12.0)
    return [Sprite(_painted(trunk, coat), sway), Sprite(_painted(head, face), nod)]


def _masks(size: tuple[int, int], scale: float, centre: float) -> tuple[Float32s, Float32s]:
    width, height = size
    trunk = np.zeros((height, width), np.float32)
    x, wide, tall = centre * width, 0.34 * scale * width, 0.55 * scale * height
    corners = np.array([
        (x - wide, height + 60), (x - 0.9 * wide, height - 0.8 * tall), (x - 0.5 * wide,
        height - tall), (x + 0.5 * wide, height - tall), (x + 0.9 * wide, height - 0.8 * tall),
        (x + wide, height + 60),
    ])  # fmt: skip
    cv2.fillPoly(trunk, [np.round(corners).astype(np.int32)], 1.0, cv2.LINE_AA)
    head = np.zeros((height, width), np.float32)
    at = (round(x), round(height - tall - 0.2 * scale * height))
    cv2.ellipse(head, at, (round(0.12 * scale * width), round(0.26 * scale * height)), 0, 0, 360,
                1.0, -1, cv2.LINE_AA)  # fmt: skip
    return np.clip(trunk, 0, 1), np.clip(head, 0, 1)


def _cloth(width: int, height: int, *, seed: int, scale: float) -> Float32s:
    """Woven texture (height, width, 3) that wraps around across."""
    rng = np.random.default_rng([seed, 29])
    out = np.full((height, width, 3), 0.0, np.float32)
    base = rng.uniform(60, 150, 3).astype(np.float32)
    for blur, strength in ((1.4, 26.0), (0.5 * scale, 22.0), (2.0 * scale, 20.0)):
        grain = rng.standard_normal((height, width)).astype(np.float32)
        both = np.concatenate([grain, grain, grain], axis=1)
        soft = cv2.GaussianBlur(both, (0, 0), blur)[:, width : 2 * width]
        out += (soft / soft.std() * strength)[..., None]
    return out + base


def _painted(mask: Float32s, cloth: Float32s) -> Float32s:
    soft = np.asarray(cv2.GaussianBlur(mask, (0, 0), 0.8), np.float32)
    return np.dstack([np.clip(cloth, 0, 255) * soft[..., None], soft])


def _shift(x: float, y: float) -> Floats:
    return np.array([[1.0, 0, x], [0, 1.0, y], [0, 0, 1.0]])


def _about(x: float, y: float, turn_deg: float, across: float, up: float) -> Floats:
    """Turn and stretch about a point."""
    angle = np.radians(turn_deg)
    c, s = np.cos(angle), np.sin(angle)
    linear = np.array([[c, -s, 0], [s, c, 0], [0, 0, 1.0]]) @ np.diag([across, up, 1.0])
    return _shift(x, y) @ linear @ _shift(-x, -y)
