"""The measuring task: a film in; its path, browser copy and still out."""

from __future__ import annotations

import logging
from contextlib import ExitStack

from ridgewind.core.motion import METHOD
from ridgewind.films import splitting
from ridgewind.films.measuring import Measured, measure_film
from ridgewind.films.splitting import SlateWatch
from ridgewind.jobs.running import KeepResult, Task, Watch, patiently, run_task
from ridgewind.library.library import Library
from ridgewind.media.decode import Picture
from ridgewind.media.encode import BrowserCopy, still_of, write_jpeg
from ridgewind.media.sound import Sound
from ridgewind.services import assessing
from ridgewind.store import clips, sessions, takes, whose_motion
from ridgewind.store.database import Connection
from ridgewind.store.jobs import Fault

log = logging.getLogger(__name__)

STILL_LONG_SIDE_PX = 480
STILL_AT = 0.4
"""Share of the clip at which the list's picture is taken."""

UNFORESEEN = Fault(
    "internal",
    "measuring it failed in a way that was not foreseen",
    "try again, or convert the clip to H.264 in an mp4 file",
)


def measure_clip(library: Library, clip_id: int) -> None:
    """Measure one clip if it is still waiting, and store all of it or nothing."""
    run_task(library, Task("measure", _measure, UNFORESEEN), clip_id)


def _measure(library: Library, db: Connection, clip_id: int, watch: Watch) -> KeepResult:
    clip = clips.by_id(db, clip_id)
    with ExitStack() as stack:
        pass_ = _Pass(library, db, clip, stack, watch)
        measured = measure_film(
            library.originals / clip.file,
            on_picture=pass_.feed,
            background=whose_motion.background_of(db, clip_id),
        )

    def keep() -> None:
        clips.store_measurement(
            db, clip_id, facts=_facts(measured), motion=measured.motion, method=METHOD
        )
        splitting.split(db, clip_id, pass_.slates.seen, length_s=measured.duration_s)
        assessing.film_changed(db, clip_id)

    # Kept before it is judged, which takes seconds for an hour of film and must lock nobody out.
    patiently(db, keep)
    for take in takes.of_clip(db, clip_id):
        try:
            assessing.summarise(db, take.id)
        except Exception:
            log.exception("take %s could not be judged; its measurement is kept", take.id)
    return lambda: None


class _Pass:
    """Who listens to the one decode pass: the browser copy, the still, the slates, the watch."""

    def __init__(
        self,
        library: Library,
        db: Connection,
        clip: clips.ClipRow,
        stack: ExitStack,
        watch: Watch,
    ) -> None:
        self._library, self._clip, self._stack, self._watch = library, clip, stack, watch
        self._copy: BrowserCopy | None = None
        self._still_written = 0
        self._first_s: float | None = None
        self.slates = SlateWatch(splitting.planned_seconds(db) if sessions.exist(db) else None)

    def _begin_copy(self, first: Picture) -> BrowserCopy:
        original = self._library.originals / self._clip.file
        sound = self._stack.enter_context(Sound(original, start_s=first.t_s))
        # The rate only sets the keyframe distance; a first guess will do.
        target = self._library.copy_of(self._clip.sha256)
        return BrowserCopy(target, size=first.size, rate_hz=30.0, sound=sound)

    def feed(self, picture: Picture, done: float | None) -> None:
        """A frame has been measured. Raises Cancelled where the shooter has asked to stop."""
        if self._copy is None:
            self._copy = self._stack.enter_context(self._begin_copy(picture))
        self._copy.feed(picture)
        if self._first_s is None:
            self._first_s = picture.t_s
        self.slates.feed(picture, picture.t_s - self._first_s)
        if self._still_written == 0 or (
            self._still_written == 1 and done is not None and done >= STILL_AT
        ):
            self._still_written += 1
            image = still_of(picture, long_side_px=STILL_LONG_SIDE_PX)
            write_jpeg(self._library.still_of(self._clip.sha256), image)
        self._watch.feed(done)


def _facts(measured: Measured) -> clips.ClipFactsRow:
    names = clips.ClipFactsRow.__dataclass_fields__
    return clips.ClipFactsRow(**{name: getattr(measured, name) for name in names})
