"""What a machine is and can, as text that can be sent."""

from __future__ import annotations

import os
from datetime import UTC, datetime
from pathlib import Path

import pytest
from click.testing import CliRunner

from ridgewind import __version__
from ridgewind.cli.main import main
from ridgewind.library import newest_error, snapshots
from ridgewind.media import codecs
from ridgewind.store import database

NOW = datetime(2026, 5, 3, 12, tzinfo=UTC)


def doctor(root) -> tuple[int, str]:
    done = CliRunner().invoke(main, ["doctor", "--data", str(root), "--port", "0"])
    return done.exit_code, done.output


def test_a_library_that_is_well(library, short_film):
    with database.opened(library.database) as db, short_film.open("rb") as stream:
        library.add(db, stream, file_name="My wedding.mp4", size_bytes=None)
    snapshots.keep(library.database, library.snapshots, now=NOW)
    newest_error.keep(library.root, ValueError("My wedding"), number="ab12", at=NOW)
    code, told = doctor(library.root)
    assert code == 0, told
    assert f"Ridgewind {__version__}" in told
    assert "whole, of this version, 1 films" in told
    assert "1, the newest of 2026-05-03" in told
    assert "ab12" in told
    for name in ("wedding", str(library.root), Path.home().name + os.sep, "short"):
        assert name not in told


def test_a_damaged_one_and_a_missing_codec_are_marked(library, monkeypatch):
    library.database.write_bytes(b"no library" * 2000)
    monkeypatch.setattr(codecs, "READ", ("h264", "nothing"))
    code, told = doctor(library.root)
    assert code == 1
    lines = {line[2:11].strip(): line for line in told.splitlines()}
    assert lines["Database"].startswith("! ")
    assert "damaged" in lines["Database"]
    assert "lacks reading nothing" in lines["Codecs"]


def test_before_the_first_start(tmp_path):
    code, told = doctor(tmp_path / "none" / "yet")
    assert code == 0
    assert "none yet; the first start makes it" in told


@pytest.mark.parametrize("name", ["h264", "hevc", "aac"])
def test_what_is_used_is_there(name):
    assert not [one for one in codecs.lacking() if name in one]
