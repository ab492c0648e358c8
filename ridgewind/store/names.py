"""Names of the files that a library keeps, which are also rows of its store.

A film is named by its content: 64 hex digits, then an ending. Nothing else ever becomes a path,
also where rows come from a stranger's archive.
"""

from __future__ import annotations

import re

DIGEST = re.compile(r"[0-9a-f]{64}")
ORIGINAL = re.compile(r"([0-9a-f]{64})\.[a-z0-9]{1,5}")
"""The digest of its content, and a harmless ending."""


class UnsafeNameError(ValueError):
    """A name that no file of a library has."""


def require_digest(sha256: object) -> str:
    """The digest itself. Raises UnsafeNameError."""
    if not (isinstance(sha256, str) and DIGEST.fullmatch(sha256)):
        raise UnsafeNameError(f"{sha256!r} is no SHA-256 of a film")
    return sha256


def require_original(file: object) -> str:
    """The name of an original itself. Raises UnsafeNameError."""
    if not (isinstance(file, str) and ORIGINAL.fullmatch(file)):
        raise UnsafeNameError(f"{file!r} is no name of a film of a library")
    return file


def require_pair(sha256: object, file: object) -> None:
    """The digest and the name of one film. Raises UnsafeNameError."""
    if require_digest(sha256) != require_original(file).partition(".")[0]:
        raise UnsafeNameError(f"{file!r} is not the name of the film {sha256}")
