"""Render a scene from a pose: motion blur from the shutter, noise, rolling shutter."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.standin.paint import Canvas
from ridgewind.standin.pose import PinholeLens, plane_to_picture
from ridgewind.standin.scenes import Layer, Painter, Scene

Floats = NDArray[np.float64]
Image = NDArray[np.uint8]

BLUR_STEP_PX = 1.3
"""Travel that one exposure sample covers; finer steps cannot be seen (chosen here)."""

MOST_SAMPLES = 9
NOISE_FRAMES = 7
SHUTTER_STRIPS = 15


class Renderer:
    """Paints a scene once, then films it from any pose.

    scene: paints one. margin: how much wider than the picture the painted canvas is. noise:
    spread of the sensor noise in grey levels.
    """

    def __init__(
        self, scene: Painter, lens: PinholeLens, *, seed: int, margin: float, noise: float
    ) -> None:
        self.lens = lens
        rng = np.random.default_rng([seed, 11])
        width, height = lens.size
        size = (round(width * margin), round(height * margin))
        self._canvas = Canvas(size, lens.focal_px, height / 2 / lens.focal_px, rng)
        self.scene: Scene = scene(self._canvas)
        self._to_rays = np.linalg.inv(PinholeLens(lens.focal_eq_mm, lens.size).matrix)
        self._offset = np.array([(size[0] - width) / 2.0, (size[1] - height) / 2.0])
        self._boxes = [_covered(layer) for layer in self.scene.layers]
        self._noise = [
            np.round(rng.normal(0, noise, (height + 64, width + 64))).astype(np.int8)
            for _ in range(NOISE_FRAMES)
        ]
        self._quiet = noise <= 0

    def homography(self, layer: Layer, pose: Floats, t_s: float) -> Floats:
        """(3, 3) canvas px of a layer to picture px."""
        shift = np.eye(3)
        shift[:2, 2] = -self._offset
        own = np.eye(3) if layer.own_motion is None else layer.own_motion(t_s)
        out: Floats = plane_to_picture(self.lens, layer.plane, pose) @ self._to_rays @ shift @ own
        return out

    def frame(self, poses: Floats, times_s: Floats, index: int) -> Image:
        """One frame (height, width, 3) BGR: the mean over the exposure's poses (k, 6)."""
        picture = self._expose(poses, times_s, 0, self.lens.size[1])
        return self._finish(picture, index)

    def frame_rolling(self, strips: list[tuple[Floats, Floats]], index: int) -> Image:
        """One frame whose strips, from the top, were exposed at their own poses and times."""
        height = self.lens.size[1]
        edges = np.linspace(0, height, len(strips) + 1).round().astype(int)
        parts = [
            self._expose(poses, times_s, int(top), int(low))
            for (poses, times_s), top, low in zip(strips, edges[:-1], edges[1:], strict=True)
        ]
        return self._finish(np.concatenate(parts), index)

    def samples_for(self, poses: Floats) -> int:
        """Exposure samples worth taking between the first and last of poses."""
        background = self.scene.layers[self.scene.background]
        corners = self._offset + np.array([[0, 0], self.lens.size, [self.lens.size[0], 0]])
        first, last = (
            cv2.perspectiveTransform(corners[None], self.homography(background, pose, 0.0))[0]
            for pose in (poses[0], poses[-1])
        )
        travel = float(np.abs(last - first).max())
        return int(np.clip(np.ceil(travel / BLUR_STEP_PX), 1, MOST_SAMPLES))

    def _expose(self, poses: Floats, times_s: Floats, top: int, low: int) -> Image:
        """Rows top to low, in bytes throughout: what rounding adds is far under the noise."""
        out = np.zeros((low - top, self.lens.size[0], 3), np.uint8)
        for layer, box in zip(self.scene.layers, self._boxes, strict=True):
            homographies = [
                self.homography(layer, pose, float(t))
                for pose, t in zip(poses, times_s, strict=True)
            ]
            if layer.opaque:
                out[:] = _mean_warp(layer.image[..., :3], homographies, (0, top), out.shape)
                continue
            area = _seen_box(box, homographies, self.lens.size[0], top, low)
            if area is None:
                continue
            x0, y0, x1, y1 = area
            seen = _mean_warp(layer.image, homographies, (x0, y0), (y1 - y0, x1 - x0))
            part = out[y0 - top : y1 - top, x0:x1]
            *colour, covered = cv2.split(seen)
            left = cv2.merge([cv2.bitwise_not(covered)] * 3)
            cv2.multiply(part, left, dst=part, scale=1 / 255)
            cv2.add(part, cv2.merge(colour), dst=part)
        return out

    def _finish(self, image: Image, index: int) -> Image:
        if self._quiet:
            return image
        rng = np.random.default_rng([index, 13])
        noise = self._noise[index % NOISE_FRAMES]
        y, x = rng.integers(0, 64, 2)
        height, width = image.shape[:2]
        one = noise[y : y + height, x : x + width]
        return cv2.add(image, cv2.merge([one, one, one]), dtype=cv2.CV_8U)


def _mean_warp(
    image: Image, homographies: list[Floats], corner: tuple[int, int], shape: tuple[int, ...]
) -> Image:
    shift = np.array([[1.0, 0, -corner[0]], [0, 1.0, -corner[1]], [0, 0, 1.0]])
    border = cv2.BORDER_REFLECT_101 if image.shape[2] == 3 else cv2.BORDER_CONSTANT
    size = (shape[1], shape[0])
    if len(homographies) == 1:
        return cv2.warpPerspective(image, shift @ homographies[0], size, borderMode=border)  # type: ignore[return-value]
    total = np.zeros((shape[0], shape[1], image.shape[2]), np.float32)
    for homography in homographies:
        cv2.accumulate(
            cv2.warpPerspective(image, shift @ homography, size, borderMode=border), total
        )
    return cv2.convertScaleAbs(total, alpha=1 / len(homographies))  # type: ignore[return-value]


def _covered(layer: Layer) -> tuple[int, int, int, int]:
    """x0, y0, x1, y1 of what a layer's painting covers, canvas px."""
    alpha = layer.image[..., 3] > 0
    rows, columns = np.flatnonzero(alpha.any(axis=1)), np.flatnonzero(alpha.any(axis=0))
    if not len(rows):
        return 0, 0, 0, 0
    return int(columns[0]), int(rows[0]), int(columns[-1]) + 1, int(rows[-1]) + 1


def _seen_box(
    box: tuple[int, int, int, int], homographies: list[Floats], width: int, top: int, low: int
) -> tuple[int, int, int, int] | None:
    """Part of the picture that a layer can reach in any of the exposure's poses."""
    x0, y0, x1, y1 = box
    if x1 <= x0:
        return None
    corners = np.array([[x0, y0, 1], [x1, y0, 1], [x0, y1, 1], [x1, y1, 1]], float).T
    seen = []
    for homography in homographies:
        moved = homography @ corners
        if (moved[2] <= 1e-6).any():
            return 0, top, width, low
        seen.append(moved[:2] / moved[2])
    reach = np.concatenate(seen, axis=1)
    left, right = int(max(0, reach[0].min() - 1)), int(min(width, reach[0].max() + 2))
    upper, lower = int(max(top, reach[1].min() - 1)), int(min(low, reach[1].max() + 2))
    return (left, upper, right, lower) if right > left and lower > upper else None
