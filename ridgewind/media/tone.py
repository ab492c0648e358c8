"""Films of a wide range of brightness, shown on ordinary screens.

HLG and PQ films (ITU-R BT.2100) look grey or dark where a picture is taken for an ordinary one.
Stills and browser copies are therefore mapped: scene light to the screen's, BT.2020 colours to
BT.709, and what is brighter than white rolled off. Full-size films keep what was recorded.
"""

from __future__ import annotations

import itertools
import tempfile
from functools import cache
from pathlib import Path

import av
import av.filter
import numpy as np
from numpy.typing import NDArray

from ridgewind.media.errors import translated

Floats = NDArray[np.float64]

PQ, HLG = 16, 18
"""Transfer functions as frames name them (ISO/IEC 23091-2)."""

BT709, VIDEO_RANGE = 1, 1
CUBE = 33
"""Steps of each colour in the table."""

WHITE_NITS = 203.0
"""Light of a white sheet in HLG and PQ pictures (ITU-R BT.2408)."""

HLG_NITS, PQ_NITS = 1000.0, 10_000.0
KNEE = 0.75
"""Of the screen's white, from which what is brighter is rolled off (chosen here)."""

BT2020_TO_709 = np.array(
    [[1.6605, -0.5876, -0.0728], [-0.1246, 1.1329, -0.0083], [-0.0182, -0.1006, 1.1187]]
)
"""ITU-R BT.2087."""

LUMA = np.array([0.2627, 0.6780, 0.0593])


def is_wide(frame: av.VideoFrame) -> bool:
    """Whether a frame has to be mapped to be seen as it was meant."""
    return frame.color_trc in (PQ, HLG)


class ToneMapper:
    """Maps frames of one size and transfer function; frames are given and taken one by one."""

    def __init__(self, like: av.VideoFrame) -> None:
        # The library reads the table from a file, once, when the graph is made.
        with translated(), tempfile.TemporaryDirectory(prefix="ridgewind-") as folder:
            table = Path(folder) / "table.cube"
            table.write_text(_table(like.color_trc))
            self._graph = _graph(like, table)

    def map(self, frame: av.VideoFrame) -> av.VideoFrame:
        """The frame in BT.709, eight bits."""
        self._graph.vpush(frame)
        made = self._graph.vpull()
        made.colorspace = made.color_primaries = made.color_trc = BT709
        made.color_range = VIDEO_RANGE
        return made


def _graph(like: av.VideoFrame, table: Path) -> av.filter.Graph:
    """Filters from frames like this one to BT.709, by a table in a file."""
    graph = av.filter.Graph()
    name = str(table).replace("\\", "/").replace(":", "\\:")
    source = graph.add_buffer(
        width=like.width, height=like.height, format=like.format.name, time_base=like.time_base
    )
    chain = [
        source,
        graph.add("scale", "in_color_matrix=bt2020:in_range=tv:flags=bilinear"),
        graph.add("format", "gbrp10le"),
        graph.add("lut3d", f"file='{name}'"),
        graph.add("scale", "out_color_matrix=bt709:out_range=tv:flags=bilinear"),
        graph.add("format", "yuv420p"),
        graph.add("buffersink"),
    ]
    for one, after in itertools.pairwise(chain):
        one.link_to(after)
    graph.configure()
    return graph


def mapped(rgb: Floats, transfer: int) -> Floats:
    """Colours (n, 3), 0 to 1 of the signal, as an ordinary screen has to show them, 0 to 1."""
    nits = _hlg_light(rgb) if transfer == HLG else _pq_light(rgb)
    light = nits / WHITE_NITS @ BT2020_TO_709.T
    bright = np.maximum(light.max(axis=1, keepdims=True), 1e-9)
    most = (HLG_NITS if transfer == HLG else PQ_NITS) / WHITE_NITS
    light = np.maximum(light * (_rolled_off(bright, most) / bright), 0.0)
    gamma = np.where(light < 0.018, 4.5 * light, 1.099 * np.maximum(light, 0.018) ** 0.45 - 0.099)
    return np.clip(gamma, 0.0, 1.0)


def _rolled_off(bright: Floats, most: float) -> Floats:
    """Straight up to the knee, then ever slower up to the screen's white at `most`."""
    over = np.clip((bright - KNEE) / (most - KNEE), 0.0, 1.0)
    steep = (most - KNEE) / (1.0 - KNEE)  # keeps the slope at the knee
    curved = np.log1p((steep - 1.0) * over * 2.0) / np.log1p((steep - 1.0) * 2.0)
    out: Floats = np.where(bright <= KNEE, bright, KNEE + (1.0 - KNEE) * curved)
    return out


def _hlg_light(signal: Floats) -> Floats:
    """Light on a screen of HLG_NITS (BT.2100, table 5)."""
    a, b, c = 0.17883277, 0.28466892, 0.55991073
    scene = np.where(signal <= 0.5, signal**2 / 3.0, (np.exp((signal - c) / a) + b) / 12.0)
    luma = np.maximum(scene @ LUMA, 1e-9)[:, None]
    out: Floats = HLG_NITS * luma**0.2 * scene
    return out


def _pq_light(signal: Floats) -> Floats:
    """Light, nits (BT.2100, table 4)."""
    m1, m2, c1, c2, c3 = 0.1593017578125, 78.84375, 0.8359375, 18.8515625, 18.6875
    root = np.maximum(signal, 0.0) ** (1.0 / m2)
    out: Floats = PQ_NITS * (np.maximum(root - c1, 0.0) / (c2 - c3 * root)) ** (1.0 / m1)
    return out


@cache
def _table(transfer: int) -> str:
    """A table of the mapping, in the form that the video library reads."""
    steps = np.linspace(0.0, 1.0, CUBE)
    blue, green, red = np.meshgrid(steps, steps, steps, indexing="ij")  # red changes fastest
    colours = mapped(np.stack([red, green, blue], axis=-1).reshape(-1, 3), transfer)
    lines = [f"LUT_3D_SIZE {CUBE}", *(f"{r:.6f} {g:.6f} {b:.6f}" for r, g, b in colours)]
    return "\n".join(lines) + "\n"
