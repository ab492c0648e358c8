"""The stand-in camera: signs, repeatability, and what technique does."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace

import numpy as np
import pytest

from ridgewind.core.shake import read_motion
from ridgewind.demo.story import DEMO_TAKES
from ridgewind.standin.body import Body, Technique
from ridgewind.standin.camera import Script, film, plan, render_frame, true_motion
from ridgewind.standin.moves import MOVES
from ridgewind.standin.pose import PinholeLens, facing, plane_to_picture
from ridgewind.standin.render import Renderer
from ridgewind.standin.scenes import SCENES

LENS = PinholeLens(36.0, (360, 200))
SMALL = Script(size=(320, 180), seconds=0.5, fps=10, noise=1.0)


def moved(pose):
    """Where the point straight ahead, 10 m away, is seen, px from the centre."""
    seen = plane_to_picture(LENS, facing(10.0), np.array(pose, float)) @ [0, 0, 1]
    return seen[:2] / seen[2] - [179.5, 99.5]


@pytest.mark.parametrize(
    ("pose", "axis", "sign"),
    [
        ((1, 0, 0, 0, 0, 0), 0, -1),  # turned right: the picture slides left
        ((0, 1, 0, 0, 0, 0), 1, +1),  # turned up: it slides down
        ((0, 0, 0, 0.1, 0, 0), 0, -1),  # travelled right
        ((0, 0, 0, 0, 0.1, 0), 1, -1),  # travelled down
    ],
)
def test_signs_of_the_six_degrees(pose, axis, sign):
    shift = moved(pose)
    assert np.sign(shift[axis]) == sign
    assert abs(shift[1 - axis]) < 1e-9


def test_a_turn_moves_the_centre_by_focal_length_times_its_tangent():
    assert moved((2, 0, 0, 0, 0, 0))[0] == pytest.approx(-360 * np.tan(np.radians(2)))


def test_near_things_move_more_than_far_ones():
    pose = np.array([0, 0, 0, 0.1, 0, 0])
    near, far = (plane_to_picture(LENS, facing(d), pose) @ [0, 0, 1] for d in (2.0, 20.0))
    assert near[0] - 179.5 == pytest.approx(10 * (far[0] - 179.5))


@pytest.mark.parametrize("scene", sorted(SCENES))
def test_scenes_have_depth_and_something_that_moves(scene):
    made = Renderer(SCENES[scene], LENS, seed=1, margin=1.2, noise=1.0).scene
    assert len(made.layers) >= 3
    assert len({layer.plane for layer in made.layers}) >= 3
    assert sum(layer.own_motion is not None for layer in made.layers) == 1


def test_a_seed_repeats_exactly_and_another_differs():
    def first(seed):
        script = replace(SMALL, seed=seed)
        take = plan(script)
        renderer = Renderer(SCENES["ridge"], take.lens, seed=seed, margin=1.25, noise=1.0)
        return render_frame(take, renderer, 0.2, 3)

    assert np.array_equal(first(4), first(4))
    assert not np.array_equal(first(4), first(5))


def test_a_long_shutter_blurs():
    def sharpness(shutter):
        script = replace(SMALL, move="pan", shutter=shutter, still=True, noise=0.0)
        take = plan(script)
        renderer = Renderer(SCENES["door"], take.lens, seed=1, margin=2.0, noise=0.0)
        return np.abs(np.diff(render_frame(take, renderer, 0.25, 0).astype(float), axis=1)).mean()

    assert sharpness(1.0) < 0.75 * sharpness(0.0)


def test_a_rolling_shutter_leans_what_stands_upright():
    script = replace(SMALL, move="pan", still=True, noise=0.0, shutter=0.0)
    take = plan(script)
    renderer = Renderer(SCENES["door"], take.lens, seed=1, margin=2.0, noise=0.0)
    straight = render_frame(take, renderer, 0.25, 0)
    rolling = replace(script, read_out_s=0.03)
    leaning = render_frame(plan(rolling), renderer, 0.25, 0)
    assert np.abs(straight.astype(int) - leaning)[:20].mean() > 2
    middle = np.abs(straight.astype(int) - leaning)[85:95].mean()
    assert middle < np.abs(straight.astype(int) - leaning)[:20].mean() / 2


def gust_of(technique, **changes):
    script = Script(technique=technique, seconds=6, seed=3, size=(320, 180), **changes)
    take = plan(script)
    renderer = Renderer(SCENES[script.scene], take.lens, seed=1, margin=1.2, noise=0)
    return read_motion(true_motion(take, renderer)).gust()


@pytest.mark.parametrize(
    "better",
    [
        {"contacts": 3},
        {"strap_tension": 0.6},
        {"mass_kg": 1.2},
        {"support": "monopod"},
        {"stance": "leaning"},
        {"stabiliser": 0.6},
    ],
    ids=lambda change: next(iter(change)),
)
def test_what_shooters_do_to_steady_it_steadies_it(better):
    assert gust_of(Technique(**better)) < gust_of(Technique())


def test_what_makes_it_worse_does():
    plain = gust_of(Technique())
    assert gust_of(Technique(elbows_in=False)) > plain
    assert gust_of(Technique(strap_tension=1.0)) > gust_of(Technique(strap_tension=0.6))
    assert gust_of(Technique(fatigue=1.0)) > plain
    assert gust_of(Technique(), focal_eq_mm=85) > plain + 1.5
    walk = gust_of(Technique(cadence_hz=1.8), move="walk", scene="door")
    assert walk > plain
    off_body = Technique(cadence_hz=1.8, hold="off_body")
    assert gust_of(off_body, move="walk", scene="door") < walk


def test_footfalls_come_at_the_cadence():
    body = Body(Technique(cadence_hz=2.0, support="table"), seed=1)
    t = np.arange(0, 10, 0.01)
    spectrum = np.abs(np.fft.rfft(body.pose(t)[:, 4]))
    assert np.fft.rfftfreq(len(t), 0.01)[spectrum.argmax()] == pytest.approx(2.0, abs=0.1)


def test_moves_do_what_they_say():
    t = np.linspace(0, 6, 100)
    assert np.ptp(MOVES["pan"](t, 6.0)[:, 0]) == pytest.approx(14.0)
    assert (np.diff(MOVES["walk"](t, 6.0)[:, 5]) > 0).all()
    assert not MOVES["hold"](t, 6.0).any()


def test_filming_writes_the_film_and_returns_its_truth(tmp_path):
    seen = []
    truth = film(SMALL, tmp_path / "take.mp4", on_frame=lambda k, n: seen.append((k, n)))
    assert seen[-1] == (4, 5)
    assert len(truth.t_s) == 5
    assert [path.name for path in tmp_path.iterdir()] == ["take.mp4"]


def test_the_demo_ships_small_clips_of_every_rate():
    rates = {take.script.fps for take in DEMO_TAKES}
    assert {24, 25, 30, 60, 120} <= rates
    assert len(DEMO_TAKES) >= 8
    for take in DEMO_TAKES:
        assert take.file.stat().st_size < 1_500_000, take.name


def test_the_same_script_is_filmed_in_the_same_bytes(tmp_path):
    script = Script("stones", "hold", Technique(contacts=1), 50, size=(320, 180), seconds=1, seed=4)
    with ThreadPoolExecutor(3) as pool:  # with the processor busy, as it is when tests run
        paths = [tmp_path / f"{number}.mp4" for number in range(3)]
        list(pool.map(lambda path: film(script, path), paths))
    assert len({path.read_bytes() for path in paths}) == 1
