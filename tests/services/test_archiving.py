"""A library is carried in one file and comes back as it was, or not at all."""

from __future__ import annotations

import io
import json
import random
import shutil
import zipfile
from pathlib import Path

import pytest
from click.testing import CliRunner

from ridgewind.cli.main import main
from ridgewind.jobs.measure import measure_clip
from ridgewind.library.library import Library
from ridgewind.library.tidying import tidy
from ridgewind.services.archiving import archive
from ridgewind.services.errors import ArchiveError
from ridgewind.services.restoring import restore
from ridgewind.store import archived, database, takes
from tests.services.killing import MOMENTS, killed, seconds_of

MADE_AT = "2026-05-03T12:00:00+00:00"
OLD = sorted((Path(__file__).parent / "archives").glob("*.zip"))
"""One of each version and schema that changed what an archive holds; never made anew."""


@pytest.fixture(scope="module")
def filled(tmp_path_factory, short_film):
    """A library with a measured film, a session and an outing."""
    library = Library(tmp_path_factory.mktemp("filled") / "library")
    library.prepare()
    with database.opened(library.database) as db, short_film.open("rb") as stream:
        take = library.add(db, stream, file_name="short.mp4", size_bytes=None).take
    measure_clip(library, take.clip_id)
    with database.opened(library.database) as db, database.atomic(db):
        takes.set_own_name(db, take.id, "Größe – 50 %")
        db.execute("insert into outing (name, made_at) values ('Harrow Top', '2026-05-01')")
        db.execute(
            "insert into phone (name, key_hash, paired_at, seen_at)"
            " values ('mine', 'secret', '', '')"
        )
    return library


@pytest.fixture(scope="module")
def packed(filled) -> bytes:
    return b"".join(archive(filled, films=True, made_at=MADE_AT))


def kept(library) -> dict[str, list[str]]:
    """Every archived row, as text, and every film."""
    with database.opened(library.database) as db:
        found = {
            table: sorted(json.dumps(row) for row in archived.rows_of(db, table))
            for table in archived.ARCHIVED
        }
    found["films"] = sorted(
        f"{path.name} {path.stat().st_size}" for path in library.originals.iterdir()
    )
    return found


def written(folder, content: bytes) -> Path:
    path = folder / "archive.zip"
    path.write_bytes(content)
    return path


