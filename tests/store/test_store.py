"""The store: migrations, whole writes, paging, and jobs that never run twice."""

from __future__ import annotations

from contextlib import contextmanager, suppress
from dataclasses import replace

import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.motion import Motion, Shot
from ridgewind.core.motion.path import RivalPath
from ridgewind.store import briefs, clips, database, jobs, listing, renders, summaries, takes
from ridgewind.store.errors import NewerSchemaError, NoRoomError, NotFoundError
from tests.conftest import make_motion, sine

RECIPE = (
    '{"kind": "keep", "start_s": 0.0, "end_s": 1.0, "rate": 1.0, "step": 1, "corner_hz": null,'
    ' "crop_pct": 0.0, "drift": null, "gust": 4.0, "peak": 5.0}'
)

DIGEST = "a" * 64


@contextmanager
def library_before(migration: str, folder):
    """A store as it was before a migration."""
    with database.opened(folder / "old.db") as db:
        db.execute("create table migration (name text primary key, applied_at text not null)")
        for name, sql in database.migrations():
            if name < migration:
                db.executescript(sql)
                db.execute("insert into migration values (?, 'then')", (name,))
        yield db


def add_take(db, number: int, **brief) -> int:
    clip_id = clips.add(db, sha256=f"{number:064x}", file=f"{number:064x}.mp4", size_bytes=10)
    brief_id = briefs.add(db, replace(usual_brief(), **brief), name=None)
    return takes.add(db, clip_id=clip_id, name=f"Take {number}", brief_id=brief_id, setup_id=None)


def summary(db, take_id, gust, remedy="keep"):
    summaries.put(
        db,
        take_id,
        gust=gust,
        peak_gust=gust,
        remedy=remedy,
        ridge=b"x",
        speed_pct_s=1.0,
        top_band="step",
        cause="footfalls",
        trusted_share=1.0,
        figures={},
        lasting=None,
        turning=None,
        staleness=0,
    )


def old_brief(db):
    """A brief as it was before it could have an example."""
    fields = tuple(field for field in briefs.FIELDS if field != "likeness")
    cursor = db.execute(
        f"insert into brief ({', '.join(fields)}) values ({', '.join('?' for _ in fields)})",
        tuple(getattr(usual_brief(), field) for field in fields),
    )
    return cursor.lastrowid


def listed(db, *, sort="imported", descending=False, **only):
    rows = listing.page(
        db, only=listing.Filter(**only), sort=sort, descending=descending, offset=0, limit=200
    )
    return [row.name for row in rows]


def test_migrations_apply_once_and_are_recorded(tmp_path):
    with database.opened(tmp_path / "a.db") as db:
        assert database.migrate(db) == [name for name, _ in database.migrations()]
        assert database.migrate(db) == []


def test_a_library_from_before_briefs_keeps_every_take(tmp_path):
    with library_before("0002", tmp_path) as db:
        db.execute(
            "insert into clip (id, sha256, file, size_bytes) values (7, ?, ?, 1)",
            (DIGEST, f"{DIGEST}.mp4"),
        )
        db.execute(
            "insert into take (clip_id, name, imported_at, feel, own_target, screen, delivery_fps,"
            " wanted_s, focal_eq_mm, keep_sound)"
            " values (7, 'Old', '2026-01-01', 'raw', 7.5, 'phone', 25, 3, 35, 1)"
        )
        assert database.migrate(db)[0] == "0002_brief_and_kit.sql"
        take = takes.by_id(db, 1)
    assert (take.brief.feel, take.brief.own_target, take.brief.screen) == ("raw", 7.5, "phone")
    assert (take.brief.delivery_fps, take.brief.wanted_s, take.brief.keep_sound) == (25, 3, True)
    assert (take.focal_eq_mm, take.brief_name, take.setup_id) == (35, None, None)


