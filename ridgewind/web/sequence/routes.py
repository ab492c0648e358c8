"""Outings and their shots."""

from __future__ import annotations

from dataclasses import asdict
from http import HTTPStatus

from flask import Response

from ridgewind.core.sequence import starts
from ridgewind.core.sequence.shot import PlannedShot, move_words, total_s
from ridgewind.services import meeting
from ridgewind.services import outings as services
from ridgewind.store import database, outings
from ridgewind.store.database import Connection
from ridgewind.store.outings import OutingFacts, OutingRow, ShotRow
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import ElsewhereError
from ridgewind.web.sequence import models
from ridgewind.web.takes.serialise import take_line

api = blueprint("outings")

MOST_FRAMES = 14
"""Of an outing in the list (chosen here: they fit beside one another)."""


@api.get("/outings", responses={200: models.OutingList, **FAULTS})
def list_outings() -> Response:
    """Outings that are not put away, the newest first, and starting points for another."""
    with current().read() as db, database.of_one_moment(db):
        begun = outings.first_shots(db, most=MOST_FRAMES)
        items = [
            models.OutingItem(
                id=line.row.id, facts=_facts(line.row), made_at=line.row.made_at,
                shots=line.shots, open=line.open,
                frames=[
                    models.FrameItem(shot=_shot(row.shot), state=row.state)
                    for row in begun.get(line.row.id, ())
                ],
            )
            for line in outings.lines(db)
        ]  # fmt: skip
    offered = [
        models.StartItem(
            key=one.key, name=one.name, asks=one.asks,
            shots=[_shot(shot) for shot in starts.shots_of(one.key, "")],
        )
        for one in starts.STARTS
    ]  # fmt: skip
    return answered(models.OutingList(outings=items, starts=offered))


@api.post("/outings", responses={201: models.OutingDetail, **FAULTS})
def add_outing(body: models.OutingAsk) -> Response:
    """Keep an outing, of a starting point's shots or none."""
    facts = _facts_of(body)
    with current().read() as db:
        outing_id = services.begin(db, facts, start=body.start, about=body.about)
        return answered(_detail(db, outing_id), HTTPStatus.CREATED)


@api.get("/outings/<int:outing_id>", responses={200: models.OutingDetail, **FAULTS})
def outing(path: models.OutingPath) -> Response:
    """An outing with its shots, what is missing, and the order in which to film."""
    with current().read() as db:
        return answered(_detail(db, path.outing_id))


@api.put("/outings/<int:outing_id>", responses={200: models.OutingDetail, **FAULTS})
def change_outing(path: models.OutingPath, body: models.OutingFacts) -> Response:
    """Say otherwise where, when, in which light and with what."""
    with current().read() as db:
        services.change(db, path.outing_id, _facts_of(body))
        return answered(_detail(db, path.outing_id))


@api.post("/outings/<int:outing_id>/archive", responses={200: models.OutingDetail, **FAULTS})
def archive_outing(path: models.OutingPath) -> Response:
    """Put an outing away; nothing of it is lost."""
    return _archive(path.outing_id, archived=True)


@api.post("/outings/<int:outing_id>/restore", responses={200: models.OutingDetail, **FAULTS})
def restore_outing(path: models.OutingPath) -> Response:
    """Bring an outing back."""
    return _archive(path.outing_id, archived=False)


def _archive(outing_id: int, *, archived: bool) -> Response:
    with current().read() as db:
        with database.atomic(db):
            outings.set_archived(db, outing_id, archived=archived)
        return answered(_detail(db, outing_id))


@api.post("/outings/<int:outing_id>/lines", responses={201: models.OutingDetail, **FAULTS})
def add_line(path: models.OutingPath, body: models.LineAsk) -> Response:
    """Read a line of plain words into a shot, at the end."""
    with current().read() as db:
        services.add_line(db, path.outing_id, body.line)
        return answered(_detail(db, path.outing_id), HTTPStatus.CREATED)


@api.post("/outings/<int:outing_id>/start", responses={201: models.OutingDetail, **FAULTS})
def add_start(path: models.OutingPath, body: models.StartAsk) -> Response:
    """Put a starting point's shots at the end."""
    with current().read() as db:
        services.add_start(db, path.outing_id, start=body.start, about=body.about)
        return answered(_detail(db, path.outing_id), HTTPStatus.CREATED)


@api.put("/outings/<int:outing_id>/order", responses={200: models.OutingDetail, **FAULTS})
def put_order(path: models.OutingPath, body: models.ShotOrder) -> Response:
    """Put shots in another order, take some out, or put some back. Refused where the order was
    changed elsewhere meanwhile."""
    with current().read() as db:
        if not services.put_order(db, path.outing_id, body.ids, base=body.base):
            raise ElsewhereError("outing")
        return answered(_detail(db, path.outing_id))


