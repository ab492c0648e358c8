"""Takes as tables that other programs read."""

from __future__ import annotations

import csv
import io
import json
from collections.abc import Iterator
from typing import Any

from ridgewind.core.words import timecode
from ridgewind.services.exporting import Reading, TakeRecord

Row = dict[str, Any]
DIGITS = 4


def as_csv(records: Iterator[TakeRecord]) -> Iterator[str]:
    """A heading, then a row a take; causes in one cell."""
    names = list(_blank())
    yield _line(names)
    for record in records:
        row = _row(record)
        row["causes"] = "; ".join(one["name"] for one in row["causes"])
        yield _line([_cell(row[name]) for name in names])


def as_json(records: Iterator[TakeRecord]) -> Iterator[str]:
    """An array of takes, piece by piece."""
    between = "[\n"
    for record in records:
        yield between + json.dumps(_row(record), ensure_ascii=False)
        between = ",\n"
    yield "\n]\n" if between == ",\n" else "[]\n"


def _row(record: TakeRecord) -> Row:
    take, brief, found = record.take, record.take.brief, record.reading
    told = {
        "id": take.id,
        "name": take.name,
        "film": take.file_name,
        "filmed_at": take.recorded_at,
        "session": record.session,
        "drill": record.drill,
        "variation": record.variation,
        "setup": take.setup_name,
        "focal_eq_mm": take.focal_eq_mm,
        "brief": take.brief_name,
        "feel": brief.feel,
        "target": brief.target,
        "screen_deg": brief.screen_deg,
        "delivery_fps": brief.delivery_fps,
        "fps": take.fps,
        "length_s": take.duration_s,
        "settled": take.choice,
        "smooth": record.smooth,
    }
    return _blank() | _rounded(told | ({} if found is None else _measured(found, take.fps)))


def _measured(found: Reading, fps: float | None) -> Row:
    row: Row = {
        "gust": found.gust,
        "peak_gust": found.peak_gust,
        "body_deg_s": found.body_deg_s,
        "trusted_share": found.trusted_share,
        "text": found.text,
        "causes": [
            {"name": one.name, "share": round(one.share, DIGITS), "evidence": one.evidence,
             "change": one.change}
            for one in found.causes
        ],
    }  # fmt: skip
    if found.verdict is not None:
        row |= {
            "verdict": found.verdict.kind,
            "rate": found.verdict.rate,
            "crop_pct": found.verdict.crop_pct,
        }
    if found.part is not None:
        row |= _span("", found.part[0], found.part[1], fps)
    if found.lee is not None:
        row |= _span("lee_", found.lee[0], found.lee[1], fps) | {"lee_gust": found.lee[2]}
    return row


def _span(of: str, from_s: float, to_s: float, fps: float | None) -> Row:
    row: Row = {f"{of}in_s": from_s, f"{of}out_s": to_s}
    if fps is not None:
        row[f"{of}in"] = timecode(from_s, fps=fps)
        row[f"{of}out"] = timecode(to_s, fps=fps)
    return row


def _blank() -> Row:
    """Every column, in order, with nothing known."""
    names = (
        "id name film filmed_at session drill variation setup focal_eq_mm brief feel target"
        " screen_deg delivery_fps fps length_s gust peak_gust body_deg_s trusted_share verdict"
        " in_s out_s in out rate crop_pct lee_in_s lee_out_s lee_in lee_out lee_gust causes text"
        " settled smooth"
    )
    return dict.fromkeys(names.split()) | {"causes": []}


def _rounded(row: Row) -> Row:
    return {
        name: round(value, DIGITS) if isinstance(value, float) else value
        for name, value in row.items()
    }


RUN_BY_TABLES = ("=", "+", "-", "@", "\t", "\r")
"""What a table's program would take for a formula at the beginning of a text."""


def _cell(value: object) -> object:
    if isinstance(value, str) and value.startswith(RUN_BY_TABLES):
        return f"'{value}"
    return value


def _line(cells: list[Any]) -> str:
    out = io.StringIO()
    csv.writer(out).writerow(cells)
    return out.getvalue()