def test_a_library_from_before_films_of_several_takes_keeps_all_that_points_at_them(tmp_path):
    with library_before("0005", tmp_path) as db:
        db.execute(
            "insert into clip (id, sha256, file, size_bytes, slate_session, slate_take,"
            " slate_until_s) values (7, ?, ?, 1, 1, 0, 1.4)",
            (DIGEST, f"{DIGEST}.mp4"),
        )
        brief_id = old_brief(db)
        db.execute(
            "insert into take (id, clip_id, name, imported_at, brief_id, from_s, to_s)"
            " values (3, 7, 'Old', '2026-01-01', ?, 6.4, 12)",
            (brief_id,),
        )
        db.execute(
            "insert into summary (take_id, gust, remedy, ridge) values (3, 2.5, 'keep', x'')"
        )
        db.execute("insert into session values (1, 'S', 'then', '{}', '{}', null, null, null)")
        db.execute(
            "insert into session_take (session_id, position, block, drill_key, variation_key,"
            " state, take_id) values (1, 0, 0, 'pan', 'a', 'filmed', 3)"
        )
        assert database.migrate(db)[0] == "0005_films_of_several_takes.sql"
        take = takes.by_id(db, 3)
        assert (take.slate_session, take.slate_take, take.slate_until_s) == (1, 0, 1.4)
        assert (take.judged_part, take.film_part, take.gust) == ((6.4, 12), None, 2.5)
        assert db.execute("select take_id from session_take").fetchone()[0] == 3
        second = takes.add(db, clip_id=7, name="Part 2", brief_id=brief_id, setup_id=None)
        assert [one.id for one in takes.of_clip(db, 7)] == [3, second]
        with pytest.raises(database.sqlite3.IntegrityError, match="points at"):
            db.execute("delete from take where id = 3")


def test_a_library_from_before_one_table_of_work_loses_no_job(tmp_path):
    with library_before("0010", tmp_path) as db:
        brief_id = old_brief(db)
        for clip_id, state in enumerate(("done", "queued", "running", "failed"), start=11):
            db.execute(
                "insert into clip (id, sha256, file, size_bytes) values (?, ?, ?, 1)",
                (clip_id, f"{clip_id:064d}", f"{clip_id:064d}.mp4"),
            )
            db.execute(
                "insert into take (id, clip_id, name, imported_at, brief_id)"
                " values (?, ?, 'Take', 'then', ?)", (clip_id - 10, clip_id, brief_id),
            )  # fmt: skip
            db.execute(
                "insert into job (clip_id, state, attempts, error_what) values (?, ?, 1, ?)",
                (clip_id, state, "why" if state == "failed" else None),
            )
            db.execute(
                "insert into render (id, take_id, purpose, recipe, made_at, state, attempts,"
                " gust) values (?, ?, 'preview', ?, 'then', ?, 1, 4.2)",
                (clip_id + 10, clip_id - 10, RECIPE, state),
            )
        assert database.migrate(db)[0] == "0010_one_table_of_work.sql"
        assert [takes.by_id(db, k).state for k in (1, 2, 3, 4)] == [
            "done", "queued", "running", "failed",
        ]  # fmt: skip
        assert takes.by_id(db, 4).error_what == "why"
        for kind, first in (("measure", 11), ("render", 21)):
            assert jobs.waiting(db, kind) == [first + 1]
            assert jobs.interrupted(db, kind) == [first + 2]
            assert jobs.one(db, kind, first + 2).attempts == 1
        film = renders.by_id(db, 21)
        assert (film.take_id, film.state, film.gust, film.recipe.kind) == (1, "done", 4.2, "keep")
        takes.remove(db, 1)
        assert jobs.one(db, "render", 21) is None


def test_a_migration_that_breaks_a_reference_leaves_nothing(tmp_path, monkeypatch):
    with database.opened(tmp_path / "a.db") as db:
        database.migrate(db)
        stray = "insert into summary (take_id, ridge) values (99, x'00');"
        known = [*database.migrations(), ("9000_bad.sql", stray)]
        monkeypatch.setattr(database, "migrations", lambda: known)
        with pytest.raises(database.sqlite3.IntegrityError, match="leaves 1 broken"):
            database.migrate(db)
        assert db.execute("select count(*) from summary").fetchone()[0] == 0
        assert db.execute("pragma foreign_keys").fetchone()[0] == 1


def test_a_newer_library_is_refused_untouched(tmp_path):
    with database.opened(tmp_path / "a.db") as db:
        database.migrate(db)
        db.execute("insert into migration values ('9999_future.sql', 'now')")
        with pytest.raises(NewerSchemaError, match="written by a newer Ridgewind"):
            database.migrate(db)


def test_writes_are_whole_or_nothing(db):
    def fail_after(number):
        with database.atomic(db):
            add_take(db, number)
            raise RuntimeError("midway")

    with pytest.raises(RuntimeError, match="midway"):
        fail_after(1)
    assert listed(db) == []
    with database.atomic(db):
        add_take(db, 1)
        with pytest.raises(RuntimeError, match="midway"):
            fail_after(2)
    assert listed(db) == ["Take 1"]


def test_foreign_keys_hold(db):
    with pytest.raises(database.sqlite3.IntegrityError, match="points at"):
        takes.add(db, clip_id=99, name="stray", brief_id=1, setup_id=None)


