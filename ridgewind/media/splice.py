"""Films that were written alike, spliced into one without encoding anything again."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction
from pathlib import Path

import av

from ridgewind.media.errors import translated
from ridgewind.media.whole import whole_file


def splice(paths: Sequence[Path], target: Path, *, frames: Sequence[int], rate: Fraction) -> None:
    """Write films of the same size and settings into one, whole or not at all.

    frames: of each film; each begins where the frames before it end, so that nothing drifts. Raises
    MediaError.
    """
    movflags = {"movflags": "+faststart"}
    with (
        whole_file(target) as partial,
        translated(),
        av.open(str(partial), "w", format="mp4", options=movflags) as out,
    ):
        stream = None
        begun = 0
        for path, count in zip(paths, frames, strict=True):
            with av.open(str(path)) as film:
                source = film.streams.video[0]
                stream = stream or out.add_stream_from_template(source)
                first: int | None = None
                for packet in film.demux(source):
                    if packet.pts is None or packet.dts is None:
                        continue
                    first = packet.pts if first is None else first
                    shift = round(begun / rate / packet.time_base) - first
                    packet.pts, packet.dts = packet.pts + shift, packet.dts + shift
                    packet.stream = stream
                    out.mux(packet)
            begun += count
