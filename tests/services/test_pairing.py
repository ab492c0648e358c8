"""The code that lets a phone in: two minutes, five tries, once."""

from __future__ import annotations

import pytest

from ridgewind.services import pairing
from ridgewind.services.pairing import CODE_S, NotPairedError, Pairing
from ridgewind.store import database


class Clock:
    now = 100.0

    def __call__(self) -> float:
        return self.now


@pytest.fixture
def clock():
    return Clock()


@pytest.fixture
def open_door(clock):
    return Pairing(clock)


@pytest.fixture
def db(library):
    with database.opened(library.database) as opened:
        yield opened


def wrong(code) -> str:
    return f"{(int(code.digits) + 1) % 1_000_000:06d}"


def test_the_right_code_lets_one_phone_in_and_the_library_keeps_no_key(open_door, db):
    key = open_door.pair(db, open_door.offer().digits, "  Pocket  ")
    assert open_door.phone_of(db, key).name == "Pocket"
    assert open_door.phone_of(db, key + "x") is None
    assert open_door.phone_of(db, "") is None
    kept = db.execute("select * from phone").fetchone()
    assert key not in tuple(map(str, kept))


def test_a_code_is_good_once(open_door, db):
    code = open_door.offer()
    open_door.pair(db, code.digits, "One")
    with pytest.raises(NotPairedError, match="no code any more"):
        open_door.pair(db, code.digits, "Two")


def test_a_code_ends_after_two_minutes(open_door, db, clock):
    code = open_door.offer()
    clock.now += CODE_S - 0.1
    assert open_door.code() is not None
    clock.now += 0.2
    assert open_door.code() is None
    with pytest.raises(NotPairedError, match="no code any more"):
        open_door.pair(db, code.digits, "Late")


def test_the_sixth_try_counts_no_more_even_with_the_right_code(open_door, db, clock):
    code = open_door.offer()
    for left in (4, 3, 2, 1):
        with pytest.raises(NotPairedError, match="not the code"):
            open_door.pair(db, wrong(code), "Guess")
        assert open_door.code().tries == left
        clock.now += 16
    with pytest.raises(NotPairedError, match="no code any more"):
        open_door.pair(db, wrong(code), "Guess")
    with pytest.raises(NotPairedError, match="no code any more"):
        open_door.pair(db, code.digits, "Guess")


def test_tries_are_slowed_twice_as_long_each_time(open_door, db, clock):
    code = open_door.offer()
    for pause in (1.0, 2.0, 4.0):
        with pytest.raises(NotPairedError, match="not the code"):
            open_door.pair(db, wrong(code), "Guess")
        clock.now += pause - 0.01
        with pytest.raises(NotPairedError, match="too soon"):
            open_door.pair(db, code.digits, "Guess")
        clock.now += 0.02
    assert open_door.code().tries == 2
    assert open_door.pair(db, code.digits, "Me")


def test_a_new_code_ends_the_one_before(open_door, db, monkeypatch):
    digits = iter([111_111, 222_222])
    monkeypatch.setattr(pairing.secrets, "randbelow", lambda _most: next(digits))
    first, second = open_door.offer(), open_door.offer()
    with pytest.raises(NotPairedError, match="not the code"):
        open_door.pair(db, first.digits, "Old")
    assert open_door.code().digits == second.digits == "222222"


def test_a_removed_phone_is_unknown_at_once(open_door, db):
    key = open_door.pair(db, open_door.offer().digits, "Lost")
    pairing.remove(db, open_door.phone_of(db, key).id)
    assert open_door.phone_of(db, key) is None
    assert pairing.paired(db) == []


def test_that_a_phone_is_here_is_noted_now_and_then(open_door, db, clock):
    phone = open_door.phone_of(db, open_door.pair(db, open_door.offer().digits, "Here"))
    assert open_door.is_news(phone)
    assert not open_door.is_news(phone)
    clock.now += pairing.SEEN_EVERY_S + 1
    assert open_door.is_news(phone)
