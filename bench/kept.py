"""A library of 5,000 takes: started, archived, restored and merged, and compared row by row and
film by film: `python bench/kept.py`. Paths are one of the demo's, measured; films are small files
that differ."""

from __future__ import annotations

import hashlib
import json
import os
import resource
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.request
from pathlib import Path

from ridgewind.jobs.measure import measure_clip
from ridgewind.library.library import Library
from ridgewind.services.archiving import archive
from ridgewind.services.merging import merge
from ridgewind.services.restoring import restore
from ridgewind.store import archived, database

CLIP = Path(__file__).parent.parent / "ridgewind/demo/clips/sails-one-hand-tired.mp4"
TAKES, ROUNDS = 5000, 5
PROGRAM = Path(sys.executable).with_name("ridgewind")


def main() -> None:
    with tempfile.TemporaryDirectory() as told:
        folder = Path(told)
        library = Library(folder / "library")
        took("filled", lambda: fill(library))
        with database.opened(library.database) as db:
            size = db.execute("select sum(length(path)) as n from measurement").fetchone()["n"]
        print(f"database {library.database.stat().st_size / 1e6:.0f} MB, paths {size / 1e6:.0f} MB")
        bare = Library(folder / "bare")
        bare.prepare()
        for words, one in (("with these", library), ("with none", bare)):
            started(one)  # what is imported is compiled once
            starts = [started(one) for _ in range(ROUNDS)]
            page_s, list_s = (statistics.median(part) for part in zip(*starts, strict=True))
            print(f"start {words}: first page {page_s:.2f} s, its list {list_s:.2f} s")
        file = folder / "all.zip"
        took("archived", lambda: write(library, file))
        print(f"archive {file.stat().st_size / 1e6:.0f} MB")
        took("restored", lambda: restore(file, folder / "back"))
        back = Library(folder / "back")
        assert told_rows(back) == told_rows(library)
        print("equal row by row and film by film")
        took("merged into itself", lambda: merge(file, back, choose=never))
        assert told_rows(back) == told_rows(library)
        empty = Library(folder / "empty")
        empty.prepare()
        came = took("merged into an empty one", lambda: merge(file, empty, choose=never))
        assert came.came["take"] == TAKES
    most = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    print(f"memory at most {most / 1e3:.0f} MB")


def fill(library: Library) -> None:
    library.prepare()
    with database.opened(library.database) as db:
        with CLIP.open("rb") as stream:
            take = library.add(db, stream, file_name=CLIP.name, size_bytes=None).take
        measure_clip(library, take.clip_id)
        with database.atomic(db):
            for number in range(1, TAKES):
                content = f"film {number} ".encode() * 200
                sha256 = hashlib.sha256(content).hexdigest()
                (library.originals / f"{sha256}.mp4").write_bytes(content)
                again(db, "clip", {"sha256": sha256, "file": f"{sha256}.mp4"}, "id = 1")
                clip_id = db.execute("select max(id) as id from clip").fetchone()["id"]
                again(db, "measurement", {"clip_id": clip_id}, "clip_id = 1")
                again(db, "job", {"subject_id": clip_id}, "subject_id = 1")
                again(db, "take", {"clip_id": clip_id, "file_name": f"T{number}"}, "id = 1")
                take_id = db.execute("select max(id) as id from take").fetchone()["id"]
                again(db, "summary", {"take_id": take_id}, "take_id = 1")


def again(db, table: str, other: dict, where: str) -> None:
    """One more row like another."""
    names = [name for name in archived.columns_of(db, table) if name != "id"]
    values = ", ".join("?" if name in other else name for name in names)
    given = [other[name] for name in names if name in other]
    db.execute(
        f"insert into {table} ({', '.join(names)}) select {values} from {table} where {where}",
        given,
    )


def started(library: Library) -> tuple[float, float]:
    """Seconds from the command to the first page, and to its list of takes."""
    log = library.root / "log"
    log.write_text("")
    key, begun_s = library.key(), time.perf_counter()
    server = subprocess.Popen(
        [PROGRAM, "serve", "--data", library.root, "--port", "0"],
        stdout=log.open("w"), env=environment(),
    )  # fmt: skip
    try:
        while "/?key" not in log.read_text():
            time.sleep(0.01)
        address = log.read_text().split("Ridgewind is at ")[1].split("/?key")[0]
        after_s = []
        for path in ("/", "/api/takes"):
            request = urllib.request.Request(
                address + path, headers={"Authorization": f"Bearer {key}"}
            )
            with urllib.request.urlopen(request, timeout=60) as reply:
                reply.read()
            after_s.append(time.perf_counter() - begun_s)
        return after_s[0], after_s[1]
    finally:
        server.terminate()
        server.wait(30)


def environment() -> dict[str, str]:
    """As on a shooter's own machine, where what was compiled once is kept."""
    kept = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    return kept | {"PYTHONUNBUFFERED": "1"}


def write(library: Library, file: Path) -> None:
    with file.open("wb") as target:
        for piece in archive(library, films=True, made_at="2026-05-01T00:00:00+00:00"):
            target.write(piece)


def told_rows(library: Library) -> dict[str, str]:
    """A digest of each table, row by row, and of every film."""
    found = {}
    with database.opened(library.database) as db:
        for table in archived.ARCHIVED:
            rows = sorted(json.dumps(row) for row in archived.rows_of(db, table))
            found[table] = hashlib.sha256("\n".join(rows).encode()).hexdigest()
    for path in sorted(library.originals.iterdir()):
        found[path.name] = hashlib.sha256(path.read_bytes()).hexdigest()
    return found


def never(found):
    raise AssertionError(f"nothing differs, but this was asked: {found[:3]}")


def took(words: str, deed):
    begun_s = time.perf_counter()
    made = deed()
    print(f"{words}: {time.perf_counter() - begun_s:.1f} s")
    return made


if __name__ == "__main__":
    main()
