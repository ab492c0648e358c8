"""Motion logs: any table, any unit, gaps; the path they give, and where they belong in a film."""

from __future__ import annotations

import time
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.turn_rates import (
    LogError,
    TurnRates,
    find_offset,
    guess_mapping,
    path_of_rates,
    read_table,
    turn_rates,
)
from ridgewind.core.shake import read_motion
from ridgewind.core.units import deg_to_pct
from tests.conftest import ASPECT, make_motion

FOCAL = 26.0


def rates_at(t):
    """Right, up and clockwise, degrees a second."""
    return np.column_stack(
        [
            2 * np.sin(2 * np.pi * 1.1 * t),
            3 * np.cos(2 * np.pi * 2.3 * t),
            np.sin(2 * np.pi * 6 * t),
        ]
    )


def table_text(
    *, rate_hz=200.0, seconds=6.0, names="time_s,gyro_x,gyro_y,gyro_z", mark=",", scale=1.0,
    time_scale=1.0, start=0.0, uneven=0.0, gap=None, seed=1,
):  # fmt: skip
    rng = np.random.default_rng(seed)
    t = np.arange(round(rate_hz * seconds)) / rate_hz
    t = np.sort(t + uneven / rate_hz * rng.uniform(-0.5, 0.5, len(t)))
    if gap:
        t = t[(t < gap[0]) | (t > gap[1])]
    pan, tilt, roll = rates_at(t).T
    columns = [(t + start) * time_scale, tilt * scale, -pan * scale, -roll * scale]
    rows = [mark.join(f"{value:.9g}" for value in row) for row in np.column_stack(columns)]
    return "\n".join(([names.replace(",", mark)] if names else []) + rows)


def motion_of(text, **change):
    table = read_table(text.splitlines())
    mapping = replace(guess_mapping(table), **change)
    return path_of_rates(turn_rates(table, mapping), focal_eq_mm=FOCAL, aspect=ASPECT)


def true_motion(rate_hz=200.0, seconds=6.0, shift_s=0.0):
    pct = deg_to_pct(1.0, focal_eq_mm=FOCAL)

    def at(t, part):
        fine = np.linspace(0, t[-1] + shift_s + 1e-9, 40_000)
        angle = np.concatenate([[0], np.cumsum(rates_at((fine[1:] + fine[:-1]) / 2)[:, part])])
        angle *= fine[1] - fine[0]
        return np.interp(t + shift_s, fine, angle) - np.interp(shift_s, fine, angle)

    return make_motion(
        rate_hz=rate_hz, seconds=seconds,
        pan=lambda t: at(t, 0) * pct, tilt=lambda t: at(t, 1) * pct, roll=lambda t: at(t, 2),
    )  # fmt: skip


@pytest.mark.parametrize(
    ("how", "time_unit", "rate_unit"),
    [
        ({}, "s", "deg_s"),
        ({"scale": np.radians(1), "names": "t,wx,wy,wz"}, "s", "rad_s"),
        ({"time_scale": 1e3, "mark": ";", "names": "Millis,X (deg/s),Y (deg/s),Z (deg/s)"},
         "ms", "deg_s"),
        ({"time_scale": 1e6, "names": "timestamp,rotation x,rotation y,rotation z"}, "us", "deg_s"),
        ({"time_scale": 1e9, "start": 8.1e4, "names": "elapsed_ns,rate.x,rate.y,rate.z"},
         "ns", "deg_s"),
        ({"mark": "\t", "names": "seconds,pitch rate,yaw rate,roll rate"}, "s", "deg_s"),
        ({"names": ""}, "s", "deg_s"),
        ({"rate_hz": 50.0, "uneven": 0.8}, "s", "deg_s"),
    ],
)  # fmt: skip
def test_units_and_columns_are_guessed_and_the_path_is_right(how, time_unit, rate_unit):
    text = table_text(**how)
    mapping = guess_mapping(read_table(text.splitlines()))
    assert (mapping.time_unit, mapping.rate_unit) == (time_unit, rate_unit)
    found, true = motion_of(text), true_motion()
    for column in ("pan_pct", "tilt_pct"):
        at = np.interp(found.t_s, true.t_s, getattr(true, column))
        error = getattr(found, column) - at
        assert np.sqrt(np.mean((error - error.mean()) ** 2)) < 0.02
    assert read_motion(found).gust() == pytest.approx(read_motion(true).gust(), abs=0.1)


def test_a_gap_is_not_trusted_and_shots_go_on():
    found = motion_of(table_text(gap=(2.0, 2.6)))
    inside = (found.t_s > 2.02) & (found.t_s < 2.58)
    assert not found.trusted[inside].any()
    assert found.trusted[~((found.t_s > 1.98) & (found.t_s < 2.62))].all()
    assert len(found.shots) == 1
    assert found.shots[0].measurable


@settings(max_examples=12, deadline=None)
@given(st.floats(-1.5, 2.5), st.sampled_from([25.0, 30.0, 60.0]))
def test_the_offset_to_a_film_is_found_by_its_motion(shift_s, rate_hz):
    log = motion_of(table_text(seconds=10.0))
    first = max(0.0, -shift_s)
    rng = np.random.default_rng(3)
    film = true_motion(rate_hz=rate_hz, seconds=6.0, shift_s=first + 1.0)
    film = replace(film, pan_pct=film.pan_pct + rng.normal(0, 0.003, len(film.t_s)))
    found = find_offset(film, log)
    assert found.seconds == pytest.approx(-(first + 1.0), abs=0.005)
    assert found.correlation > 0.95


