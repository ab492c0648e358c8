"""A take that cannot be judged stops no other, and nothing is judged while the store is locked."""

from __future__ import annotations

import io

import pytest

from ridgewind.core.sequence.piece import Piece
from ridgewind.core.sequence.shot import PlannedShot
from ridgewind.jobs.measure import measure_clip
from ridgewind.library import folders
from ridgewind.media.errors import UnreadableError
from ridgewind.services import assessing, sequencing
from ridgewind.store import database, outings, summaries
from ridgewind.store.outings import OutingFacts


@pytest.fixture
def three(library, db, short_film):
    """Measured takes."""
    found = []
    for k in range(3):
        content = short_film.read_bytes() + bytes(k)
        take = library.add(db, io.BytesIO(content), file_name=f"{k}.mp4", size_bytes=None).take
        measure_clip(library, take.clip_id)
        found.append(take.id)
    return found


def test_one_bad_take_is_set_apart_and_tried_later(db, three, monkeypatch):
    judge, faults = assessing.judge, []

    def judged(db, take_id):
        if take_id == three[1]:
            raise RuntimeError("not foreseen")
        return judge(db, take_id)

    monkeypatch.setattr(assessing, "judge", judged)
    monkeypatch.setattr(assessing, "_apart", assessing._Apart())
    with database.atomic(db):
        summaries.mark_all_stale(db)
    assert assessing.refresh(db, budget_s=60, on_fault=faults.append) == 0
    assert [str(one) for one in faults] == ["not foreseen"]
    assert summaries.stale_ids(db, limit=9) == [three[1]]
    assert assessing.refresh(db, budget_s=60, on_fault=faults.append) == 0
    assert len(faults) == 1  # not again and again
    monkeypatch.setattr(assessing, "judge", judge)
    monkeypatch.setattr(assessing, "_apart", assessing._Apart())
    assert assessing.refresh(db, budget_s=60) == 0
    assert summaries.stale_ids(db, limit=9) == []


def test_a_sequence_is_judged_before_the_store_is_locked(db, three, monkeypatch):
    with database.atomic(db):
        outing = outings.add(db, OutingFacts("Ridge", "", "", "any", None, None))
        (shot,) = outings.add_shots(db, outing, [PlannedShot("the mill")])
        outings.meet(db, three[0], shot, how="hand")
    judged = []

    def verdict_of(db, take_id, whole=assessing.verdict_of):
        judged.append(db.in_transaction)
        return whole(db, take_id)

    monkeypatch.setattr(assessing, "verdict_of", verdict_of)
    proposed = sequencing.propose(db, outing, outings.shots(db, outing))
    other = [Piece(three[1], None, 0.0, 1.0)]
    assert sequencing.put(db, outing, other, base=proposed)
    assert not sequencing.put(db, outing, proposed, base=proposed)  # it is another one now
    assert judged
    assert not any(judged)


@pytest.mark.parametrize("path", ["/proc", "/proc/self/fd", "/dev", "/sys/class", "/dev/../proc"])
def test_the_systems_own_folders_are_no_folders_of_films(path):
    with pytest.raises(UnreadableError):
        folders.folder_at(path)


def test_waiting_for_room_a_worker_gives_signs_of_life(library, db, monkeypatch):
    """Though it can write nothing: else it would be taken for stuck, and killed."""
    from ridgewind.jobs import running
    from ridgewind.store.errors import NoRoomError

    tries = []

    def write():
        tries.append(library.sign_of_life(running_pid()))
        if len(tries) < 3:
            raise NoRoomError("full")

    monkeypatch.setattr(running, "RETRY_S", 0.02)
    monkeypatch.setattr(running, "_waits", library.give_sign_of_life)
    with library.worked_on():
        running.patiently(db, write)
    assert tries[0] < tries[1] < tries[2]


def running_pid() -> int:
    import os

    return os.getpid()
