"""Film hazards, measure them like any clip, and set what was measured beside the truth."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.motion.path import Motion
from ridgewind.core.shake import read_motion

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Compared:
    """gust_true, gust: None where it could not be measured. path_pct: root mean square error of
    pan and tilt over trusted frames, percent. trust: mean of all frames; trusted: share of them
    that count. floor: gust of the measurement's own error. frame_pct: (n,) error of each step
    from frame to frame."""

    gust_true: float
    gust: float | None
    path_pct: float | None
    trust: float
    trusted: float
    floor: float | None
    frame_pct: Floats

    @property
    def off(self) -> float | None:
        return None if self.gust is None else self.gust - self.gust_true


def compare(truth: Motion, measured: Motion) -> Compared:
    """Set a measured path beside the true one, frame by frame."""
    reading, true = read_motion(measured), read_motion(truth).gust()
    good = measured.trusted
    both = np.stack([measured.pan_pct - truth.pan_pct, measured.tilt_pct - truth.tilt_pct], 1)
    centred = both[good] - (both[good].mean(axis=0) if good.any() else 0.0)
    steps = np.full(len(good), np.nan)
    steps[1:] = np.hypot(*np.diff(both, axis=0).T)
    return Compared(
        gust_true=true or 0.0,
        gust=reading.gust(),
        path_pct=float(np.sqrt((centred**2).sum(axis=1).mean() / 2)) if good.any() else None,
        trust=float(measured.trust.mean()),
        trusted=float(good.mean()),
        floor=reading.floor(),
        frame_pct=steps,
    )


def row_of(name: str, found: Compared) -> str:
    """A line of the table."""
    gust = "–" if found.gust is None else f"{found.gust:.2f}"
    off = "–" if found.off is None else f"{found.off:+.2f}"
    path = "–" if found.path_pct is None else f"{found.path_pct:.4f}"
    floor = "–" if found.floor is None else f"{found.floor:.1f}"
    return (
        f"| {name} | {found.gust_true:.2f} | {gust} | {off} | {path} | {found.trust:.2f} "
        f"| {100 * found.trusted:.0f} % | {floor} |"
    )


HEADER = (
    "| clip | true gust | measured | off | path error, % | trust | frames trusted | floor |\n"
    "| --- | --- | --- | --- | --- | --- | --- | --- |"
)


def folder_for(folder: Path, name: str) -> Path:
    """Where a clip is filmed to."""
    return folder / f"{name.replace(' ', '-').replace(',', '').replace('/', '-')}.mp4"
