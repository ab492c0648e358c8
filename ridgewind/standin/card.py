"""A simulated card: the stand-in camera films a session that was run, as a real one would.

It has what real cards have: a clock that is wrong, a slate that cannot be read, a take that was
forgotten, a film that belongs nowhere, and a damaged file. Each is stated in the answer, so that
what is made of the card can be checked.
"""

from __future__ import annotations

import io
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

import cv2
import numpy as np
import segno
from numpy.typing import NDArray

from ridgewind.media.encode import FilmWriter
from ridgewind.standin import SIMULATED
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, plan, render_frame
from ridgewind.standin.render import Renderer
from ridgewind.standin.scenes import SCENES

SIZE, FPS = (480, 270), 30.0
SLATE_S, COUNT_S, TAIL_S = 1.4, 5.0, 1.0

CLOCK_AHEAD_S = 47 * 60.0
UNREADABLE, FORGOTTEN = 1, 3
"""Which of the films has a blurred slate, and which take was never filmed."""

EXTRA_S = 2.0
SCENE_OF = {"path": "ridge", "steps": "door", "spot": "stones"}
MOVE_OF = {"walk": "walk", "move": "slide", "none": "hold", "breath": "hold"}
CADENCE_HZ = 1.8


@dataclass(frozen=True)
class CardTake:
    """A take that was run. slate: text of its code. ended: when it ended, by the right clock.
    control: it is the plain variation, and will be shakier. tempo, space: of its drill."""

    position: int
    slate: str
    ended: datetime
    take_s: float
    control: bool
    tempo: str
    space: str


@dataclass(frozen=True)
class Card:
    """What was put on the card. by_position: file of each take; unreadable: whose slate is
    blurred; forgotten: the take without a film, or None; extra, damaged: files of no take."""

    by_position: dict[int, str]
    unreadable: int | None
    forgotten: int | None
    extra: str
    damaged: str


def film_card(
    takes: Sequence[CardTake],
    folder: Path,
    *,
    on_film: Callable[[int, int], None] | None = None,
) -> Card:
    """Film takes in order into a card's usual folders below `folder`."""
    place = folder / "DCIM" / "100STAND"
    place.mkdir(parents=True, exist_ok=True)
    numbers = iter(range(1, 10_000))
    by_position: dict[int, str] = {}
    forgotten = takes[FORGOTTEN].position if len(takes) > FORGOTTEN else None
    unreadable = takes[UNREADABLE].position if len(takes) > UNREADABLE else None
    for done, take in enumerate(takes):
        if on_film is not None:
            on_film(done, len(takes))
        if take.position == forgotten:
            continue
        name = f"STND{next(numbers):04d}.MP4"
        _film(take, place / name, blurred=take.position == unreadable)
        by_position[take.position] = name
    extra = f"STND{next(numbers):04d}.MP4"
    last = takes[-1].ended if takes else datetime.now(UTC)
    _film(
        CardTake(999, "", last + timedelta(minutes=30), EXTRA_S, False, "none", "spot"),
        place / extra,
        blurred=False,
    )
    damaged = f"STND{next(numbers):04d}.MP4"
    whole = (place / extra).read_bytes()
    (place / damaged).write_bytes(whole[: len(whole) // 3])
    return Card(by_position, unreadable, forgotten, extra, damaged)


def _film(take: CardTake, path: Path, *, blurred: bool) -> None:
    head_s = SLATE_S + COUNT_S if take.slate else 0.0
    length_s = head_s + take.take_s + TAIL_S
    walks = take.tempo == "walk"
    technique = Technique(
        contacts=2 if take.control else 3,
        elbows_in=not take.control,
        stabiliser=0.0 if take.control else 0.4,
        cadence_hz=CADENCE_HZ if walks else 0.0,
        landing=1.6 if take.control else 0.6,
        hold="body" if take.control else "off_body",
    )
    script = Script(
        SCENE_OF[take.space], MOVE_OF[take.tempo], technique, size=SIZE, fps=FPS,
        seconds=length_s, seed=100 + take.position,
    )  # fmt: skip
    begun = take.ended + timedelta(seconds=TAIL_S - length_s + CLOCK_AHEAD_S)
    moment = begun.astimezone(UTC).isoformat().replace("+00:00", "Z")
    told = SIMULATED | {"creation_time": moment}
    options = {"preset": "veryfast", "crf": "23", "threads": "1"}
    with FilmWriter(path, size=SIZE, rate_hz=FPS, options=options, metadata=told) as writer:
        for index, image in enumerate(_frames(script, take, blurred=blurred)):
            writer.write_image(image, index / FPS)


def _frames(script: Script, take: CardTake, *, blurred: bool) -> Iterator[NDArray[np.uint8]]:
    shot = plan(script)
    renderer = Renderer(
        SCENES[script.scene], shot.lens, seed=script.seed, margin=1.8, noise=script.noise
    )
    code = _code(take.slate) if take.slate else None
    for index, t_s in enumerate(shot.frame_times_s):
        image = render_frame(shot, renderer, float(t_s), index)
        if code is not None and t_s < SLATE_S:
            image = held_up(image, code, shot.poses(np.array([t_s]))[0], blurred=blurred)
        yield image


def _code(text: str) -> NDArray[np.uint8]:
    buffer = io.BytesIO()
    segno.make(text, error="h", micro=False).save(buffer, kind="png", scale=6, border=4)
    image = cv2.imdecode(np.frombuffer(buffer.getvalue(), np.uint8), cv2.IMREAD_COLOR)
    return np.asarray(image, np.uint8)


def held_up(
    image: NDArray[np.uint8], code: NDArray[np.uint8], pose: NDArray[np.float64], *, blurred: bool
) -> NDArray[np.uint8]:
    """A screen that shows a code, in front of the camera; the hand shakes it along."""
    height, width = image.shape[:2]
    scale = 0.7 * height / code.shape[0]
    matrix = cv2.getRotationMatrix2D(
        (code.shape[1] / 2, code.shape[0] / 2), 6.0 + float(pose[2]), scale
    )
    matrix[:, 2] += [
        width / 2 - code.shape[1] / 2 + 12 * float(pose[0]),
        height / 2 - code.shape[0] / 2 + 12 * float(pose[1]),
    ]
    cv2.warpAffine(code, matrix, (width, height), dst=image, borderMode=cv2.BORDER_TRANSPARENT)
    return cv2.GaussianBlur(image, (0, 0), 9.0) if blurred else image  # type: ignore[return-value]
