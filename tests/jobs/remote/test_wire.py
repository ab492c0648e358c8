"""Orders and results come out of the wire as they went in, and nothing else does."""

from __future__ import annotations

from dataclasses import asdict

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.clip import Clip
from ridgewind.core.judge.recipe import Recipe
from ridgewind.core.motion.subject import Mark, Subject, SubjectPath
from ridgewind.core.practice.slate import SlateSeen
from ridgewind.films import orders
from ridgewind.films.orders import MeasureOrder, RenderOrder, RenderResult
from ridgewind.jobs.remote import wire
from ridgewind.store import clips
from ridgewind.store.jobs import Fault
from tests.conftest import make_motion, sine


def same_path(one, other) -> bool:
    return clips.pack(one) == clips.pack(other)


def test_what_is_measured_goes_there_and_back(short_film, tmp_path):
    order = MeasureOrder(frozenset({1, 5}), {(2, 0): 8.0, (2, 1): 12.5})
    assert wire.order_read(wire.order_text(order)) == order
    result = orders.measure(
        short_film, MeasureOrder(frozenset(), None), copy=tmp_path / "copy.mp4",
        still=tmp_path / "still.jpg", on_progress=lambda _done: None,
    )  # fmt: skip
    result.slates.append(SlateSeen((3, 1), 0.4, 1.2))
    back = wire.result_read(wire.result_text(result))
    assert same_path(back.measured.motion, result.measured.motion)
    assert back.slates == result.slates
    told, sent = vars(back.measured), vars(result.measured)
    assert {k: v for k, v in told.items() if k != "motion"} == {
        k: v for k, v in sent.items() if k != "motion"
    }


def test_what_is_rendered_goes_there_and_back():
    t_s = np.arange(60) / 30.0
    marks = (Mark(0.5, 0.25, 0.75),)
    order = RenderOrder(
        preview=True,
        recipe=Recipe("polish", 0.1, 1.9, 1.0, 1.0, 0.7, 3.0, "left", 2.0, None),
        clip=Clip(30.0, 2.0, True, (1920, 1080), 26.0, readout_s=0.012),
        motion=make_motion(rate_hz=30.0, seconds=2.0, pan=sine(0.2, 2.0)),
        stretch=4.0,
        shift_s=-0.04,
        size=(1920, 1080),
        fps=30.0,
        subject=Subject(marks, (SubjectPath(t_s, t_s * 2, np.full(60, np.nan)),)),
        screen_deg=40.0,
    )
    back = wire.order_read(wire.order_text(order))
    assert same_path(back.motion, order.motion)
    assert back.subject.marks == marks
    np.testing.assert_array_equal(back.subject.paths[0].y_pct, order.subject.paths[0].y_pct)
    flat = {name: value for name, value in vars(back).items() if name not in ("motion", "subject")}
    assert flat == {name: getattr(order, name) for name in flat}


@pytest.mark.parametrize(
    "result",
    [RenderResult(2.5, 3.0, None, 2.4, None), RenderResult(), Fault("damaged", "a", "b")],
)
def test_other_results_go_there_and_back(result):
    assert asdict(wire.result_read(wire.result_text(result))) == asdict(result)


@given(st.one_of(st.text(), st.builds(lambda x: f'{{"measured": {x}}}', st.text())))
def test_what_is_no_result_is_refused(text):
    with pytest.raises(wire.WireError):
        wire.result_read(text)


def test_a_path_of_other_frames_than_the_film_has_is_refused(short_film, tmp_path):
    result = orders.measure(
        short_film, MeasureOrder(frozenset(), None), copy=tmp_path / "copy.mp4",
        still=tmp_path / "still.jpg", on_progress=lambda _done: None,
    )  # fmt: skip
    text = wire.result_text(result).replace('"frames": 45', '"frames": 44')
    with pytest.raises(wire.WireError, match="frames"):
        wire.result_read(text)
