"""A sequence on paper: a picture of every piece, its ridge, how long it is and how it joins."""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import cache
from pathlib import Path

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFont

from ridgewind.core.sequence.seen import Seen
from ridgewind.core.sequence.shapes import Cutout
from ridgewind.films.rendering import Source
from ridgewind.media.decode import Film
from ridgewind.media.encode import still_of
from ridgewind.media.errors import MediaError

DPI = 150
PAGE_PX = (1754, 1240)
"""A sheet of A4 across."""

MARGIN, GAP, HEAD = 70, 28, 120
WIDEST, TALLEST = (PAGE_PX[0] - 2 * MARGIN - 3 * GAP) // 4, 300
"""Of a picture, px: four of the usual shape stand beside each other."""

NARROWEST = 240
"""Of what is written under one."""

RIDGE, WORDS = 54, 64
"""Heights under a picture."""

PAPER, INK, STONE, LINE, EMBER = "#FBFCFB", "#10252B", "#566B70", "#D3DCDB", "#C9431F"
RIDGES = ("#163D49", "#356878", "#6C98A4", "#A3BFC4", "#CFDDDE")
"""Of the bands, near ones first, as everywhere."""

MOST_GUST = 8.0
HATCH = 6

FONTS = Path(__file__).parent / "fonts"
LATIN = ((0x0, 0xFF), (0x131, 0x131), (0x152, 0x153), (0x2000, 0x206F), (0x20AC, 0x20AC))
"""What the first of the two files of letters holds."""


@dataclass(frozen=True)
class Cell:
    """A piece on the sheet. picture: (height, width, 3) BGR, None where it is missing. ridge:
    (n, 5) heights reached by the bands, near ones first, gust. join: how it joins to the one
    before, "" where that is not known."""

    number: int
    subject: str
    picture: NDArray[np.uint8] | None
    ridge: NDArray[np.float64]
    words: str
    gust: float | None
    join: str


@dataclass(frozen=True)
class Heading:
    """shape: width over height of the pictures. target: gust that is allowed."""

    name: str
    words: str
    shape: float
    target: float


def picture_of(seen: Seen, source: Source) -> NDArray[np.uint8] | None:
    """The middle of a piece as it is seen, (height, width, 3) BGR; None where its film cannot be
    read."""
    middle = seen.frames // 2
    at_s = seen.time_of(middle) + source.shift_s
    try:
        with Film(source.path) as film:
            film.begin_at(at_s)
            picture = next(iter(film.pictures(lambda plane: plane[::16, ::16])), None)
            if picture is None:
                return None
            still = still_of(picture, long_side_px=round(2 * WIDEST / min(1.0, seen.window.width)))
    except MediaError:
        return None
    return _cut(still, seen.window, seen.middles[middle])


def _cut(
    still: NDArray[np.uint8], window: Cutout, middle_pct: NDArray[np.float64]
) -> NDArray[np.uint8]:
    height, width = still.shape[:2]
    size = np.array([window.width * width, window.height * height])
    middle = np.array([width, height]) / 2 + middle_pct * max(width, height) / 100.0
    left, top = (round(float(at)) for at in np.clip(middle - size / 2, 0, (width, height) - size))
    out: NDArray[np.uint8] = still[top : top + round(size[1]), left : left + round(size[0])]
    return out


