"""The luma and colour planes of a frame as displayed: upright, of any size, of one moment.

Planes stay in the colours and the depth that the film has, so that nothing is converted twice.
Where its format allows they are taken as they lie in memory, and scaled one by one, which costs a
fifth of what the general converter does.
"""

from __future__ import annotations

from typing import Any

import av
import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.media.decode import Picture
from ridgewind.media.formats import in_format
from ridgewind.media.upright import rotated

Planes = tuple[NDArray[Any], NDArray[Any], NDArray[Any]]
VideoFrame = av.VideoFrame

DEEP, SHALLOW = "yuv420p10le", "yuv420p"
SHALLOW_TOO = "yuvj420p"
FULL_RANGE = 2
"""The same planes in full range, which the frame's own description says (ISO/IEC 23091-2)."""


def pixel_format(picture: Picture) -> str:
    """The format that keeps a film's depth: ten bits where it has more than eight."""
    return DEEP if max(c.bits for c in picture.frame.format.components) > 8 else SHALLOW


def planes_of(picture: Picture, size: tuple[int, int], fmt: str) -> Planes:
    """Luma and both colour planes of a frame as displayed: scaled to an even size, upright; of a
    frame whose lines belong to two moments, those of the first.

    fmt: DEEP or SHALLOW.
    """
    frame = picture.frame
    if frame.format.name not in (DEEP, SHALLOW, SHALLOW_TOO):
        full = frame.color_range == FULL_RANGE and fmt == SHALLOW
        frame = in_format(frame, SHALLOW_TOO if full else fmt)
    lying = size[::-1] if picture.turn % 2 else size
    shrinks = frame.format.name == DEEP and fmt == SHALLOW
    planes = []
    for index in range(3):
        plane = view_of(frame, index)
        if picture.field:
            plane = plane[::2]
        plane = scaled(plane, lying if index == 0 else (lying[0] // 2, lying[1] // 2))
        if shrinks:
            plane = cv2.convertScaleAbs(plane, alpha=0.25)
        planes.append(rotated(plane, picture.turn))
    return planes[0], planes[1], planes[2]


def scaled(plane: NDArray[Any], size: tuple[int, int]) -> NDArray[Any]:
    """A plane (height, width) brought to a size (width, height): halved while that is possible,
    and the rest between pixels."""
    width, height = size
    while plane.shape[1] >= 2 * width and plane.shape[0] >= 2 * height:
        rows, columns = plane.shape[0] // 2 * 2, plane.shape[1] // 2 * 2
        half = (columns // 2, rows // 2)
        plane = np.asarray(cv2.resize(plane[:rows, :columns], half, interpolation=cv2.INTER_AREA))
    if plane.shape != (height, width):
        grows = plane.shape[0] < height or plane.shape[1] < width
        how = cv2.INTER_CUBIC if grows else cv2.INTER_LINEAR
        plane = np.asarray(cv2.resize(plane, size, interpolation=how))
    return plane


def in_video_range(planes: Planes, like: VideoFrame) -> Planes:
    """8-bit planes of a frame whose levels go from 0 to 255, as others have them."""
    if like.color_range != FULL_RANGE:
        return planes
    luma, blue, red = planes
    return (
        cv2.convertScaleAbs(luma, alpha=219 / 255, beta=16),
        cv2.convertScaleAbs(blue, alpha=224 / 255, beta=128 - 128 * 224 / 255),
        cv2.convertScaleAbs(red, alpha=224 / 255, beta=128 - 128 * 224 / 255),
    )


def grey_frame(size: tuple[int, int]) -> av.VideoFrame:
    """A frame that only describes colours: those of a film of no camera."""
    return av.VideoFrame(*size, SHALLOW)


def frame_of(planes: Planes, fmt: str, like: av.VideoFrame) -> av.VideoFrame:
    """A frame from planes, with the colour description of another one."""
    height, width = planes[0].shape
    frame = av.VideoFrame(width, height, fmt)
    for index, plane in enumerate(planes):
        view_of(frame, index)[:] = plane
    frame.colorspace, frame.color_range = like.colorspace, like.color_range
    frame.color_primaries, frame.color_trc = like.color_primaries, like.color_trc
    return frame


def view_of(frame: av.VideoFrame, index: int) -> NDArray[Any]:
    """A plane as an array (height, width) on the frame's own memory."""
    plane = frame.planes[index]
    kind: Any = np.uint16 if frame.format.components[0].bits > 8 else np.uint8
    flat = np.frombuffer(plane, kind)
    return flat.reshape(-1, plane.line_size // flat.itemsize)[: plane.height, : plane.width]
