"""Made scenes of Harrow Top, an old tower windmill on a ridge. All of it is drawn by code.

Each scene is a stack of flat layers at their own distances, painted as seen from the starting
place, so that travel gives parallax. One layer of each scene moves by itself.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.standin import paint
from ridgewind.standin.paint import Canvas, Image, Mask
from ridgewind.standin.pose import Plane, facing, ground

Floats = NDArray[np.float64]

EYE_M = 1.5
"""Height of the camera over the ground."""

LIME = (226, 221, 206)
OAK = (88, 70, 54)
TEAL = (62, 104, 112)


@dataclass(frozen=True)
class Layer:
    """A painted flat. image: (height, width, 4) BGRA with colour already multiplied by its
    coverage. plane: where it stands. own_motion: t_s to a (3, 3) motion of the painting in
    canvas px, or None. opaque: covers all of the canvas."""

    name: str
    image: Image
    plane: Plane
    own_motion: Callable[[float], Floats] | None = None
    opaque: bool = False


@dataclass(frozen=True)
class Scene:
    """Layers from far to near; background: index of the layer that the true path refers to."""

    layers: tuple[Layer, ...]
    background: int


def layer(
    name: str,
    colour: NDArray[np.float32],
    mask: Mask | None,
    plane: Plane,
    own_motion: Callable[[float], Floats] | None = None,
) -> Layer:
    if mask is None:
        full = np.full(colour.shape[:2], 255, np.uint8)
        return Layer(name, np.dstack([paint.finish(colour), full]), plane, own_motion, True)
    bgr = paint.finish(colour * mask[..., None])
    return Layer(name, np.dstack([bgr, paint.finish(mask * 255)]), plane, own_motion)


def _spin(centre: tuple[float, float], turn_s: float) -> Callable[[float], Floats]:
    def motion(t_s: float) -> Floats:
        angle = 2 * np.pi * t_s / turn_s
        c, s = np.cos(angle), np.sin(angle)
        x, y = centre
        return np.array([[c, -s, x - c * x + s * y], [s, c, y - s * x - c * y], [0, 0, 1.0]])

    return motion


def _travel(px_s: tuple[float, float]) -> Callable[[float], Floats]:
    def motion(t_s: float) -> Floats:
        return np.array([[1.0, 0, px_s[0] * t_s], [0, 1.0, px_s[1] * t_s], [0, 0, 1.0]])

    return motion


def ridge(canvas: Canvas) -> Scene:
    """The ridge and the mill from the track, sails turning."""
    far_m, mill_m = 2500.0, 42.0
    stands_m = 2.0 * mill_m  # painted at half its true size and distance: the same picture
    horizon = canvas.at(0, 0, 1)[1]
    px_m = canvas.focal_px / mill_m
    sky = paint.gradient(canvas, (148, 178, 190), (226, 222, 208))
    clouds = paint.grain(canvas, strength=24, finest_px=3.5, octaves=5)
    sky += (clouds + 0.5 * np.abs(clouds))[..., None]
    hills = paint.ridge_line(canvas, level_px=horizon - 8, height_px=0.05 * canvas.focal_px,
                             rough=1.1)  # fmt: skip
    haze = paint.tint(hills.shape, (150, 170, 168))
    haze += paint.grain(canvas, strength=18)[..., None]
    paint.lay(sky, hills, haze)

    hill_mask = paint.ridge_line(canvas, level_px=horizon + 0.6 * px_m, height_px=0.7 * px_m,
                                 rough=1.6)  # fmt: skip
    hill = paint.tint(hill_mask.shape, (104, 124, 96))
    hill += paint.grain(canvas, strength=26)[..., None]
    hill += paint.grain(canvas, strength=9, finest_px=14)[..., None] * np.float32([0.4, 1, 0.9])
    tower = paint.polygon(canvas, [(-2.6, 1.6), (-1.7, -7.2), (1.7, -7.2), (2.6, 1.6)], mill_m)
    lime = paint.tint(tower.shape, LIME) + paint.grain(canvas, strength=13)[..., None]
    lime += paint.boards(canvas, period_px=0.35 * px_m, upright=False, depth=7)[..., None]
    shade = np.clip((np.arange(canvas.size[0]) - canvas.at(0.3, 0, mill_m)[0]) / px_m / 2, 0, 1)
    lime -= 42 * shade[None, :, None].astype(np.float32)
    paint.lay(hill, tower, lime)
    mask = np.maximum(hill_mask, tower)
    for x, y, wide, tall, colour in (
        (-0.7, -0.6, 1.4, 2.2, TEAL), (-0.45, -4.4, 0.9, 1.1, OAK), (-1.3, -2.6, 0.6, 0.8, OAK),
    ):  # fmt: skip
        part = paint.rectangle(canvas, x, y, wide, tall, mill_m)
        dark = paint.tint(part.shape, colour) + paint.grain(canvas, strength=10)[..., None]
        paint.lay(hill, part, dark)
    cap = paint.polygon(
        canvas, [(-1.95, -7.1), (-1.5, -8.3), (0, -8.9), (1.5, -8.3), (1.95, -7.1)], mill_m
    )
    wood = paint.tint(cap.shape, OAK) + paint.grain(canvas, strength=14)[..., None]
    paint.lay(hill, cap, wood)
    mask = np.maximum(mask, cap)

    hub = (0.0, -7.6)
    sail, sail_mask = _sails(canvas, hub, mill_m - 1.0)
    track, track_mask = _track(canvas, horizon)
    blades, blades_mask = paint.grass(canvas, z_m=3.2, tall_m=0.26, count=420)
    layers = (
        layer("sky and far hills", sky, None, facing(far_m)),
        layer("hill and mill", hill, mask, facing(stands_m)),
        layer("sails", sail, sail_mask, facing(stands_m - 2.0),
               _spin(canvas.at(*hub, mill_m - 1.0), 16.0)),
        layer("track", track, track_mask, ground(EYE_M)),
        layer("grass", blades, blades_mask, facing(3.2)),
    )  # fmt: skip
    return Scene(layers, background=1)


def _sails(
    canvas: Canvas, hub: tuple[float, float], z_m: float
) -> tuple[NDArray[np.float32], Mask]:
    colour, mask = canvas.blank()
    out = colour.astype(np.float32)
    lattice = paint.grain(canvas, strength=16)[..., None]
    for quarter in range(4):
        angle = np.pi / 4 + quarter * np.pi / 2
        along = np.array([np.cos(angle), np.sin(angle)])
        side = np.array([-along[1], along[0]])
        for low, high, off, wide, shade in (
            (0.2, 6.2, -0.09, 0.18, OAK), (1.3, 6.0, 0.09, 1.05, (236, 232, 222)),
        ):  # fmt: skip
            corners = [
                tuple(np.array(hub) + along * reach + side * across)
                for reach, across in (
                    (low, off), (high, off), (high, off + wide), (low, off + wide),
                )
            ]  # fmt: skip
            part = paint.polygon(canvas, corners, z_m)
            paint.lay(out, part, paint.tint(part.shape, shade) + lattice)
            mask = np.maximum(mask, part)
    return out, mask


def _track(canvas: Canvas, horizon: float) -> tuple[NDArray[np.float32], Mask]:
    """Level ground up to 11 m ahead, with two pale wheel ruts."""
    height, width = canvas.size[1], canvas.size[0]
    y = np.arange(height, dtype=np.float32)[:, None]
    z_m = canvas.focal_px * EYE_M / np.maximum(y - horizon, 1.0)
    x_m = (np.arange(width, dtype=np.float32)[None] - (width - 1) / 2) * z_m / canvas.focal_px
    colour = paint.tint((height, width), (112, 128, 88))
    colour += paint.grain(canvas, strength=18)[..., None]
    ruts = np.exp(-(((np.abs(x_m - 0.6) - 0.8) / 0.3) ** 2))
    sand = paint.tint((height, width), (176, 164, 136))
    sand += paint.grain(canvas, strength=16)[..., None]
    paint.lay(colour, ruts.astype(np.float32), sand)
    rows = np.clip((11.0 - z_m) / 3.0, 0, 1) * (y > horizon)
    return colour, np.broadcast_to(rows.astype(np.float32), (height, width)).copy()


def door(canvas: Canvas) -> Scene:
    """The mill door, cobbles and grass in front, a hand-cart passing."""
    wall_m, cart_m = 7.0, 5.6
    px_m = canvas.focal_px / wall_m
    wall = paint.tint(canvas.size[::-1], LIME) + paint.grain(canvas, strength=15)[..., None]
    wall += paint.boards(canvas, period_px=0.22 * px_m, upright=False, depth=9)[..., None]
    wall += paint.grain(canvas, strength=10, finest_px=18, octaves=3)[..., None]
    for x, y, wide, tall, colour, upright in (
        (-0.95, -1.15, 1.9, 2.66, OAK, True), (-0.8, -1.0, 1.6, 2.5, TEAL, True),
        (1.9, -1.0, 1.0, 1.2, OAK, False), (2.0, -0.9, 0.8, 1.0, (70, 84, 88), False),
        (-3.3, -0.2, 0.9, 0.9, OAK, False), (-3.2, -0.1, 0.7, 0.7, (70, 84, 88), False),
    ):  # fmt: skip
        part = paint.rectangle(canvas, x, y, wide, tall, wall_m)
        wood = paint.tint(part.shape, colour) + paint.grain(canvas, strength=13)[..., None]
        wood += paint.boards(canvas, period_px=0.26 * px_m, upright=upright, depth=12)[..., None]
        paint.lay(wall, part, wood)
    for y in (-0.7, 0.9):
        iron = paint.rectangle(canvas, -0.8, y, 1.1, 0.07, wall_m)
        paint.lay(wall, iron, paint.tint(iron.shape, (40, 44, 46)))

    horizon = canvas.at(0, 0, 1)[1]
    cobble = paint.tint(canvas.size[::-1], (142, 138, 126))
    cobble += paint.stones(canvas, horizon, EYE_M, 0.16)[..., None]
    cobble += paint.grain(canvas, strength=13)[..., None]
    foot_px = canvas.at(0, EYE_M, wall_m)[1]
    cobble_mask = np.broadcast_to(
        np.clip(np.arange(canvas.size[1], dtype=np.float32) - foot_px, 0, 1)[:, None],
        canvas.size[::-1],
    ).copy()
    cart, cart_mask = _cart(canvas, cart_m)
    blades, blades_mask = paint.grass(canvas, z_m=2.6, tall_m=0.16, count=300)
    cart_px_s = 0.45 * canvas.focal_px / cart_m
    layers = (
        layer("wall", wall, None, facing(wall_m)),
        layer("cobbles", cobble, cobble_mask, ground(EYE_M)),
        layer("cart", cart, cart_mask, facing(cart_m), _travel((cart_px_s, 0.0))),
        layer("grass", blades, blades_mask, facing(2.6)),
    )
    return Scene(layers, background=0)


def _cart(canvas: Canvas, z_m: float) -> tuple[NDArray[np.float32], Mask]:
    out = paint.tint(canvas.size[::-1], OAK) + paint.grain(canvas, strength=20)[..., None]
    left = -3.6
    mask = paint.rectangle(canvas, left, 0.55, 1.1, 0.4, z_m)
    mask = np.maximum(mask, paint.rectangle(canvas, left + 1.05, 0.6, 0.7, 0.06, z_m))
    x, y = canvas.at(left + 0.5, 1.1, z_m)
    wheel = np.zeros(canvas.size[::-1], np.float32)
    radius = 0.34 * canvas.focal_px / z_m
    cv2.circle(wheel, (round(x), round(y)), round(radius), 1.0, max(2, round(radius / 6)),
               cv2.LINE_AA)  # fmt: skip
    for angle in np.arange(6) * np.pi / 3:
        tip = (round(x + radius * np.cos(angle)), round(y + radius * np.sin(angle)))
        cv2.line(wheel, (round(x), round(y)), tip, 1.0, 2, cv2.LINE_AA)
    return out, np.maximum(mask, np.clip(wheel, 0, 1))


def stone_floor(canvas: Canvas) -> Scene:
    """The stone floor: boards, millstone and sacks close up, one sack on its hoist."""
    wall_m, stone_m, sack_m = 3.4, 2.6, 2.2
    px_m = canvas.focal_px / wall_m
    wall = (
        paint.tint(canvas.size[::-1], (132, 110, 84)) + paint.grain(canvas, strength=17)[..., None]
    )
    wall += paint.boards(canvas, period_px=0.2 * px_m, upright=True, depth=15)[..., None]
    wall += paint.grain(canvas, strength=9, finest_px=20, octaves=3)[..., None]
    beam = paint.rectangle(canvas, -4.0, -0.85, 8.0, 0.2, wall_m)
    paint.lay(wall, beam, paint.tint(beam.shape, OAK) + paint.grain(canvas, strength=15)[..., None])

    stone = (
        paint.tint(canvas.size[::-1], (158, 154, 146)) + paint.grain(canvas, strength=22)[..., None]
    )
    stone_mask = _disc(canvas, (0.42, 0.5), 0.5, stone_m)
    furrows = _furrows(canvas, (0.42, 0.5), stone_m)
    stone -= 34 * furrows[..., None]
    eye = _disc(canvas, (0.42, 0.5), 0.1, stone_m)
    paint.lay(stone, eye, paint.tint(eye.shape, (52, 50, 48)))

    sacks = (
        paint.tint(canvas.size[::-1], (186, 164, 124)) + paint.grain(canvas, strength=20)[..., None]
    )
    sacks_mask = np.zeros(canvas.size[::-1], np.float32)
    for x, y, radius in ((-0.78, 0.62, 0.3), (-0.36, 0.7, 0.26), (-0.62, 0.28, 0.24)):
        sacks_mask = np.maximum(sacks_mask, sack(canvas, (x, y), radius, sack_m))
    hoisted = (
        paint.tint(canvas.size[::-1], (176, 152, 112)) + paint.grain(canvas, strength=20)[..., None]
    )
    hoist_mask = sack(canvas, (0.86, 0.35), 0.17, sack_m)
    chain = paint.rectangle(canvas, 0.85, -3.0, 0.02, 3.15, sack_m)
    hoist_mask = np.maximum(hoist_mask, chain)
    rise_px_s = -0.07 * canvas.focal_px / sack_m
    layers = (
        layer("boards", wall, None, facing(wall_m)),
        layer("millstone", stone, stone_mask, facing(stone_m)),
        layer("sacks", sacks, sacks_mask, facing(sack_m)),
        layer("hoisted sack", hoisted, hoist_mask, facing(sack_m), _travel((0.0, rise_px_s))),
    )
    return Scene(layers, background=0)


def _disc(canvas: Canvas, centre: tuple[float, float], radius_m: float, z_m: float) -> Mask:
    x, y = canvas.at(*centre, z_m)
    mask = np.zeros(canvas.size[::-1], np.float32)
    radius = round(radius_m * canvas.focal_px / z_m)
    cv2.circle(mask, (round(x), round(y)), radius, 1.0, -1, cv2.LINE_AA)
    return np.clip(mask, 0, 1)


def sack(canvas: Canvas, centre: tuple[float, float], radius_m: float, z_m: float) -> Mask:
    """A filled sack with a tied neck."""
    angle = np.linspace(0, 2 * np.pi, 60, endpoint=False)
    x = np.sign(np.cos(angle)) * np.abs(np.cos(angle)) ** 0.75
    y = np.sign(np.sin(angle)) * np.abs(np.sin(angle)) ** 0.75
    near_top = np.clip((-y - 0.55) / 0.45, 0, 1)
    x *= 0.82 - 0.5 * near_top
    corners = [
        (centre[0] + radius_m * float(a), centre[1] + 1.15 * radius_m * float(b))
        for a, b in zip(x, y, strict=True)
    ]
    neck, top = 0.22 * radius_m, centre[1] - 1.4 * radius_m
    ears = [
        (centre[0] - 1.6 * neck, top), (centre[0] + 1.6 * neck, top),
        (centre[0] + 0.6 * neck, centre[1] - radius_m),
        (centre[0] - 0.6 * neck, centre[1] - radius_m),
    ]  # fmt: skip
    return np.maximum(paint.polygon(canvas, corners, z_m), paint.polygon(canvas, ears, z_m))


def _furrows(canvas: Canvas, centre: tuple[float, float], z_m: float) -> Mask:
    x, y = canvas.at(*centre, z_m)
    across = np.arange(canvas.size[0])[None] - x
    down = np.arange(canvas.size[1])[:, None] - y
    angle = np.arctan2(down, across) + 0.9 * np.hypot(down, across) / canvas.focal_px
    out: Mask = (np.mod(angle * 18 / (2 * np.pi), 1.0) < 0.22).astype(np.float32)
    return out


Painter = Callable[[Canvas], Scene]

SCENES: dict[str, Painter] = {
    "ridge": ridge,
    "door": door,
    "stones": stone_floor,
}