def as_png(heading: Heading, cells: Sequence[Cell]) -> bytes:
    """All of it in one picture."""
    rows = max(1, -(-len(cells) // _columns(heading.shape)))
    height = 2 * MARGIN + HEAD + rows * _row_height(heading.shape)
    out = io.BytesIO()
    _page(heading, cells, height).save(out, "PNG", dpi=(DPI, DPI))
    return out.getvalue()


def as_pdf(heading: Heading, cells: Sequence[Cell]) -> bytes:
    """On sheets of paper."""
    rows = max(1, (PAGE_PX[1] - 2 * MARGIN - HEAD) // _row_height(heading.shape))
    each = rows * _columns(heading.shape)
    pages = [
        _page(heading, cells[first : first + each], PAGE_PX[1])
        for first in range(0, max(1, len(cells)), each)
    ]
    out = io.BytesIO()
    pages[0].save(out, "PDF", resolution=DPI, save_all=True, append_images=pages[1:], quality=92)
    return out.getvalue()


def _frame_size(shape: float) -> tuple[int, int]:
    if WIDEST / shape <= TALLEST:
        return WIDEST, round(WIDEST / shape)
    return round(TALLEST * shape), TALLEST


def _cell_width(shape: float) -> int:
    return max(NARROWEST, _frame_size(shape)[0])


def _columns(shape: float) -> int:
    return (PAGE_PX[0] - 2 * MARGIN + GAP) // (_cell_width(shape) + GAP)


def _row_height(shape: float) -> int:
    return _frame_size(shape)[1] + RIDGE + WORDS + GAP


def _page(heading: Heading, cells: Sequence[Cell], height: int) -> Image.Image:
    page = Image.new("RGB", (PAGE_PX[0], height), PAPER)
    pen = ImageDraw.Draw(page)
    _write(pen, (MARGIN, MARGIN), heading.name, size=44, weight=700, width=100)
    _write(pen, (MARGIN, MARGIN + 58), heading.words, size=22, colour=STONE)
    for place, cell in enumerate(cells):
        row, column = divmod(place, _columns(heading.shape))
        left = MARGIN + column * (_cell_width(heading.shape) + GAP)
        top = MARGIN + HEAD + row * _row_height(heading.shape)
        _draw(page, pen, cell, heading, (left, top))
    return page


def _draw(
    page: Image.Image, pen: ImageDraw.ImageDraw, cell: Cell, heading: Heading, at: tuple[int, int]
) -> None:
    left, top = at
    width, height = _frame_size(heading.shape)
    if cell.picture is None:
        pen.rectangle((left, top, left + width, top + height), fill=LINE)
        for stripe in range(-height, width, 16):
            ends = (max(0, stripe), max(0, -stripe)), _inside(stripe + height, height, width)
            pen.line([(left + x, top + y) for x, y in ends], fill=PAPER, width=2)
    else:
        seen = cv2.cvtColor(
            cv2.resize(cell.picture, (width, height), interpolation=cv2.INTER_AREA),
            cv2.COLOR_BGR2RGB,
        )
        page.paste(Image.fromarray(seen), at)
    _draw_ridge(pen, cell.ridge, heading.target, (left, top + height, width))
    below = top + height + RIDGE + 6
    gust = "–" if cell.gust is None else f"{cell.gust:.1f}"
    across = _cell_width(heading.shape)
    _write(pen, (left + across, below), gust, size=30, weight=700, width=70, right=True)
    room = across - 60
    _write(pen, (left, below), f"{cell.number}  {cell.subject}", size=20, weight=650, room=room)
    words = cell.words if not cell.join else f"{cell.words} · {cell.join}"
    _write(pen, (left, below + 26), words, size=17, colour=STONE, room=room)


def _inside(x: int, y: int, width: int) -> tuple[int, int]:
    return (x, y) if x <= width else (width, y - (x - width))


def _draw_ridge(
    pen: ImageDraw.ImageDraw, ridge: NDArray[np.float64], target: float, box: tuple[int, int, int]
) -> None:
    left, top, width = box
    bottom = top + RIDGE

    def height(gust: float) -> float:
        return bottom - min(gust, MOST_GUST) / MOST_GUST * RIDGE

    if len(ridge):
        along = left + np.linspace(0, width, len(ridge)) if len(ridge) > 1 else [left, left + width]
        rows = ridge if len(ridge) > 1 else np.repeat(ridge, 2, axis=0)
        # The far bands first: each reaches over all that are nearer.
        for band in reversed(range(rows.shape[1])):
            line = [(float(x), height(float(g))) for x, g in zip(along, rows[:, band], strict=True)]
            pen.polygon([(left, bottom), *line, (left + width, bottom)], fill=RIDGES[band])
        # What rises over the target is hatched.
        for x in range(left, left + width, HATCH):
            over = float(np.interp(x, along, rows[:, -1]))
            if over > target:
                pen.line((x, height(over), x, height(target)), fill=EMBER, width=2)
    for dash in range(left, left + width, 8):
        pen.line((dash, height(target), dash + 3, height(target)), fill=INK, width=1)
    pen.line((left, bottom, left + width, bottom), fill=LINE, width=1)


def _write(
    pen: ImageDraw.ImageDraw, at: tuple[int, int], text: str, *, size: int, weight: int = 400,
    width: int = 100, colour: str = INK, right: bool = False, room: int | None = None,
) -> None:  # fmt: skip
    """Write one line; what does not fit into the room is cut short."""
    runs = list(_runs(text))
    lengths = [_font(size, weight, width, latin).getlength(run) for run, latin in runs]
    if room is not None and sum(lengths) > room and len(text) > 1:
        kept = text.rstrip("…")[: max(1, int(len(text) * room / sum(lengths)) - 1)].rstrip()
        _write(
            pen, at, f"{kept}…", size=size, weight=weight, width=width, colour=colour, right=right
        )
        return
    x = float(at[0] - sum(lengths) if right else at[0])
    for (run, latin), length in zip(runs, lengths, strict=True):
        pen.text((x, at[1]), run, font=_font(size, weight, width, latin), fill=colour)
        x += length


def _runs(text: str) -> Iterator[tuple[str, bool]]:
    """Pieces of a text by the file that has their letters."""
    begun, held = 0, None
    for at, letter in enumerate(text):
        latin = any(first <= ord(letter) <= last for first, last in LATIN)
        if held is not None and latin != held:
            yield text[begun:at], held
            begun = at
        held = latin
    if held is not None:
        yield text[begun:], held


@cache
def _font(size: int, weight: int, width: int, latin: bool) -> ImageFont.FreeTypeFont:
    name = "archivo-latin.woff2" if latin else "archivo-latin-ext.woff2"
    font = ImageFont.truetype(str(FONTS / name), size)
    font.set_variation_by_axes([weight, width])
    return font
