"""Moving previews of planned moves, rendered by the stand-in camera and kept for a while.

A preview is named by its plan, so that the same move is rendered once.
"""

from __future__ import annotations

import hashlib
import json
import threading
from dataclasses import asdict
from pathlib import Path

from ridgewind.core.kit.moving import Plan, check_plan
from ridgewind.library.library import Library
from ridgewind.standin.preview import Preview, described, film_preview

VERSION = 1
"""Raised when previews come to look different, so that old ones are not shown."""

MOST_KEPT = 24

_one_at_a_time = threading.Lock()


def preview(library: Library, plan: Plan) -> tuple[str, Preview]:
    """Name of the preview's file, rendered if it is not there yet, and how it shows the move.

    Raises InvalidArgumentError for a plan that makes no sense, MediaError for a full disk.
    """
    check_plan(plan)
    text = json.dumps([VERSION, asdict(plan)], sort_keys=True)
    name = hashlib.sha256(text.encode()).hexdigest()[:24]
    path = library.preview_of(name)
    with _one_at_a_time:
        if path.is_file():
            path.touch()
        else:
            film_preview(plan, path)
            _prune(library.previews)
    return name, described(plan)


def _prune(folder: Path) -> None:
    kept = sorted(folder.glob("*.mp4"), key=lambda path: path.stat().st_mtime, reverse=True)
    for old in kept[MOST_KEPT:]:
        old.unlink(missing_ok=True)
