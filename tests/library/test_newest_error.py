"""The newest error is kept as it can be sent: where it happened, and nothing of the shooter's."""

from __future__ import annotations

from datetime import UTC, datetime

from ridgewind.library import newest_error

NOW = datetime(2026, 5, 3, 12, tzinfo=UTC)


def test_where_it_happened_is_kept_and_nothing_that_it_says(tmp_path):
    try:
        raise RuntimeError("/home/somebody/films/secret.mp4 cannot be")
    except RuntimeError as error:
        newest_error.keep(tmp_path, error, number="ab12", at=NOW)
    text = (tmp_path / newest_error.NAME).read_text()
    assert "somebody" not in text
    assert "secret" not in text
    found = newest_error.newest(tmp_path)
    assert (found.number, found.kind) == ("ab12", "RuntimeError")
    assert found.where[-1].startswith("test_newest_error.py:")
    assert found.where[-1].endswith("test_where_it_happened_is_kept_and_nothing_that_it_says")


def test_paths_begin_at_the_package():
    place = newest_error._place
    assert place("/home/x/.venv/lib/python3.11/site-packages/flask/app.py") == "flask/app.py"
    assert place("/home/ridgewind/code/ridgewind/web/app.py") == "ridgewind/web/app.py"
    assert place("C:\\Users\\x\\ridgewind\\web\\app.py") == "ridgewind/web/app.py"
    assert place("/home/x/script.py") == "script.py"


def test_one_that_cannot_be_read_is_none(tmp_path):
    assert newest_error.newest(tmp_path) is None
    (tmp_path / newest_error.NAME).write_text("{")
    assert newest_error.newest(tmp_path) is None
