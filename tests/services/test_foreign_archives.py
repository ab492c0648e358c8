"""An archive that a stranger made, or that was made of a library with faults: nothing outside the
library is touched, and nothing is silently fewer."""

from __future__ import annotations

import hashlib
import io
import json
import stat
import zipfile
from pathlib import Path

import numpy as np
import pytest
from click.testing import CliRunner

from ridgewind.cli.main import main
from ridgewind.library.library import Library
from ridgewind.library.tidying import FOUND, tidy
from ridgewind.media.whole import own_only
from ridgewind.services import logs
from ridgewind.services.archiving import Report, archive
from ridgewind.services.errors import ArchiveError
from ridgewind.services.merging import merge
from ridgewind.services.restoring import restore
from ridgewind.store import clips, database, takes
from ridgewind.store.names import UnsafeNameError
from tests.services.killing import killed

MADE_AT = "2026-05-03T12:00:00+00:00"
LONG_AGO = "2020-01-01T00:00:00.000Z"


def log_file(folder: Path, name: str, seed: int = 1) -> Path:
    """A motion log of eight seconds."""
    rng = np.random.default_rng(seed)
    t_s = np.arange(0.0, 8.0, 0.01)
    rates = rng.normal(0, 2.0, (len(t_s), 3))
    path = folder / name
    np.savetxt(
        path, np.column_stack([t_s, rates]), fmt="%.5f", delimiter=",", comments="",
        header="time_s,gyro_x_deg_s,gyro_y_deg_s,gyro_z_deg_s",
    )  # fmt: skip
    return path


def add_log(library, db, log, **told) -> int:
    mapping = logs.preview(library, db, log, mapping=None, focal_eq_mm=26.0).mapping
    return logs.add_alone(library, db, log, name=log.stem, mapping=mapping, **told)


def bring(library, db, content: bytes, name="a.mp4") -> int:
    return library.add(db, io.BytesIO(content), file_name=name, size_bytes=None).take.id


@pytest.fixture
def filled(library, db, tmp_path) -> Library:
    """Two films, one of them put aside, and two logs."""
    bring(library, db, b"one film")
    rejected = takes.by_id(db, bring(library, db, b"another film"))
    with database.atomic(db):
        takes.set_choice(db, rejected.id, "reject")
    add_log(library, db, log_file(tmp_path, "walk.csv"))
    add_log(library, db, log_file(tmp_path, "stand.csv", 2))
    library.clear(db)
    assert len(contents(library)) == 4
    return library


def contents(library) -> dict[str, bytes]:
    """Every file of the folders, by its name."""
    folders = (library.originals, library.cleared)
    return {path.name: path.read_bytes() for one in folders for path in one.iterdir()}


def made(library, folder: Path, name="all.zip") -> tuple[Path, Report]:
    reports: list[Report] = []
    path = folder / name
    path.write_bytes(b"".join(archive(library, films=True, made_at=MADE_AT,
                                      on_report=reports.append)))  # fmt: skip
    return path, reports[0]


def rewritten(path: Path, change) -> Path:
    """The archive with other parts: change(name, content) gives each anew, None to leave it out."""
    out, parts = io.BytesIO(), {}
    with zipfile.ZipFile(path) as old, zipfile.ZipFile(out, "w") as new:
        for info in old.infolist():
            if info.filename == "manifest.json":
                manifest = json.loads(old.read(info))
                continue
            name, content = change(info.filename, old.read(info))
            new.writestr(name, content)
            digest = hashlib.sha256(content).hexdigest()
            parts[name] = {"sha256": digest, "bytes": len(content)}
        new.writestr("manifest.json", json.dumps({**manifest, "parts": parts}))
    foreign = path.with_name("foreign.zip")
    foreign.write_bytes(out.getvalue())
    return foreign


def with_rows(path: Path, table: str, **values) -> Path:
    def change(name, content):
        if name != f"tables/{table}.jsonl":
            return name, content
        rows = [json.loads(line) | values for line in content.splitlines()[:1]]
        rows += [json.loads(line) for line in content.splitlines()[1:]]
        return name, "".join(json.dumps(row) + "\n" for row in rows).encode()

    return rewritten(path, change)


