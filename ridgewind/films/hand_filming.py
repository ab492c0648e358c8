"""Film it with my hand: the stand-in camera films a made scene as the shooter's own hand would, and
the film is taken in and measured like any other."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path

from ridgewind.core.trials.drawn_hand import draw_usual
from ridgewind.core.trials.own_hand import Hand
from ridgewind.library.library import Library
from ridgewind.standin.camera import Script, Take, film_take
from ridgewind.standin.drawn_body import DrawnBody
from ridgewind.store.database import Connection
from ridgewind.store.takes import TakeRow

SCENE, WALL_M, SIZE = "stones", 3.4, (960, 540)
"""The scene's background, how far it is, and the size of the picture, px."""

ASPECT = min(SIZE) / max(SIZE)
SECONDS, CRF = 5.0, 10
"""Of a film; hardly compressed, since an encoder holds still what moves by less than a tenth of a
pixel, as fine tremor through a wide lens does."""


def film_with_hand(
    library: Library,
    db: Connection,
    hand: Hand,
    *,
    name: str,
    focal_eq_mm: float,
    fps: float,
    seed: int,
    on_progress: Callable[[float], None] = lambda _done: None,
) -> TakeRow:
    """Film a scene in a hand through a lens, and take it in, marked as simulated so that it teaches
    nothing of the shooter. on_progress: told the share that is filmed; what it raises ends
    the filming, and nothing is kept. Raises MediaError for a full disk."""
    script = Script(SCENE, "hold", focal_eq_mm=focal_eq_mm, size=SIZE, fps=fps, seconds=SECONDS,
                    crf=CRF, seed=seed)  # fmt: skip
    body = DrawnBody(
        draw_usual(
            hand, seed=seed, fps=fps, seconds=SECONDS, focal_eq_mm=focal_eq_mm, aspect=ASPECT
        ),
        aspect=ASPECT,
        distance_m=WALL_M,
    )
    with tempfile.TemporaryDirectory(dir=library.incoming) as folder:
        path = Path(folder) / "simulated.mp4"
        film_take(
            Take(script, body),
            path,
            metadata={"title": name},
            on_frame=lambda index, count: on_progress((index + 1) / count),
        )
        with path.open("rb") as stream:
            kept = library.add(
                db,
                stream,
                file_name=path.name,
                size_bytes=path.stat().st_size,
                name=name,
                origin="simulated",
            )
    return kept.take
