"""An archive comes into a library that is in use: what it lacks, nothing twice, all or nothing, and
gone again when it is taken back."""

from __future__ import annotations

import json
import shutil
from dataclasses import replace
from pathlib import Path

import pytest
from click.testing import CliRunner

from ridgewind.cli.main import main
from ridgewind.core.brief import usual_brief
from ridgewind.core.sequence.shot import PlannedShot
from ridgewind.library.library import Library
from ridgewind.library.tidying import tidy
from ridgewind.services.archiving import archive
from ridgewind.services.errors import ArchiveError, GoneError
from ridgewind.services.merging import merge
from ridgewind.services.taking_back import take_back
from ridgewind.services.things import KINDS, Side
from ridgewind.store import archived, briefs, clips, database, outings, takes
from ridgewind.store.outings import OutingFacts
from tests.conftest import shaken, write_film
from tests.services.killing import MOMENTS, killed, seconds_of

MADE_AT = "2026-05-03T12:00:00+00:00"


@pytest.fixture(scope="module")
def films(tmp_path_factory):
    folder = tmp_path_factory.mktemp("films")
    return [
        write_film(folder / f"{name}.mp4", shaken(10, amplitude_px=k + 1.0))
        for k, name in enumerate(("shared", "mine", "theirs"))
    ]


def bring(db, library, film: Path) -> int:
    with film.open("rb") as stream:
        return library.add(db, stream, file_name=film.name, size_bytes=None).take.id


def fill(library: Library, films: list[Path], *, who: str) -> None:
    """A library with films, and a set-up, a session, an outing and a brief of its owner's own."""
    library.prepare()
    with database.opened(library.database) as db:
        ids = [bring(db, library, film) for film in films]
        with database.atomic(db):
            named = briefs.add(db, replace(usual_brief(), wanted_s=33.0), name=f"{who}'s brief")
            own = briefs.add(db, replace(usual_brief(), wanted_s=7.0), name=None, parent_id=named)
            db.execute("update take set brief_id = ? where id = ?", (own, ids[-1]))
            db.execute("insert into kit_item (kind, name, spec) values ('camera', ?, '{}')", (who,))
            db.execute(
                "insert into setup (name, camera_id, lens_id, optics, bench, focal_eq_mm)"
                " select ?, max(id), max(id), '{}', '{}', 35 from kit_item",
                (f"{who}'s rig",),
            )
            db.execute(
                "insert into session (name, made_at, ask, plan, setup_id)"
                " select ?, '2026-05-01T10:00:00Z', '{}', '{}', max(id) from setup",
                (f"{who}'s evening",),
            )
            db.execute(
                "insert into session_take (session_id, position, block, drill_key, variation_key,"
                " state, take_id) select max(id), 0, 0, 'walk', 'calm', 'filmed', ? from session",
                (ids[-1],),
            )
            db.execute(
                "update take set slate_session = (select max(id) from session), slate_take = 0"
                " where id = ?", (ids[-1],),
            )  # fmt: skip
            facts = OutingFacts(who, "", "", "any", None, None)
            outing = outings.add(db, facts)
            _, shot = outings.add_shots(db, outing, [PlannedShot("the cap"), PlannedShot(who)])
            db.execute(
                "insert into shot_take (take_id, shot_id, how) values (?, ?, 'hand')",
                (ids[-1], shot),
            )
            piece = {"take_id": ids[-1], "shot_id": shot, "in_s": 0.0, "out_s": 0.2}
            db.execute(
                "update outing set pieces = ? where id = ?",
                (json.dumps([piece]), outing),
            )


@pytest.fixture
def ours(tmp_path, films):
    library = Library(tmp_path / "ours")
    fill(library, [films[0], films[1]], who="mine")
    return library


@pytest.fixture(scope="module")
def their_library(tmp_path_factory, films):
    library = Library(tmp_path_factory.mktemp("theirs") / "library")
    fill(library, [films[0], films[2]], who="theirs")
    return library


