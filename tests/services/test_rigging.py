"""One log of a whole session, cut by its films' times and joined to each."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import numpy as np
import pytest

from ridgewind.core.motion.turn_rates import LogMapping
from ridgewind.core.shake import read_motion
from ridgewind.films.measuring import measure_film
from ridgewind.jobs.measure import measure_clip
from ridgewind.services import logs, rigging
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film, plan
from ridgewind.store import clips, database, jobs, takes
from tests.conftest import texture, view, write_film

BEGUN = datetime(2026, 9, 12, 9, 0, tzinfo=UTC)
AHEAD_S = 7.3
"""By which the camera's clock is ahead of the phone's."""

HZ = 60.0
MAPPING = LogMapping(
    time="t", pan="pan", tilt="tilt", roll="roll", time_unit="s", rate_unit="deg_s",
    pan_sign=1, tilt_sign=1, roll_sign=1,
)  # fmt: skip
SCRIPTS = [
    Script("ridge", "hold", Technique(contacts=1), 26, size=(480, 270), seconds=3, seed=seed)
    for seed in (3, 4, 5)
]
BEGIN_S = (20.0, 61.37, 95.5)
"""Where in the log each film really begins."""

LENGTH_S = 130.0


def session_log(*, begun=BEGUN) -> str:
    """Turning rates of the whole time: a hand at rest, and each film's own hand while it is filmed,
    with half a second before and after."""
    rng = np.random.default_rng(1)
    t_s = np.arange(round(LENGTH_S * HZ)) / HZ
    deg_s = rng.normal(0, 0.3, (len(t_s), 3))
    for begin_s, script in zip(BEGIN_S, SCRIPTS, strict=True):
        own = t_s - begin_s
        inside = (own > -0.5) & (own < script.seconds + 0.5)
        take, step = plan(script), 0.5 / HZ
        turned = take.poses(own[inside] + step)[:, :3] - take.poses(own[inside] - step)[:, :3]
        deg_s[inside] = turned / (2 * step)
    stamps = begun.timestamp() + t_s
    lines = [
        f"{stamp:.4f},{pan:.4f},{tilt:.4f},{roll:.4f}"
        for stamp, (pan, tilt, roll) in zip(stamps, deg_s, strict=True)
    ]
    return "\n".join(["t,pan,tilt,roll", *lines, ""])


@pytest.fixture(scope="module")
def films(tmp_path_factory):
    folder = tmp_path_factory.mktemp("rig")
    paths = [folder / f"take {k + 1}.mp4" for k in range(len(SCRIPTS))]
    for script, path in zip(SCRIPTS, paths, strict=True):
        film(script, path)
    return paths


def bring_in(library, db, path, began: datetime) -> int:
    """Bring a film in that began at a moment of the camera's clock, and measure it."""
    with path.open("rb") as stream:
        take = library.add(db, stream, file_name=path.name, size_bytes=path.stat().st_size).take
    measure_clip(library, take.clip_id)
    with database.atomic(db):
        db.execute(
            "update clip set recorded_at = ? where id = ?", (began.isoformat(), take.clip_id)
        )
    return take.id


def join(library, db, text=None):
    log = library.root / "sent.csv"
    log.write_text(text or session_log())
    return rigging.join(
        library, db, log, name="Phone on the rig", mapping=MAPPING, clock_ahead_s=0.0
    )


def clock_of(begin_s: float) -> datetime:
    return BEGUN + timedelta(seconds=begin_s + AHEAD_S)


def test_every_film_finds_its_piece_of_the_log_within_20_ms(library, db, films):
    ids = [
        bring_in(library, db, path, clock_of(begin_s))
        for path, begin_s in zip(films, BEGIN_S, strict=True)
    ]
    joined = join(library, db)
    assert [(one.take_id, one.state) for one in joined] == [(take, "joined") for take in ids]
    for take_id, one in zip(ids, joined, strict=True):
        assert one.ahead_s == pytest.approx(-AHEAD_S, abs=0.02)
        beside = logs.beside_picture(db, take_id)
        # Both begin two seconds before the film: the log is put back by that much.
        assert beside.log.offset.seconds == pytest.approx(-logs.AROUND_S, abs=0.03)
        shared = np.interp(beside.picture_s, beside.log_s, beside.log_pan)
        assert np.corrcoef(shared, beside.picture_pan)[0, 1] > 0.9