def test_a_log_of_another_take_is_not_believed():
    rng = np.random.default_rng(8)
    film = make_motion(
        rate_hz=30, seconds=8,
        pan=lambda t: np.cumsum(rng.normal(0, 0.05, len(t))),
        tilt=lambda t: np.cumsum(rng.normal(0, 0.05, len(t))),
    )  # fmt: skip
    assert find_offset(film, motion_of(table_text(seconds=9.0))).certainty < 0.4


@pytest.mark.parametrize(
    ("text", "fault"),
    [
        ("", "the log is empty"),
        ("a,b\n1,2\n" * 50, "does not hold time and three"),
        ("t,x,y,z\n1,2,3,4\n2,3,4,5", "does not hold time and three"),
        ("t,x,y,z\n" + "5,1,1,1\n" * 60, "its times do not grow"),
        ("t_s,x,y,z\n" + "".join(f"{k},1,1,1\n" for k in range(60)), "samples a second"),
        (table_text(scale=1000.0, names="time_s,x rad,y rad,z rad"), "faster than any camera"),
    ],
)
def test_a_log_that_makes_no_sense_says_why(text, fault):
    def read():
        table = read_table(text.splitlines())
        return turn_rates(table, replace(guess_mapping(table), time_unit="s"))

    with pytest.raises(LogError, match=fault) as caught:
        read()
    assert caught.value.next_step


def test_a_mapping_names_columns_that_are_there():
    table = read_table(table_text().splitlines())
    mapping = guess_mapping(table)
    with pytest.raises(LogError, match="there is no column “warp”"):
        turn_rates(table, replace(mapping, pan="warp"))
    with pytest.raises(InvalidArgumentError, match="1 or -1"):
        replace(mapping, roll_sign=0)


@settings(max_examples=60, deadline=None)
@given(st.text(max_size=400))
def test_any_text_is_read_or_refused(text):
    try:
        table = read_table(text.splitlines())
    except LogError:
        return
    assert table.values.shape[1] == len(table.names) == len(set(table.names))


@pytest.mark.parametrize(
    "end", ["\n5.99,0.1", "\nend of log", "\n# 1200 samples,,,", "\n5.99,0.1,0.1,0.1,0.1,0.1"]
)
def test_a_last_line_that_is_cut_or_a_footer_costs_that_line_alone(end):
    whole = read_table(table_text().splitlines())
    assert read_table((table_text() + end).splitlines()).names == whole.names
    found, true = motion_of(table_text() + end), motion_of(table_text())
    assert found.pan_pct[:1000] == pytest.approx(true.pan_pct[:1000])


@pytest.mark.parametrize("mark", [";", "\t"])
def test_decimal_commas_between_semicolons_or_tabs(mark):
    text = table_text(mark=mark).replace(".", ",")
    assert motion_of(text).pan_pct == pytest.approx(motion_of(table_text()).pan_pct)


def test_a_log_with_thousands_of_gaps_is_read_in_no_time():
    t = np.arange(120_000) / 200.0
    t += 0.15 * (np.arange(120_000) // 20)
    rates = TurnRates(
        t, rates_at(t), tuple((float(t[k - 1]), float(t[k])) for k in range(20, 120_000, 20)), 200.0
    )
    assert len(rates.gaps) == 5999
    begun = time.process_time()
    motion = path_of_rates(rates, focal_eq_mm=FOCAL, aspect=ASPECT)
    assert time.process_time() - begun < 3.0  # each sample against each gap took a minute
    assert 0.3 < motion.trust.mean() < 0.5


def test_a_leap_of_days_parts_two_shots_and_no_grid_spans_it():
    t = np.arange(2400) / 200.0
    t[1200:] += 3 * 24 * 3600.0
    rates = TurnRates(t, rates_at(t), ((float(t[1199]), float(t[1200])),), 200.0)
    motion = path_of_rates(rates, focal_eq_mm=FOCAL, aspect=ASPECT)
    assert len(motion.t_s) == 2400
    assert [(shot.start, shot.stop) for shot in motion.shots] == [(0, 1200), (1200, 2400)]
    assert read_motion(motion).gust() is not None


def test_a_log_of_an_hour_reads_like_a_minute_of_it_at_fewer_samples():
    t = np.arange(3600 * 200) / 200.0
    deg_s = np.column_stack([np.sin(2 * np.pi * hz * t) * 3 for hz in (0.7, 2.0, 9.0)])
    hour = path_of_rates(TurnRates(t, deg_s, (), 200.0), focal_eq_mm=FOCAL, aspect=ASPECT)
    first = slice(0, 60 * 200)
    minute = path_of_rates(
        TurnRates(t[first], deg_s[first], (), 200.0), focal_eq_mm=FOCAL, aspect=ASPECT
    )
    assert len(minute.t_s) == 60 * 200
    assert len(hour.t_s) == pytest.approx(3600 * 60, abs=2)
    assert read_motion(hour).gust() == pytest.approx(read_motion(minute).gust(), abs=0.02)
