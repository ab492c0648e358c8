"""Many takes: side by side, the shooter's own eye, and clearing what was rejected."""

from __future__ import annotations

from dataclasses import asdict
from datetime import datetime, timedelta
from sqlite3 import Connection

from flask import Response
from flask_openapi3 import APIBlueprint

from ridgewind.core.judge.cost import Weights
from ridgewind.core.shake.trace import trace
from ridgewind.core.trials.eye import Mark, Threshold, surprise
from ridgewind.store import clips, database, settings, takes
from ridgewind.store.clips import ClipRow
from ridgewind.store.marks import MarkRow
from ridgewind.store.takes import TakeRow
from ridgewind.web import decision_models as models
from ridgewind.web import serialise
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.errors import BadRequestError, MissingError
from ridgewind.work import assessing, comparing, eyes
from ridgewind.work.comparing import Group, Side
from ridgewind.work.eyes import FeelEye, Used
from ridgewind.work.library import KEEP_DELETED_DAYS, Library

api = APIBlueprint("many", __name__, url_prefix="/api")

AT_ONCE_S = 0.4
TRACE_POINTS = 360


@api.get("/compare", responses={200: models.CompareAnswer, **FAULTS})
def compare(query: models.CompareQuery) -> Response:
    """Takes of a session, of a drill, or chosen ones, side by side."""
    with current().read() as db:
        if query.session is not None:
            title, groups = comparing.of_session(db, query.session)
        elif query.drill is not None:
            title, groups = comparing.of_drill(db, query.drill)
        elif query.takes is not None:
            title, groups = comparing.of_takes(db, comparing.take_ids(db, query.takes))
        else:
            raise BadRequestError("Nothing to compare.", "Name a session, a drill or takes.")
    return answered(models.CompareAnswer(title=title, groups=[_group(one) for one in groups]))


@api.get("/eye", responses={200: models.EyeAnswer, **FAULTS})
def eye() -> Response:
    """What the shooter's marks say, feel by feel."""
    with current().read() as db:
        return answered(_eye(db))


@api.get("/eye/blind", responses={200: models.BlindOrder, **FAULTS})
def blind(query: models.BlindQuery) -> Response:
    """Takes without a mark, in an order that tells nothing."""
    with current().read() as db:
        found = eyes.blind_order(db, feel=query.feel, seed=query.seed)
        parts = [_part(takes.by_id(db, take_id)) for take_id in found]
    return answered(models.BlindOrder(takes=parts))


@api.post("/eye/<string:feel>/use", responses={200: models.UsedEye, **FAULTS})
def use_eye(path: models.FeelPath) -> Response:
    """Make the threshold of a feel the target of its briefs."""
    service = current()
    with service.read() as db:
        with database.atomic(db):
            used = eyes.use_threshold(db, path.feel)
        _judge_again(db)
    return answered(
        models.UsedEye(
            targets=[models.TargetBefore(brief_id=b, own_target=t) for b, t in used.targets],
            moved=[models.MovedBrief(from_id=a, to_id=b) for a, b in used.moved],
        )
    )


@api.post("/eye/undo", responses={200: models.EyeAnswer, **FAULTS})
def undo_eye(body: models.UsedEye) -> Response:
    """Put the targets back as they were."""
    with current().read() as db:
        with database.atomic(db):
            targets = tuple((one.brief_id, one.own_target) for one in body.targets)
            moved = tuple((one.from_id, one.to_id) for one in body.moved)
            eyes.undo_use(db, Used(targets, moved))
        _judge_again(db)
        return answered(_eye(db))


@api.get("/settings/weights", responses={200: models.WeightsAnswer, **FAULTS})
def weights() -> Response:
    """What a remedy's costs weigh."""
    with current().read() as db:
        return answered(_weights(db))


@api.put("/settings/weights", responses={200: models.WeightsAnswer, **FAULTS})
def change_weights(body: models.WeightsBody) -> Response:
    """Change what the costs weigh, and every verdict that depends on it."""
    with current().read() as db:
        with database.atomic(db):
            settings.set_weights(db, Weights(**body.model_dump()))
            takes.mark_all_stale(db)
        _judge_again(db)
        return answered(_weights(db))


@api.get("/cleared", responses={200: models.ClearedAnswer, **FAULTS})
def cleared() -> Response:
    """What could be cleared from the disk, and what was."""
    service = current()
    with service.read() as db:
        return answered(_cleared(service.library, db))


@api.post("/cleared", responses={200: models.ClearedAnswer, **FAULTS})
def clear() -> Response:
    """Put the originals of rejected takes aside; they are gone for good after a week."""
    service = current()
    with service.read() as db:
        service.library.clear(db)
        return answered(_cleared(service.library, db))


