"""The simulated card, brought in and matched: every film at its take, or rightly loose."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest
from click.testing import CliRunner

from ridgewind.cli.main import main
from ridgewind.core.practice.session import Ask
from ridgewind.core.practice.slate import slate_text
from ridgewind.jobs.measure import measure_clip
from ridgewind.library import folders
from ridgewind.services import filing, practising
from ridgewind.standin.card import CLOCK_AHEAD_S, CardTake, film_card
from ridgewind.store import database, jobs, sessions

BEGUN = datetime(2026, 10, 9, 8, 0, tzinfo=UTC)
ENDS_S = (0.0, 40.0, 95.0, 150.0)


def planned_session(db):
    """A kept session of one short drill, five of its takes run at known times."""
    ask = Ask(10, (), "spot", (), (), 1, ())
    plan = practising.plan(db, ask)
    blocks = tuple(replace(block, take_s=2.0) for block in plan.blocks)
    with database.atomic(db):
        session_id = sessions.add(
            db, name="Test", ask=ask, plan=replace(plan, blocks=blocks), setup_id=None
        )
        for position, end_s in enumerate(ENDS_S):
            sessions.set_state(db, session_id, position, "filmed")
            moment = (BEGUN + timedelta(seconds=end_s)).isoformat()
            db.execute(
                "update session_take set filmed_at = ? where session_id = ? and position = ?",
                (moment, session_id, position),
            )
    return session_id


def test_the_simulated_card_is_matched_or_rightly_left_loose(library, db, tmp_path, monkeypatch):
    monkeypatch.setattr("ridgewind.standin.card.COUNT_S", 1.5)  # less to film
    monkeypatch.setattr("ridgewind.standin.card.FPS", 15.0)
    session_id = planned_session(db)
    takes = [
        CardTake(k, slate_text(session_id, k), BEGUN + timedelta(seconds=end_s), 2.0, k % 2 == 0,
                 "none", "spot")
        for k, end_s in enumerate(ENDS_S)
    ]  # fmt: skip
    card = film_card(takes, tmp_path / "card")
    assert (card.unreadable, card.forgotten) == (1, 3)
    root = str(tmp_path / "card")
    for film in folders.scan(db, root).films:
        folders.bring_in(library, db, root, film.file, on_progress=lambda share: None)
    for clip_id in jobs.waiting(db, "measure"):
        measure_clip(library, clip_id)
    found = filing.proposals(db, session_id)
    names = {film.take_id: f"{film.name}.MP4" for film in found.films}
    matched = {one.position: (names[one.film_id], one.how) for one in found.matches}
    assert {position: name for position, (name, _) in matched.items()} == card.by_position
    assert matched[card.unreadable][1] == "clock"
    assert {how for position, (_, how) in matched.items() if position != 1} == {"slate"}
    assert found.offset_s == pytest.approx(CLOCK_AHEAD_S, abs=2)
    loose = set(names.values()) - {name for name, _ in matched.values()}
    assert loose == {card.extra}
    assert card.damaged not in names.values()


def test_the_command_explains_what_it_needs(tmp_path, library, db):
    run = CliRunner().invoke
    nothing = run(main, ["card", str(tmp_path / "card"), "--data", str(tmp_path / "none")])
    assert (nothing.exit_code, "holds no library" in nothing.output) == (1, True)
    empty = run(main, ["card", str(tmp_path / "card"), "--data", str(library.root)])
    assert "plan and run one first" in empty.output