def test_a_film_too_dark_to_measure_is_placed_by_the_clock_that_the_others_told(
    library, db, films, tmp_path
):
    bring_in(library, db, films[0], clock_of(BEGIN_S[0]))
    dark = write_film(tmp_path / "dark.mp4", (np.full((180, 320), 17, np.uint8) for _ in range(90)))
    with dark.open("rb") as stream:
        take = library.add(db, stream, file_name=dark.name, size_bytes=dark.stat().st_size).take
    measure_clip(library, take.clip_id)
    assert jobs.one(db, "measure", take.clip_id).state == "failed"
    with database.atomic(db):  # as its file would say
        db.execute(
            "update clip set recorded_at = ?, duration_s = 3.0 where id = ?",
            (clock_of(BEGIN_S[1]).isoformat(), take.clip_id),
        )
    one_alone = {one.take_id: one.state for one in join(library, db)}
    assert one_alone[take.id] == "outside"  # one film's clock is no proof
    bring_in(library, db, films[2], clock_of(BEGIN_S[2]))
    states = {one.take_id: one.state for one in join(library, db)}
    assert states[take.id] == "by_clock"
    by_log = clips.motion_of(db, take.clip_id)
    truth = measure_film(films[1]).motion
    count = min(len(by_log.t_s), round(2.5 * HZ))
    shown = np.interp(by_log.t_s[:count], truth.t_s, truth.pan_pct)
    apart = by_log.pan_pct[:count] - shown
    assert np.std(apart) < 0.25 * np.std(shown)
    assert takes.by_id(db, take.id).state == "done"


def test_a_film_in_doubt_is_placed_by_the_clocks_and_both_are_told(library, db, films, tmp_path):
    thing = texture(960, 540, seed=4)

    def frame(k):
        out = np.full((270, 480), 170, np.uint8)
        turned = view(thing, (480, 270), turn_deg=6 * np.sin(0.2 * k))
        out[70:210, 150:330] = turned[70:210, 150:330]
        return out

    alone = write_film(tmp_path / "alone.mp4", (frame(k) for k in range(90)))
    for path, begin_s in zip((films[0], films[2]), (BEGIN_S[0], BEGIN_S[2]), strict=True):
        bring_in(library, db, path, clock_of(begin_s))
    take_id = bring_in(library, db, alone, clock_of(BEGIN_S[1]))
    states = {one.take_id: one.state for one in join(library, db)}
    assert states[take_id] == "by_clock"
    beside = logs.beside_picture(db, take_id)
    assert beside.of_picture is None  # the thing's motion is told as nobody's
    hand = measure_film(films[1]).motion
    assert beside.of_log.gust == pytest.approx(read_motion(hand).gust(), abs=0.5)
    assert takes.by_id(db, take_id).gust is None


def test_a_log_of_another_hand_is_joined_to_nothing(library, db, films):
    take_id = bring_in(library, db, films[0], clock_of(BEGIN_S[1] + 9))
    rng = np.random.default_rng(7)
    stamps = BEGUN.timestamp() + np.arange(6000) / HZ
    rows = "\n".join(
        f"{stamp:.4f},{a:.4f},{b:.4f},{c:.4f}"
        for stamp, (a, b, c) in zip(stamps, rng.normal(0, 2, (6000, 3)), strict=True)
    )
    (one,) = join(library, db, f"t,pan,tilt,roll\n{rows}\n")
    assert (one.take_id, one.state) == (take_id, "unsure")
    assert one.certainty < rigging.SURE


def test_films_of_another_day_are_left_alone(library, db, films):
    bring_in(library, db, films[0], clock_of(BEGIN_S[0]) + timedelta(days=1))
    assert join(library, db) == []
