"""Motion logs: a camera's or phone's own turning rates, as CSV, to a path.

Any column names, radians or degrees, seconds to nanoseconds, uneven sampling and gaps. What each
column is, is guessed from its name and its size, and corrected by whoever imports it.
"""

from __future__ import annotations

import csv
import itertools
import re
from array import array
from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.errors import CoreError, InvalidArgumentError, require_choice, require_positive
from ridgewind.core.motion.path import Motion, split_shots
from ridgewind.core.units import deg_to_pct

Floats = NDArray[np.float64]
TimeUnit = Literal["s", "ms", "us", "ns"]
RateUnit = Literal["rad_s", "deg_s"]

SECONDS: dict[str, float] = {"s": 1.0, "ms": 1e-3, "us": 1e-6, "ns": 1e-9}
DEGREES: dict[str, float] = {"rad_s": float(np.degrees(1.0)), "deg_s": 1.0}
MOST_ROWS = 3_000_000
LEAST_ROWS, LEAST_MARKS = 30, 3
FIRST_LINES = 1000
"""Lines that tell how many columns there are and what stands between them."""

LONGEST_GAP_S = 0.1
"""Longer gaps between samples are bridged for drawing only (chosen here)."""

LEAP_S = 2.0
"""Over longer ones nothing is drawn at all: what follows is a shot of its own, as in a film."""

SLOWEST_HZ, FASTEST_HZ = 10.0, 1000.0
USUAL_HZ = 240.0
"""Rate to which faster logs are brought: nothing above 120 Hz is seen."""

LONG_SAMPLES, LONG_HZ = 54_000, 60.0
"""Samples from which the path of a long log is brought to a lower rate, and down to which: what is
over 30 Hz weighs next to nothing, and hours of it would fill the memory of whoever looks at it."""

MOST_DEG_S = 2000.0
"""Faster turns are beyond what such sensors measure."""

LIKELY_DEG_S = 6.0
"""Middle of the sizes of rates, from which degrees are likelier than radians: by hand a camera
rarely turns by 6 rad/s, and most of the time by more than a tenth of a degree a second."""

RATIO_OF_UNITS = 0.35
NO_RATES = (
    "it does not hold time and three turning rates",
    "choose a CSV file with a column of times and the rates about three axes",
)


class LogError(CoreError):
    """A log that cannot be read. what: the fault. next_step: what can be done."""

    def __init__(self, what: str, next_step: str) -> None:
        super().__init__(f"{what}; {next_step}")
        self.what, self.next_step = what, next_step


@dataclass(frozen=True)
class LogTable:
    """names: of the k columns that hold numbers. values: (n, k), not a number where empty."""

    names: tuple[str, ...]
    values: Floats


@dataclass(frozen=True)
class LogMapping:
    """What is what. time, pan, tilt, roll: names of columns. The rates are positive to the right,
    up and clockwise after their sign (1 or -1)."""

    time: str
    pan: str
    tilt: str
    roll: str
    time_unit: TimeUnit
    rate_unit: RateUnit
    pan_sign: int
    tilt_sign: int
    roll_sign: int

    def __post_init__(self) -> None:
        require_choice("time_unit", self.time_unit, SECONDS)
        require_choice("rate_unit", self.rate_unit, DEGREES)
        for name in ("pan_sign", "tilt_sign", "roll_sign"):
            if getattr(self, name) not in (1, -1):
                raise InvalidArgumentError(name, getattr(self, name), "it must be 1 or -1")


@dataclass(frozen=True)
class TurnRates:
    """t_s: (n,) from the first sample, growing. deg_s: (n, 3) right, up, clockwise. gaps: stretches
    (from_s, to_s) without samples. rate_hz: usual samples a second."""

    t_s: Floats
    deg_s: Floats
    gaps: tuple[tuple[float, float], ...]
    rate_hz: float


@dataclass(frozen=True)
class Offset:
    """seconds: to be added to a log's times to have the film's. certainty: 0 to 1, how far the
    best match stands over any other. correlation: of the two at their best."""

    seconds: float
    certainty: float
    correlation: float