@pytest.fixture
def file(tmp_path, their_library):
    path = tmp_path / "theirs.zip"
    path.write_bytes(b"".join(archive(their_library, films=True, made_at=MADE_AT)))
    return path


def keep(choice):
    return lambda found: [choice] * len(found)


def never(found):
    raise AssertionError(f"nothing differs, but this was asked: {found}")


def everything(library: Library) -> dict[str, object]:
    """Every archived row, and every file of a film."""
    with database.opened(library.database) as db:
        found: dict[str, object] = {
            table: sorted(json.dumps(row) for row in archived.rows_of(db, table))
            for table in archived.ARCHIVED
        }
    for folder in (library.originals, library.copies, library.stills, library.incoming):
        found[folder.name] = sorted(path.name for path in folder.iterdir())
    return found


def told(library: Library) -> dict[str, dict]:
    """Every thing by its key, without its numbers."""
    with database.opened(library.database) as db:
        side = Side(db)
        return {
            kind.table: {key: side.told(kind, row) for key, row in side.by_key[kind.table].items()}
            for kind in KINDS
        }


def test_all_comes_that_was_not_here_and_points_at_the_right_things(ours, file, their_library):
    mine, theirs = told(ours), told(their_library)
    came = merge(file, ours, choose=never)
    both = told(ours)
    for table, things in both.items():
        assert things == {**theirs[table], **mine[table]}
    assert came.came == {
        "brief": 1, "kit": 1, "set-up": 1, "film": 1, "take": 1, "session": 1, "outing": 1,
    }  # fmt: skip
    with database.opened(ours.database) as db:
        for file_name in clips.originals(db):
            assert (ours.originals / file_name).is_file()
        assert archived.broken_references(db) == 0
        take = db.execute("select * from take where file_name = 'theirs'").fetchone()
        slated = db.execute("select name from session where id = ?", (take["slate_session"],))
        assert slated.fetchone()["name"] == "theirs's evening"
        outing = db.execute("select * from outing where name = 'theirs'").fetchone()
        (piece,) = json.loads(outing["pieces"])
        assert piece["take_id"] == take["id"]
        shot = db.execute("select * from outing_shot where id = ?", (piece["shot_id"],)).fetchone()
        assert (shot["outing_id"], shot["position"]) == (outing["id"], 1)
    assert not ours.merging.exists()


def test_the_same_archive_twice_brings_nothing_the_second_time(ours, file):
    merge(file, ours, choose=never)
    once = everything(ours)
    again = merge(file, ours, choose=never)
    assert again.came == {}
    assert everything(ours) == once


def test_a_library_comes_into_its_own_earlier_self(ours, tmp_path):
    own = tmp_path / "own.zip"
    own.write_bytes(b"".join(archive(ours, films=True, made_at=MADE_AT)))
    before = everything(ours)
    assert merge(own, ours, choose=never).came == {}
    assert everything(ours) == before


def differ(library: Library) -> None:
    """The take that both have is called otherwise, and was marked."""
    with database.opened(library.database) as db, database.atomic(db):
        take = db.execute("select id from take where file_name = 'shared'").fetchone()["id"]
        takes.set_own_name(db, take, "Mill door")
        own = briefs.add(db, replace(usual_brief(), wanted_s=5.0), name=None)
        db.execute("update take set brief_id = ? where id = ?", (own, take))
        db.execute(
            "insert into mark (take_id, view, smooth, blind, feel, gust, marked_at)"
            " values (?, 'whole', 1, 0, 'smooth', 2.0, '2026-05-01')",
            (take,),
        )


