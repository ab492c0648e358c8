"""A shot that was got by filing alone is open again without its takes."""

from __future__ import annotations

import pytest

from ridgewind.core.sequence.plain_words import read_line
from ridgewind.core.sequence.shot import PlannedShot
from ridgewind.store import database, outings, takes
from ridgewind.store.outings import OutingFacts
from tests.conftest import shaken, write_film
from tests.store.test_store import add_take


@pytest.fixture(scope="module")
def clips(tmp_path_factory):
    folder = tmp_path_factory.mktemp("clips")
    return [write_film(folder / f"{k}.mp4", shaken(2, amplitude_px=1.0 + k)) for k in range(2)]


@pytest.fixture
def ids(library, db, clips):
    """Two takes."""
    found = []
    for path in clips:
        with path.open("rb") as stream:
            found.append(library.add(db, stream, file_name=path.name, size_bytes=None).take.id)
    return found


@pytest.fixture
def shot(db):
    outing = outings.add(db, OutingFacts("Yard"))
    return outings.add_shots(db, outing, [read_line("the mill, pan right 3 s").shot])[0]


def told(db, shot):
    row = outings.shot_by_id(db, shot)
    (listed,) = outings.shots(db, row.outing_id)
    (line,) = outings.lines(db)
    assert listed == row
    assert line.open == (row.state == "open")
    assert outings.first_shots(db, most=1) == {row.outing_id: [row]}
    return row.state, row.got


def test_a_filed_take_gets_its_shot_and_gives_it_back(db, ids, shot):
    assert told(db, shot) == ("open", 0)
    outings.meet(db, ids[0], shot, how="hand")
    assert told(db, shot) == ("got", 1)
    outings.meet(db, ids[0], None, how="hand")
    assert told(db, shot) == ("open", 0)


def test_of_two_takes_the_last_one_opens_it_whichever_came_first(db, ids, shot):
    for first, second in (ids, ids[::-1]):
        for one in ids:
            outings.meet(db, one, shot, how="hand")
        assert told(db, shot) == ("got", 2)
        outings.meet(db, first, None, how="hand")
        assert told(db, shot)[0] == "got"
        outings.meet(db, second, None, how="hand")
        assert told(db, shot) == ("open", 0)


def test_it_is_open_while_its_takes_are_deleted_and_got_when_one_comes_back(db, ids, shot):
    for one in ids:
        outings.meet(db, one, shot, how="hand")
    takes.set_deleted(db, ids[0], deleted=True)
    assert told(db, shot)[0] == "got"
    takes.set_deleted(db, ids[1], deleted=True)
    assert told(db, shot) == ("open", 0)
    takes.set_deleted(db, ids[1], deleted=False)
    assert told(db, shot) == ("got", 2)


def test_it_stays_open_once_they_are_gone_for_good(db, ids, shot):
    outings.meet(db, ids[0], shot, how="hand")
    takes.set_deleted(db, ids[0], deleted=True)
    takes.remove(db, ids[0])
    assert told(db, shot) == ("open", 0)
    outings.meet(db, ids[1], shot, how="hand")
    assert told(db, shot) == ("got", 1)


def test_what_was_said_on_the_spot_stands_whatever_becomes_of_a_film(db, ids, shot):
    outings.note_shot(db, shot, state="got", got=1)
    outings.meet(db, ids[0], shot, how="hand")
    takes.set_deleted(db, ids[0], deleted=True)
    assert told(db, shot) == ("got", 1)
    takes.remove(db, ids[0])
    assert told(db, shot) == ("got", 1)


def test_it_is_filmed_anew_by_another_take_or_by_word(db, ids, shot):
    outings.meet(db, ids[0], shot, how="hand")
    takes.set_deleted(db, ids[0], deleted=True)
    outings.meet(db, ids[1], shot, how="slate")
    assert told(db, shot) == ("got", 1)
    takes.set_deleted(db, ids[1], deleted=True)
    assert told(db, shot) == ("open", 0)
    outings.note_shot(db, shot, note="wind")
    assert told(db, shot) == ("open", 0)
    outings.note_shot(db, shot, state="got", got=1)
    assert told(db, shot) == ("got", 1)


def test_a_shot_that_wants_three_takes_is_got_by_three(db):
    outing = outings.add(db, OutingFacts("Ridge", "", "", "any", None, None))
    (shot,) = outings.add_shots(db, outing, [PlannedShot("the mill", takes=3)])
    ids = [add_take(db, number) for number in (1, 2, 3)]
    states = []
    for take_id in ids:
        with database.atomic(db):
            outings.meet(db, take_id, shot, how="hand")
        found = outings.shot_by_id(db, shot)
        states.append((found.state, found.got))
    assert states == [("open", 1), ("open", 2), ("got", 3)]
    with database.atomic(db):
        takes.set_deleted(db, ids[0], deleted=True)
    assert outings.shot_by_id(db, shot).state == "open"
    with database.atomic(db):
        takes.set_deleted(db, ids[0], deleted=False)
    assert outings.shot_by_id(db, shot).state == "got"
    with database.atomic(db):
        outings.meet(db, ids[1], None, how="hand")
    found = outings.shot_by_id(db, shot)
    assert (found.state, found.got) == ("open", 2)
