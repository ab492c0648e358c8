"""A library carried away by the browser, and what is told of its copies."""

from __future__ import annotations

import io
import zipfile
from datetime import UTC, datetime

from ridgewind.library import snapshots
from ridgewind.library.library import Library
from ridgewind.services.archiving import archive
from ridgewind.services.merging import merge
from ridgewind.services.restoring import restore
from ridgewind.store import database, settings
from ridgewind.store.settings import MendedNote
from ridgewind.web import server
from tests.web.conftest import HERE, bring_in, measure


def test_the_archive_that_is_sent_restores(client, library, measured, tmp_path):
    reply = client.get("/api/archive.zip?films=true", headers=HERE)
    assert reply.mimetype == "application/zip"
    assert "ridgewind-" in reply.headers["Content-Disposition"]
    file = tmp_path / "sent.zip"
    file.write_bytes(reply.data)
    assert restore(file, tmp_path / "new").films == 1
    with database.opened(Library(tmp_path / "new").database) as db:
        assert db.execute("select count(*) as n from measurement").fetchone()["n"] == 1
    small = client.get("/api/archive.zip?films=false", headers=HERE).data
    names = zipfile.ZipFile(io.BytesIO(small)).namelist()
    assert not [name for name in names if name.startswith("films/")]


def test_one_that_is_broken_off_leaves_nothing(client, library, measured):
    reply = client.get("/api/archive.zip", headers=HERE)
    next(reply.iter_encoded())
    reply.close()
    assert not list(library.incoming.iterdir())


def test_copies_are_told(client, library):
    assert client.get("/api/kept", headers=HERE).json["copies"] == []
    snapshots.keep(library.database, library.snapshots, now=datetime(2026, 5, 3, 12, tzinfo=UTC))
    told = client.get("/api/kept", headers=HERE).json
    assert (told["copies"], told["films_bytes"]) == (["2026-05-03T12:00:00.000Z"], 0)
    assert (told["merged"], told["archived"]) == (None, None)


def test_what_was_mended_is_told_until_it_is_read(client, library):
    note = MendedNote("2026-05-03T12:00:00.000Z", 2, "damaged.db")
    with database.opened(library.database) as db, database.atomic(db):
        settings.set_mended(db, note)
    assert client.get("/api/status", headers=HERE).json["mended"]["films"] == 2
    assert client.delete("/api/mended", headers=HERE).status_code == 204
    assert client.get("/api/status", headers=HERE).json["mended"] is None


def test_where_the_space_goes_and_what_is_freed(client, library, measured):
    (library.sequences / "part-abc.mp4").write_bytes(b"x" * 5000)
    (library.sequences / "1.mp4").write_bytes(b"y" * 700)
    (library.previews / "move.mp4").write_bytes(b"z" * 300)
    told = client.get("/api/space", headers=HERE).json
    kinds = {one["key"]: one for one in told["kinds"]}
    (film,) = library.originals.iterdir()
    assert kinds["films"]["bytes"] == film.stat().st_size
    assert kinds["renders"]["bytes"] == 700
    assert (kinds["parts"]["bytes"], kinds["parts"]["files"]) == (5300, 2)
    assert [one["key"] for one in told["kinds"] if one["made"]] == ["parts"]
    assert kinds["database"]["bytes"] > 0
    (month,) = told["months"]
    assert month["bytes"] == film.stat().st_size
    assert 0 < told["free_bytes"] < told["total_bytes"]
    after = client.post("/api/space/free", headers=HERE).json
    assert {one["key"]: one["bytes"] for one in after["kinds"]}["parts"] == 0
    assert (library.sequences / "1.mp4").exists()
    assert film.exists()


def test_a_large_database_that_cannot_be_opened_is_mended_all_the_same(library, monkeypatch):
    monkeypatch.setattr("ridgewind.library.library.QUICKLY_CHECKED_BYTES", 0)
    snapshots.keep(library.database, library.snapshots, now=datetime(2026, 5, 3, 12, tzinfo=UTC))
    library.database.write_bytes(b"no library" * 2000)
    told = []
    server._put_in_order(library, server.Start(library.root, 0, announce=told.append))
    assert "2026-05-03" in told[0]
    with database.opened(library.database) as db:
        assert settings.mended(db).copied_at == "2026-05-03T12:00:00.000Z"


def test_an_archive_that_was_brought_in_is_told_and_taken_back(client, library, measured, tmp_path):
    other = Library(tmp_path / "other")
    other.prepare()
    with database.opened(other.database) as db, database.atomic(db):
        db.execute("insert into outing (name, made_at) values ('From the laptop', '2026-05-01')")
    file = tmp_path / "laptop.zip"
    file.write_bytes(b"".join(archive(other, films=True, made_at="2026-05-02T00:00:00+00:00")))
    assert client.get("/api/kept", headers=HERE).json["merged"] is None
    merge(file, library, choose=lambda found: ["ours"] * len(found))
    assert client.get("/api/kept", headers=HERE).json["merged"]["source"] == "laptop.zip"
    assert "From the laptop" in client.get("/api/outings", headers=HERE).text
    assert client.delete("/api/kept/merged", headers=HERE).json == {"went": 1, "stays": 0}
    assert client.get("/api/outings", headers=HERE).json["outings"] == []
    assert client.delete("/api/kept/merged", headers=HERE).status_code == 404


def test_what_an_archive_lacks_is_told_before_and_after(client, library, measured):
    bring_in(client, other_film(library))
    gone, changed = sorted(library.originals.iterdir())
    gone.unlink()
    changed.write_bytes(b"not what it was")
    (library.originals / "notes.txt").write_text("mine")
    told = client.get("/api/kept", headers=HERE).json
    assert (len(told["archive"]["missing"]), told["archive"]["changed"]) == (1, None)
    assert (told["archive"]["files"], told["archive"]["strays"]) == (1, ["originals/notes.txt"])
    assert client.get("/api/archive.zip", headers=HERE).data
    after = client.get("/api/kept", headers=HERE).json["archived"]
    assert (len(after["missing"]), len(after["changed"]), after["files"]) == (1, 1, 1)
    assert after["made_at"]


def other_film(library):
    path = library.root.parent / "other.mp4"
    path.write_bytes(b"another film")
    return path


def test_a_copy_that_was_deleted_is_made_again(client, library, measured):
    (copy,) = library.copies.iterdir()
    content = copy.read_bytes()
    copy.unlink()
    reply = client.get(f"/api/takes/{measured}/film", headers=HERE)
    assert (reply.status_code, "made again" in reply.json["error"]["message"]) == (404, True)
    again = client.get(f"/api/takes/{measured}/film", headers=HERE)
    assert "made again" not in again.json["error"]["message"]  # it is on its way
    measure(library, measured)
    with client.get(f"/api/takes/{measured}/film", headers=HERE) as played:
        assert played.data == content
