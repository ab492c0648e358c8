"""A film that holds several takes: split at its slates, filed, judged and deleted part by part."""

from __future__ import annotations

from dataclasses import replace

import cv2
import pytest

from ridgewind.core.practice.session import COUNT_IN_S, Ask
from ridgewind.core.practice.slate import SlateSeen, slate_text
from ridgewind.films import splitting
from ridgewind.jobs.measure import measure_clip
from ridgewind.services import assessing, filing, practising
from ridgewind.store import clips, database, sessions, takes
from tests.conftest import shaken, write_film
from tests.core.practice.test_slate import code_image

BEFORE_S, TAKE_S, SLATE_S, TAIL_S = 4.5, 2.0, 1.4, 1.0
PART_S = SLATE_S + COUNT_IN_S + TAKE_S + TAIL_S
RATE = 15
LATE_S = splitting.EVERY_S + 0.1


@pytest.fixture
def session_id(db) -> int:
    plan = practising.plan(db, Ask(20, (), "spot", (), (), 1, ()))
    blocks = tuple(replace(block, take_s=TAKE_S) for block in plan.blocks)
    with database.atomic(db):
        return sessions.add(db, name="Test", ask=Ask(20, (), "spot", (), (), 1, ()),
                            plan=replace(plan, blocks=blocks), setup_id=None)  # fmt: skip


@pytest.fixture(scope="module")
def rolling(tmp_path_factory):
    """One film that goes on over takes 2 and 3, each with its slate held up first."""
    frames = []
    count = round((BEFORE_S + 2 * PART_S) * RATE)
    for index, frame in enumerate(shaken(count, size=(480, 270), rate_hz=RATE, amplitude_px=2)):
        since_s = index / RATE - BEFORE_S
        if since_s >= 0 and since_s % PART_S < SLATE_S:
            code = code_image(slate_text(1, 2 + int(since_s // PART_S)), 8)
            frame[45:225, 150:330] = cv2.resize(code, (180, 180))
        frames.append(frame)
    return write_film(tmp_path_factory.mktemp("film") / "rolling.mp4", frames, rate=RATE)


@pytest.fixture
def clip_id(library, db, session_id, rolling) -> int:
    assert session_id == 1
    with rolling.open("rb") as stream:
        take = library.add(db, stream, file_name=rolling.name, size_bytes=None).take
    measure_clip(library, take.clip_id)
    return take.clip_id


def test_a_film_that_rolled_on_becomes_a_take_for_each_slate(db, session_id, clip_id):
    found = takes.of_clip(db, clip_id)
    assert [take.name for take in found] == ["rolling", "rolling, part 2", "rolling, part 3"]
    assert [take.slate_take for take in found] == [None, 2, 3]
    starts = [take.film_from_s for take in found]
    assert starts == pytest.approx([0, BEFORE_S, BEFORE_S + PART_S], abs=LATE_S)
    assert [take.duration_s for take in found] == pytest.approx([BEFORE_S, PART_S, PART_S], abs=0.8)
    assert all(take.gust is not None for take in found)
    matches = filing.proposals(db, session_id).matches
    assert [(one.position, one.how) for one in matches] == [(2, "slate"), (3, "slate")]
    with database.atomic(db):
        for one in matches:
            filing.file_film(db, session_id, one.position, one.film_id)
    for index, take in enumerate(takes.of_clip(db, clip_id)[1:]):
        from_s, to_s = take.judged_part
        rolled_s = BEFORE_S + index * PART_S + SLATE_S + COUNT_IN_S
        assert from_s == pytest.approx(rolled_s, abs=LATE_S)
        assert to_s - from_s == pytest.approx(TAKE_S)
        reading = assessing.judge(db, take.id).assessment.reading
        assert reading.shots[0].start_s == pytest.approx(from_s, abs=2 / RATE)


def test_a_part_is_taken_out_again_and_forgotten_by_itself(library, db, session_id, clip_id):
    before, second, third = takes.of_clip(db, clip_id)
    with database.atomic(db):
        filing.file_film(db, session_id, 3, third.id)
        filing.file_film(db, session_id, 3, None)
    again = takes.by_id(db, third.id)
    assert again.judged_part == third.film_part
    assert again.judged_part[1] == pytest.approx(BEFORE_S + 2 * PART_S, abs=0.1)
    film = library.originals / clips.by_id(db, clip_id).file
    library.forget(db, before.id)
    library.forget(db, second.id)
    assert film.exists()
    assert assessing.judge(db, third.id).assessment is not None
    library.forget(db, third.id)
    assert not film.exists()


def test_each_part_has_a_brief_that_changes_by_itself(db, session_id):
    clip_id = clips.add(db, sha256="a" * 64, file=f"{'a' * 64}.mp4", size_bytes=1)
    usual = db.execute("select id from brief where name is not null limit 1").fetchone()[0]
    first = takes.add(db, clip_id=clip_id, name="All", brief_id=usual, setup_id=None)
    takes.set_own_brief(db, first, replace(takes.by_id(db, first).brief, feel="raw"))
    seen = [SlateSeen((session_id, 0), 0.4, 1.2), SlateSeen((session_id, 1), 20.0, 21.0)]
    (second,) = splitting.split(db, clip_id, seen, length_s=40.0)
    assert splitting.split(db, clip_id, seen, length_s=40.0) == []
    takes.set_own_brief(db, second, replace(takes.by_id(db, second).brief, feel="locked"))
    assert [takes.by_id(db, one).brief.feel for one in (first, second)] == ["raw", "locked"]
