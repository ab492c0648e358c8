"""The drawn body of a drill, as the front end draws it."""

from __future__ import annotations

from ridgewind.web.models import Model

Place = tuple[float, float, float]


class PropLine(Model):
    """kind: what it is. points: two opposite corners of a box, or the ends of a line."""

    kind: str
    points: list[Place]


class FigureFrame(Model):
    """Places in metres: x to the shooter's right, y up, z straight ahead. joints: in the order of
    the answer's names. dots: points of contact. strap: its line, empty for none."""

    joints: list[Place]
    camera: Place
    yaw_deg: float
    tilt_deg: float
    roll_deg: float
    dots: list[Place]
    strap: list[Place]
    props: list[PropLine]


class VariationFigure(Model):
    """frames: of its move, one where it holds still. cycle: they go round. words: the pose, told.
    differs: parts in which it is not the control's pose."""

    key: str
    name: str
    control: bool
    frames: list[FigureFrame]
    cycle: bool
    seconds: float
    move: str
    words: str
    differs: list[str]


class DrillFigure(Model):
    """joints: names, in the order in which every frame has them."""

    drill_key: str
    joints: list[str]
    figures: list[VariationFigure]


class SmallFigure(Model):
    """A drill at a glance: the variation that is practised, at the end of its move. from_front: it
    is told apart best from ahead, else from the side."""

    drill_key: str
    from_front: bool
    frame: FigureFrame


class SmallFigures(Model):
    joints: list[str]
    figures: list[SmallFigure]
