"""Letting a phone in: a code on the computer's screen, good for two minutes and five tries, becomes
a long random key in the phone, of which the library keeps the hash alone."""

from __future__ import annotations

import hashlib
import secrets
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass

from ridgewind.services.errors import NotReadyError
from ridgewind.store import database, phones
from ridgewind.store.database import Connection
from ridgewind.store.phones import PhoneRow

CODE_S = 120.0
TRIES = 5
DIGITS = 6
SLOWED_S = 1.0
"""No try counts for so long after the first wrong one, and twice as long after each further."""

SEEN_EVERY_S = 30.0
"""Between two notes that a phone is here."""

MOST_NAME = 40


class NotPairedError(NotReadyError):
    """The code was not the right one, or there is none any more."""


NO_CODE = ("There is no code any more.", "Ask for a new one on the computer.")
WRONG_CODE = ("That is not the code on the computer.", "Read it again and wait a moment.")
TOO_SOON = ("That came too soon after a wrong code.", "Wait a few seconds, then try again.")


@dataclass(frozen=True)
class Code:
    """digits: six of them. left_s: seconds for which they are good. tries: that are left."""

    digits: str
    left_s: float
    tries: int


@dataclass
class _Offer:
    digits: str
    until_s: float
    tries: int = TRIES
    deaf_until_s: float = 0.0


class Pairing:
    """The one code that is offered, if any; safe between threads. clock: seconds that only grow."""

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock = clock
        self._guard = threading.Lock()
        self._offer: _Offer | None = None
        self._seen: dict[int, float] = {}

    def offer(self) -> Code:
        """Make a new code; the one before it is good no more."""
        with self._guard:
            digits = f"{secrets.randbelow(10**DIGITS):0{DIGITS}d}"
            self._offer = _Offer(digits, self._clock() + CODE_S)
        code = self.code()
        assert code is not None
        return code

    def withdraw(self) -> None:
        """No code is good any more."""
        with self._guard:
            self._offer = None

    def code(self) -> Code | None:
        """The code that is good now, None where none is."""
        with self._guard:
            offer = self._good()
            if offer is None:
                return None
            return Code(offer.digits, offer.until_s - self._clock(), offer.tries)

    def pair(self, db: Connection, digits: str, name: str) -> str:
        """Let a phone in that shows the code, which is good no more then; returns the key that the
        phone is to keep. Raises NotPairedError."""
        self._use_up(digits)
        key = secrets.token_urlsafe(32)
        with database.atomic(db):
            phones.add(db, name.strip()[:MOST_NAME] or "Phone", _hash(key))
        return key

    def phone_of(self, db: Connection, key: str) -> PhoneRow | None:
        """The phone that holds a key, None where none does."""
        return phones.by_key_hash(db, _hash(key)) if key else None

    def is_news(self, phone: PhoneRow) -> bool:
        """Whether it is worth a note that a phone is here."""
        now = self._clock()
        with self._guard:
            news = now - self._seen.get(phone.id, float("-inf")) > SEEN_EVERY_S
            if news:
                self._seen[phone.id] = now
        return news

    def _use_up(self, digits: str) -> None:
        with self._guard:
            offer = self._good()
            if offer is None:
                raise NotPairedError(*NO_CODE)
            now = self._clock()
            if now < offer.deaf_until_s:
                raise NotPairedError(*TOO_SOON)
            if not secrets.compare_digest(digits.encode(), offer.digits.encode()):
                offer.tries -= 1
                offer.deaf_until_s = now + SLOWED_S * 2 ** (TRIES - 1 - offer.tries)
                if offer.tries == 0:
                    self._offer = None
                    raise NotPairedError(*NO_CODE)
                raise NotPairedError(*WRONG_CODE)
            self._offer = None

    def _good(self) -> _Offer | None:
        if self._offer is not None and self._clock() >= self._offer.until_s:
            self._offer = None
        return self._offer


def paired(db: Connection) -> list[PhoneRow]:
    """All phones that are let in, the newest first."""
    return phones.every(db)


def saw(db: Connection, phone: PhoneRow) -> None:
    """A phone is here."""
    with database.atomic(db):
        phones.see(db, phone.id)


def remove(db: Connection, phone_id: int) -> None:
    """Let a phone in no more. Raises NotFoundError."""
    with database.atomic(db):
        phones.remove(db, phone_id)


def _hash(key: str) -> str:
    return hashlib.sha256(key.encode()).hexdigest()
