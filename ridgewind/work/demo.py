"""Fill a library with the demo's clips; the worker measures them like any other."""

from __future__ import annotations

from dataclasses import dataclass, replace
from pathlib import Path

from ridgewind.core.judge.brief import usual_brief
from ridgewind.store import database
from ridgewind.work.library import Library


@dataclass(frozen=True)
class DemoClip:
    """A made clip and the brief that its shooter would give it."""

    file: Path
    name: str
    feel: str
    wanted_s: float
    delivery_fps: float
    focal_eq_mm: float


def fill(library: Library, clips: list[DemoClip]) -> None:
    """Bring every clip in, in order."""
    with database.opened(library.database) as db:
        for clip in clips:
            brief = replace(
                usual_brief(),
                feel=clip.feel,
                wanted_s=clip.wanted_s,
                delivery_fps=clip.delivery_fps,
                focal_eq_mm=clip.focal_eq_mm,
            )
            with clip.file.open("rb") as stream:
                library.add(
                    db,
                    stream,
                    file_name=clip.file.name,
                    size_bytes=clip.file.stat().st_size,
                    brief=brief,
                    name=clip.name,
                )
