"""Motion logs of the stand-in camera: alone, beside a film, and in place of a picture."""

from __future__ import annotations

from dataclasses import replace

import cv2
import numpy as np
import pytest

from ridgewind.core.motion.turn_rates import LogError
from ridgewind.core.shake import read_motion
from ridgewind.jobs.measure import measure_clip
from ridgewind.services import assessing
from ridgewind.services import logs as work
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film, plan, true_path
from ridgewind.standin.pose import facing
from ridgewind.standin.turning import turning_log
from ridgewind.store import clips, database, motion_logs, takes
from tests.conftest import write_film

# No travel, which a log of turning cannot hold: breath and sway are left out.
HAND = Technique(contacts=1, elbows_in=False, sway=0.0, breath=0.0)
SCRIPT = Script("ridge", "hold", HAND, 26.0, size=(480, 270), fps=30.0, seconds=4.0, seed=4)


@pytest.fixture
def log_of(tmp_path):
    """Writes the log of a script to a file."""

    def write(script=SCRIPT, before_s=0.0):
        log = tmp_path / f"log {script.seed}.csv"
        log.write_text(turning_log(plan(script), starts_before_s=before_s, ends_after_s=0.5))
        return log

    return write


def bring_in(library, db, path) -> int:
    with path.open("rb") as stream:
        take = library.add(db, stream, file_name=path.name, size_bytes=None).take
    measure_clip(library, take.clip_id)
    return take.id


def mapping_of(library, db, log):
    return work.preview(library, db, log, mapping=None, focal_eq_mm=26.0).mapping


def test_a_log_alone_is_a_take_and_reads_as_its_camera_shook(library, db, log_of):
    log = log_of()
    take_id = work.add_alone(library, db, log, name="Phone", mapping=mapping_of(library, db, log))
    take = takes.by_id(db, take_id)
    assert (take.name, take.state, take.error_code) == ("Phone", "done", None)
    long = replace(SCRIPT, seconds=4.5, fps=200.0)
    # The turning of the hand alone: far away, its travel does not show.
    true = read_motion(true_path(plan(long), facing(2000.0))).gust()
    focal = take.focal_eq_mm / 26.0
    assert take.gust == pytest.approx(true + 1.25 * np.log2(focal), abs=0.1)
    slow = assessing.judge(db, take_id).assessment.decision.remedies[2]
    assert "Not open" in slow.reason
    with database.atomic(db):
        takes.set_own_focal(db, take_id, 2 * take.focal_eq_mm)
    longer = assessing.summarise(db, take_id).assessment
    assert longer.gust == pytest.approx(take.gust + 1.25, abs=0.15)


def test_a_log_finds_its_place_in_a_film(library, db, tmp_path, log_of):
    film(SCRIPT, tmp_path / "take.mp4")
    take_id = bring_in(library, db, tmp_path / "take.mp4")
    gust = takes.by_id(db, take_id).gust
    log = log_of(before_s=1.37)
    work.attach(library, db, log, take_id=take_id, name="Log", mapping=mapping_of(library, db, log))
    kept = motion_logs.of_clip(db, takes.by_id(db, take_id).clip_id)
    assert kept.offset.seconds == pytest.approx(-1.37, abs=0.02)
    assert kept.offset.correlation > 0.9
    assert kept.offset.certainty > 0.5
    assert kept.rate_hz == pytest.approx(200, rel=0.01)
    assert takes.by_id(db, take_id).gust == gust  # the picture keeps the say
    library.forget(db, take_id)


def test_a_film_that_cannot_be_measured_takes_the_logs_path(library, db, tmp_path, log_of):
    blank = [np.full((270, 480), 128, np.uint8)] * 100
    path = write_film(tmp_path / "blank.mp4", [cv2.GaussianBlur(one, (3, 3), 0) for one in blank])
    take_id = bring_in(library, db, path)
    assert takes.by_id(db, take_id).error_code == "not_measurable_detail"
    log = log_of()
    work.attach(library, db, log, take_id=take_id, name="Log", mapping=mapping_of(library, db, log))
    take = takes.by_id(db, take_id)
    assert (take.state, take.error_code) == ("done", None)
    assert take.gust > 4
    assert take.duration_s == pytest.approx(100 / 30, abs=0.1)
    clip = clips.by_id(db, take.clip_id)
    assert (clip.width, clip.height, clip.log_focal_eq_mm) == (480, 270, take.focal_eq_mm)