def test_the_list_sorts_filters_and_pages(db):
    for number, (gust, remedy) in enumerate([(5.0, "slow"), (None, None), (1.0, "keep")]):
        take_id = add_take(db, number, feel="alive" if number == 0 else "smooth")
        if remedy:
            summary(db, take_id, gust, remedy)
    assert listed(db, sort="gust") == ["Take 2", "Take 0", "Take 1"]
    assert listed(db, sort="gust", descending=True) == ["Take 0", "Take 2", "Take 1"]
    assert listed(db, remedy="slow") == ["Take 0"]
    assert listed(db, remedy="none") == ["Take 1"]
    assert listed(db, feel="alive") == ["Take 0"]
    assert listed(db, text="take 2") == ["Take 2"]
    assert listed(db, text="%") == []
    assert listing.count(db, only=listing.Filter(feel="smooth")) == 2
    page = listing.page(db, only=listing.Filter(), sort="name", descending=False, offset=1, limit=1)
    assert [row.name for row in page] == ["Take 1"]


def test_deleted_takes_are_hidden_and_come_back(db):
    first, second = add_take(db, 1), add_take(db, 2)
    takes.set_deleted(db, first, deleted=True)
    assert listed(db) == ["Take 2"]
    assert takes.neighbours(db, second) == (None, None)
    assert takes.deleted_before(db, days=7) == []
    takes.set_deleted(db, first, deleted=False)
    assert takes.neighbours(db, second) == (first, None)


def test_missing_rows_are_named(db):
    with pytest.raises(NotFoundError, match="there is no take 5"):
        takes.by_id(db, 5)
    with pytest.raises(NotFoundError, match="there is no clip 5"):
        clips.by_id(db, 5)
    with pytest.raises(NotFoundError):
        takes.set_own_brief(db, 5, usual_brief())


def test_a_path_survives_storage_exactly():
    motion = make_motion(rate_hz=30, seconds=2, pan=sine(1, 2))
    pan = motion.pan_pct.copy()
    pan[5] = np.nan
    kept = Motion(
        motion.t_s, pan, motion.tilt_pct, motion.roll_deg, motion.zoom_pct, motion.trust,
        motion.error, 0.5625, (Shot(0, 30, None), Shot(30, 60, "dark")),
    )  # fmt: skip
    back = clips.unpack(clips.pack(kept))
    assert np.array_equal(back.pan_pct, pan, equal_nan=True)
    assert back.shots == kept.shots
    assert back.aspect == 0.5625


def test_a_shots_rivals_survive_storage_exactly():
    motion = make_motion(rate_hz=30, seconds=2, pan=sine(1, 2))
    path = np.random.default_rng(2).normal(0, 1, (30, 4))
    path[3] = np.nan
    rivals = (
        RivalPath(path, np.full(30, 0.9), 0.1, -0.2, 40.0, 0.8, True),
        RivalPath(-path, np.full(30, 0.7), 0.0, 0.5, 60.0, 0.1, False),
    )
    kept = replace(motion, shots=(Shot(0, 30, None), Shot(30, 60, None, "rivals", rivals)))
    back = clips.unpack(clips.pack(kept))
    assert back.shots[0] == kept.shots[0]
    assert back.shots[1].doubt == "rivals"
    for found, was in zip(back.shots[1].rivals, rivals, strict=True):
        assert np.array_equal(found.path, was.path, equal_nan=True)
        assert np.array_equal(found.trust, was.trust)
        assert replace(found, path=path, trust=path) == replace(was, path=path, trust=path)


def test_films_are_named_by_their_content_only(db):
    good = "0" * 64
    for sha256, file in (
        (good, "../escape.mp4"), (good, f"{good}/a.mp4"), (good, f"{'1' * 64}.mp4"),
        (good, good), (good, f"{good}.MP4"), (good, f"{good}.mp4\n"), ("../x", "../x.mp4"),
        (good, f"{good}.toolong"), (f"{'0' * 63}G", f"{'0' * 63}G.mp4"), (None, "a.mp4"),
    ):  # fmt: skip
        with pytest.raises(ValueError, match=r"is no |is not the name"):
            clips.add(db, sha256=sha256, file=file, size_bytes=1)
        with pytest.raises(database.sqlite3.IntegrityError):
            db.execute(
                "insert into clip (sha256, file, size_bytes) values (?, ?, 1)", (sha256, file)
            )
    clips.add(db, sha256=good, file=f"{good}.mp4", size_bytes=1)


