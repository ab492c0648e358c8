"""Requests and responses of motion logs."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ridgewind.core.motion.turn_rates import LogMapping
from ridgewind.web.models import Model, RowId, Strict
from ridgewind.web.takes.upload_models import KEY

Sign = Literal[1, -1]


class Mapping(Strict):
    """What each column of a log is; see ridgewind/core/motion/log.py."""

    time: str
    pan: str
    tilt: str
    roll: str
    time_unit: Literal["s", "ms", "us", "ns"]
    rate_unit: Literal["rad_s", "deg_s"]
    pan_sign: Sign
    tilt_sign: Sign
    roll_sign: Sign

    def core(self) -> LogMapping:
        return LogMapping(**self.model_dump())


class LogPreviewAsk(Strict):
    upload: str = Field(pattern=KEY, description="key under which the log's file has arrived")
    mapping: Mapping | None = Field(description="null: as remembered, or as guessed")
    focal_eq_mm: float = Field(ge=1, le=3000)


class LogPreview(Model):
    names: list[str]
    mapping: Mapping
    seconds: float
    rate_hz: float
    gaps: int
    gust: float | None
    longest_s: float = Field(description="of which a take can be made")
    t_s: list[float]
    pan_deg_s: list[float]
    tilt_deg_s: list[float]
    roll_deg_s: list[float]


class KeptPart(Strict):
    from_s: float = Field(ge=0, le=1e7)
    to_s: float = Field(ge=0, le=1e7)

    def core(self) -> tuple[float, float]:
        return self.from_s, self.to_s


class LogAsk(Strict):
    """take_id: whose film the log belongs to; null for a take without a picture. stretch: what of
    it becomes that take, s from its first sample; null for all of it."""

    name: str = Field(min_length=1, max_length=120)
    upload: str = Field(pattern=KEY, description="key under which the log's file has arrived")
    mapping: Mapping
    take_id: RowId | None
    stretch: KeptPart | None = None


class Shaken(Model):
    """How much one source says that the camera shook."""

    gust: float
    body_deg_s: float


class LogLines(Model):
    """A film's log beside its picture: speeds of pan, percent of the long side a second, at the
    film's times. offset_s: None where the picture could not be measured. certainty: 0 where the
    clocks alone place it. of_picture: None where that is in doubt or could not be measured."""

    name: str
    rate_hz: float
    offset_s: float | None
    certainty: float | None
    correlation: float | None
    picture_s: list[float]
    picture_pan: list[float]
    log_s: list[float]
    log_pan: list[float]
    of_picture: Shaken | None
    of_log: Shaken | None


class SessionLogAsk(Strict):
    """A log of a whole session, whose times are a clock's, seconds since 1970. sent_at_s: what that
    clock shows as it is sent."""

    name: str = Field(min_length=1, max_length=120)
    upload: str = Field(pattern=KEY, description="key under which the log's file has arrived")
    mapping: Mapping
    sent_at_s: float = Field(ge=0, le=1e11)


class JoinedLine(Model):
    """What became of a film: joined by its motion; by_clock where its picture cannot be measured;
    unsure; or outside of the log. ahead_s: of its clock's against the log's."""

    take_id: int
    name: str
    state: Literal["joined", "by_clock", "unsure", "outside"]
    ahead_s: float | None
    certainty: float | None


class SessionLogAnswer(Model):
    films: list[JoinedLine]