def test_what_the_columns_are_is_remembered_for_the_next_log_like_it(db, library, log_of):
    log = log_of()
    guess = mapping_of(library, db, log)
    corrected = replace(guess, pan=guess.tilt, tilt=guess.pan, roll_sign=-guess.roll_sign)
    work.add_alone(library, db, log, name="One", mapping=corrected)
    assert mapping_of(library, db, log_of(replace(SCRIPT, seed=5))) == corrected
    with pytest.raises(LogError, match="no column"):
        work.preview(library, db, log, mapping=replace(guess, time="warp"), focal_eq_mm=26.0)


@pytest.fixture
def long_log(tmp_path, log_of, monkeypatch):
    """A log of two minutes with that of the script from 0:50 on, where one is the longest; the rest
    of it lies on a table."""
    monkeypatch.setattr(work, "LONGEST_KEPT_S", 60.0)
    told = log_of().read_text().splitlines()
    rows = np.array([line.split(",") for line in told[1:]], float)
    step = float(np.median(np.diff(rows[:, 0])))  # ns
    t = np.arange(0.0, 120e9, step)
    whole = np.column_stack([t, np.random.default_rng(3).normal(0, 1e-4, (len(t), 3))])
    first = int(50e9 / step)
    whole[first : first + len(rows), 1:] = rows[:, 1:4]
    log = tmp_path / "day.csv"
    np.savetxt(log, whole, fmt="%.5f", delimiter=",", header=told[0], comments="")
    return log


def test_of_a_log_of_hours_a_take_is_made_of_a_part(library, db, long_log):
    told = {"name": "Day", "mapping": mapping_of(library, db, long_log)}
    with pytest.raises(LogError, match=r"lasts 1:59 min, and a take 60.0 s at most"):
        work.add_alone(library, db, long_log, **told)
    with pytest.raises(LogError, match="next to nothing"):
        work.add_alone(library, db, long_log, stretch=(9e5, 9.1e5), **told)
    take = takes.by_id(db, work.add_alone(library, db, long_log, stretch=(40.0, 60.0), **told))
    assert take.duration_s == pytest.approx(20.0, abs=0.05)
    assert take.gust > 3


def test_of_a_log_of_hours_what_is_around_the_film_is_kept(library, db, tmp_path, long_log):
    film(SCRIPT, tmp_path / "take.mp4")
    take_id = bring_in(library, db, tmp_path / "take.mp4")
    mapping = mapping_of(library, db, long_log)
    work.attach(library, db, long_log, take_id=take_id, name="Day", mapping=mapping)
    kept = motion_logs.of_clip(db, takes.by_id(db, take_id).clip_id)
    assert kept.offset.seconds == pytest.approx(-50.0, abs=0.05)
    assert kept.motion.t_s[-1] - kept.motion.t_s[0] == pytest.approx(8.0, abs=0.3)


def test_a_film_that_tells_no_place_takes_no_log_of_hours(library, db, tmp_path, long_log):
    still = replace(SCRIPT, technique=replace(HAND, tremor=0.0), seed=9)
    film(still, tmp_path / "other.mp4")
    take_id = bring_in(library, db, tmp_path / "other.mp4")
    mapping = mapping_of(library, db, long_log)
    with pytest.raises(LogError, match="too little motion"):
        work.attach(library, db, long_log, take_id=take_id, name="Day", mapping=mapping)
    assert motion_logs.of_clip(db, takes.by_id(db, take_id).clip_id) is None


def test_a_long_film_keeps_a_log_as_long_as_itself(library, db, tmp_path, log_of, monkeypatch):
    monkeypatch.setattr(work, "LONGEST_KEPT_S", 2.0)  # of which the film is twice as long
    film(SCRIPT, tmp_path / "take.mp4")
    take_id = bring_in(library, db, tmp_path / "take.mp4")
    log = log_of(before_s=1.37)
    work.attach(library, db, log, take_id=take_id, name="Log", mapping=mapping_of(library, db, log))
    kept = motion_logs.of_clip(db, takes.by_id(db, take_id).clip_id)
    assert kept.motion.t_s[-1] - kept.motion.t_s[0] > 4.0


def test_instead_of_a_picture_as_much_of_a_log_is_kept_as_the_film_lasts(
    library, db, tmp_path, long_log
):
    blank = [np.full((270, 480), 128, np.uint8)] * 100
    take_id = bring_in(library, db, write_film(tmp_path / "blank.mp4", blank))
    mapping = mapping_of(library, db, long_log)
    work.attach(library, db, long_log, take_id=take_id, name="Day", mapping=mapping)
    take = takes.by_id(db, take_id)
    assert take.duration_s == pytest.approx(100 / 30, abs=0.1)
    kept = motion_logs.of_clip(db, take.clip_id)
    assert kept.motion.t_s[-1] - kept.motion.t_s[0] == pytest.approx(100 / 30 + 2.0, abs=0.2)
