"""Tables that the command line reads: CSV with a known header, each fault one line."""

from __future__ import annotations

import csv
from collections.abc import Sequence
from pathlib import Path

from ridgewind.cli.common import Refusal

MOST_ROWS = 100_000


def read_rows(path: Path, header: Sequence[str], *, numbers: Sequence[str]) -> list[dict[str, str]]:
    """The rows of a table, without blank ones. Refuses a file that cannot be read, another header,
    an empty cell, a number that is none, no row at all, or more than MOST_ROWS."""
    try:
        with path.open(newline="", encoding="utf-8-sig") as file:
            rows = [[cell.strip() for cell in row] for row in csv.reader(file) if any(row)]
    except (OSError, UnicodeDecodeError, csv.Error) as error:
        why = getattr(error, "strerror", None) or "it is no table in UTF-8"
        raise Refusal(f"{path}: cannot be read ({why})") from None
    if not rows or rows[0] != list(header):
        raise Refusal(f"{path}: its first line must be {','.join(header)}")
    if len(rows) == 1:
        raise Refusal(f"{path}: it holds no row")
    if len(rows) > MOST_ROWS:
        raise Refusal(f"{path}: it holds over {MOST_ROWS} rows")
    for line, row in enumerate(rows[1:], start=2):
        if len(row) != len(header) or not all(row):
            raise Refusal(f"{path}: row {line} does not have {len(header)} values")
        for name in numbers:
            if not _is_number(row[list(header).index(name)]):
                cell = row[list(header).index(name)]
                raise Refusal(f"{path}: row {line} has {cell!r} for {name}, which is no number")
    return [dict(zip(header, row, strict=True)) for row in rows[1:]]


def _is_number(cell: str) -> bool:
    try:
        return abs(float(cell)) < float("inf")
    except ValueError:
        return False
