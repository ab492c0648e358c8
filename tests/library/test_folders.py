"""Folders and cards: only what is new, copied and verified, nothing half-done."""

from __future__ import annotations

import os
import shutil

import pytest

from ridgewind.library import folders
from ridgewind.media.errors import UnreadableError
from ridgewind.store import clips, listing


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
    class Pulled(folders.WatchedStream):
        def read(self, size=-1):
            if self._done_bytes:
                raise OSError(5, "Input/output error")
            return super().read(10)

    monkeypatch.setattr(folders, "WatchedStream", Pulled)
    with pytest.raises(UnreadableError, match="may have been pulled"):
        bring(library, db, card, "DCIM/100/A001.MP4")
    assert list(library.originals.iterdir()) == []
    assert list(library.incoming.iterdir()) == []
    assert listing.count(db, only=listing.Filter()) == 0


def test_a_copy_that_differs_is_refused_and_forgotten(library, db, card, monkeypatch):
    add = library.add

    def spoil(*args, **more):
        found = add(*args, **more)
        (original,) = library.originals.iterdir()
        original.write_bytes(b"another film")
        return found

    monkeypatch.setattr(library, "add", spoil)
    with pytest.raises(UnreadableError, match="does not match"):
        bring(library, db, card, "DCIM/100/A001.MP4")
    assert list(library.originals.iterdir()) == []
    assert clips.originals(db) == {}
    assert listing.count(db, only=listing.Filter()) == 0


def test_a_copy_that_is_stopped_while_it_is_read_back_is_forgotten(library, db, card):
    def stop_at_the_end(share):
        if list(library.originals.iterdir()):
            raise StoppedError

    with pytest.raises(StoppedError):
        bring(library, db, card, "DCIM/100/A001.MP4", stop_at_the_end)
    assert list(library.originals.iterdir()) == []
    assert listing.count(db, only=listing.Filter()) == 0


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
    assert listing.count(db, only=listing.Filter()) == 0


def scanned(db, root):
    found = folders.scan(db, str(root))
    return [film.file for film in found.films], {(one.file, one.why) for one in found.passed_over}


def test_one_odd_entry_is_passed_over_and_said_and_the_others_are_offered(db, card, monkeypatch):
    os.close(os.open(os.fsencode(card) + b"/caf\xe9.mp4", os.O_CREAT | os.O_WRONLY))
    (card / "late.mp4").write_bytes(b"x")
    lstat = type(card).lstat

    def in_the_year_14645(path):
        about = lstat(path)
        if path.name != "late.mp4":
            return about
        return os.stat_result((*about[:8], 400_000_000_000, about[9]))

    monkeypatch.setattr(type(card), "lstat", in_the_year_14645)
    files, passed = scanned(db, card)
    assert sorted(files) == ["DCIM/100/A001.MP4", "DCIM/100/bad.mov"]
    assert passed == {("caf?.mp4", folders.BAD_NAME), ("late.mp4", folders.BAD_DATE)}


@pytest.mark.parametrize("path", ["~nouser/", "/" + "a" * 5000, "\x00", "relative/none"])
def test_a_path_that_cannot_be_is_no_folder(db, path):
    with pytest.raises(UnreadableError, match="no folder"):
        folders.scan(db, path)


def test_pipes_links_and_devices_are_never_offered_nor_opened(library, db, card, short_film):
    os.mkfifo(card / "pipe.mp4")
    (card / "link.mp4").symlink_to(short_film)
    (card / "inside.mp4").symlink_to(card / "DCIM/100/A001.MP4")
    files, passed = scanned(db, card)
    assert sorted(files) == ["DCIM/100/A001.MP4", "DCIM/100/bad.mov"]
    assert passed == set()
    with pytest.raises(UnreadableError, match="no plain file"):
        bring(library, db, card, "pipe.mp4")
    with pytest.raises(UnreadableError, match="not in this folder"):
        bring(library, db, card, "link.mp4")


@pytest.mark.parametrize("change", ["grow", "shrink"])
def test_a_file_that_is_still_written_is_never_taken_in_half(library, db, card, change):
    film = card / "DCIM/100/A001.MP4"

    def write_on(_share):
        with film.open("ab") as stream:
            if change == "grow":
                stream.write(b"more")
            else:
                stream.truncate(film.stat().st_size - 10)

    with pytest.raises(UnreadableError, match="changed while it was copied"):
        bring(library, db, card, "DCIM/100/A001.MP4", write_on)
    assert list(library.originals.iterdir()) == []
    assert listing.count(db, only=listing.Filter()) == 0


def test_of_a_full_card_the_newest_new_films_are_listed_first(library, db, tmp_path, monkeypatch):
    monkeypatch.setattr(folders, "MOST_FILES", 3)
    card = tmp_path / "full"
    card.mkdir()
    for number in range(6):
        film = card / f"{'abcdef'[number]}.mp4"
        film.write_bytes(bytes([number]))
        os.utime(film, (1_000 * number, 1_000 * number))
    for known in "fe":
        bring(library, db, card, f"{known}.mp4")
    found = folders.scan(db, str(card))
    assert [film.file for film in found.films] == [f"{name}.mp4" for name in "fedcb"]
    assert found.more
    bring(library, db, card, "d.mp4")
    assert not folders.scan(db, str(card)).more