@api.post("/cleared/<int:clip_id>/restore", responses={200: models.ClearedAnswer, **FAULTS})
def bring_back(path: models.ClipPath) -> Response:
    """Bring an original back."""
    service = current()
    with service.read() as db:
        if not service.library.bring_back(db, path.clip_id):
            raise MissingError("This original is gone for good.", "Bring the clip in again.")
        return answered(_cleared(service.library, db))


@api.delete("/cleared", responses={200: models.ClearedAnswer, **FAULTS})
def empty_cleared() -> Response:
    """Remove what was put aside at once; this cannot be undone."""
    service = current()
    with service.read() as db:
        service.library.empty_cleared(db)
        return answered(_cleared(service.library, db))


def _judge_again(db: Connection) -> int:
    left = assessing.refresh(db, budget_s=AT_ONCE_S)
    if left:
        current().on_stale()
    return left


def _weights(db: Connection) -> models.WeightsAnswer:
    return models.WeightsAnswer(
        weights=models.WeightsBody(**asdict(settings.weights(db))),
        usual=models.WeightsBody(**asdict(Weights())),
        left=takes.stale_count(db),
    )


def _eye(db: Connection) -> models.EyeAnswer:
    return models.EyeAnswer(
        feels=[_feel(one) for one in eyes.eye_of(db)],
        polish=_threshold(eyes.polish_eye(db)),
        unmarked=len(eyes.blind_order(db, feel=None, seed=0)),
    )


def _feel(found: FeelEye) -> models.FeelEye:
    return models.FeelEye(
        feel=found.feel,  # type: ignore[arg-type]
        default=found.default,
        threshold=_threshold(found.threshold),
        marks=[_mark(row, found.threshold) for row in found.marks],
        surprises=[_mark(one.mark, found.threshold) for one in found.surprises],
        used=list(found.used),
    )


def _threshold(found: Threshold) -> models.ThresholdLine:
    return models.ThresholdLine(**asdict(found), offered=found.offered)


def _mark(row: MarkRow, threshold: Threshold) -> models.MarkLine:
    return models.MarkLine(
        take_id=row.take_id,
        take_name=row.take_name,
        smooth=row.smooth,
        blind=row.blind,
        gust=row.gust,
        crop_pct=row.crop_pct,
        by=surprise(Mark(row.gust, row.smooth), threshold),
    )


def _group(found: Group) -> models.GroupLine:
    drill = found.drill
    return models.GroupLine(
        title=found.title,
        drill=None if drill is None else models.DrillLink(key=drill.key, name=drill.name),
        sides=[_side(side) for side in found.sides],
        best=[] if found.best is None else list(found.best.ids),
        reason="" if found.best is None else found.best.reason,
        missing=found.missing,
        missing_words=found.missing_words,
    )


def _side(side: Side) -> models.SideLine:
    judged, candidate = side.judged, side.candidate
    line = serialise.take_line(judged.take)
    found, columns, move_s, top = judged.assessment, None, None, None
    if found is not None and judged.motion is not None:
        start_s = float(judged.motion.t_s[0])
        drawn = trace(
            found.reading,
            found.band_powers,
            screen_deg=judged.take.brief.screen_deg,
            most_points=TRACE_POINTS,
        )
        columns = models.TraceColumns.model_validate(serialise.trace_columns(drawn, start_s))
        move = None if found.move is None else found.move.move
        move_s = None if move is None else move.start_s - start_s
        top = assessing.top_band(found)
    return models.SideLine(
        take=line,
        part=_part(judged.take),
        variation=side.variation,
        session=side.session,
        lee_s=None if candidate is None else candidate.lee_s,
        evenness=None if candidate is None else candidate.evenness,
        move_s=move_s,
        verdict=None if found is None else found.decision.remedy,  # type: ignore[arg-type]
        trace=columns,
        top_band=top,  # type: ignore[arg-type]
    )


def _part(take: TakeRow) -> models.FilmPart:
    from_s, to_s = take.judged_part or (0.0, None)
    return models.FilmPart(take_id=take.id, from_s=from_s, to_s=to_s)


def _cleared(library: Library, db: Connection) -> models.ClearedAnswer:
    rejected, aside = clips.rejected(db), clips.cleared(db)
    lines = [_cleared_line(library, db, clip) for clip in aside]
    return models.ClearedAnswer(
        rejected=len(rejected),
        rejected_bytes=sum(clip.size_bytes for clip in rejected),
        aside=lines,
        aside_bytes=sum(line.size_bytes for line in lines if line.gone_on is not None),
    )


def _cleared_line(library: Library, db: Connection, clip: ClipRow) -> models.ClearedLine:
    assert clip.cleared_at is not None
    found = takes.of_clip(db, clip.id)
    gone = datetime.fromisoformat(clip.cleared_at) + timedelta(days=KEEP_DELETED_DAYS)
    return models.ClearedLine(
        clip_id=clip.id,
        name=found[0].name if found else clip.file,
        size_bytes=clip.size_bytes,
        gone_on=gone.date().isoformat() if library.is_aside(clip) else None,
    )
