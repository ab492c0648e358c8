"""Frames seen through a window: moved, turned, grown and cut, plane by plane.

Planes stay in the colours and the depth that the film has, so that nothing is converted twice.
"""

from __future__ import annotations

from typing import Any

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.media.decode import Picture
from ridgewind.media.upright import rotated

Planes = tuple[NDArray[Any], NDArray[Any], NDArray[Any]]

BORDER = cv2.BORDER_REPLICATE
"""What the last half pixel at an edge is mixed with; nothing further outside is ever seen."""

BLACK_LUMA, GREY = 16, 128
"""What would lie outside of the recorded picture, in 8-bit video levels."""

DEEP, SHALLOW = "yuv420p10le", "yuv420p"


def pixel_format(picture: Picture) -> str:
    """The format that keeps a film's depth: ten bits where it has more than eight."""
    return DEEP if max(c.bits for c in picture.frame.format.components) > 8 else SHALLOW


def planes_of(picture: Picture, size: tuple[int, int], fmt: str, *, quick: bool) -> Planes:
    """Luma and both colour planes of a frame as displayed: scaled to an even size, upright.

    quick: scale down by averaging, which is fast and does not flicker."""
    lying = size[::-1] if picture.turn % 2 else size
    interpolation = "AREA" if quick else "BICUBIC"
    frame = picture.frame.reformat(
        width=lying[0], height=lying[1], format=fmt, interpolation=interpolation
    )
    planes = [_view(frame, index) for index in range(3)]
    upright = [rotated(plane, picture.turn) for plane in planes]
    return upright[0], upright[1], upright[2]


def warped(planes: Planes, matrix: NDArray[np.float64], *, deep: bool) -> Planes:
    """The planes seen through a window.

    matrix: (2, 3) from a pixel of the finished luma plane to one of the recorded; colour planes
    have half its size, and lie in its middle.
    """
    levels = 4 if deep else 1  # ten bits count four times as far
    half = _halved(matrix)
    first = _warp(planes[0], matrix, BLACK_LUMA * levels)
    return first, _warp(planes[1], half, GREY * levels), _warp(planes[2], half, GREY * levels)


def frame_of(planes: Planes, fmt: str, like: av.VideoFrame) -> av.VideoFrame:
    """A frame from planes, with the colour description of another one."""
    height, width = planes[0].shape
    frame = av.VideoFrame(width, height, fmt)
    for index, plane in enumerate(planes):
        _view(frame, index)[:] = plane
    frame.colorspace, frame.color_range = like.colorspace, like.color_range
    frame.color_primaries, frame.color_trc = like.color_primaries, like.color_trc
    return frame


def _view(frame: av.VideoFrame, index: int) -> NDArray[Any]:
    """A plane as an array (height, width) on the frame's own memory."""
    plane = frame.planes[index]
    kind: Any = np.uint16 if frame.format.components[0].bits > 8 else np.uint8
    flat = np.frombuffer(plane, kind)
    return flat.reshape(-1, plane.line_size // flat.itemsize)[: plane.height, : plane.width]


def _halved(matrix: NDArray[np.float64]) -> NDArray[np.float64]:
    """The same window on a plane of half the size: pixel c lies at 2 c + 1/2 of the large one."""
    half = matrix.copy()
    half[:, 2] = (matrix[:, :2] @ np.array([0.5, 0.5]) + matrix[:, 2] - 0.5) / 2.0
    return half


def _warp(plane: NDArray[Any], matrix: NDArray[np.float64], outside: int) -> NDArray[Any]:
    return np.asarray(
        cv2.warpAffine(
            plane,
            matrix,
            plane.shape[::-1],
            flags=cv2.INTER_CUBIC | cv2.WARP_INVERSE_MAP,
            borderMode=BORDER,
            borderValue=(outside,),
        )
    )
