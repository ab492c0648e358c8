"""The drawn body: every variation of a drill in motion, and all drills at a glance."""

from __future__ import annotations

from functools import lru_cache

from flask import Response

from ridgewind.core.practice.drill import Drill
from ridgewind.core.practice.figure import JOINTS, Figure
from ridgewind.core.practice.playing import play
from ridgewind.core.practice.pose import Pose, differences
from ridgewind.core.practice.pose_words import describe
from ridgewind.core.practice.skeleton import Lengths, Vector
from ridgewind.services import own_body
from ridgewind.store import drills
from ridgewind.web.blueprint import blueprint
from ridgewind.web.context import FAULTS, answered, current
from ridgewind.web.plan import figure_models as models
from ridgewind.web.plan.models import DrillPath

api = blueprint("figures")

SEEN_FROM_FRONT = {"feet", "elbows", "raised"}
"""Parts of a pose in which variations differ where it shows from ahead."""

GLANCE = 3
"""Frames of a move of which the middle one stands for it."""

MOST_STILLS = 512
"""Kept in memory: several times what a library has of drills."""


@api.get("/drills/<string:key>/figure", responses={200: models.DrillFigure, **FAULTS})
def drill_figure(path: DrillPath) -> Response:
    """Every variation of a drill, drawn and played."""
    with current().read() as db:
        drill = drills.by_key(db, path.key).drill
        lengths = own_body.own_lengths(db)
    return answered(
        models.DrillFigure(
            drill_key=drill.key,
            joints=list(JOINTS),
            figures=[_variation(drill, index, lengths) for index in range(len(drill.variations))],
        )
    )


@api.get("/figures", responses={200: models.SmallFigures, **FAULTS})
def small_figures() -> Response:
    """All drills at a glance."""
    with current().read() as db:
        shelf = drills.library(db, archived=True)
        lengths = own_body.own_lengths(db)
    figures = [
        models.SmallFigure(
            drill_key=drill.key, from_front=_from_front(drill), frame=_at_a_glance(drill, lengths)
        )
        for drill in shelf.values()
    ]
    return answered(models.SmallFigures(joints=list(JOINTS), figures=figures))


def _variation(drill: Drill, index: int, lengths: Lengths) -> models.VariationFigure:
    one = drill.variations[index]
    played = play(one.pose, lengths)
    return models.VariationFigure(
        key=one.key,
        name=one.name,
        control=one.control,
        frames=[_frame(figure) for figure in played.figures],
        cycle=played.cycle,
        seconds=played.seconds,
        move=one.pose.move,
        words=describe(one.pose),
        differs=[] if one.control else list(differences(one.pose, drill.control.pose)),
    )


def _from_front(drill: Drill) -> bool:
    differs = {
        part for one in drill.variations for part in differences(one.pose, drill.control.pose)
    }
    return bool(differs & SEEN_FROM_FRONT)


def _at_a_glance(drill: Drill, lengths: Lengths) -> models.FigureFrame:
    practised = next((one for one in drill.variations if not one.control), drill.control)
    return _still_of(practised.pose, lengths)


@lru_cache(MOST_STILLS)
def _still_of(pose: Pose, lengths: Lengths) -> models.FigureFrame:
    """Kept, since most pages ask for all of them again and each takes some milliseconds."""
    figures = play(pose, lengths, frames=GLANCE).figures
    return _frame(figures[0] if len(figures) < GLANCE else figures[-1])


def _frame(figure: Figure) -> models.FigureFrame:
    return models.FigureFrame(
        joints=[_place(figure.joints[name]) for name in JOINTS],
        camera=_place(figure.camera),
        yaw_deg=round(figure.yaw_deg, 1),
        tilt_deg=round(figure.tilt_deg, 1),
        roll_deg=round(figure.roll_deg, 1),
        dots=[_place(dot.at) for dot in figure.dots],
        strap=[_place(point) for point in figure.strap],
        props=[
            models.PropLine(kind=prop.kind, points=[_place(point) for point in prop.points])
            for prop in figure.props
        ],
    )


def _place(point: Vector) -> models.Place:
    x, y, z = (round(float(one), 3) for one in point)
    return x, y, z
