"""Brushes for the made scenes: grain, boards, stones, grass, gradients."""

from __future__ import annotations

from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

Image = NDArray[np.uint8]
Mask = NDArray[np.float32]
Rng = np.random.Generator
Colour = tuple[int, int, int]
"""Red, green, blue."""


@dataclass(frozen=True)
class Canvas:
    """The view from the starting place, wider than the picture.

    size: px. focal_px: of the canvas. half_height: tangent of the angle from the picture's
    centre to its lower edge. Metres at a distance become px through `at`.
    """

    size: tuple[int, int]
    focal_px: float
    half_height: float
    rng: Rng

    def at(self, x_m: float, y_m: float, z_m: float) -> tuple[float, float]:
        """Canvas px of a point: x right, y down, z ahead of the camera."""
        width, height = self.size
        return (
            (width - 1) / 2 + self.focal_px * x_m / z_m,
            (height - 1) / 2 + self.focal_px * y_m / z_m,
        )

    def points(self, corners: list[tuple[float, float]], z_m: float) -> NDArray[np.int32]:
        """Polygon corners (x_m, y_m) at one distance, as fixed-point px for OpenCV."""
        return np.round([[self.at(x, y, z_m)] for x, y in corners]).astype(np.int32)

    def blank(self) -> tuple[Image, Mask]:
        width, height = self.size
        return np.zeros((height, width, 3), np.uint8), np.zeros((height, width), np.float32)


def grain(canvas: Canvas, *, strength: float, finest_px: float = 1.2, octaves: int = 5) -> Mask:
    """Cloudy noise (height, width), zero mean, with detail from a pixel or two upwards."""
    width, height = canvas.size
    out = np.zeros((height, width), np.float32)
    for octave in range(octaves):
        cell = finest_px * 2.4**octave
        shape = (max(3, int(height / cell) + 2), max(3, int(width / cell) + 2))
        coarse = canvas.rng.standard_normal(shape).astype(np.float32)
        out += cv2.resize(coarse, (width, height), interpolation=cv2.INTER_CUBIC)
    return out * np.float32(strength / np.sqrt(octaves))


def tint(shape: tuple[int, int], colour: Colour) -> NDArray[np.float32]:
    """A flat colour (height, width, 3), BGR."""
    return np.broadcast_to(np.float32(colour[::-1]), (*shape, 3)).copy()


def gradient(canvas: Canvas, top: Colour, low: Colour) -> NDArray[np.float32]:
    """A vertical gradient, BGR."""
    height = canvas.size[1]
    mix = np.linspace(0, 1, height, dtype=np.float32)[:, None, None]
    shape = (height, canvas.size[0])
    return tint(shape, top) * (1 - mix) + tint(shape, low) * mix


def finish(colour: NDArray[np.float32]) -> Image:
    out: Image = np.clip(np.round(colour), 0, 255).astype(np.uint8)
    return out


def polygon(canvas: Canvas, corners: list[tuple[float, float]], z_m: float) -> Mask:
    """Coverage 0 to 1 of a polygon of metres at one distance."""
    _, mask = canvas.blank()
    cv2.fillPoly(mask, [canvas.points(corners, z_m)], 1.0, lineType=cv2.LINE_AA)
    return np.clip(mask, 0, 1)


def rectangle(canvas: Canvas, x: float, y: float, width: float, height: float, z_m: float) -> Mask:
    """Coverage of an upright rectangle; x, y: its upper left corner, metres."""
    corners = [(x, y), (x + width, y), (x + width, y + height), (x, y + height)]
    return polygon(canvas, corners, z_m)


def lay(base: NDArray[np.float32], mask: Mask, colour: NDArray[np.float32]) -> None:
    """Paint colour over base where mask covers it."""
    base += mask[..., None] * (colour - base)


