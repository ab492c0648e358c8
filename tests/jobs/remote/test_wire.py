"""Orders and results come out of the wire as they went in, and nothing else does."""

from __future__ import annotations

import base64
import json
from dataclasses import asdict, replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from ridgewind.core.clip import Clip
from ridgewind.core.judge.recipe import Recipe
from ridgewind.core.motion import Shot
from ridgewind.core.motion.subject import Mark, Subject, SubjectPath
from ridgewind.core.practice.slate import SlateSeen
from ridgewind.films import orders
from ridgewind.films.orders import MeasureOrder, RenderOrder, RenderResult
from ridgewind.jobs.remote import believable, wire
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


@pytest.fixture(scope="module")
def measured_text(short_film, tmp_path_factory) -> str:
    folder = tmp_path_factory.mktemp("sent")
    result = orders.measure(
        short_film, MeasureOrder(frozenset(), None), copy=folder / "copy.mp4",
        still=folder / "still.jpg", on_progress=lambda _done: None,
    )  # fmt: skip
    assert believable.is_believable("copy", folder / "copy.mp4")
    assert believable.is_believable("still", folder / "still.jpg")
    return wire.result_text(result)


@pytest.mark.parametrize(
    ("name", "value"),
    [("width", 0), ("height", -1), ("width", 10**9), ("fps", float("nan")), ("fps", 1e300),
     ("fps", 0), ("duration_s", float("inf")), ("frames", 10**12), ("codec", {"a": 1}),
     ("recorded_at", "yesterday"), ("recorded_at", "9" * 500), ("bits_per_pixel", float("nan")),
     ("file_focal_mm", -3), ("has_sound", "perhaps"), ("claimed_s", float("nan"))],
)  # fmt: skip
def test_facts_that_cannot_be_are_refused(measured_text, name, value):
    told = json.loads(measured_text)
    told["measured"]["facts"][name] = value
    with pytest.raises(wire.WireError):
        wire.result_read(json.dumps(told))


@pytest.mark.parametrize("title", [{"a": 1}, ["x"], 3])
def test_a_title_is_text(measured_text, title):
    told = json.loads(measured_text)
    told["measured"]["title"] = title
    with pytest.raises(wire.WireError):
        wire.result_read(json.dumps(told))


def with_path(text: str, **changes) -> str:
    told = json.loads(text)
    motion = clips.unpack(base64.b64decode(told["measured"]["motion"]))
    packed = clips.pack(replace(motion, **changes))
    told["measured"]["motion"] = base64.b64encode(packed).decode()
    return json.dumps(told)


def test_paths_that_cannot_be_are_refused(measured_text):
    motion = wire.result_read(measured_text).measured.motion
    count = len(motion.t_s)
    wild = motion.pan_pct.copy()
    wild[3] = np.inf
    for changes in (
        {"pan_pct": np.full(count, np.nan)}, {"t_s": np.zeros(count)}, {"trust": motion.trust + 5},
        {"t_s": np.full(count, np.nan)}, {"trust": np.full(count, np.nan)}, {"pan_pct": wild},
        {"pan_pct": np.full(count, 1e300)}, {"error": np.full((count, 4), np.nan)},
        {"trust": np.zeros(count)}, {"aspect": 0.0}, {"aspect": float("nan")}, {"shots": ()},
        {"shots": (Shot(0, count + 5, None),)}, {"shots": (Shot(2, count, None),)},
        {"shots": (Shot(0, count, "because"),)}, {"outlier_share": 7.0},
    ):  # fmt: skip
        with pytest.raises(wire.WireError):
            wire.result_read(with_path(measured_text, **changes))


def test_a_path_that_was_cut_or_flipped_is_refused_or_read(measured_text):
    told = json.loads(measured_text)
    packed = base64.b64decode(told["measured"]["motion"])
    rng = np.random.default_rng(3)
    refused = 0
    for k in range(120):
        content = bytearray(packed[: len(packed) * k // 60] if k < 60 else packed)
        if k >= 60:
            content[int(rng.integers(len(content)))] ^= 1 << int(rng.integers(8))
        told["measured"]["motion"] = base64.b64encode(bytes(content)).decode()
        try:
            wire.result_read(json.dumps(told))
        except wire.WireError:
            refused += 1
    assert refused >= 60


@pytest.mark.parametrize("content", [b"", b"<html><script>", b"\x00" * 40, b"GIF89a"])
def test_pictures_and_films_are_what_they_are_called(tmp_path, content):
    path = tmp_path / "part"
    path.write_bytes(content)
    assert not any(believable.is_believable(part, path) for part in ("copy", "film", "still"))