@pytest.mark.parametrize("into", ["an empty folder", "a library"])
def test_no_row_of_a_foreign_archive_leads_out_of_the_library(filled, tmp_path, into):
    victim = tmp_path / "victim.txt"
    victim.write_text("mine")
    path, _ = made(filled, tmp_path)
    good = "f" * 64
    for values in (
        {"file": "../../victim.txt", "cleared_at": LONG_AGO}, {"sha256": "../../victim"},
        {"file": f"{good}.mp4"}, {"file": f"{good}/../../../victim.txt"}, {"sha256": 3},
        {"file": str(victim)}, {"sha256": "../../victim", "file": "../../victim.txt"},
    ):  # fmt: skip
        foreign = with_rows(path, "clip", **values)
        with pytest.raises(ArchiveError, match="damaged"):
            bring_in(foreign, tmp_path, into)
        assert not (tmp_path / "new").exists()
    assert victim.read_text() == "mine"
    for ask in (
        filled.original, filled.places_of, filled.copy_of, filled.still_of, filled.aside,
        filled.film, filled.is_away,
    ):  # fmt: skip
        with pytest.raises(UnsafeNameError):
            ask("../../victim.txt")


def bring_in(path: Path, folder: Path, into: str) -> None:
    if into == "a library":
        merge(path, Library(folder / "other"), choose=lambda found: ["theirs"] * len(found))
    else:
        restore(path, folder / "new")


def test_a_film_that_is_another_than_its_name_says_is_refused_by_name(filled, tmp_path):
    path, _ = made(filled, tmp_path)
    (first, *_) = [name for name in zipfile.ZipFile(path).namelist() if name.startswith("films/")]
    foreign = rewritten(path, lambda name, content: (name, b"x" if name == first else content))
    with pytest.raises(ArchiveError, match=f"{first} holds another film"):
        restore(foreign, tmp_path / "new")


def test_every_original_goes_and_comes_back(filled, tmp_path):
    """The folders are asked, not the store: films, logs, and what is put aside."""
    (filled.originals / f"{'e' * 64}.mov").write_bytes(b"unknown yet")
    (filled.originals / "2025").mkdir()
    (filled.originals / "2025" / "old.mov").write_bytes(b"somebody's")
    told = contents_but(filled, "2025")
    path, report = made(filled, tmp_path)
    assert (report.files, report.strays, report.missing) == (5, ("originals/2025",), ())
    with zipfile.ZipFile(path) as opened:
        inside = {
            name.partition("/")[2]: opened.read(name)
            for name in opened.namelist()
            if name.startswith("films/")
        }
    assert inside == told
    restore(path, tmp_path / "new")
    back = Library(tmp_path / "new")
    assert contents(back) == told
    tidy(back)
    assert contents(back) == told
    assert len(list(back.cleared.iterdir())) == 1
    other = Library(tmp_path / "other")
    other.prepare()
    merge(path, other, choose=lambda found: ["ours"] * len(found))
    assert contents(other) == told


def contents_but(library, folder: str) -> dict[str, bytes]:
    return {
        path.name: path.read_bytes()
        for one in (library.originals, library.cleared)
        for path in one.iterdir()
        if path.name != folder
    }


def test_what_is_missing_or_changed_is_named_and_counted(filled, tmp_path):
    gone, changed = sorted(filled.originals.iterdir())[:2]
    gone.unlink()
    changed.write_bytes(b"not what it was")
    (filled.uploads / "k.json").write_text('{"name": "big.mp4", "size_bytes": 9}')
    path, report = made(filled, tmp_path)
    assert ([one.file for one in report.missing], [one.file for one in report.changed]) == (
        [gone.name], [changed.name],
    )  # fmt: skip
    assert (report.whole, report.uploads, report.files) == (False, 1, 3)
    found = restore(path, tmp_path / "new")  # as it was, and not silently
    assert (found.missing, found.changed) == ((gone.name,), (changed.name,))
    done = CliRunner().invoke(main, ["archive", str(filled.root), str(tmp_path / "cli.zip")])
    assert done.exit_code == 3
    assert f"missing: {take_name(filled, gone.name)} ({gone.name})" in done.output
    assert f"({changed.name}); it is in the archive as it is now" in done.output
    assert "still arriving: 1 films" in done.output


def take_name(library, file: str) -> str:
    with database.opened(library.database) as db:
        return clips.take_names(db)[file]


def test_two_archives_of_one_second_do_not_meet(filled, tmp_path):
    whole, _ = made(filled, tmp_path)
    one, other = (archive(filled, films=True, made_at=MADE_AT) for _ in range(2))
    parts = [next(one), next(other)]
    one_rest, other_rest = b"".join(one), b"".join(other)
    assert len(parts[0] + one_rest) == len(parts[1] + other_rest) == whole.stat().st_size
    assert not list(filled.incoming.iterdir())