def read_table(lines: Iterable[str]) -> LogTable:
    """Columns of numbers of the lines of a CSV file; commas, semicolons or tabs, with or without
    names. They are read once, and of a row only its numbers are kept.

    Raises LogError where there are no four columns of numbers with 30 rows.
    """
    told = (line for line in lines if line.strip() and not line.startswith("#"))
    first = list(itertools.islice(told, FIRST_LINES))
    if not first:
        raise LogError("the log is empty", "export it again")
    sample = first[min(len(first) - 1, 2)]
    mark = next((one for one in ";\t" if sample.count(one) >= LEAST_MARKS), ",")
    whole: Iterable[str] = itertools.chain(first, told)
    if mark != "," and "," in sample:  # a decimal comma
        whole = (line.replace(",", ".") for line in whole)
    try:
        # Of most lines: the first may be a title, and the last a footer, or cut off.
        width = Counter(map(len, csv.reader(first, delimiter=mark))).most_common(1)[0][0]
        names, body = _rows(csv.reader(whole, delimiter=mark), width)
    except csv.Error:
        raise LogError(*NO_RATES) from None
    kept = [k for k in range(width) if len(body) and np.isfinite(body[:, k]).mean() > 0.5]
    if len(body) < LEAST_ROWS or len(kept) < 4:
        raise LogError(*NO_RATES)
    titles = [(names[k].strip() if names else "") or f"column {k + 1}" for k in kept]
    return LogTable(tuple(_distinct(titles)), body[:, kept])


def _rows(rows: Iterable[list[str]], width: int) -> tuple[list[str] | None, Floats]:
    """What stands over the first row of numbers, and all rows from there on (n, width)."""
    names: list[str] | None = None
    values = array("d")
    for row in rows:
        numbers = _numbers(row, width)
        if not values and np.isfinite(numbers).sum() < 4:
            names = row if len(row) == width else None
            continue
        values.extend(numbers)
        if len(values) > MOST_ROWS * width:
            raise LogError("the log is too long", "cut it to the stretch that belongs to the take")
    return names, np.array(values).reshape(-1, width)


def guess_mapping(table: LogTable) -> LogMapping:
    """What the columns most likely are, from their names and sizes."""
    names = table.names
    time = _named(names, r"\b(time|t|timestamp|ts|seconds?|millis|nanos)\b|time", ())
    if time is None:
        growing = [np.mean(np.diff(column) > 0) for column in table.values.T]
        time = names[int(np.argmax(growing))]
    taken: tuple[str, ...] = (time,)
    found: dict[str, str] = {}
    turning = [n for n in names if re.search(r"gyr|rot|rate|omega|angular|yaw|pitch|roll", n, re.I)]
    pool = turning if len(turning) >= 3 else [n for n in names if n != time]
    # Held upright as a phone is: x to the right, y up, z towards the shooter.
    for part, pattern in (
        ("roll", r"roll|(^|[^a-z])z([^a-z]|$)|[a-z]z$"),
        ("pan", r"yaw|pan|(^|[^a-z])y([^a-z]|$)|[a-z]y$"),
        ("tilt", r"pitch|tilt|(^|[^a-z])x([^a-z]|$)|[a-z]x$"),
    ):
        name = _named(tuple(pool), pattern, taken)
        if name is not None:
            found[part], taken = name, (*taken, name)
    for part in ("tilt", "pan", "roll"):  # about x, y and z, as they usually come
        if part not in found:
            name = next(n for n in (*pool, *names) if n not in taken)
            found[part], taken = name, (*taken, name)
    rates = np.column_stack([table.values[:, names.index(found[p])] for p in found])
    named_deg = any(re.search(r"deg|dps|°", found[part], re.I) for part in found)
    named_rad = any(re.search(r"rad", found[part], re.I) for part in found)
    large = float(np.nanpercentile(np.abs(rates), 95)) > LIKELY_DEG_S * RATIO_OF_UNITS
    unit: RateUnit = "deg_s" if named_deg or (large and not named_rad) else "rad_s"
    return LogMapping(
        time=time, pan=found["pan"], tilt=found["tilt"], roll=found["roll"],
        time_unit=_time_unit(table.values[:, names.index(time)], time), rate_unit=unit,
        pan_sign=-1, tilt_sign=1, roll_sign=-1,
    )  # fmt: skip


