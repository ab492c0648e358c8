"""The slate's code: written, read, and read again from a film of it."""

from __future__ import annotations

import io

import cv2
import numpy as np
import pytest
import segno
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.practice.slate import MOST_CHARACTERS, find_slate, read_slate, slate_text
from ridgewind.standin.body import Body, Technique
from ridgewind.standin.paint import gradient
from ridgewind.standin.pose import PinholeLens, facing
from ridgewind.standin.render import Renderer
from ridgewind.standin.scenes import Layer, Scene, layer

SIZE = (960, 540)
SCREEN_M = 2.0


@given(st.integers(0, 36**4 - 1), st.integers(0, 36**2 - 1))
def test_a_code_is_read_as_it_was_written_and_fits_the_smallest_kind(session_id, take):
    text = slate_text(session_id, take)
    assert read_slate(text) == (session_id, take)
    if session_id < 36**3:
        assert len(text) <= MOST_CHARACTERS
        assert segno.make(text, error="h", micro=False).version == 1


@pytest.mark.parametrize(
    "text", ["", "RW", "RW1", "RW1-", "rw1-2", "RW1-2-3", "XX1-2", "RW12345-1"]
)
def test_other_codes_are_not_slates(text):
    assert read_slate(text) is None


def test_numbers_out_of_range_are_refused():
    with pytest.raises(InvalidArgumentError, match="session_id is -1"):
        slate_text(-1, 0)
    with pytest.raises(InvalidArgumentError, match="32 px or more"):
        find_slate(np.zeros((8, 8), np.uint8))


def code_image(text: str, field_px: int) -> np.ndarray:
    buffer = io.BytesIO()
    segno.make(text, error="h", micro=False).save(buffer, kind="png", scale=field_px, border=4)
    return cv2.imdecode(np.frombuffer(buffer.getvalue(), np.uint8), cv2.IMREAD_GRAYSCALE)


def held_far_away(text: str, side_px: float, tilt_deg: float) -> np.ndarray:
    """A small code on grey, as a lens of a little softness shows it."""
    code, scale = code_image(text, 16), 4
    turn = cv2.getRotationMatrix2D((code.shape[1] / 2, code.shape[0] / 2), tilt_deg,
                                   scale * side_px * 29 / 21 / code.shape[0])  # fmt: skip
    turn[:, 2] += [scale * SIZE[0] / 2 - code.shape[1] / 2, scale * SIZE[1] / 2 - code.shape[0] / 2]
    large = (scale * SIZE[0], scale * SIZE[1])
    seen = cv2.warpAffine(code, turn, large, flags=cv2.INTER_AREA, borderValue=120)
    return cv2.GaussianBlur(cv2.resize(seen, SIZE, interpolation=cv2.INTER_AREA), (0, 0), 0.8)


@pytest.mark.parametrize("tilt_deg", [0.0, 15.0, -25.0])
def test_a_small_slate_is_read_as_well(tilt_deg):
    seen = held_far_away(slate_text(123, 7), 48.0, tilt_deg)
    assert find_slate(seen) == (123, 7)


def slate_scene(text: str, tilt_deg: float):
    """A bright screen that shows a code a quarter of the frame high, in a dim room."""

    def paint(canvas):
        wall = gradient(canvas, (70, 68, 60), (50, 48, 44))
        code = code_image(text, 8)
        side = SIZE[1] / 4 * 29 / 21  # with its quiet border
        width, height = canvas.size
        turn = cv2.getRotationMatrix2D((code.shape[1] / 2, code.shape[0] / 2), tilt_deg,
                                       side / code.shape[0])  # fmt: skip
        turn[:, 2] += [(width - code.shape[1]) / 2, (height - code.shape[0]) / 2]
        seen = cv2.warpAffine(code, turn, canvas.size, flags=cv2.INTER_AREA, borderValue=0)
        mask = cv2.warpAffine(np.full_like(code, 255), turn, canvas.size) / np.float32(255)
        screen = np.repeat(seen[..., None].astype(np.float32) * 0.9, 3, axis=2)
        layers: tuple[Layer, ...] = (
            layer("wall", wall, None, facing(4.0)),
            layer("screen", screen, mask, facing(SCREEN_M)),
        )
        return Scene(layers, background=0)

    return paint


@pytest.mark.parametrize("tilt_deg", [0.0, 20.0, -20.0])
def test_a_slate_filmed_by_a_shaken_camera_is_read(tilt_deg):
    text = slate_text(123, 7)
    lens = PinholeLens(26.0, SIZE)
    renderer = Renderer(slate_scene(text, tilt_deg), lens, seed=1, margin=1.4, noise=3.0)
    body = Body(Technique(contacts=1, elbows_in=False, fatigue=0.5), seed=4)
    read = []
    for index in range(0, 30, 5):  # a second, six pictures looked at
        times = index / 30 + np.linspace(-0.5, 0.5, 5) * 0.5 / 30
        frame = renderer.frame(body.pose(times), times, index)
        read.append(find_slate(cv2.cvtColor(frame, cv2.COLOR_BGR2GRAY)))
    assert set(read) <= {None, (123, 7)}
    assert read.count((123, 7)) >= 3


def test_a_picture_without_a_code_gives_none():
    rng = np.random.default_rng(0)
    noise = cv2.GaussianBlur(rng.normal(128, 40, (270, 480)), (0, 0), 2)
    assert find_slate(np.clip(noise, 0, 255).astype(np.uint8)) is None
