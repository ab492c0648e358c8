"""A time line that comes back from the desk: which takes became film, and for how long."""

from __future__ import annotations

import json
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import PurePosixPath
from typing import TYPE_CHECKING
from urllib.parse import unquote, urlsplit

from ridgewind.services.errors import TimeLineError
from ridgewind.services.timelines import OURS
from ridgewind.store import database, outings, takes, used_takes
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError
from ridgewind.store.used_takes import UsedPart

if TYPE_CHECKING:  # imported where it is used: it takes a twentieth of a start
    import opentimelineio as otio

MOST_TOLD = 5
"""Names of films that are not here, which are told."""


@dataclass(frozen=True)
class BroughtBack:
    """used: in the order of the time line. unknown: names of clips whose films are not here."""

    timeline: str
    used: tuple[UsedPart, ...]
    unknown: tuple[str, ...]


def bring_back(db: Connection, outing_id: int, text: str) -> BroughtBack:
    """Keep what an OpenTimelineIO time line uses of the takes that are here; nothing changes where
    it uses none. Raises NotFoundError and TimeLineError."""
    outings.by_id(db, outing_id)
    found = read(db, text)
    if not found.used:
        names = ", ".join(found.unknown[:MOST_TOLD]) or "no clip at all"
        raise TimeLineError(
            f"This time line uses no film of this library: it holds {names}.",
            "Bring back the one that was made from this outing.",
        )
    with database.atomic(db):
        used_takes.put(db, outing_id, timeline=found.timeline, parts=found.used)
    return found


def read(db: Connection, text: str) -> BroughtBack:
    """What a time line uses. Raises TimeLineError."""
    timeline = _timeline(text)
    used, unknown = [], []
    for clip in _clips(timeline):
        take_id = _take_of(db, clip)
        if take_id is None:
            unknown.append(_name(clip))
            continue
        used.append(_part(clip, take_id))
    return BroughtBack(timeline.name or "", tuple(used), tuple(dict.fromkeys(unknown)))


def _timeline(text: str) -> otio.schema.Timeline:
    try:
        schema = str(json.loads(text).get("OTIO_SCHEMA", ""))
    except (ValueError, AttributeError, RecursionError) as error:
        raise TimeLineError(
            "This is no OpenTimelineIO time line: it is not even JSON.",
            "Export the sequence as .otio at the desk, and bring that back.",
        ) from error
    import opentimelineio as otio  # noqa: PLC0415

    try:
        found = otio.adapters.read_from_string(text, "otio_json")
    except Exception as error:  # what it raises is its own, and differs by version
        raise TimeLineError(
            f"This time line cannot be read here: it says that it is {schema or 'nothing known'}.",
            "Export it as OpenTimelineIO of an older version, and bring that back.",
        ) from error
    if not isinstance(found, otio.schema.Timeline):
        raise TimeLineError(
            f"This holds no time line but {schema or 'something else'}.",
            "Export the sequence itself, and bring that back.",
        )
    return found


def _clips(timeline: otio.schema.Timeline) -> Iterator[otio.schema.Clip]:
    for track in timeline.video_tracks():
        yield from track.find_clips()


def _name(clip: otio.schema.Clip) -> str:
    return clip.name or _file(clip) or "a clip without a name"


def _file(clip: otio.schema.Clip) -> str:
    url = getattr(clip.media_reference, "target_url", "") or ""
    return PurePosixPath(unquote(urlsplit(url).path).replace("\\", "/")).name


def _take_of(db: Connection, clip: otio.schema.Clip) -> int | None:
    """By the film that it shows; else by what we had written beside it."""
    by_film = used_takes.by_file(db, _file(clip))
    if by_film is not None:
        told = clip.metadata.get(OURS, {}).get("take")
        return int(told) if told is not None and _shows(db, int(told), _file(clip)) else by_film
    return None


def _shows(db: Connection, take_id: int, file: str) -> bool:
    """Whether a take that is here is of a film: one film may hold several."""
    try:
        take = takes.by_id(db, take_id)
    except NotFoundError:
        return False
    return take.deleted_at is None and used_takes.file_of(db, take_id) == file


def _part(clip: otio.schema.Clip, take_id: int) -> UsedPart:
    used = clip.trimmed_range()
    media = getattr(clip.media_reference, "available_range", None)
    first_s = 0.0 if media is None else media.start_time.to_seconds()
    speed = 1.0
    for effect in clip.effects:
        speed *= abs(getattr(effect, "time_scalar", 1.0)) or 1.0
    in_s = max(0.0, used.start_time.to_seconds() - first_s)
    seconds = used.duration.to_seconds()
    return UsedPart(take_id, in_s, in_s + speed * seconds, seconds)