@api.put("/outings/<int:outing_id>/waved", responses={200: models.OutingDetail, **FAULTS})
def wave(path: models.OutingPath, body: models.Waved) -> Response:
    """Let something that is missing not matter, or matter again."""
    with current().read() as db:
        services.wave(db, path.outing_id, body.key, waved=body.waved)
        return answered(_detail(db, path.outing_id))


@api.put("/shots/<int:shot_id>", responses={200: models.OutingDetail, **FAULTS})
def change_shot(path: models.ShotPath, body: models.ShotChange) -> Response:
    """Plan a shot otherwise. Refused where it was changed elsewhere meanwhile."""
    with current().read() as db:
        kept = outings.shot_by_id(db, path.shot_id)
        if body.base not in (None, _shot(kept.shot)):
            raise ElsewhereError("shot")
        services.change_shot(db, path.shot_id, PlannedShot(**body.shot.model_dump()))
        return answered(_detail(db, kept.outing_id))


@api.put("/shots/<int:shot_id>/note", responses={200: models.OutingDetail, **FAULTS})
def note_shot(path: models.ShotPath, body: models.ShotNote) -> Response:
    """Keep what became of a shot."""
    with current().read() as db:
        services.note(db, path.shot_id, state=body.state, got=body.got, text=body.note)
        return answered(_detail(db, outings.shot_by_id(db, path.shot_id).outing_id))


@api.get("/outings/<int:outing_id>/takes", responses={200: models.Meetings, **FAULTS})
def takes_of_outing(path: models.OutingPath) -> Response:
    """Which takes meet its shots, and which could."""
    with current().read() as db:
        return answered(_meetings(db, path.outing_id))


@api.put("/outings/<int:outing_id>/takes", responses={200: models.Meetings, **FAULTS})
def file_takes(path: models.OutingPath, body: models.FiledTakes) -> Response:
    """Let takes meet shots, or none."""
    with current().read() as db:
        for one in body.takes:
            meeting.file(db, path.outing_id, one.take_id, one.shot_id, how=one.how)
        return answered(_meetings(db, path.outing_id))


def _meetings(db: Connection, outing_id: int) -> models.Meetings:
    found = meeting.meetings(db, outing_id)
    return models.Meetings(
        met=[
            models.MetLine(
                shot_id=one.shot_id, how=one.how, otherwise=one.otherwise,  # type: ignore[arg-type]
                take=take_line(one.take),
            )
            for one in found.met
        ],
        proposed=[
            models.MeetingLine(name=found.names[one.take_id], **asdict(one))
            for one in found.proposed
        ],
    )  # fmt: skip


@api.get("/shots/<int:shot_id>/slate.svg", responses=FAULTS)
def shot_slate(path: models.ShotPath) -> Response:
    """A shot's code, to be filmed for a second."""
    with current().read() as db:
        return Response(services.slate_svg(db, path.shot_id), mimetype="image/svg+xml")


def _facts_of(body: models.OutingFacts) -> OutingFacts:
    return OutingFacts(
        name=body.name.strip(), place=body.place.strip(), day=body.day, light=body.light.strip(),
        brief_id=body.brief_id, setup_id=body.setup_id,
    )  # fmt: skip


def _facts(row: OutingRow) -> models.OutingFacts:
    return models.OutingFacts(
        name=row.name, place=row.place, day=row.day, light=row.light, brief_id=row.brief_id,
        setup_id=row.setup_id,
    )  # fmt: skip


def _shot(shot: PlannedShot) -> models.PlannedShot:
    return models.PlannedShot(**asdict(shot))


def _item(row: ShotRow, found: services.OutingSheet) -> models.ShotItem:
    return models.ShotItem(
        id=row.id, shot=_shot(row.shot), state=row.state, got=row.got, note=row.note,
        filmed_s=row.shot.filmed_s, move_words=move_words(row.shot),
        unhurried_pct=found.unhurried_pct(row),
    )  # fmt: skip


def _detail(db: Connection, outing_id: int) -> models.OutingDetail:
    found = services.sheet(db, outing_id)
    ids = [one.id for one in found.shots]
    return models.OutingDetail(
        id=outing_id,
        facts=_facts(found.row),
        shots=[_item(one, found) for one in found.shots],
        gaps=[
            models.GapLine(
                rule=gap.rule, key=gap.key, text=gap.text, why=gap.why,
                shots=[ids[k] for k in gap.positions], waved=gap.key in found.row.waved,
            )
            for gap in found.gaps
        ],
        order=[ids[k] for k in found.order.positions],
        walks=found.order.walks,
        set_ups=found.order.set_ups,
        total_s=total_s(one.shot for one in found.shots),
        filmed_s=sum(one.shot.filmed_s * one.shot.takes for one in found.shots),
    )  # fmt: skip
