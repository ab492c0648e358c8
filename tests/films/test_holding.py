"""A subject held in a rendered film stands still there, and both figures come out as predicted."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ridgewind.core.brief import usual_brief
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.motion.subject import Mark
from ridgewind.jobs.follow import follow_one
from ridgewind.jobs.measure import measure_clip
from ridgewind.jobs.render import render_one
from ridgewind.services import assessing, deciding, subject
from ridgewind.services.deciding import RemedyRequest
from ridgewind.store import briefs, database, jobs, renders, subjects, takes

AGREEMENT, STILL_GUST = 0.4, 2.0
FIRST, SECOND = Mark(1.0, 0.42, 0.55), Mark(1.0, 0.62, 0.5)


@pytest.fixture
def held_take(library, db, films):
    """A take of the millstones from a hand that also slides, under a brief with room to crop."""
    brief = replace(usual_brief(), most_crop_pct=30.0)
    with database.atomic(db):
        brief_id = briefs.add(db, brief, name="Room to crop")
    with films.get("stones, hold").path.open("rb") as stream:
        take = library.add(
            db, stream, file_name="stones.mp4", size_bytes=None, brief_id=brief_id
        ).take
    measure_clip(library, take.clip_id)
    return takes.by_id(db, take.id)


def follow(library, db, take_id, mark, *, second=False):
    """Mark a point, and follow it as the worker does."""
    subject.ask(db, take_id, mark, second=second)
    follow_one(library, take_id)
    return subjects.of_take(db, take_id)


def rendered(library, db, take, **wanted):
    case = deciding.case_of(db, take.id)
    row = deciding.ask_for_film(db, case, RemedyRequest("hold", **wanted), purpose="preview")
    render_one(library, row.id)
    return renders.by_id(db, row.id)


def test_by_one_point_and_by_two(library, db, held_take):
    follow(library, db, held_take.id, FIRST)
    for glide in (False, True):
        row = rendered(library, db, held_take, glide=glide)
        assert row.state == "done"
        assert row.gust == pytest.approx(row.recipe.gust, abs=AGREEMENT)
        assert row.subject_gust < STILL_GUST
        assert row.subject_gust < row.recipe.subject_gust + AGREEMENT
    as_shot = assessing.judge(db, held_take.id).assessment.gust
    assert row.gust < as_shot - 2
    follow(library, db, held_take.id, SECOND, second=True)
    row = rendered(library, db, held_take)
    assert len(row.recipe.hold.marks) == 2
    assert row.gust == pytest.approx(row.recipe.gust, abs=AGREEMENT)
    assert row.subject_gust < STILL_GUST


def test_a_film_is_never_made_of_another_subject(library, db, held_take):
    follow(library, db, held_take.id, FIRST)
    case = deciding.case_of(db, held_take.id)
    row = deciding.ask_for_film(db, case, RemedyRequest("hold"), purpose="preview")
    follow(library, db, held_take.id, SECOND)
    render_one(library, row.id)
    failed = jobs.one(db, "render", row.id)
    assert (failed.state, failed.error_code) == ("failed", "marked_anew")


def test_a_second_point_needs_a_first(library, db, held_take):
    with pytest.raises(InvalidArgumentError, match="first point must be marked"):
        follow(library, db, held_take.id, SECOND, second=True)


def test_the_mark_changes_the_verdict_and_goes_again(library, db, held_take):
    def hold():
        return assessing.judge(db, held_take.id).assessment.decision.of("hold")

    assert "mark what to hold" in hold().reason
    followed = follow(library, db, held_take.id, FIRST)
    assert np.isfinite(followed.paths[0].x_pct).all()
    assert hold().gust is not None
    assert hold().crop_pct > 0