def with_manifest(content: bytes, **changes) -> bytes:
    """The same archive with another manifest."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(content)) as old, zipfile.ZipFile(out, "w") as new:
        for info in old.infolist():
            data = old.read(info)
            if info.filename == "manifest.json":
                data = json.dumps({**json.loads(data), **changes}).encode()
            new.writestr(info, data)
    return out.getvalue()


def test_every_table_is_archived_or_left_behind_for_a_reason(db):
    assert set(archived.tables_of(db)) == set(archived.ARCHIVED) | set(archived.LEFT)


def test_it_comes_back_row_by_row_and_film_by_film(filled, packed, tmp_path):
    found = restore(written(tmp_path, packed), tmp_path / "new")
    assert (found.takes, found.films) == (1, 1)
    back = Library(tmp_path / "new")
    assert kept(back) == kept(filled)
    assert (
        back.copy_of(original(filled)).read_bytes() == filled.copy_of(original(filled)).read_bytes()
    )
    assert back.mend_if_damaged() is None
    with pytest.raises(ArchiveError, match="is not empty"):
        restore(written(tmp_path, packed), tmp_path / "new")


def original(library) -> str:
    return next(library.originals.iterdir()).stem


def test_it_is_made_of_open_parts_and_holds_nothing_of_other_machines(filled, packed):
    with zipfile.ZipFile(io.BytesIO(packed)) as opened:
        names = opened.namelist()
        assert names[-1] == "manifest.json"
        (path,) = [name for name in names if name.startswith("paths/")]
        lines = opened.read(path).decode().splitlines()
        text = b"".join(opened.read(name) for name in names if not name.startswith("films/"))
    assert lines[0] == "t_s,pan_pct,tilt_pct,roll_deg,zoom_pct,trust"
    assert len(lines) > 30
    assert "Größe – 50 %".encode() in text
    assert b"secret" not in text
    assert str(filled.root).encode() not in text


def test_without_films_it_is_small_and_still_restores(filled, tmp_path):
    small = b"".join(archive(filled, films=False, made_at=MADE_AT))
    found = restore(written(tmp_path, small), tmp_path / "new")
    assert (found.takes, found.films) == (1, 0)


def test_others_go_on_writing_and_it_is_of_one_moment(filled, tmp_path):
    pieces = archive(filled, films=True, made_at=MADE_AT)
    begun = next(pieces)
    with database.opened(filled.database) as db, database.atomic(db):
        db.execute("insert into outing (name, made_at) values ('Later', '2026-05-02')")
    content = begun + b"".join(pieces)
    with database.opened(filled.database) as db, database.atomic(db):
        db.execute("delete from outing where name = 'Later'")
    restore(written(tmp_path, content), tmp_path / "new")
    assert kept(Library(tmp_path / "new")) == kept(filled)
    assert not list(filled.incoming.iterdir())


def test_broken_off_at_any_moment_nothing_half_is_left(filled, packed, tmp_path):
    """Of the archive: its manifest comes last. Of the library: it is made beside its place."""
    for share in range(20):
        half = packed[: share * len(packed) // 20]
        with pytest.raises(ArchiveError, match="damaged, or none"):
            restore(written(tmp_path, half), tmp_path / "new")
        stop_at = share / 20

        def stop(done: float, at: float = stop_at) -> None:
            if done >= at:
                raise KeyboardInterrupt

        with pytest.raises(KeyboardInterrupt):
            restore(written(tmp_path, packed), tmp_path / "new", on_progress=stop)
        assert [path.name for path in tmp_path.iterdir()] == ["archive.zip"]
    pieces = archive(filled, films=True, made_at=MADE_AT)
    next(pieces)
    pieces.close()
    assert not list(filled.incoming.iterdir())


def test_killed_while_it_is_archived_the_file_is_whole_or_not_there(filled, tmp_path):
    told, file = kept(filled), tmp_path / "all.zip"

    def deed() -> None:
        main(["archive", str(filled.root), str(file)], standalone_mode=False)

    took_s = seconds_of(deed)
    whole = 0
    for moment in range(MOMENTS):
        file.unlink(missing_ok=True)
        killed(deed, took_s * 1.2 * moment / MOMENTS)
        if file.exists():
            whole += 1
            restore(file, tmp_path / f"new-{moment}")
            assert kept(Library(tmp_path / f"new-{moment}")) == told
        tidy(filled)
        assert not list(filled.incoming.iterdir())
    assert whole < MOMENTS
    assert kept(filled) == told


def test_killed_while_it_is_restored_the_library_is_whole_or_not_there(filled, packed, tmp_path):
    told, file, root = kept(filled), written(tmp_path, packed), tmp_path / "new"
    took_s = seconds_of(lambda: restore(file, root))
    whole = 0
    for moment in range(MOMENTS):
        shutil.rmtree(root, ignore_errors=True)
        killed(lambda: restore(file, root), took_s * 1.2 * moment / MOMENTS)
        if root.exists():
            whole += 1
        else:
            restore(file, root)  # what was left half done is in nobody's way
        assert kept(Library(root)) == told
        assert sorted(path.name for path in tmp_path.iterdir()) == ["archive.zip", "new"]
    assert whole < MOMENTS


def test_flipped_bits_are_refused_or_change_nothing(filled, packed, tmp_path):
    rng = random.Random(5)
    told, refused = kept(filled), 0
    for number in range(100):
        content = bytearray(packed)
        content[rng.randrange(len(content))] ^= 1 << rng.randrange(8)
        place = tmp_path / f"new{number}"
        try:
            restore(written(tmp_path, bytes(content)), place)
        except ArchiveError:
            refused += 1
            assert not place.exists()
        else:
            assert kept(Library(place)) == told
    assert refused > 90


@pytest.mark.parametrize(
    ("changes", "words"),
    [({"format": "other"}, "another program's"), ({"version": 9}, "by a newer Ridgewind"),
     ({"schema": ["9999_later.sql"]}, "by a newer Ridgewind"), ({"parts": 3}, "can be read"),
     ({"parts": {"tables/take.jsonl": {"bytes": 1, "sha256": ""}}}, "is not what it was"),
     ({"parts": {"tables/none.jsonl": {"bytes": 1, "sha256": ""}}}, "lacks 1 of its parts"),
     ({"parts": {"../out": {"bytes": 1, "sha256": ""}}}, "another program's"),
     ({"rows": {"take": 7}}, "take has 1 rows of 7")],
)  # fmt: skip
def test_what_cannot_be_is_refused_with_a_word(packed, tmp_path, changes, words):
    path = written(tmp_path, with_manifest(packed, **changes))
    with pytest.raises(ArchiveError, match=words):
        restore(path, tmp_path / "new")
    assert not (tmp_path / "new").exists()


@pytest.mark.parametrize("path", OLD, ids=lambda path: path.stem)
def test_archives_of_earlier_versions_restore(path, tmp_path):
    found = restore(path, tmp_path / "new")
    assert found.takes >= 1
    assert not database.missing(tmp_path / "new" / "library.db")


def test_by_the_command(filled, tmp_path):
    run = CliRunner().invoke
    file = tmp_path / "all.zip"
    done = run(main, ["archive", str(filled.root), str(file)])
    assert done.exit_code == 0, done.output
    assert "MB, 1 originals" in done.output
    back = run(main, ["restore", str(file), str(tmp_path / "new")])
    assert back.output == f"{tmp_path / 'new'}: 1 takes, 1 films\n"
    again = run(main, ["restore", str(file), str(tmp_path / "new")])
    assert "came: nothing" in again.output
    (tmp_path / "used").mkdir()
    (tmp_path / "used" / "letter.txt").write_text("mine")
    refused = run(main, ["restore", str(file), str(tmp_path / "used")])
    assert refused.exit_code == 1
    assert "is not empty" in refused.output
    nothing = run(main, ["archive", str(tmp_path), str(file)])
    assert "holds no library" in nothing.output
