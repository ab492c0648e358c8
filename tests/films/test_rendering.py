"""Rendered remedies: measured again they read what was predicted, and no corner is empty."""

from __future__ import annotations

import errno
import os
import signal
import time
from dataclasses import replace
from fractions import Fraction

import av
import cv2
import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.polish import polish_curve
from ridgewind.core.judge.recipe import at_strength, predicted, recipe_of, with_drift
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.gust import to_gust
from ridgewind.films.measuring import Cancelled, measure_film
from ridgewind.films.rendering import Source, measured_again, render_film, render_preview
from ridgewind.jobs import render
from ridgewind.jobs.measure import measure_clip
from ridgewind.jobs.queue import Queue
from ridgewind.jobs.supervisor import Supervisor
from ridgewind.media import warp
from ridgewind.media.decode import Film
from ridgewind.media.encode import FilmWriter
from ridgewind.media.errors import translated
from ridgewind.services import assessing, deciding
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film
from ridgewind.store import clips, database, renders, takes
from tests.conftest import make_motion, shaken, texture, view, write_film

AGREEMENT = 0.4
TOO_LARGE_PCT = 0.3
BRIEF = replace(usual_brief(), wanted_s=1.5, most_crop_pct=30.0)

CLIPS = {
    "ridge, hold": Script("ridge", "hold", Technique(), 26, seconds=3),
    "ridge, pan": Script("ridge", "pan", Technique(), 35, seconds=3, seed=3),
    "door, one hand": Script("door", "hold", Technique(contacts=1), 35, fps=60, seconds=3, seed=4),
    "door, walk-in": Script("door", "walk", Technique(cadence_hz=1.8), 26, seconds=4, seed=5),
}


def nothing(_done):
    return None


def judged(path, *, brief=BRIEF):
    found = measure_film(path)
    size = (found.width, found.height)
    clip = Clip(found.fps, found.duration_s, found.has_sound, size, 26.0)
    analysis = Analysis(found.motion)
    source = Source(path, 0.0, size, found.fps)
    return analysis, clip, source, assess(analysis, clip, brief).decision


@pytest.fixture(scope="module", params=CLIPS)
def filmed(request, tmp_path_factory):
    path = tmp_path_factory.mktemp("filmed") / "take.mp4"
    return path, film(CLIPS[request.param], path)