def turn_rates(table: LogTable, mapping: LogMapping) -> TurnRates:
    """The rates in degrees a second, by growing time. Raises LogError where they cannot be."""
    for part in ("time", "pan", "tilt", "roll"):
        if getattr(mapping, part) not in table.names:
            name = getattr(mapping, part)
            raise LogError(f"there is no column “{name}”", "choose one of the log's columns")
    columns = [getattr(mapping, part) for part in ("time", "pan", "tilt", "roll")]
    values = table.values[:, [table.names.index(name) for name in columns]]
    values = values[np.isfinite(values).all(axis=1)]
    values = values[np.argsort(values[:, 0], kind="stable")]
    t_s = (values[:, 0] - values[0, 0]) * SECONDS[mapping.time_unit] if len(values) else values
    fresh = np.concatenate([[True], np.diff(t_s) > 0]) if len(values) else np.zeros(0, bool)
    t_s, values = t_s[fresh], values[fresh]
    if len(t_s) < LEAST_ROWS:
        raise LogError("its times do not grow", "choose another column as the time")
    steps = np.diff(t_s)
    rate_hz = 1.0 / float(np.median(steps))
    if not SLOWEST_HZ <= rate_hz <= 20 * FASTEST_HZ:
        raise LogError(
            f"it has {rate_hz:.3g} samples a second", "choose another unit or column for the time"
        )
    signs = np.array([mapping.pan_sign, mapping.tilt_sign, mapping.roll_sign])
    deg_s = values[:, 1:] * DEGREES[mapping.rate_unit] * signs
    if float(np.percentile(np.abs(deg_s), 99)) > MOST_DEG_S:
        raise LogError("it turns faster than any camera", "choose another unit for the rates")
    return TurnRates(t_s, deg_s, gaps_of(t_s, rate_hz), rate_hz)


def gaps_of(t_s: Floats, rate_hz: float) -> tuple[tuple[float, float], ...]:
    """Stretches of growing times (n,) in which samples are missing, at a usual rate."""
    wide = np.flatnonzero(np.diff(t_s) > max(LONGEST_GAP_S, 3.0 / rate_hz))
    return tuple((float(t_s[k]), float(t_s[k + 1])) for k in wide)


def cut_rates(rates: TurnRates, from_s: float, to_s: float) -> TurnRates | None:
    """The samples between two times, which stay as they are; None where there are too few."""
    first, last = (int(k) for k in np.searchsorted(rates.t_s, [from_s, to_s]))
    if last - first < LEAST_ROWS:
        return None
    t_s = rates.t_s[first:last]
    gaps = tuple((a, b) for a, b in rates.gaps if a >= t_s[0] and b <= t_s[-1])
    return TurnRates(t_s, rates.deg_s[first:last], gaps, rates.rate_hz)


def path_of_rates(rates: TurnRates, *, focal_eq_mm: float, aspect: float) -> Motion:
    """The path that the turning of the camera gives the picture, in the middle of it.

    Travel, which no such log holds, is missing. Samples are summed by trapezoids, then brought to
    an even rate of at most 240 a second, of long logs less; gaps are not trusted.
    """
    require_positive("focal_eq_mm", focal_eq_mm)
    steps = np.diff(rates.t_s)
    starts, ends = np.array(rates.gaps).reshape(-1, 2).T
    inside = ~_within(rates.t_s[:-1], starts, ends)
    turned = 0.5 * (rates.deg_s[1:] + rates.deg_s[:-1]) * (steps * inside)[:, None]
    angle = np.vstack([np.zeros((1, 3)), np.cumsum(turned, axis=0)])
    long_hz = max(LONG_HZ, rates.rate_hz * LONG_SAMPLES / len(rates.t_s))
    rate_hz = min(rates.rate_hz, USUAL_HZ, long_hz)
    leaps = np.flatnonzero(steps > LEAP_S)
    parts = zip([0, *(leaps + 1)], [*leaps, len(steps)], strict=True)
    grids = [_even(rates.t_s[first], rates.t_s[last], rate_hz) for first, last in parts]
    even = np.concatenate(grids)
    pan, tilt, roll = (np.interp(even, rates.t_s, column) for column in angle.T)
    trust = np.where(_within(even, np.nextafter(starts, np.inf), ends), 0.0, 1.0)
    cuts = np.cumsum([len(grid) for grid in grids])[:-1].tolist()
    return Motion(
        t_s=even,
        pan_pct=np.asarray([deg_to_pct(1.0, focal_eq_mm=focal_eq_mm)]) * pan,
        tilt_pct=np.asarray([deg_to_pct(1.0, focal_eq_mm=focal_eq_mm)]) * tilt,
        roll_deg=roll,
        zoom_pct=np.zeros(len(even)),
        trust=trust,
        error=np.zeros((len(even), 4)),
        aspect=aspect,
        shots=split_shots(trust > 0, even, cuts, [""] * len(even)),
    )


def _even(start_s: float, end_s: float, rate_hz: float) -> Floats:
    return start_s + np.arange(int((end_s - start_s) * rate_hz + 1e-6) + 1) / rate_hz


