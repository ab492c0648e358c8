"""The newest error that nobody foresaw, as it can be sent to whoever mends it: where it happened in
the program, and nothing that it says, since that may name films and folders."""

from __future__ import annotations

import json
import traceback
from dataclasses import asdict, dataclass
from datetime import datetime
from pathlib import Path, PurePath

from ridgewind import __version__
from ridgewind.media.whole import whole_file

NAME = "newest-error.json"
PACKAGES = "site-packages"


@dataclass(frozen=True)
class KeptError:
    """number: by which the page named it. kind: class of the error. where: places in the program,
    the outermost first."""

    number: str
    at: str
    version: str
    kind: str
    where: tuple[str, ...]


def keep(root: Path, error: BaseException, *, number: str, at: datetime) -> None:
    """Raises OSError."""
    frames = traceback.extract_tb(error.__traceback__)
    kept = KeptError(
        number, at.isoformat(timespec="seconds"), __version__, type(error).__qualname__,
        tuple(f"{_place(frame.filename)}:{frame.lineno} {frame.name}" for frame in frames),
    )  # fmt: skip
    with whole_file(root / NAME) as partial:
        partial.write_text(json.dumps(asdict(kept)), encoding="utf-8")


def _place(file: str) -> str:
    """A file of the program, from its package on: what stands before is the shooter's own."""
    parts = PurePath(file.replace("\\", "/")).parts
    for begins in (PACKAGES, "ridgewind"):
        if begins in parts:
            at = len(parts) - 1 - parts[::-1].index(begins)
            return "/".join(parts[at + 1 :] if begins == PACKAGES else parts[at:])
    return parts[-1] if parts else "?"


def newest(root: Path) -> KeptError | None:
    """None where there was none, or it cannot be read."""
    try:
        told = json.loads((root / NAME).read_text(encoding="utf-8"))
        return KeptError(**{**told, "where": tuple(told["where"])})
    except (OSError, ValueError, TypeError, KeyError):
        return None
