"""A sequence as one film: whole frames, cuts where they were planned, only what changed anew."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

import numpy as np
import pytest

from ridgewind.core.sequence.timeline import Piece, placed
from ridgewind.films.assembling import Part, assemble, film_size, times_of
from ridgewind.films.rendering import Source
from ridgewind.media.decode import Film
from ridgewind.media.splice import splice
from tests.conftest import write_film

RATE = 25.0
SIZE = film_size(16 / 9)


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


def part(film, piece: Piece) -> Part:
    frames = placed([piece], rate_hz=RATE)[0].frames
    source = None if piece.take_id is None else Source(film, 0.0, (640, 360), 25.0)
    return Part(piece, frames, "film", source, None, None, None)


def levels(path) -> list[float]:
    with Film(path) as opened:
        return [float(one.luma.mean()) for one in opened.pictures(lambda luma: luma)]


def shown(tmp_path, parts) -> tuple[list[float], int]:
    target = tmp_path / "film.mp4"
    rendered = assemble(
        parts, target, place=lambda key: tmp_path / f"part-{key}.mp4", size=SIZE, rate_hz=RATE,
        on_progress=lambda done: None,
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


def test_a_piece_of_another_shape_has_bars(tmp_path):
    upright = write_film(
        tmp_path / "upright.mp4", [np.full((640, 360), 180, np.uint8) for _ in range(25)], rate=25
    )
    one = replace(
        part(upright, Piece(1, None, 0.0, 0.4)), source=Source(upright, 0.0, (360, 640), 25.0)
    )
    shown(tmp_path, [one])
    with Film(tmp_path / "film.mp4") as opened:
        luma = next(iter(opened.pictures(lambda plane: plane))).luma
    assert luma[:, :200].mean() < 30
    assert luma[:, 300:340].mean() > 150


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