def _within(t_s: Floats, starts: Floats, ends: Floats) -> NDArray[np.bool_]:
    """Whether each time (n,) lies in one of the stretches from a start up to an end, in order."""
    if not len(starts):
        return np.zeros(len(t_s), np.bool_)
    last = np.searchsorted(starts, t_s, side="right") - 1
    out: NDArray[np.bool_] = (last >= 0) & (t_s < ends[last])
    return out


def find_offset(picture: Motion, log: Motion) -> Offset:
    """By how much a log's times are behind a film's, from the speeds of pan and tilt.

    Normalised cross-correlation at 100 samples a second over every offset at which at least half
    of the shorter one overlaps, refined by a parabola.
    """
    rate_hz = 100.0
    one, two = _speeds(picture, rate_hz), _speeds(log, rate_hz)
    length = len(one) + len(two) - 1
    size = 1 << (length - 1).bit_length()
    both = np.zeros(length)
    for part in range(2):
        spectrum = np.fft.rfft(one[:, part], size) * np.conj(np.fft.rfft(two[:, part], size))
        whole = np.fft.irfft(spectrum, size)
        both += np.concatenate([whole[size - len(two) + 1 :], whole[: len(one)]])
    shifts = np.arange(-len(two) + 1, len(one))
    shared = np.minimum(len(one), shifts + len(two)) - np.maximum(0, shifts)
    power_one = np.concatenate([[0.0], np.cumsum((one**2).sum(axis=1))])
    power_two = np.concatenate([[0.0], np.cumsum((two**2).sum(axis=1))])
    first = np.maximum(0, shifts)
    p1 = power_one[first + shared] - power_one[first]
    begin = np.maximum(0, -shifts)
    p2 = power_two[begin + shared] - power_two[begin]
    with np.errstate(invalid="ignore", divide="ignore"):
        score = both / np.sqrt(p1 * p2)
    score[~np.isfinite(score) | (shared < 0.5 * min(len(one), len(two)))] = -1.0
    best = int(score.argmax())
    near = np.abs(shifts - shifts[best]) < 0.3 * rate_hz
    rival = float(score[~near].max()) if (~near).any() else 0.0
    top = float(score[best])
    fine = 0.0
    if 0 < best < len(score) - 1:
        a, b, c = score[best - 1], score[best], score[best + 1]
        fine = 0.5 * (a - c) / (a - 2 * b + c) if a - 2 * b + c < 0 else 0.0
    seconds = float(shifts[best] + fine) / rate_hz + float(picture.t_s[0] - log.t_s[0])
    certainty = float(np.clip((top - max(rival, 0.0)) / 0.5, 0.0, 1.0)) * float(np.clip(top, 0, 1))
    return Offset(seconds, certainty, top)


def _speeds(motion: Motion, rate_hz: float) -> Floats:
    """(n, 2) speeds of pan and tilt at an even rate; 0 where they are not known."""
    good = motion.trusted
    t_s = motion.t_s[good]
    even = np.arange(motion.t_s[0], motion.t_s[-1], 1.0 / rate_hz)
    path = np.column_stack(
        [np.interp(even, t_s, column[good]) for column in (motion.pan_pct, motion.tilt_pct)]
    )
    return np.gradient(path, axis=0) * rate_hz


def _numbers(row: list[str], width: int) -> list[float]:
    out = []
    for cell in row[:width]:
        try:
            out.append(float(cell))
        except ValueError:
            out.append(np.nan)
    return out + [np.nan] * (width - len(out))


def _distinct(titles: list[str]) -> list[str]:
    seen: dict[str, int] = {}
    out = []
    for title in titles:
        seen[title] = seen.get(title, 0) + 1
        out.append(title if seen[title] == 1 else f"{title} ({seen[title]})")
    return out


def _named(names: tuple[str, ...], pattern: str, taken: tuple[str, ...]) -> str | None:
    return next((n for n in names if n not in taken and re.search(pattern, n, re.I)), None)


def _time_unit(times: Floats, name: str) -> TimeUnit:
    """From the column's name, or from how far apart its samples are."""
    for pattern, named in (
        (r"\bns\b|_ns|nano", "ns"), (r"\bus\b|_us|µs|micro", "us"), (r"\bms\b|_ms|milli", "ms"),
    ):  # fmt: skip
        if re.search(pattern, name, re.I):
            return named  # type: ignore[return-value]
    step = float(np.nanmedian(np.abs(np.diff(times))))
    for unit, least in (("ns", 1e5), ("us", 3e2), ("ms", 0.3)):
        if step >= least:
            return unit  # type: ignore[return-value]
    return "s"