def test_a_full_disk_deep_in_a_write_is_told_as_one(db):
    """SQLite ends the whole transaction by itself then, with all savepoints in it."""

    def fill():
        with database.atomic(db), database.atomic(db):
            raise_full(db)

    pages = db.execute("pragma page_count").fetchone()[0]
    db.execute(f"pragma max_page_count = {pages + 20}")
    with pytest.raises(NoRoomError):
        fill()
    assert not db.in_transaction
    with (
        pytest.raises(NoRoomError, match="while this was written"),
        database.atomic(db),
        suppress(NoRoomError),
    ):
        fill()
    with pytest.raises(NoRoomError), database.atomic(db):
        db.executemany(
            "insert into setting (name, value) values (?, ?)",
            ((f"n{k}", "x" * 100_000) for k in range(100)),
        )
    db.execute(f"pragma max_page_count = {pages + 1000}")
    with database.atomic(db):
        db.execute("insert into setting (name, value) values ('well', '1')")


def raise_full(db):
    for k in range(100):
        db.execute("insert into setting (name, value) values (?, ?)", (f"f{k}", "x" * 100_000))


def attempts(db, kind, subject_id):
    return jobs.one(db, kind, subject_id).attempts


def test_work_is_claimed_once_and_only_its_own_crashes_are_counted(db):
    jobs.enqueue(db, "measure", 1)
    assert jobs.waiting(db, "measure") == [1]
    for _ in range(3):
        assert jobs.claim(db, "measure", 1)
        assert not jobs.claim(db, "measure", 1)
        assert jobs.interrupted(db, "measure") == [1]
        jobs.lay_down(db, "measure")  # the application was closed
        assert attempts(db, "measure", 1) == 0
    for crashes, waits in ((1, True), (2, False)):
        assert jobs.claim(db, "measure", 1)
        assert jobs.crashed(db, "measure", 1) is waits
        assert attempts(db, "measure", 1) == crashes
    assert not jobs.crashed(db, "measure", 1)  # it has ended


@pytest.mark.parametrize("end", ["finish", "stop", "fail", "lay_down"])
def test_what_is_asked_for_anew_while_it_runs_begins_again_however_it_ends(db, end):
    jobs.enqueue(db, "measure", 1)
    jobs.claim(db, "measure", 1)
    jobs.request_cancel(db, "measure", 1)
    jobs.enqueue(db, "measure", 1)
    assert jobs.report(db, "measure", 1, 0.5)  # asked to stop
    more = (jobs.Fault("a", "b", "c"),) if end == "fail" else ()
    if end == "lay_down":
        jobs.lay_down(db, "measure")
    else:
        getattr(jobs, end)(db, "measure", 1, *more)
    row = jobs.one(db, "measure", 1)
    assert (row.state, row.cancel_requested, row.error_code) == ("queued", False, None)
    assert jobs.claim(db, "measure", 1)
    assert not jobs.report(db, "measure", 1, 0.5)
    jobs.finish(db, "measure", 1)
    assert jobs.one(db, "measure", 1).state == "done"


def test_kinds_of_work_do_not_meet(db):
    for kind in ("measure", "render", "copy"):
        jobs.enqueue(db, kind, 7)
    assert jobs.claim(db, "render", 7)
    jobs.fail(db, "render", 7, jobs.Fault("full", "the disk is full", "free some space"))
    jobs.forget(db, "copy", 7)
    assert jobs.waiting(db, "measure") == [7]
    assert jobs.one(db, "render", 7).error_what == "the disk is full"
    assert jobs.one(db, "copy", 7) is None
    assert [jobs.unfinished(db, kind) for kind in ("measure", "render", "copy")] == [1, 0, 0]


def test_work_that_is_asked_for_again_forgets_how_it_ended(db):
    jobs.enqueue(db, "measure", 1)
    jobs.claim(db, "measure", 1)
    jobs.fail(db, "measure", 1, jobs.Fault("a", "b", "c"))
    jobs.enqueue(db, "measure", 1)
    row = jobs.one(db, "measure", 1)
    assert (row.state, row.attempts, row.error_code, row.progress) == ("queued", 0, None, None)


def test_cancelling_stops_waiting_work_at_once_and_asks_running_work(db):
    add_take(db, 1)
    add_take(db, 2)
    for clip_id in (1, 2):
        jobs.enqueue(db, "measure", clip_id)
    jobs.claim(db, "measure", 2)
    for clip_id in (1, 2):
        jobs.request_cancel(db, "measure", clip_id)
    assert takes.of_clip(db, 1)[0].state == "cancelled"
    assert takes.of_clip(db, 2)[0].state == "running"
    assert jobs.report(db, "measure", 2, 0.5)
    assert not jobs.crashed(db, "measure", 2)  # its process died before it could stop
    assert takes.of_clip(db, 2)[0].state == "cancelled"
