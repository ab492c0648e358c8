"""Moving previews: what they show is what was planned, measured by our own measurement."""

from __future__ import annotations

from dataclasses import replace

import av
import pytest

from ridgewind.core.kit.moving import Plan, move
from ridgewind.films import previewing
from ridgewind.films.measuring import measure_film
from ridgewind.standin.preview import LONG_SIDE_PX, described, film_preview

PLAN = Plan(
    kind="pan", focal_eq_mm=35.0, aspect=9 / 16, subject_m=2.5, foreground_m=1.2,
    background_m=30.0, amount=10.0, seconds=2.0, delivery_fps=24.0, playback=1.0,
    crossing_s=7.0, leg_m=0.9, cadence_hz=1.8, pole_m=1.5, level=False,
)  # fmt: skip


def measured_path(plan, tmp_path):
    path = tmp_path / "move.mp4"
    film_preview(plan, path)
    return measure_film(path).motion


@pytest.mark.parametrize(("kind", "column"), [("pan", "pan_pct"), ("tilt", "tilt_pct")])
def test_a_turn_is_shown_to_its_extent(kind, column, tmp_path):
    plan = replace(PLAN, kind=kind)
    path = getattr(measured_path(plan, tmp_path), column)
    shown = path[-1] - path[0]
    frames = len(path)
    whole = move(plan).extent_pct * (frames - 1) / frames  # the last pose is a frame away
    assert shown == pytest.approx(whole, rel=0.03)


def test_a_leaning_monopod_tips_the_horizon_of_its_preview(tmp_path):
    plan = replace(PLAN, kind="monopod_lean", amount=8.0, background_m=200.0)
    path = measured_path(plan, tmp_path).roll_deg
    # The near grass slides as it leans, which costs the reading some of the turn.
    assert path[-1] - path[0] == pytest.approx(8.0, rel=0.1)
    level = measured_path(replace(plan, level=True), tmp_path).roll_deg
    assert abs(level[-1] - level[0]) < 0.5


@pytest.mark.parametrize(
    ("kind", "amount"), [("orbit", 0.6), ("zoom_step", 0.8), ("walk", 1.0), ("rise", 0.3)]
)
def test_every_kind_of_move_is_filmed(kind, amount, tmp_path):
    path = tmp_path / "move.mp4"
    found = film_preview(replace(PLAN, kind=kind, amount=amount, seconds=1.0), path)
    with av.open(str(path)) as film:
        frames = list(film.decode(video=0))
        told = film.metadata.get("comment", "")
    assert len(frames) == 24
    assert frames[0].width == LONG_SIDE_PX
    assert "not a real recording" in told
    assert (found.faster, found.share) == (1.0, 1.0)


def test_long_moves_play_faster_and_wide_turns_show_their_middle():
    assert described(replace(PLAN, seconds=12.0)).faster == pytest.approx(2.0)
    assert described(replace(PLAN, seconds=3.0, playback=0.5)).faster == pytest.approx(1.0)
    wide = described(replace(PLAN, amount=170.0, seconds=6.0))
    assert 0.3 < wide.share < 0.7


def test_old_previews_make_room_for_new_ones(library, monkeypatch):
    monkeypatch.setattr(previewing, "MOST_KEPT", 2)
    short = replace(PLAN, seconds=0.5)
    names = [previewing.preview(library, replace(short, amount=a))[0] for a in (4.0, 5.0, 6.0)]
    assert len(set(names)) == 3
    assert {path.stem for path in library.previews.iterdir()} == set(names[1:])
