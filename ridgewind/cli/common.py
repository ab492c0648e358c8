"""What the subcommands share: types of arguments, and how a command refuses."""

from __future__ import annotations

import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO, Any

import click

SETTINGS = {"max_content_width": 92, "help_option_names": ["-h", "--help"]}
FILE = click.Path(path_type=Path)
FOLDER = click.Path(path_type=Path, file_okay=False)
PORT = click.IntRange(0, 65535)


class Refusal(click.ClickException):
    """Ends the command with status 1 and one line on standard error."""

    def show(self, file: IO[Any] | None = None) -> None:
        click.echo(f"ridgewind: {self.message}", err=True)


@contextmanager
def writing() -> Iterator[None]:
    """Turn a file that cannot be written into a refusal."""
    try:
        yield
    except OSError as error:
        name = error.filename or "the output"
        why = error.strerror or error
        raise Refusal(f"{name}: cannot be written ({why}); choose another place") from None


class Told:
    """How far something long is, on a terminal; nothing where the output goes elsewhere."""

    def __init__(self, words: str) -> None:
        self._words, self._last = words, -1
        self._shows = sys.stderr.isatty()

    def at(self, done: float) -> None:
        """done: 0 to 1."""
        share = int(100 * done)
        if self._shows and share != self._last:
            click.echo(f"\r{self._words} {share} %", nl=False, err=True)
            self._last = share

    def end(self) -> None:
        if self._shows and self._last >= 0:
            click.echo(f"\r{' ' * (len(self._words) + 6)}\r", nl=False, err=True)
