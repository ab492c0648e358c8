"""What this machine's build of the decoder can read and write."""

from __future__ import annotations

import av
import av.codec

READ, WRITTEN = ("h264", "hevc", "vp9", "av1", "prores", "mjpeg", "aac"), ("libx264", "aac")
"""By the names that FFmpeg has for them."""


def lacking() -> list[str]:
    """What Ridgewind reads or writes and this build cannot; nothing where all is well."""
    out = [f"reading {name}" for name in READ if not _has(name, "r")]
    return out + [f"writing {name}" for name in WRITTEN if not _has(name, "w")]


def _has(name: str, mode: str) -> bool:
    try:
        av.codec.Codec(name, mode)  # type: ignore[arg-type]
    except av.codec.codec.UnknownCodecError:
        return False
    return True


def versions() -> str:
    """Of the decoder and of the library in it."""
    codec = ".".join(str(part) for part in av.library_versions["libavcodec"])
    return f"av {av.__version__} (libavcodec {codec})"
