"""One pixel format made of another."""

from __future__ import annotations

import threading

from av import VideoFrame
from av.video.reformatter import VideoReformatter


class _Kept(threading.local):
    """What changes formats, one for each thread: making one starts threads, which takes longer than
    a small picture itself."""

    def __init__(self) -> None:
        self.reformatter = VideoReformatter()


_kept = _Kept()


def in_format(frame: VideoFrame, name: str) -> VideoFrame:
    """A frame of the same size in another pixel format; itself where it has that one."""
    return _kept.reformatter.reformat(frame, format=name)
