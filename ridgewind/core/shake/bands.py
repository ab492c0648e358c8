"""Bands: what kind of shake, at capture time."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.shake.gust import (
    EXTENSION_S,
    Singles,
    Spectra,
    extend_oddly,
    fast_length,
    power_of,
    transform,
    weight,
)

Floats = NDArray[np.float64]
Bools = NDArray[np.bool_]

EDGES_HZ = {
    "drift": (0.0, 0.3),
    "sway": (0.3, 1.2),
    "step": (1.2, 4.0),
    "jitter": (4.0, 14.0),
    "buzz": (14.0, float("inf")),
}
"""Bands of shake by frequency at capture, Hz."""

NAMES = tuple(EDGES_HZ)

LEAST_ROWS, ROWS_A_WAVE = 4096, 4
"""Rows at which a band is looked at, at least, and for each wave of its fastest part: where it
begins and ends is then within a four thousandth of its length."""


@dataclass(frozen=True)
class Band:
    """One band of a shot.

    share: of the squared weighted speed, 0 to 1. excursion: (4,) root mean square of the path
    in this band: pan %, tilt %, roll °, zoom %. strongest_hz: the frequency that carries most
    weighted speed. share and the rest are None where the frame rate cannot show the band.
    """

    name: str
    share: float | None
    excursion: tuple[float, float, float, float] | None
    strongest_hz: float | None


def shown_at(rate_hz: float) -> tuple[str, ...]:
    """Names of the bands that a frame rate can show: those that begin under half of it."""
    return tuple(name for name, (low, _) in EDGES_HZ.items() if low < rate_hz / 2.0)


def band_powers(speeds: Floats, *, rate_hz: float) -> Floats:
    """Squared weighted speed (n, 5) in each band over time; speeds (n, 4) at capture rate.

    The ends are mirrored (chosen here): the odd extension that defines S would leak from fast
    bands into slow ones at the ends, which is harmless in the sum but not between bands.
    """
    added = min(round(EXTENSION_S * rate_hz), len(speeds) - 1)
    after = fast_length(len(speeds) + 2 * added) - len(speeds) - added
    extended = np.pad(speeds, ((added, after), (0, 0)), mode="reflect")
    frequency = np.fft.rfftfreq(len(extended), 1.0 / rate_hz)
    spectrum = transform(extended) * weight(frequency).astype(np.float32)[:, None]
    powers = np.zeros((len(NAMES), len(speeds))).T
    for column, (low, high) in enumerate(EDGES_HZ.values()):
        first, after_last = np.searchsorted(frequency, (low, high))
        if first < after_last:
            part = _between(spectrum, first, after_last, rows=len(extended))
            powers[:, column] = power_of(part[added : added + len(speeds)])
    return powers


def describe(
    path: Floats, speeds: Floats, powers: Floats, counted: Bools, *, rate_hz: float
) -> tuple[Band, ...]:
    """Bands of a shot.

    path: (n, 4) evenly sampled. speeds: (n - 1, 4). powers: (n - 1, 5) from band_powers.
    counted: (n - 1,) samples that count in statistics.
    """
    totals = counted @ powers / counted.sum()
    overall = float(totals.sum())
    shown = shown_at(rate_hz)
    centred, added = extend_oddly(path, rate_hz=rate_hz)
    path_hz = np.fft.rfftfreq(len(centred), 1.0 / rate_hz)
    path_spectrum = transform(centred)
    windowed = (speeds - speeds.mean(axis=0)) * np.hanning(len(speeds))[:, None]
    length = fast_length(len(speeds))
    transformed = np.fft.rfft(windowed, length, axis=0)
    spectrum = power_of(transformed.real) + power_of(transformed.imag)
    speed_hz = np.fft.rfftfreq(length, 1.0 / rate_hz)
    spectrum = spectrum * weight(speed_hz) ** 2
    bands = []
    for column, (name, (low, high)) in enumerate(EDGES_HZ.items()):
        if name not in shown:
            bands.append(Band(name, None, None, None))
            continue
        first, after_last = np.searchsorted(path_hz, (low, high))
        wanted = max(LEAST_ROWS, ROWS_A_WAVE * int(after_last))
        rows = min(len(centred), fast_length(wanted))
        part = _between(path_spectrum, max(1, first), after_last, rows=rows)
        thinner = rows / len(centred)
        begin, end = round(added * thinner), round((added + len(path)) * thinner)
        excursion = thinner * part[begin:end].std(axis=0, dtype=np.float64)
        inside = (speed_hz >= low) & (speed_hz < high) & (spectrum > 0)
        strongest = float(speed_hz[inside][spectrum[inside].argmax()]) if inside.any() else None
        share = float(totals[column] / overall) if overall > 0 else 0.0
        pan, tilt, roll, zoom = (float(value) for value in excursion)
        bands.append(Band(name, share, (pan, tilt, roll, zoom), strongest))
    return tuple(bands)


def _between(spectrum: Spectra, first: int, after_last: int, *, rows: int) -> Singles:
    """(rows, k) what lies between two bins of a spectrum (f, k)."""
    inside = np.zeros_like(spectrum[: rows // 2 + 1])
    inside[first:after_last] = spectrum[first:after_last]
    return np.fft.irfft(inside, rows, axis=0).astype(np.float32, copy=False)
