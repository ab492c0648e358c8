"""Folders and cards: only what is new, copied and verified, nothing half-done."""

from __future__ import annotations

import os
import shutil

import pytest

from ridgewind.library import folders
from ridgewind.media.errors import UnreadableError
from ridgewind.store import clips, takes


def bring(library, db, card, file, on_progress=lambda share: None):
    return folders.bring_in(library, db, str(card), file, on_progress=on_progress)


@pytest.fixture
def card(tmp_path, short_film):
    root = tmp_path / "card"
    (root / "DCIM/100").mkdir(parents=True)
    (root / ".hidden").mkdir()
    shutil.copy(short_film, root / "DCIM/100/A001.MP4")
    shutil.copy(short_film, root / ".hidden/B.mp4")
    (root / "DCIM/100/NOTE.TXT").write_text("not a film")
    (root / "DCIM/100/bad.mov").write_bytes(b"nothing that plays")
    return root


def test_a_card_is_scanned_and_only_new_films_are_offered(library, db, card):
    found = folders.scan(db, str(card))
    assert {film.file for film in found.films} == {"DCIM/100/A001.MP4", "DCIM/100/bad.mov"}
    assert not any(film.known for film in found.films)
    imported = bring(library, db, card, "DCIM/100/A001.MP4")
    assert imported.take.name == "A001"
    assert imported.take.state == "queued"
    again = {film.file: film.known for film in folders.scan(db, str(card)).films}
    assert again == {"DCIM/100/A001.MP4": True, "DCIM/100/bad.mov": False}
    os.utime(card / "DCIM/100/A001.MP4", (1, 1))
    assert not any(film.known for film in folders.scan(db, str(card)).films)
    assert bring(library, db, card, "DCIM/100/A001.MP4").duplicate


@pytest.mark.parametrize("file", ["../secret.mp4", "/etc/passwd", "DCIM/100/NOTE.TXT"])
def test_nothing_outside_the_folder_is_read(library, db, card, file):
    (card.parent / "secret.mp4").write_bytes(b"x")
    with pytest.raises(UnreadableError, match="not in this folder"):
        bring(library, db, card, file)


def test_no_folder_is_said_plainly(db, tmp_path):
    for path in (" ", str(tmp_path / "none")):
        with pytest.raises(UnreadableError, match="no folder"):
            folders.scan(db, path)


def test_a_pulled_card_leaves_nothing_half_done(library, db, card, monkeypatch):
    class Pulled:
        def __init__(self, stream):
            self._stream, self._reads = stream, 0

        def read(self, size):
            self._reads += 1
            if self._reads > 1:
                raise OSError(5, "Input/output error")
            return self._stream.read(100)

        def __enter__(self):
            return self

        def __exit__(self, *exc):
            self._stream.close()

    real = type(card).open
    monkeypatch.setattr(
        type(card), "open", lambda self, mode="r", *rest, **more: Pulled(real(self, mode))
        if mode == "rb" and self.is_relative_to(card) else real(self, mode, *rest, **more)
    )  # fmt: skip
    with pytest.raises(UnreadableError, match="may have been pulled"):
        bring(library, db, card, "DCIM/100/A001.MP4")
    assert list(library.incoming.iterdir()) == list(library.originals.iterdir()) == []
    assert takes.count(db, only=takes.Filter()) == 0


def test_a_copy_that_differs_is_refused_and_forgotten(library, db, card, monkeypatch):
    monkeypatch.setattr(folders, "_digest", lambda path: "0" * 64)
    with pytest.raises(UnreadableError, match="does not match"):
        bring(library, db, card, "DCIM/100/A001.MP4")
    assert list(library.originals.iterdir()) == []
    assert clips.by_hash(db, "0" * 64) is None
    assert takes.count(db, only=takes.Filter()) == 0


class StoppedError(Exception):
    pass


def test_a_copy_is_told_of_and_can_be_stopped_within_a_file(library, db, card, monkeypatch):
    monkeypatch.setattr("ridgewind.library.library.CHUNK_BYTES", 1000)
    shares = []

    def stop_at_the_third(share):
        shares.append(share)
        if len(shares) == 3:
            raise StoppedError

    with pytest.raises(StoppedError):
        bring(library, db, card, "DCIM/100/A001.MP4", stop_at_the_third)
    size = (card / "DCIM/100/A001.MP4").stat().st_size
    assert shares == pytest.approx([0.0, 1000 / size, 2000 / size])
    assert list(library.incoming.iterdir()) == list(library.originals.iterdir()) == []
    assert takes.count(db, only=takes.Filter()) == 0
