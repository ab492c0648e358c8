"""The command `ridgewind`. A subcommand is imported when it is asked for, so that each starts
fast."""

from __future__ import annotations

from importlib import import_module

import click

from ridgewind import __version__
from ridgewind.cli.common import SETTINGS
from ridgewind.imports import uncollected

SUBCOMMANDS = {
    "archive": "Write a whole library into one file.",
    "card": "Film a simulated card of a session that was run.",
    "demo": "Start Ridgewind with made clips, measured as they arrive.",
    "doctor": "Tell what this machine has and can, to be sent with a question.",
    "limit": "Tell the longest lens of each way of holding.",
    "measure": "Measure how much a clip shakes.",
    "restore": "Make a library of an archive.",
    "sequence": "Write an outing's takes, joined, as a time line.",
    "serve": "Start Ridgewind on this computer, with your own library.",
    "standin": "Film a made scene with the stand-in camera.",
    "trial": "Compare ways of holding over many takes.",
    "worker": "Measure and render for a library on another machine.",
}
"""Each a module of this folder that holds a command of its own name, and what it does."""


class Subcommands(click.Group):
    """The modules of this folder, imported one by one."""

    def list_commands(self, ctx: click.Context) -> list[str]:
        return list(SUBCOMMANDS)

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        if cmd_name not in SUBCOMMANDS:
            return None
        with uncollected():
            command: click.Command = getattr(import_module(f"ridgewind.cli.{cmd_name}"), cmd_name)
        return command

    def format_commands(self, ctx: click.Context, formatter: click.HelpFormatter) -> None:
        with formatter.section("Commands"):
            formatter.write_dl(list(SUBCOMMANDS.items()))


@click.group(cls=Subcommands, context_settings=SETTINGS)
@click.version_option(__version__, prog_name="ridgewind")
def main() -> None:
    """Measure camera shake on hand-held takes, and judge whether they are smooth enough."""