def test_what_killed_archives_leave_is_swept_at_the_next(filled, tmp_path):
    for after_s in (0.0, 0.05, 0.2, 0.4):
        killed(
            lambda: main(["archive", str(filled.root), str(tmp_path / "a.zip")],
                         standalone_mode=False),
            after_s,
        )  # fmt: skip
    (tmp_path / ".b.zip.999999999.part").write_bytes(b"half")
    (tmp_path / ".mine.zip.part").write_bytes(b"somebody else's")
    (filled.incoming / "archive-999999999-aa.db").write_bytes(b"half")
    done = CliRunner().invoke(main, ["archive", str(filled.root), str(tmp_path / "c.zip")])
    assert done.exit_code == 0, done.output
    assert [path.name for path in tmp_path.glob(".*.part")] == [".mine.zip.part"]
    assert not list(filled.incoming.iterdir())
    assert mode(tmp_path / "c.zip") == 0o600


def mode(path: Path) -> int:
    return stat.S_IMODE(path.stat().st_mode)


def test_what_is_written_is_its_owners_alone(filled, tmp_path):
    path, _ = made(filled, tmp_path)
    restore(path, tmp_path / "new")
    back = Library(tmp_path / "new")
    assert mode(back.root) == 0o700
    assert {mode(one) for one in back.originals.iterdir()} == {0o600}
    with open(tmp_path / "mine", "wb", opener=own_only):
        assert mode(tmp_path / "mine") == 0o600


def test_after_a_repair_logs_are_logs_again(filled, db):
    """The store has forgotten what was taken in since its last copy; the folders have not."""
    known = {row["file"]: row["codec"] for row in db.execute("select file, codec from clip")}
    with database.atomic(db):
        for take in [takes.by_id(db, number) for number in (1, 2, 3, 4)]:
            takes.remove(db, take.id)
            clips.remove(db, take.clip_id)
    assert tidy(filled) == 4
    again = {row["file"]: row["codec"] for row in db.execute("select file, codec from clip")}
    assert again == known
    states = dict(db.execute("select codec, max(name) from clip join take on clip_id = clip.id"
                             " group by codec").fetchall())  # fmt: skip
    assert states[clips.LOG_CODEC].startswith(FOUND)
    waiting = db.execute("select count(*) as n from job where state = 'queued'").fetchone()["n"]
    assert waiting == 2  # the films alone


def test_another_stretch_of_a_log_is_another_take(library, db, tmp_path):
    log = log_file(tmp_path, "long.csv")
    one = add_log(library, db, log, stretch=(1.0, 3.0))
    other = add_log(library, db, log, stretch=(4.0, 7.0))
    again = add_log(library, db, log, stretch=(1.0, 3.0))
    assert (one == again, one != other) == (True, True)
    lengths = [takes.by_id(db, number).duration_s for number in (one, other)]
    assert lengths == pytest.approx([2.0, 3.0], abs=0.02)
    kept = library.original(clips.by_id(db, takes.by_id(db, other).clip_id).file)
    lines = log.read_text().splitlines()
    assert kept.read_text().splitlines() == [lines[0], *lines[401:702]]
    assert not list(library.incoming.iterdir())


def test_a_rejected_film_that_still_waits_is_measured_from_where_it_is(
    library, db, short_film, tmp_path
):
    from ridgewind.jobs.measure import measure_clip

    with short_film.open("rb") as stream:
        take = library.add(db, stream, file_name="short.mp4", size_bytes=None).take
    with database.atomic(db):
        takes.set_choice(db, take.id, "reject")
    library.clear(db)
    measure_clip(library, take.clip_id)
    assert takes.by_id(db, take.id).state == "done"


def test_a_library_is_found_from_any_folder(tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    library = Library(Path("shelf"))
    library.prepare()
    monkeypatch.chdir("/")
    assert library.still_of("a" * 64).is_absolute()
    assert library.database.is_file()


def test_a_log_of_one_line_is_refused_at_once(library, db, tmp_path):
    log = tmp_path / "line.csv"
    log.write_text("1.0," * 5_000_000)
    with pytest.raises(logs.LogError, match="does not hold time"):
        logs.preview(library, db, log, mapping=None, focal_eq_mm=26.0)
