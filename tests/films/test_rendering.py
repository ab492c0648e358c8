"""Rendered remedies: measured again they read what was predicted, and no corner is empty."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

import av
import cv2
import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.cadence import delivered_step, shown_frames
from ridgewind.core.judge.recipe import at_strength, predicted, recipe_of, with_drift
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.gust import to_gust
from ridgewind.films.measuring import measure_film
from ridgewind.films.rendering import (
    Source,
    measured_again,
    render_film,
    render_preview,
    shown_pictures,
)
from ridgewind.media import warp
from ridgewind.media.decode import Film
from ridgewind.media.sound import Sound
from tests.conftest import QUICK, make_motion, shaken, texture, view, write_film
from tests.core.motion.test_rivals import hand, somebody

AGREEMENT = 0.4
FINE = QUICK["libx264"] | {"crf": "12"}
TOO_LARGE_PCT = 0.3
BRIEF = replace(usual_brief(), wanted_s=1.5, most_crop_pct=30.0)

CLIPS = ("ridge, pan", "door, one hand", "door, walk-in")


def nothing(_done):
    return None


def judged(path, *, brief=BRIEF, measured=None):
    found = measured or measure_film(path)
    size = (found.width, found.height)
    clip = Clip(found.fps, found.duration_s, found.has_sound, size, 26.0)
    analysis = Analysis(found.motion)
    source = Source(path, 0.0, size, found.fps)
    return analysis, clip, source, assess(analysis, clip, brief).decision


@pytest.fixture(params=CLIPS)
def filmed(request, films):
    return films.get(request.param)


@pytest.mark.parametrize(
    ("clip_name", "kind"),
    [
        ("ridge, pan", "polish"), ("ridge, pan", "slow_polish"),
        ("door, one hand", "polish_lee"), ("door, one hand", "slow"),
        ("door, walk-in", "polish"), ("door, walk-in", "slow_polish"),
    ],
)  # fmt: skip
def test_a_preview_measured_again_reads_what_was_predicted(films, clip_name, kind, tmp_path):
    """More polishes stand in docs/truth.md."""
    filmed = films.get(clip_name)
    analysis, clip, source, decision = judged(filmed.path, measured=filmed.measured)
    remedy = decision.of(kind)
    if remedy.start_s is None:  # over target all the same: look at all of it
        keep = decision.of("keep")
        remedy = replace(remedy, start_s=keep.start_s, end_s=keep.end_s)
    recipe = predicted(recipe_of(remedy), analysis, clip, BRIEF)
    render_preview(recipe, analysis, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    again = measured_again(tmp_path / "out.mp4")
    assert again.unmeasured is None
    assert again.analysis.reading().gust() == pytest.approx(recipe.gust, abs=AGREEMENT)


def test_crop_and_gust_left_agree_with_truth(filmed):
    analysis, _, _, _ = judged(filmed.path, measured=filmed.measured)
    truth = filmed.truth
    true_curve = Analysis(truth).polish()
    for found, true in zip(analysis.polish().points, true_curve.points, strict=True):
        assert found.crop_pct == pytest.approx(true.crop_pct, abs=TOO_LARGE_PCT)
        assert to_gust(found.speed_pct_s) == pytest.approx(to_gust(true.speed_pct_s), abs=AGREEMENT)


@pytest.mark.parametrize("upright", [False, True])
@pytest.mark.parametrize("strength", [1, 5, 9])
def test_no_pixel_of_a_preview_comes_from_outside(strength, upright, tmp_path, monkeypatch):
    monkeypatch.setattr(warp, "BORDER", cv2.BORDER_CONSTANT)
    size = (270, 480) if upright else (480, 270)
    bright = np.clip(texture(1200, 1200, seed=2).astype(np.int16) // 2 + 120, 90, 255)
    rng = np.random.default_rng(strength)
    wobble = [np.cumsum(rng.normal(0, 1.2, 60)) for _ in range(3)]
    frames = (
        view(bright.astype(np.uint8), size, x=x, y=y, turn_deg=turn / 8)
        for x, y, turn in zip(*wobble, strict=True)
    )
    path = write_film(tmp_path / "bright.mp4", frames, options=FINE)
    analysis, clip, source, decision = judged(path)
    plain = recipe_of(decision.of("polish"))
    curve = analysis.polish(upright=upright)
    recipe = at_strength(plain, curve, curve.points[strength], BRIEF)
    render_preview(recipe, analysis, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    with av.open(str(tmp_path / "out.mp4")) as seen:
        darkest = min(int(f.to_ndarray(format="gray").min()) for f in seen.decode(video=0))
    assert darkest > 60  # what lies outside is black


def test_a_desk_made_move_moves_the_picture(tmp_path):
    image = texture(640, 360)
    path = write_film(tmp_path / "still.mp4", (view(image, (480, 270)) for _ in range(90)))
    motion = Analysis(make_motion(rate_hz=30, seconds=3))
    clip = Clip(30.0, 3.0, False, (480, 270), 26.0)
    recipe = with_drift(
        recipe_of(assess(motion, clip, BRIEF).decision.of("keep")), "right", crop_pct=6.0
    )
    source = Source(path, 0.0, (480, 270), 30.0)
    render_preview(recipe, motion, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    moved = measure_film(tmp_path / "out.mp4").motion
    travelled = moved.pan_pct[-1] - moved.pan_pct[0]
    assert travelled == pytest.approx(6.0 / (1 - 0.06), abs=0.3)
    assert abs(moved.tilt_pct[-1]) < 0.1


@pytest.mark.parametrize(("delivery", "first"), [(24.0, 0), (24.0, 1), (25.0, 3), (25.0, 7)])
def test_frames_are_the_latest_filmed_by_the_time_of_each(delivery, first, tmp_path):
    """Each frame has a grey of its own, so that it can be told which one is shown."""
    greys = (np.full((64, 64), 20 + 5 * k, np.uint8) for k in range(40))
    path = write_film(tmp_path / "greys.mp4", greys, rate=60, options={"crf": "1"})
    step = delivered_step(60.0, delivery)
    index, at_s = shown_frames(np.arange(40) / 60, step)
    with Film(path) as film:
        shown = [
            (round(((float(picture.luma.mean()) - 16) * 255 / 219 - 20) / 5), when)
            for picture, when in shown_pictures(film, at_s[first], 0.65, 60.0, step)
        ]
    assert [number for number, _ in shown] == index[first:].tolist()
    assert [when for _, when in shown] == pytest.approx(at_s[first:])


def test_a_fast_film_is_rendered_as_it_is_delivered(tmp_path):
    frames = shaken(120, amplitude_px=4.0, rate_hz=60)
    path = write_film(tmp_path / "fast.mp4", frames, rate=60, options=FINE)
    analysis, clip, source, decision = judged(path)
    recipe = predicted(recipe_of(decision.of("polish")), analysis, clip, BRIEF)
    assert recipe.step == 2.5
    render_preview(recipe, analysis, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    again = measured_again(tmp_path / "out.mp4").analysis
    assert np.diff(again.motion.t_s) == pytest.approx(1 / 24, abs=1e-3)
    assert len(again.motion.t_s) == 48
    assert again.reading().gust() == pytest.approx(recipe.gust, abs=AGREEMENT)


@pytest.mark.parametrize(
    "how",
    [{"rotation": 90}, {"rotation": -90}, {"rotation": 180}, {"aspect": Fraction(4, 3)},
     {"times": [5.0 + k / 30 for k in range(75)]}],
    ids=["turned", "turned back", "upside down", "wide pixels", "begins at five seconds"],
)  # fmt: skip
def test_films_that_are_turned_stretched_or_late_are_polished_all_the_same(how, tmp_path):
    frames = shaken(75, size=(640, 360), amplitude_px=5.0)
    path = write_film(tmp_path / "odd.mp4", frames, options=FINE, **how)
    analysis, clip, source, decision = judged(path)
    recipe = predicted(recipe_of(decision.of("polish")), analysis, clip, BRIEF)
    render_preview(recipe, analysis, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    with Film(tmp_path / "out.mp4") as made:
        shown = next(iter(made.pictures(lambda plane: plane[::8, ::8])))
    assert shown.size == pytest.approx(source.size, abs=1)  # films have even sides
    assert shown.t_s == pytest.approx(0.0, abs=0.01)
    again = measured_again(tmp_path / "out.mp4").analysis
    assert again.reading().gust() == pytest.approx(recipe.gust, abs=AGREEMENT)
    assert again.reading().gust() < read_motion(analysis.motion).gust() - 1


def test_a_full_size_film_keeps_size_sound_and_depth(tmp_path):
    path = tmp_path / "deep.mp4"
    write_film(path, shaken(75, amplitude_px=3.0), pix_fmt="yuv420p10le", sound=True)
    analysis, clip, source, decision = judged(path)
    recipe = replace(recipe_of(decision.of("polish")), start_s=0.3)
    render_film(recipe, analysis, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    with av.open(str(tmp_path / "out.mp4")) as made:
        video, sound = made.streams.video[0], made.streams.audio[0]
        assert (video.width, video.height) == (320, 180)
        assert video.pix_fmt == "yuv420p10le"
        length_s = float(sound.duration * sound.time_base)
    assert length_s == pytest.approx(40 * 1024 / 48_000 - 0.3, abs=0.06)
    again = measured_again(tmp_path / "out.mp4").analysis
    assert again.reading().gust() < read_motion(analysis.motion).gust() - 1


@pytest.mark.parametrize("render", [render_film, render_preview])
def test_sound_stays_in_step_with_the_picture(render, tmp_path):
    path = tmp_path / "clap.mp4"
    rate, at_s = 48_000, 1.0
    with av.open(str(path), "w") as out:
        video = out.add_stream("libx264", rate=30)
        video.width, video.height, video.pix_fmt = 320, 180, "yuv420p"
        audio = out.add_stream("aac", rate=rate, layout="mono")
        for index, frame in enumerate(shaken(60, amplitude_px=2.0)):
            shown = np.full_like(frame, 250) if index == 30 else frame
            out.mux(video.encode(av.VideoFrame.from_ndarray(shown, format="gray")))
        out.mux(video.encode(None))
        wave = np.zeros(2 * rate, np.float32)
        wave[round(at_s * rate) : round(at_s * rate) + 480] = 0.8
        for k in range(0, len(wave), 1024):
            piece = av.AudioFrame.from_ndarray(wave[None, k : k + 1024], "fltp", "mono")
            piece.sample_rate, piece.pts, piece.time_base = rate, k, Fraction(1, rate)
            out.mux(audio.encode(piece))
        out.mux(audio.encode(None))
    analysis, clip, source, decision = judged(path)
    keep = replace(recipe_of(decision.of("keep")), start_s=0.5, end_s=1.9)
    render(keep, analysis, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    with av.open(str(tmp_path / "out.mp4")) as made:
        loud = np.concatenate([f.to_ndarray()[0] for f in made.decode(audio=0)])
    with Film(tmp_path / "out.mp4") as made:
        bright = [
            p.t_s for p in made.pictures(lambda plane: plane[::8, ::8]) if p.luma.mean() > 200
        ]
    clap_s = np.flatnonzero(np.abs(loud) > 0.3)[0] / rate
    assert clap_s == pytest.approx(bright[0], abs=0.025)


def test_of_a_late_stretch_only_its_own_sound_is_read(tmp_path, monkeypatch):
    path, rate = tmp_path / "long.mp4", 8000
    with av.open(str(path), "w") as out:
        video = out.add_stream("libx264", rate=1)
        video.width, video.height, video.pix_fmt, video.gop_size = 64, 36, "yuv420p", 10
        audio = out.add_stream("aac", rate=rate, layout="mono")
        for frame in shaken(90, size=(64, 36), amplitude_px=1.0):
            out.mux(video.encode(av.VideoFrame.from_ndarray(frame, format="gray")))
        out.mux(video.encode(None))
        for k in range(0, 90 * rate, 1024):
            piece = av.AudioFrame.from_ndarray(np.full((1, 1024), 0.1, np.float32), "fltp", "mono")
            piece.sample_rate, piece.pts, piece.time_base = rate, k, Fraction(1, rate)
            out.mux(audio.encode(piece))
        out.mux(audio.encode(None))
    read, frames = [], Sound._frames
    monkeypatch.setattr(
        Sound, "_frames", lambda self, of: (read.append(1) or one for one in frames(self, of))
    )
    with Sound(path, start_s=80.0, end_s=82.0) as sound:
        heard = sum(values.shape[1] for _, values in sound.samples())
    assert heard == pytest.approx(2.0 * rate, abs=1100)
    assert len(read) < 30 * rate / 1024  # of the 80 s before it


def test_a_background_that_was_set_moving_is_seen_by_the_edges(tmp_path):
    """Somebody held still by a polish, before a wall that shakes for it: who takes him for the
    camera reads calm, the edges do not."""

    def held(k):
        return somebody(k, camera=1, move=lambda k: -hand(k))

    moved = write_film(tmp_path / "held.mp4", [held(k) for k in range(60)])
    still = write_film(tmp_path / "still.mp4", [somebody(k, camera=0) for k in range(60)])
    assert measured_again(moved).edges.reading().gust() > 4.5
    assert measured_again(still).edges.reading().gust() < 1
    plain = [somebody(k, camera=1, wall=np.full((540, 960), 120, np.uint8)) for k in range(45)]
    bare = measured_again(write_film(tmp_path / "bare.mp4", plain))
    assert bare.edges is None
