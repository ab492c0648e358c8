"""Hazards of real films, made on purpose: each spoils what the stand-in camera films, and the true
path stays known."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import cv2
import numpy as np
from numpy.typing import NDArray

from ridgewind.standin import movers
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, Spoil, Spoiler, Take
from ridgewind.standin.render import Renderer

Image = NDArray[np.uint8]
Floats = NDArray[np.float64]

ORDINARY_GUST, ORDINARY_PCT = 0.1, 0.01
HARD_GUST = 0.3
SIZE = (960, 540)
HAND = Technique()
ONE_HAND = Technique(contacts=1, elbows_in=False)
STEADY = Technique(contacts=4, sway=0.5)
LOCKED = Technique(support="table", contacts=4, mass_kg=2.0)


@dataclass(frozen=True)
class Hazard:
    """A made clip. gust: how far its measured gust may be from the truth; path_pct: the same of
    the path, root mean square, None where it is not held to one. spoil: made anew for each film.
    worth: it must be measurable; otherwise low trust is right too."""

    name: str
    script: Script
    spoil: Spoiler | None = None
    gust: float = HARD_GUST
    path_pct: float | None = None
    worth: bool = True


def ordinary(name: str, script: Script) -> Hazard:
    return Hazard(name, script, gust=ORDINARY_GUST, path_pct=ORDINARY_PCT)


def _take(
    scene: str = "ridge", move: str = "hold", how: Technique = HAND, **more: object
) -> Script:
    values: dict[str, object] = {
        "size": SIZE,
        "seconds": 3.0,
        "fps": 30.0,
        "noise": 1.5,
        "crf": 12,
        **more,
    }
    return Script(scene, move, how, **values)  # type: ignore[arg-type]


def _noise_picture(seed: int, size: tuple[int, int], blur: float) -> NDArray[np.float32]:
    """A texture (height, width, 3), 0 to 255."""
    rng = np.random.default_rng([seed, 23])
    base = rng.standard_normal((size[1], size[0])).astype(np.float32)
    coarse = cv2.GaussianBlur(base, (0, 0), blur) * blur * 60
    fine = cv2.GaussianBlur(base, (0, 0), 1.2) * 40
    grey = np.clip(118 + coarse + fine, 0, 255)
    return np.repeat(grey[..., None], 3, axis=2)


def crossing(take: Take, renderer: Renderer) -> Spoil:
    """A lorry: something textured, three fifths of the picture wide, drives through."""
    side = _noise_picture(1, SIZE, 9.0).astype(np.uint8)

    def spoil(image: Image, index: int, t_s: float) -> Image:
        height, width = image.shape[:2]
        wide = round(0.6 * width)
        left = round(width * (-0.7 + 0.75 * t_s))
        low, high = max(0, left), min(width, left + wide)
        out = image.copy()
        if high > low:
            out[round(0.05 * height) :, low:high] = side[
                round(0.05 * height) : height, low - left : high - left
            ]
        return out

    return spoil


def _moving_texture(
    take: Take, renderer: Renderer, part: NDArray[np.float32], *, pace: float, seed: int
) -> Spoil:
    """Texture that boils where it stands: fields that drift apart and are mixed anew, seen
    through the shaken camera. part: (height, width, 1), what it covers at the start."""
    height, width = part.shape[:2]
    fields = [_noise_picture(seed + k, (2 * width, 2 * height), 4.0) for k in range(3)]
    background = renderer.scene.layers[renderer.scene.background]
    first = np.linalg.inv(renderer.homography(background, take.poses(np.zeros(1))[0], 0.0))

    def spoil(image: Image, index: int, t_s: float) -> Image:
        total = np.zeros((height, width, 3), np.float32)
        for k, picture in enumerate(fields):
            x = int(width / 2 + pace * width * np.sin(0.9 * t_s + 2.1 * k))
            y = int(height / 2 + pace * height * np.cos(1.3 * t_s + 1.3 * k))
            total += picture[y : y + height, x : x + width] * np.float32(
                1 + np.sin(2.2 * t_s + 2.1 * k)
            )
        seen = renderer.homography(background, take.poses(np.array([t_s]))[0], t_s) @ first
        both = np.dstack([total / 3.0, part])
        both = cv2.warpPerspective(both, seen, (width, height), borderMode=cv2.BORDER_REFLECT)
        covered = both[..., 3:]
        return np.asarray(image * (1 - covered) + both[..., :3] * covered, np.uint8)

    return spoil


def water(take: Take, renderer: Renderer) -> Spoil:
    """The lower two fifths are moving water."""
    part = np.zeros((SIZE[1], SIZE[0], 1), np.float32)
    part[round(0.6 * SIZE[1]) :] = 1.0
    return _moving_texture(take, renderer, part, pace=0.2, seed=31)


def leaves(take: Take, renderer: Renderer) -> Spoil:
    """A third of the picture, in patches, is leaves in the wind."""
    rng = np.random.default_rng(37)
    grid = rng.uniform(size=(9, 16)).astype(np.float32)
    part = cv2.resize((grid < 0.33).astype(np.float32), SIZE, interpolation=cv2.INTER_NEAREST)
    part = cv2.GaussianBlur(part, (0, 0), 3)[..., None]
    return _moving_texture(take, renderer, part, pace=0.05, seed=41)


def screen(take: Take, renderer: Renderer) -> Spoil:
    """A fifth of the picture is a screen that shows other pictures and flickers."""

    def spoil(image: Image, index: int, t_s: float) -> Image:
        out = image.copy()
        height, width = image.shape[:2]
        shown = _noise_picture(50 + index // 6, (round(0.45 * width), round(0.45 * height)), 6.0)
        shown = shown * (0.6 + 0.4 * (index % 2))
        out[90 : 90 + shown.shape[0], 60 : 60 + shown.shape[1]] = shown.astype(np.uint8)
        return out

    return spoil


def flicker(take: Take, renderer: Renderer) -> Spoil:
    """Mains light against the shutter: brightness and a rolling band beat."""

    def spoil(image: Image, index: int, t_s: float) -> Image:
        rows = np.linspace(0, 2 * np.pi, image.shape[0], dtype=np.float32)[:, None, None]
        gain = 1 + 0.12 * np.sin(2 * np.pi * 7.3 * t_s) + 0.1 * np.sin(rows * 1.5 - 19 * t_s)
        return np.clip(image * gain, 0, 255).astype(np.uint8)

    return spoil


def exposure(take: Take, renderer: Renderer) -> Spoil:
    """The exposure jumps by a stop, back, and creeps."""

    def spoil(image: Image, index: int, t_s: float) -> Image:
        gain = 0.5 if 1.0 <= t_s < 1.8 else 1.0 - 0.1 * max(0.0, t_s - 1.8)
        return cv2.convertScaleAbs(image, alpha=gain)  # type: ignore[return-value]

    return spoil


def soft(sigma: float) -> Spoiler:
    """Out of focus."""

    def make(take: Take, renderer: Renderer) -> Spoil:
        return lambda image, index, t_s: np.asarray(cv2.GaussianBlur(image, (0, 0), sigma))

    return make


def haze(take: Take, renderer: Renderer) -> Spoil:
    """Low contrast: a fifth of it is left."""
    return lambda image, index, t_s: cv2.convertScaleAbs(image, alpha=0.2, beta=120)  # type: ignore[return-value]


def night(take: Take, renderer: Renderer) -> Spoil:
    """Dark, with the noise of a high sensitivity."""

    def spoil(image: Image, index: int, t_s: float) -> Image:
        rng = np.random.default_rng([index, 61])
        dark = image * 0.22 + rng.normal(0, 5, image.shape[:2])[..., None]
        return np.clip(dark, 0, 255).astype(np.uint8)

    return spoil


def repeats(every: int) -> Spoiler:
    """Each so-manyth frame is the one before, as when a rate was changed."""

    def make(take: Take, renderer: Renderer) -> Spoil:
        last: list[Image] = []

        def spoil(image: Image, index: int, t_s: float) -> Image:
            if last and index % every == every - 1:
                return last[0]
            last[:] = [image]
            return image

        return spoil

    return make


def frozen(take: Take, renderer: Renderer) -> Spoil:
    """The picture stands still for half a second."""
    last: list[Image] = []

    def spoil(image: Image, index: int, t_s: float) -> Image:
        if last and 1.2 <= t_s < 1.7:
            return last[0]
        last[:] = [image]
        return image

    return spoil


ORDINARY = (
    ordinary("ridge, hold", _take()),
    ordinary("ridge, pan", _take(move="pan", focal_eq_mm=35.0, seed=3)),
    ordinary("door, walk-in", _take("door", "walk", Technique(cadence_hz=1.8), seed=5)),
    ordinary("door, slide at 50/s", _take("door", "slide", fps=50.0, seconds=2.0, seed=11)),
    ordinary("stones, hold at 24/s", _take("stones", focal_eq_mm=35.0, fps=24.0, seed=7)),
    ordinary("door, 120/s", _take("door", fps=120.0, seconds=1.5, seed=13)),
    ordinary("door, 1080p", _take("door", size=(1920, 1080), seconds=1.5, seed=14)),
    ordinary("door, upright", _take("door", size=(540, 960), seed=15)),
    ordinary("ridge, 85 mm", _take(focal_eq_mm=85.0, how=STEADY, seed=16)),
    ordinary("stones, 720p, one hand", _take("stones", how=ONE_HAND, size=(1280, 720), seed=17)),
    ordinary("ridge, tilt, 720p at 25/s", _take(move="tilt", size=(1280, 720), fps=25.0, seed=18)),
    ordinary("door, tilt at 60/s", _take("door", "tilt", fps=60.0, seconds=2.0, seed=19)),
    ordinary("stones, locked off", _take("stones", how=LOCKED, seed=20)),
    ordinary(
        "stones, walk-in, 720p at 50/s",
        _take(
            "stones",
            "walk",
            Technique(cadence_hz=1.6),
            size=(1280, 720),
            fps=50.0,
            seconds=2.0,
            seed=21,
        ),
    ),
    ordinary(
        "door, pan, upright, 1080p", _take("door", "pan", size=(1080, 1920), seconds=1.5, seed=23)
    ),
    ordinary(
        "stones, 24 mm, one hand at 48/s",
        _take("stones", how=ONE_HAND, focal_eq_mm=24.0, fps=48.0, seconds=2.0, seed=24),
    ),
)

HARD = (
    Hazard("locked off", _take(how=LOCKED, seed=9), gust=0.5),
    Hazard("lorry crosses", _take("door", how=ONE_HAND, seed=20), crossing),
    Hazard("lorry crosses, steady", _take("door", how=STEADY, seed=21), crossing),
    Hazard("water below", _take("door", seed=22), water),
    Hazard("leaves in the wind", _take("door", seed=23), leaves),
    Hazard("screen in the picture", _take("stones", seed=24), screen),
    Hazard("flicker", _take("door", seed=25), flicker),
    Hazard("exposure jumps", _take("ridge", seed=26), exposure),
    Hazard("ridge, rise over grass", _take(move="rise", seed=12)),
    Hazard("near foreground", _take("stones", "slide", focal_eq_mm=35.0, fps=24.0, seed=7)),
    Hazard("grass before the ridge", _take("ridge", "slide", seed=27)),
    Hazard("noise", _take("door", noise=14.0, seed=28)),
    Hazard("night", _take("door", seed=29), night),
    Hazard("motion blur", _take("door", how=ONE_HAND, focal_eq_mm=60.0, shutter=1.0, seed=30)),
    Hazard("soft", _take("door", seed=31), soft(3.0)),
    Hazard("very soft", _take("door", seed=32), soft(6.0)),
    Hazard("haze", _take("ridge", seed=33), haze),
    Hazard("heavy compression", _take("door", crf=38, seed=34)),
    Hazard("heavy compression, steady", _take("ridge", how=STEADY, crf=38, seed=35)),
    Hazard("rolling shutter", _take("door", how=ONE_HAND, read_out_s=0.02, seed=36)),
    Hazard("fast sweep", _take("ridge", "pan", seconds=1.2, fps=60.0, seed=37)),
    Hazard("lens zooms in", _take("door", "zoom", seed=43)),
    Hazard("run", _take("door", "walk", Technique(cadence_hz=2.7, landing=2.0), seed=38)),
    Hazard("every fifth frame twice", _take("door", seed=39), repeats(5)),
    Hazard("every other frame twice", _take("door", fps=60.0, seed=40), repeats(2)),
    Hazard("frozen for half a second", _take("door", seed=41), frozen),
    Hazard("320 px", _take("door", size=(320, 180), seed=42)),
)


def water_over(share: float) -> Spoiler:
    """The lower part is moving water, a share of the picture."""

    def make(take: Take, renderer: Renderer) -> Spoil:
        width, height = take.lens.size
        part = np.zeros((height, width, 1), np.float32)
        part[round((1 - share) * height) :] = 1.0
        return _moving_texture(take, renderer, part, pace=0.2, seed=31)

    return make


def leaves_over(share: float) -> Spoiler:
    """Leaves in the wind in patches, a share of the picture."""

    def make(take: Take, renderer: Renderer) -> Spoil:
        rng = np.random.default_rng(37)
        grid = rng.permutation(9 * 16).reshape(9, 16) < share * 9 * 16
        part = cv2.resize(grid.astype(np.float32), SIZE, interpolation=cv2.INTER_NEAREST)
        part = cv2.GaussianBlur(part, (0, 0), 3)[..., None]
        return _moving_texture(take, renderer, part, pace=0.05, seed=41)

    return make


COVERS = (0.30, 0.45, 0.60)


def _figure(cover: float) -> Spoiler:
    return movers.in_front(movers.figure, cover)


def _subjects() -> tuple[Hazard, ...]:
    """Large things that move by themselves from the first frame to the last, before a camera that
    stands still and in the hand."""
    kinds: list[tuple[str, str, str, Technique, Callable[[float], Spoiler]]] = [
        ("figure", "door", "hold", HAND, _figure),
        ("figure, faint wall", "bare", "hold", HAND, _figure),
        ("figure, soft lights", "lights", "hold", HAND, _figure),
        ("figure, dark", "dark", "hold", HAND, _figure),
        ("figure, white wall", "blank", "hold", HAND, _figure),
        ("walks beside", "door", "walk", Technique(cadence_hz=1.8),
         lambda c: movers.in_front(movers.walker, c, carried=False)),
        ("hand turns a thing", "bare", "hold", HAND, lambda c: movers.in_front(movers.hand, c)),
        ("vehicle's side", "ridge", "hold", HAND, lambda c: movers.in_front(movers.vehicle, c)),
        ("crowd", "door", "hold", HAND, lambda c: movers.in_front(movers.crowd, c)),
        ("comes, stays, goes", "door", "hold", HAND,
         lambda c: movers.in_front(movers.visitor, c)),
        ("followed", "ridge", "pan", HAND,
         lambda c: movers.in_front(movers.figure, c, carried=False)),
        ("water", "door", "hold", HAND, lambda c: water_over(c + 0.12)),
        ("leaves", "door", "hold", HAND, lambda c: leaves_over(c + 0.12)),
    ]  # fmt: skip
    made = []
    for number, (name, scene, move, how, spoiler) in enumerate(kinds):
        for cover in COVERS:
            for still in (True, False):
                where = "still" if still else "in the hand"
                script = _take(
                    scene, move, how, seed=60 + number, still=still,
                    seconds=3.6 if name.startswith("comes") else 3.0,
                )  # fmt: skip
                full = f"{name}, {100 * cover:.0f} %, {where}"
                worth = scene != "blank"
                made.append(Hazard(full, script, spoiler(cover), worth=worth))
    return tuple(made)


SUBJECTS = _subjects()
ALL = (*ORDINARY, *HARD, *SUBJECTS)