@pytest.mark.parametrize("kind", ["polish", "slow_polish", "polish_lee", "slow"])
def test_a_preview_measured_again_reads_what_was_predicted(filmed, kind, tmp_path):
    path, _ = filmed
    analysis, clip, source, decision = judged(path)
    remedy = decision.of(kind)
    if remedy.start_s is None:  # over target all the same: look at all of it
        keep = decision.of("keep")
        remedy = replace(remedy, start_s=keep.start_s, end_s=keep.end_s)
    recipe = predicted(recipe_of(remedy), analysis, clip, BRIEF)
    render_preview(recipe, analysis, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    again, unmeasured = measured_again(tmp_path / "out.mp4")
    assert unmeasured is None
    assert again.reading().gust() == pytest.approx(recipe.gust, abs=AGREEMENT)


def test_crop_and_gust_left_agree_with_truth(filmed):
    path, truth = filmed
    analysis, _, _, _ = judged(path)
    true_curve = polish_curve(read_motion(truth), aspect=truth.aspect)
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
    path = write_film(tmp_path / "bright.mp4", frames, options={"crf": "12"})
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


@pytest.mark.parametrize(
    "how",
    [{"rotation": 90}, {"rotation": -90}, {"rotation": 180}, {"aspect": Fraction(4, 3)},
     {"times": [5.0 + k / 30 for k in range(75)]}],
    ids=["turned", "turned back", "upside down", "wide pixels", "begins at five seconds"],
)  # fmt: skip
def test_films_that_are_turned_stretched_or_late_are_polished_all_the_same(how, tmp_path):
    frames = shaken(75, size=(640, 360), amplitude_px=5.0)
    path = write_film(tmp_path / "odd.mp4", frames, options={"crf": "12"}, **how)
    analysis, clip, source, decision = judged(path)
    recipe = predicted(recipe_of(decision.of("polish")), analysis, clip, BRIEF)
    render_preview(recipe, analysis, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    with Film(tmp_path / "out.mp4") as made:
        shown = next(iter(made.pictures(lambda plane: plane[::8, ::8])))
    assert shown.size == source.size
    assert shown.t_s == pytest.approx(0.0, abs=0.01)
    again, _ = measured_again(tmp_path / "out.mp4")
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
    again, _ = measured_again(tmp_path / "out.mp4")
    assert again.reading().gust() < read_motion(analysis.motion).gust() - 1


def test_sound_stays_in_step_with_the_picture(tmp_path):
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
    render_film(keep, analysis, clip, source, tmp_path / "out.mp4", on_progress=nothing)
    with av.open(str(tmp_path / "out.mp4")) as made:
        loud = np.concatenate([f.to_ndarray()[0] for f in made.decode(audio=0)])
    with Film(tmp_path / "out.mp4") as made:
        bright = [
            p.t_s for p in made.pictures(lambda plane: plane[::8, ::8]) if p.luma.mean() > 200
        ]
    clap_s = np.flatnonzero(np.abs(loud) > 0.3)[0] / rate
    assert clap_s == pytest.approx(bright[0], abs=0.025)


@pytest.fixture
def measured(library, db, short_film):
    with short_film.open("rb") as stream:
        take = library.add(db, stream, file_name="short.mp4", size_bytes=None).take
    measure_clip(library, take.clip_id)
    return takes.by_id(db, take.id)


def asked(db, take, *, purpose="preview", kind="polish"):
    case = deciding.case_of(db, take.id)
    recipe = deciding.recipe(case, deciding.RemedyRequest(kind))
    with database.atomic(db):
        return renders.add(db, take_id=take.id, purpose=purpose, recipe=recipe)


def test_the_task_renders_measures_again_and_keeps_both_figures(library, db, measured):
    number = asked(db, measured)
    render.render_one(library, number)
    row = renders.by_id(db, number)
    assert row.state == "done"
    assert row.gust == pytest.approx(row.recipe.gust, abs=AGREEMENT)
    assert row.size_bytes == library.render_of(number).stat().st_size
    assert asked(db, measured) == number  # the same film is not made twice


def test_a_preview_shows_no_more_frames_than_a_screen(library, db, tmp_path):
    path = write_film(tmp_path / "fast.mp4", shaken(480, amplitude_px=3.0, rate_hz=240), rate=240)
    with path.open("rb") as stream:
        take = library.add(db, stream, file_name="fast.mp4", size_bytes=None).take
    measure_clip(library, take.clip_id)
    case = deciding.case_of(db, take.id)
    whole = deciding.preview_of(case, deciding.recipe(case, deciding.RemedyRequest("polish")))
    assert (whole.rate, whole.step) == (1.0, 4)
    slowed = deciding.preview_of(
        case, deciding.recipe(case, deciding.RemedyRequest("slow", rate=0.1))
    )
    assert (slowed.end_s - slowed.start_s) / slowed.rate == pytest.approx(16.0, abs=0.1)
    with database.atomic(db):
        number = renders.add(db, take_id=take.id, purpose="preview", recipe=whole)
    render.render_one(library, number)
    row = renders.by_id(db, number)
    assert row.gust == pytest.approx(row.recipe.gust, abs=AGREEMENT)
    with Film(library.render_of(number)) as made:
        assert sum(1 for _ in made.pictures(lambda plane: plane[::8, ::8])) == 120


def test_a_stopped_film_leaves_nothing_behind(library, db, measured, monkeypatch):
    number = asked(db, measured)
    with database.atomic(db):
        renders.request_cancel(db, number)
    render.render_one(library, number)
    assert renders.by_id(db, number).state == "cancelled"

    def stop(self, done):
        raise Cancelled

    running = asked(db, measured)
    monkeypatch.setattr(render._Watch, "feed", stop)
    render.render_one(library, running)
    assert renders.by_id(db, running).state == "cancelled"
    assert list(library.renders.iterdir()) == []


def test_a_full_disk_is_said_and_leaves_nothing(library, db, measured, monkeypatch):
    def full(*_args):
        with translated():
            raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(FilmWriter, "write", full)
    number = asked(db, measured)
    render.render_one(library, number)
    row = renders.by_id(db, number)
    assert (row.state, row.error_code) == ("failed", "disk_full")
    assert row.error_next == "free some space and try again"
    assert list(library.renders.iterdir()) == []


def test_a_film_that_ended_its_process_twice_is_given_up(library, db, measured):
    number = asked(db, measured)
    with database.atomic(db):
        assert renders.claim(db, number)
        assert renders.recover(db, renders.by_id(db, number))
        assert renders.claim(db, number)
        assert not renders.recover(db, renders.by_id(db, number))
    assert renders.by_id(db, number).error_code == "crashed"


def test_a_cleared_original_can_be_previewed_but_not_rendered_full_size(library, db, measured):
    with database.atomic(db):
        takes.set_choice(db, measured.id, "reject")
    assert [clip.id for clip in library.clear(db)] == [measured.clip_id]
    full, small = asked(db, measured, purpose="film"), asked(db, measured)
    for number in (full, small):
        render.render_one(library, number)
    assert renders.by_id(db, full).error_code == "cleared"
    assert renders.by_id(db, small).state == "done"
    assert library.bring_back(db, measured.clip_id)
    assert clips.by_id(db, measured.clip_id).cleared_at is None
    assert assessing.judge(db, measured.id).assessment is not None


def test_cleared_originals_go_for_good_after_a_week_and_come_back_with_the_file(
    library, db, measured, short_film
):
    with database.atomic(db):
        takes.set_choice(db, measured.id, "reject")
    (clip,) = library.clear(db)
    library.tidy()
    assert library.is_aside(clip)
    db.execute("update clip set cleared_at = strftime('%Y-%m-%dT%H:%M:%SZ', 'now', '-8 days')")
    library.tidy()
    assert not library.is_aside(clip)
    assert not library.bring_back(db, clip.id)
    assert assessing.judge(db, measured.id).assessment is not None  # figures stay
    with short_film.open("rb") as stream:
        again = library.add(db, stream, file_name="short.mp4", size_bytes=None)
    assert again.duplicate
    assert (library.originals / clip.file).is_file()
    assert clips.by_id(db, clip.id).cleared_at is None


def test_a_killed_renderer_is_replaced_and_its_film_made(library, db, measured):
    queue = Queue(library)
    number = asked(db, measured, purpose="film")
    with Supervisor(library, queue, "render") as supervisor:
        first = supervisor.worker_pid
        with database.atomic(db):
            assert renders.claim(db, number)  # as if it were at it
        os.kill(first, signal.SIGKILL)
        end = time.monotonic() + 60
        while renders.by_id(db, number).state != "done":
            assert time.monotonic() < end
            time.sleep(0.1)
        assert supervisor.worker_pid != first
    assert renders.by_id(db, number).attempts == 2


def test_films_that_nothing_knows_are_tidied_away(library, db, measured):
    number = asked(db, measured)
    render.render_one(library, number)
    stray = library.render_of(999)
    stray.write_bytes(b"left behind")
    library.tidy()
    assert not stray.exists()
    assert library.render_of(number).is_file()