def ridge_line(canvas: Canvas, *, level_px: float, height_px: float, rough: float) -> Mask:
    """Coverage of everything under a rolling skyline."""
    width, height = canvas.size
    x = np.linspace(0, 1, width)
    line = np.zeros(width)
    for k in range(1, 9):
        phase, size = canvas.rng.uniform(0, 2 * np.pi), canvas.rng.uniform(0.5, 1.0)
        line += size * np.sin(2 * np.pi * k * 0.6 * x + phase) / k**rough
    line = level_px - height_px * line / np.abs(line).max()
    rows = np.arange(height)[:, None]
    out: Mask = np.clip(rows - line[None] + 0.5, 0, 1).astype(np.float32)
    return out


def boards(canvas: Canvas, *, period_px: float, upright: bool, depth: float) -> Mask:
    """Dark gaps between boards, and a shade for each board, as an offset of brightness."""
    width, height = canvas.size
    length = width if upright else height
    place = np.arange(length) / max(period_px, 3.0)
    shade = canvas.rng.uniform(-1, 1, int(place[-1]) + 2)[place.astype(int)] * depth * 0.5
    gap = np.where(np.mod(place, 1.0) < max(0.06, 1.6 / period_px), -2.2 * depth, 0.0)
    line = (shade + gap).astype(np.float32)
    return np.broadcast_to(line[None] if upright else line[:, None], (height, width)).copy()


def stones(canvas: Canvas, horizon_px: float, height_m: float, size_m: float) -> Mask:
    """Cobbles on level ground, in perspective, as an offset of brightness."""
    width, height = canvas.size
    y = np.arange(height, dtype=np.float32)[:, None]
    z_m = canvas.focal_px * height_m / np.maximum(y - horizon_px, 1.0)
    x_m = (np.arange(width, dtype=np.float32)[None] - (width - 1) / 2) * z_m / canvas.focal_px
    row = np.floor(z_m / size_m)
    u = x_m / size_m + 0.5 * np.mod(row, 2)
    column = np.floor(u)
    inside = np.minimum(
        np.minimum(u - column, 1 - (u - column)),
        np.minimum(z_m / size_m - row, 1 - (z_m / size_m - row)),
    )
    shade = np.mod(np.sin(row * 12.9898 + column * 78.233) * 43758.5453, 1.0)
    # Far cobbles melt together, as they do for a lens.
    seen = np.clip(canvas.focal_px * size_m / np.maximum(z_m, 0.1) / 9.0 - 0.25, 0, 1)
    out: Mask = (seen * (38 * (shade - 0.5) - 46 * np.exp(-inside * 14.0))).astype(np.float32)
    return out


def grass(
    canvas: Canvas, *, z_m: float, tall_m: float, count: int
) -> tuple[NDArray[np.float32], Mask]:
    """Blades at one distance, growing from the picture's lower edge."""
    low_m = 0.99 * canvas.half_height * z_m
    image, _ = canvas.blank()
    width, height = canvas.size
    mask = np.zeros((height, width), np.uint8)
    span_m = width / canvas.focal_px * z_m
    rng = canvas.rng
    for _ in range(count):
        x, tall = rng.uniform(-span_m / 2, span_m / 2), tall_m * rng.uniform(0.45, 1.0)
        lean = tall * rng.uniform(-0.35, 0.35)
        wide = tall_m * rng.uniform(0.03, 0.07)
        blade = canvas.points([(x - wide, low_m), (x + wide, low_m), (x + lean, low_m - tall)], z_m)
        green = rng.uniform(0.6, 1.15)
        colour = tuple(float(c * green) for c in (62, 96, 84))
        cv2.fillPoly(image, [blade], colour, lineType=cv2.LINE_AA)
        cv2.fillPoly(mask, [blade], 255, lineType=cv2.LINE_AA)
    top = int(max(0, min(height, canvas.at(0, low_m, z_m)[1])))
    image[top:] = (46, 74, 66)
    mask[top:] = 255
    return image.astype(np.float32), mask.astype(np.float32) / 255.0
