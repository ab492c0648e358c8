"""Briefs as the API shows them, and back."""

from __future__ import annotations

from dataclasses import asdict

from ridgewind.core import brief as core_brief
from ridgewind.store.briefs import BriefRow
from ridgewind.web.plan import brief_models


def brief_model(brief: core_brief.Brief) -> brief_models.Brief:
    return brief_models.Brief.model_validate(asdict(brief))


def brief_of(model: brief_models.Brief) -> core_brief.Brief:
    plain = model.model_dump(exclude={"likeness"})
    like = model.likeness
    likeness = None if like is None else core_brief.Likeness(**like.model_dump())
    return core_brief.Brief(**plain, likeness=likeness)


def brief_item(row: BriefRow, *, usual_id: int) -> brief_models.BriefItem:
    return brief_models.BriefItem(
        id=row.id,
        name=row.name or "",
        brief=brief_model(row.brief),
        target=row.brief.target,
        typical=row.typical,
        archived=row.archived,
        usual=row.id == usual_id,
        takes=row.takes,
    )
