"""A sequence as one film: whole frames, cuts where they were planned, only what changed anew."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

import av
import numpy as np
import pytest

from ridgewind.core.motion.path import Motion, Shot
from ridgewind.core.sequence.pace import Knot
from ridgewind.core.sequence.piece import Framing, Piece
from ridgewind.core.sequence.seen import Look, Seen, footage_of
from ridgewind.core.sequence.timeline import placed, times_of
from ridgewind.films.assembling import Part, assemble, small_form, whole_form
from ridgewind.films.rendering import Source
from ridgewind.media.decode import Film
from ridgewind.media.encode import FilmWriter
from ridgewind.media.sound import Sound
from ridgewind.media.splice import splice
from tests.conftest import write_film

RATE = 25.0
LOOK = Look(RATE, 16 / 9, 30.0)


def level(index: int) -> int:
    """Brightness that tells a frame of the source."""
    return 40 + 2 * index


@pytest.fixture(scope="module")
def film(tmp_path_factory):
    """Every frame has a brightness of its own."""
    path = tmp_path_factory.mktemp("assembling") / "levels.mp4"
    return write_film(
        path,
        [np.full((360, 640), level(k), np.uint8) for k in range(75)],
        rate=25,
        options={"crf": "4"},
    )


def still(frames: int, *, aspect: float = 9 / 16) -> Motion:
    """The path of a camera that stands, of a film of 25 frames a second."""
    none = np.zeros(frames)
    return Motion(
        np.arange(frames) / 25, none, none, none, none, trust=np.ones(frames),
        error=np.zeros((frames, 4)), aspect=aspect, shots=(Shot(0, frames, None),),
    )  # fmt: skip


def part(
    film, piece: Piece, *, look: Look = LOOK, size: tuple[int, int] = (640, 360), sound=False
) -> Part:
    frames = placed([piece], rate_hz=RATE)[0].frames
    if piece.take_id is None:
        return Part(piece, frames, "", None, None)
    upright = size[1] > size[0]
    footage = footage_of(still(75, aspect=min(size) / max(size)), upright=upright)
    seen = Seen(piece, footage, look)
    return Part(piece, frames, "film", Source(film, 0.0, size, 25.0), seen, sound=sound)


def levels(path) -> list[float]:
    with Film(path) as opened:
        return [float(one.luma.mean()) for one in opened.pictures(lambda luma: luma)]


def shown(tmp_path, parts, *, shape: float = 16 / 9) -> tuple[list[float], int]:
    target = tmp_path / "film.mp4"
    rendered = assemble(
        parts, target, form=small_form(shape, rate_hz=RATE),
        place=lambda key: tmp_path / f"part-{key}.mp4", on_progress=lambda done: None,
    )  # fmt: skip
    return levels(target), rendered


def nearest(values) -> list[int]:
    """Frames of the source, by their luma in video range."""
    return [round(((value - 16) * 255 / 219 - 40) / 2) for value in values]


def test_every_frame_is_the_one_that_was_planned(film, tmp_path):
    pieces = [
        Piece(1, None, 0.4, 1.2), Piece(1, None, 1.0, 2.0, backwards=True),
        Piece(1, None, 1.0, 1.4, speed=0.5), Piece(None, None, 0.0, 0.4),
        Piece(1, None, 0.0, 2.0, speed=2.0),
    ]  # fmt: skip
    parts = [part(film, piece) for piece in pieces]
    found, rendered = shown(tmp_path, parts)
    assert rendered == 5
    assert len(found) == sum(one.frames for one in parts) == 20 + 25 + 20 + 10 + 25
    told = nearest(found)
    assert told[:20] == list(range(10, 30))
    assert told[20:45] == list(range(49, 24, -1))
    assert told[45:65] == [k for k in range(25, 35) for _ in range(2)]
    assert max(found[65:75]) - min(found[65:75]) < 1  # the card stands still
    assert told[75:] == list(range(1, 51, 2))


def test_only_what_has_changed_is_rendered_again(film, tmp_path):
    pieces = [Piece(1, None, 0.0, 0.4), Piece(1, None, 1.0, 1.4), Piece(1, None, 2.0, 2.4)]
    shown(tmp_path, [part(film, one) for one in pieces])
    changed = [pieces[2], replace(pieces[1], speed=0.5), pieces[0]]
    found, rendered = shown(tmp_path, [part(film, one) for one in changed])
    assert rendered == 1
    assert nearest(found)[:10] == list(range(50, 60))


def test_along_a_ramp_frames_are_neither_lost_nor_doubled_but_where_told(film, tmp_path):
    """From full speed to half: each is shown once at first, twice at last, in order."""
    piece = Piece(1, None, 0.0, 2.0, ramp=(Knot(0.4, 1.0), Knot(1.6, 0.5)))
    found, _ = shown(tmp_path, [part(film, piece)])
    assert len(found) == round(piece.seconds * 25) == round((0.4 + 1.2 * 1.5 + 0.8) * 25)
    told = nearest(found)
    assert told[:10] == list(range(10))
    assert told[-16:] == [k for k in range(42, 50) for _ in range(2)]
    steps = np.diff(told)
    assert set(steps.tolist()) == {0, 1}
    backwards, _ = shown(tmp_path, [part(film, replace(piece, backwards=True))])
    assert nearest(backwards) == told[::-1]


def halves(path, *, size=(640, 360)):
    """A film whose left half is dark and whose right half is light."""
    picture = np.full(size[::-1], 60, np.uint8)
    picture[:, size[0] // 2 :] = 200
    return write_film(path, [picture] * 30, rate=25)


def test_a_window_of_another_shape_shows_its_side_of_the_picture(tmp_path):
    film = halves(tmp_path / "halves.mp4")
    look = replace(LOOK, shape=9 / 16)
    seen = {
        right: shown(
            tmp_path, [part(film, Piece(1, None, 0, 0.4, framing=Framing(right)), look=look)],
            shape=9 / 16,
        )[0][0]
        for right in (-1.0, 0.0, 1.0)
    }  # fmt: skip
    assert seen[-1.0] < 80
    assert seen[1.0] > 150
    assert seen[0.0] == pytest.approx((seen[-1.0] + seen[1.0]) / 2, abs=4)
    with Film(tmp_path / "film.mp4") as opened:
        assert next(iter(opened.pictures(lambda plane: plane))).size == (360, 640)


def test_an_upright_film_fills_a_lying_one(tmp_path):
    upright = write_film(
        tmp_path / "upright.mp4", [np.full((640, 360), 180, np.uint8) for _ in range(25)], rate=25
    )
    found, _ = shown(tmp_path, [part(upright, Piece(1, None, 0.0, 0.4), size=(360, 640))])
    assert min(found) > 150


def test_a_whole_film_is_no_larger_than_what_was_filmed(film):
    parts = [part(film, Piece(1, None, 0.0, 0.4))]
    assert whole_form((1920, 1080), parts, rate_hz=RATE).size == (640, 360)
    assert whole_form((320, 180), parts, rate_hz=RATE).size == (320, 180)
    tall = [part(film, Piece(1, None, 0.0, 0.4), look=replace(LOOK, shape=9 / 16))]
    assert whole_form((1080, 1920), tall, rate_hz=RATE).size == (202, 360)


def test_what_keeps_its_speed_is_heard_where_it_stands(tmp_path):
    """A tone of one second, from 1 s on; heard in a later piece, and nothing beside it."""
    loud = tmp_path / "loud.mp4"
    rate = 48_000
    tone = np.zeros((2, 3 * rate), np.float32)
    tone[:, rate : 2 * rate] = 0.5 * np.sin(2 * np.pi * 440 * np.arange(rate) / rate)
    with FilmWriter(loud, size=(640, 360), rate_hz=25, options={}, sound_hz=rate) as writer:
        for k in range(75):
            writer.write_image(np.full((360, 640, 3), 120, np.uint8), k / 25)
        for at in range(0, 3 * rate, 1024):
            piece = np.ascontiguousarray(tone[:, at : at + 1024])
            frame = av.AudioFrame.from_ndarray(piece, format="fltp", layout="stereo")
            frame.sample_rate = rate
            writer.write_sound(frame, at / rate)
    parts = [
        part(loud, Piece(1, None, 0.0, 0.8), sound=True),
        part(loud, Piece(1, None, 0.0, 1.0, speed=0.5)),
        part(loud, Piece(1, None, 0.8, 2.4), sound=True),
    ]
    shown(tmp_path, parts)
    with Sound(tmp_path / "film.mp4", start_s=0.0) as sound:
        heard = np.concatenate([samples[0] for _, samples in sound.samples()])
    level = [float(np.abs(heard[int(at * rate) : int((at + 0.2) * rate)]).max()) for at in
             (0.3, 1.5, 2.7, 3.1, 3.6, 4.1)]  # fmt: skip
    # 0.8 s, then 2 s of silence, then from 2.8 s on the film from 0.8 s.
    assert level == pytest.approx([0, 0, 0, 0.5, 0.5, 0], abs=0.1)
    assert len(heard) / rate == pytest.approx(0.8 + 2.0 + 1.6, abs=0.06)


def test_a_film_without_any_sound_is_silent(film, tmp_path):
    shown(tmp_path, [part(film, Piece(1, None, 0.0, 0.4))])
    with av.open(str(tmp_path / "film.mp4")) as opened:
        assert not opened.streams.audio


def test_times_stay_inside_the_piece_and_run_its_way():
    piece = Piece(1, None, 2.0, 4.0, speed=0.5)
    times = times_of(piece, 100, rate_hz=RATE)
    assert times[0] == pytest.approx(2.01)
    assert (np.diff(times) > 0).all()
    assert times[-1] <= 4.0
    back = times_of(replace(piece, backwards=True), 100, rate_hz=RATE)
    assert back == pytest.approx(6.0 - times)


def test_a_splice_has_every_frame_at_its_time(film, tmp_path):
    target = tmp_path / "twice.mp4"
    splice([film, film], target, frames=[75, 75], rate=Fraction(25))
    with Film(target) as opened:
        times = [one.t_s for one in opened.pictures(lambda luma: luma)]
    assert times == pytest.approx([k / 25 for k in range(150)], abs=1e-3)
