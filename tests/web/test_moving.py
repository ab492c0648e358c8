"""A library that goes to another disk while it is in use, in a real server."""

from __future__ import annotations

import shutil
import urllib.error
from contextlib import suppress

import pytest
from click.testing import CliRunner

from ridgewind.cli.main import main
from ridgewind.library import moving
from ridgewind.library.library import Library
from ridgewind.library.moving import MoveError
from ridgewind.library.tidying import tidy
from ridgewind.store import clips, database
from tests.e2e.conftest import Server


@pytest.fixture
def server(tmp_path):
    server = Server("serve", tmp_path / "library", tmp_path / "log")
    yield server
    server.stop()


def moved_to(server, folder) -> bool:
    with suppress(urllib.error.URLError, ConnectionError, TimeoutError):
        return server.get("/api/space")["library"] == str(folder)
    return False


def test_it_goes_on_at_its_new_place_and_is_found_by_its_old_name(server, short_film, tmp_path):
    take = server.send(short_film)
    server.wait_until(lambda: server.get("/api/takes")["takes"][0]["state"] == "done")
    old, new = tmp_path / "library", tmp_path / "other disk" / "films"
    before = server.get(f"/api/takes/{take}")
    server.put("/api/space/library", {"folder": str(new)})
    server.wait_until(lambda: moved_to(server, new))
    assert server.get(f"/api/takes/{take}") == before
    original = next((new / "originals").iterdir())
    assert original.read_bytes() == short_film.read_bytes()
    assert sorted(path.name for path in old.iterdir()) == ["lock", "moved-to"]
    server.put(f"/api/takes/{take}", {"own_name": "Here now"}, "PATCH")
    assert server.get(f"/api/takes/{take}")["take"]["name"] == "Here now"
    server.stop()
    # Back to where it was: a folder that holds nothing but the note is free.
    again = Server("serve", old, tmp_path / "log2")
    try:
        assert again.get("/api/space")["library"] == str(new)
        (old / "key").unlink()  # the test's own
        again.put("/api/space/library", {"folder": str(old)})
        again.wait_until(lambda: moved_to(again, old))
        assert again.get(f"/api/takes/{take}")["take"]["name"] == "Here now"
        assert moving.where(old) == old
    finally:
        again.stop()
    assert moving.where(new) == old


def test_a_library_whose_disk_is_away_is_said(library, tmp_path):
    new = tmp_path / "away"
    new.mkdir()
    moving.finish(library, new)
    shutil.rmtree(new)
    answer = CliRunner().invoke(main, ["serve", "--data", str(library.root), "--port", "0"])
    assert answer.exit_code == 1
    assert "was moved to" in answer.output
    assert "connect it" in answer.output


def test_what_came_and_went_while_it_was_copied_is_right_in_the_end(
    library, db, films, tmp_path, monkeypatch
):
    new = tmp_path / "new"
    ids = []
    for film in films:
        with film.open("rb") as stream:
            ids.append(library.add(db, stream, file_name=film.name, size_bytes=None).take.id)
    moving.check(library, new)
    moving.copy_films(library, new, on_bytes=lambda _count: None)
    library.forget(db, ids[0])
    (library.root / "notes.merging").mkdir()
    (library.root / "notes.merging" / "mine.txt").write_text("mine")
    tidy(library)  # a folder of the shooter's own is left alone, and goes along
    read = []
    monkeypatch.setattr(moving, "_digest", lambda path: read.append(path) or b"")
    moving.finish(library, new)
    assert not [path for path in read if path.parent.name == "originals"]
    assert (new / "notes.merging" / "mine.txt").read_text() == "mine"
    with database.opened(Library(new).database) as there:
        assert set(clips.originals(there)) == {path.name for path in (new / "originals").iterdir()}


@pytest.fixture
def films(tmp_path, short_film):
    other = tmp_path / "other.mp4"
    other.write_bytes(short_film.read_bytes() + b"\0" * 8)
    return [short_film, other]


def test_one_that_cannot_be_finished_stays(library, db, films, tmp_path, monkeypatch):
    with films[0].open("rb") as stream:
        library.add(db, stream, file_name="a.mp4", size_bytes=None)
    monkeypatch.setattr(moving.database, "back_up", lambda *_: (_ for _ in ()).throw(OSError()))
    with pytest.raises(OSError):  # noqa: PT011
        moving.finish(library, tmp_path / "new")
    assert len(list(library.originals.iterdir())) == 1
    assert moving.where(library.root) == library.root


@pytest.mark.parametrize("place", ["relative", "file", "inside", "around", "full"])
def test_folders_that_cannot_be_are_said(library, tmp_path, place):
    (tmp_path / "full").mkdir()
    (tmp_path / "full" / "letter.txt").write_text("mine")
    (tmp_path / "file").write_text("")
    folder = {
        "relative": library.root.relative_to("/"), "file": tmp_path / "file", "around": tmp_path,
        "inside": library.root / "new", "full": tmp_path / "full",
    }[place]  # fmt: skip
    with pytest.raises(MoveError):
        moving.check(library, folder)


def test_what_else_lies_beside_the_films_comes_along(library, db, tmp_path, short_film):
    with short_film.open("rb") as stream:
        library.add(db, stream, file_name="short.mp4", size_bytes=None)
    nested = library.originals / "2025" / "summer"
    nested.mkdir(parents=True)
    (nested / "old.mov").write_bytes(b"somebody's")
    (library.stills / ".hidden").write_bytes(b"too")
    (library.originals / "2025" / "link").symlink_to(nested / "old.mov")
    (library.root / "letters").mkdir()
    (library.root / "letters" / "a.txt").write_text("mine")
    db.close()
    target = tmp_path / "new"
    moving.check(library, target)
    moving.finish(library, target)
    assert (target / "originals/2025/summer/old.mov").read_bytes() == b"somebody's"
    assert (target / "originals/2025/link").is_symlink()
    assert (target / "stills/.hidden").read_bytes() == b"too"
    assert (target / "letters/a.txt").read_text() == "mine"
    assert {one.stat().st_mode & 0o777 for one in target.rglob("*.mp4")} == {0o600}