@pytest.mark.parametrize("choice", ["ours", "theirs"])
def test_what_differs_is_asked_and_kept_as_it_was_said(ours, file, their_library, choice):
    differ(ours)
    mine, theirs = told(ours), told(their_library)
    asked = []
    merge(file, ours, choose=lambda found: asked.extend(found) or [choice] * len(found))
    (one,) = asked
    assert (one.words, one.name, set(one.what)) == (
        "take", "Mill door", {"name", "brief", "your mark"}
    )  # fmt: skip
    key = next(key for key in mine["take"] if mine["take"][key]["file_name"] == "shared")
    wanted = (mine if choice == "ours" else theirs)["take"][key]
    assert told(ours)["take"][key] == wanted
    with database.opened(ours.database) as db:
        orphans = "select count(*) as n from brief where name is null and id not in"
        assert db.execute(f"{orphans} (select brief_id from take)").fetchone()["n"] == 0


@pytest.mark.parametrize("choice", ["ours", "theirs"])
def test_taking_it_back_leaves_the_library_as_it_was(ours, file, choice):
    differ(ours)
    before, as_told = everything(ours), told(ours)
    merge(file, ours, choose=keep(choice))
    with database.opened(ours.database) as db:
        made = take_back(ours, db)
        assert (made.went, made.stays) == (7, 0)
        with pytest.raises(GoneError):
            take_back(ours, db)
    assert told(ours) == as_told
    after = everything(ours)
    if choice == "ours":
        assert after == before
    assert after["originals"] == before["originals"]


def test_what_was_used_or_changed_since_stays(ours, file):
    merge(file, ours, choose=never)
    with database.opened(ours.database) as db:
        with database.atomic(db):
            take = db.execute("select id from take where file_name = 'theirs'").fetchone()["id"]
            takes.set_own_name(db, take, "Kept, since it is good")
            db.execute("update outing set place = 'the ridge' where name = 'theirs'")
        made = take_back(ours, db)
        assert made.stays >= 3  # the take, its film, the outing
        assert takes.by_id(db, take).name == "Kept, since it is good"
        assert archived.broken_references(db) == 0
        for file_name in clips.originals(db):
            assert (ours.originals / file_name).is_file()


def test_a_damaged_archive_changes_nothing(ours, file):
    before = everything(ours)
    content = bytearray(file.read_bytes())
    content[len(content) // 2] ^= 0x10
    file.write_bytes(content)
    with pytest.raises(ArchiveError):
        merge(file, ours, choose=never)
    assert everything(ours) == before
    assert not ours.merging.exists()


def test_who_does_not_choose_changes_nothing(ours, file):
    differ(ours)
    before = everything(ours)
    answer = CliRunner().invoke(main, ["restore", str(file), str(ours.root)])
    assert answer.exit_code == 1
    assert "take 'Mill door' differs in brief, name, your mark" in answer.output
    assert everything(ours) == before


def test_the_command_tells_what_came(ours, file):
    answer = CliRunner().invoke(main, ["restore", str(file), str(ours.root)])
    assert answer.exit_code == 0, answer.output
    assert "1 × outing" in answer.output


def test_a_library_that_is_in_use_is_left_alone(ours, file):
    with ours.locked():
        answer = CliRunner().invoke(main, ["restore", str(file), str(ours.root)])
    assert answer.exit_code == 1
    assert "stop it" in answer.output


def test_killed_at_any_moment_all_of_it_is_there_or_nothing(ours, file, tmp_path):
    """By SIGKILL, at moments that are spread over the time that it takes."""

    def restored(root: Path) -> None:
        main(["restore", str(file), str(root)], standalone_mode=False)

    before = told(ours)
    whole = tmp_path / "whole"
    shutil.copytree(ours.root, whole)
    took_s = seconds_of(lambda: restored(whole))
    after = told(Library(whole))
    assert after != before
    found = []
    for moment in range(MOMENTS):
        copy = tmp_path / f"killed-{moment}"
        shutil.copytree(ours.root, copy)
        killed(lambda copy=copy: restored(copy), took_s * 1.2 * moment / MOMENTS)
        library = Library(copy)
        library.prepare()
        tidy(library)
        found.append(told(library))
        assert found[-1] in (before, after)
        with database.opened(library.database) as db:
            for file_name in clips.originals(db):
                assert (library.originals / file_name).is_file(), moment
        assert not library.merging.exists()
        shutil.rmtree(copy)
    assert before in found
