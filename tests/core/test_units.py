"""Conversions go there and back."""

from __future__ import annotations

import doctest

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core import units

LENGTHS = st.floats(-1e3, 1e3)
FOCALS = st.floats(8, 800)


@given(value=LENGTHS, long_side=st.floats(64, 8192))
def test_px_and_pct(value, long_side):
    there = units.px_to_pct(value, long_side_px=long_side)
    assert units.pct_to_px(there, long_side_px=long_side) == pytest.approx(value, abs=1e-9)


@given(value=LENGTHS, focal=FOCALS)
def test_pct_and_deg(value, focal):
    there = units.pct_to_deg(value, focal_eq_mm=focal)
    assert units.deg_to_pct(there, focal_eq_mm=focal) == pytest.approx(value, abs=1e-9)


@given(value=st.floats(-90, 400))
def test_zoom_and_log(value):
    assert units.log_to_zoom_pct(units.zoom_pct_to_log(value)) == pytest.approx(value, abs=1e-9)


def test_one_percent_is_20_63_over_f_degrees():
    assert units.pct_to_deg(1.0, focal_eq_mm=1.0) == pytest.approx(20.63, abs=0.005)
    assert units.pct_to_arcmin(1.0, focal_eq_mm=20.63) == pytest.approx(60, abs=0.02)


def test_examples_in_docstrings_run():
    result = doctest.testmod(units)
    assert result.attempted > 0
    assert result.failed == 0
