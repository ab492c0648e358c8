"""Errors of reading and writing films; every one says what is wrong and what to do next.

MediaError
├── UnreadableError   the file cannot be read as a film (missing, empty, damaged, not a film)
└── UnfitError        it reads, but holds nothing that can be measured (sound only, one frame)

`translated()` is the one boundary at which the video library's errors become these.
"""

from __future__ import annotations

import errno
from collections.abc import Iterator
from contextlib import contextmanager


class MediaError(Exception):
    """code: short name for programs. what: the fault. next_step: what the shooter can do."""

    def __init__(self, code: str, what: str, next_step: str) -> None:
        super().__init__(f"{what}; {next_step}")
        self.code, self.what, self.next_step = code, what, next_step


class UnreadableError(MediaError):
    """The file cannot be read as a film."""


class UnfitError(MediaError):
    """The file reads, but holds nothing that can be measured."""


MISSING = ("missing", "there is no such file", "check the name and the folder")
FOLDER = ("folder", "this is a folder, not a film", "name one clip inside it")
FORBIDDEN = ("unreadable", "this file may not be read", "check its permissions")
EMPTY = ("empty", "the file is empty", "copy it from the card again")
NOT_FILM = ("not_film", "this is not a film", "choose a video clip, such as an mp4 or mov file")
CUT_SHORT = (
    "cut_short",
    "the file is cut short: its index is missing",
    "copy it from the card again, or let the camera repair its card",
)
DAMAGED = ("damaged", "no frame of it can be decoded", "copy it from the card again")
NO_VIDEO = ("no_video", "it holds no picture, only sound", "choose a clip with a video track")
NO_TRACK = ("no_video", "it has no video track", "choose a clip with a video track")
SINGLE_FRAME = ("single_frame", "it holds a single frame", "choose a clip of at least a second")
TOO_SMALL = (
    "too_small",
    "its picture is smaller than 64 px",
    "choose the camera's own file rather than a thumbnail",
)
BAD_CODEC = (
    "no_decoder",
    "its video is in a format that cannot be decoded here",
    "convert it to H.264 or HEVC",
)
CLEARED = (
    "cleared",
    "its original was cleared from the disk",
    "bring it back under Takes, or bring the clip in again",
)
AWAY = (
    "away",
    "its original is on the second disk, which is not here",
    "connect that disk, and try again",
)
DISK_FULL = ("disk_full", "the disk is full", "free some space and try again")


@contextmanager
def translated() -> Iterator[None]:
    """Turn errors of the video library and the system into MediaError."""
    # Only where a film is opened: a server starts without it.
    import av.error  # noqa: PLC0415

    try:
        yield
    except (av.error.FileNotFoundError, FileNotFoundError) as error:
        raise UnreadableError(*MISSING) from error
    except (av.error.IsADirectoryError, IsADirectoryError) as error:
        raise UnreadableError(*FOLDER) from error
    except (av.error.PermissionError, PermissionError) as error:
        raise UnreadableError(*FORBIDDEN) from error
    except av.error.DecoderNotFoundError as error:
        raise UnreadableError(*BAD_CODEC) from error
    except (av.error.FFmpegError, OSError) as error:
        if getattr(error, "errno", None) == errno.ENOSPC:
            raise MediaError(*DISK_FULL) from error
        raise UnreadableError(*DAMAGED) from error
