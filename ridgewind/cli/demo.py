"""The subcommand `ridgewind demo`: the application with made clips of Harrow Top."""

from __future__ import annotations

import threading
from datetime import date
from pathlib import Path

import click
from platformdirs import user_cache_path

from ridgewind.cli.common import FOLDER, PORT, SETTINGS, Refusal
from ridgewind.cli.running import run_server
from ridgewind.demo import desk, folder
from ridgewind.demo.filling import DemoClip, fill
from ridgewind.demo.story import DEMO_TAKES
from ridgewind.demo.weeks import fill_weeks
from ridgewind.library.library import Library
from ridgewind.web.start import Start

KEPT = (
    "This demo holds films of yours, so it is opened as you left it. "
    "For a new one, choose an empty folder with --data."
)


@click.command(context_settings=SETTINGS)
@click.option("--data", type=FOLDER, help="Folder of the demo's library; it is emptied first.")
@click.option("--port", type=PORT, default=8421, show_default=True, help="0 takes a free one.")
@click.option(
    "--weeks/--no-weeks", default=True, help="With five weeks of practice, or the clips alone."
)
@click.option("--open/--no-open", "open_browser", default=False, help="Open the browser.")
def demo(data: Path | None, port: int, weeks: bool, open_browser: bool) -> None:
    """Start Ridgewind with made clips of Harrow Top, measured as they arrive.

    \b
    Examples:
      ridgewind demo --open
      ridgewind demo --port 9000
    """
    library = data or user_cache_path("ridgewind", appauthor=False) / "demo"
    made_anew = False

    def before(shelf: Library) -> None:
        nonlocal made_anew
        try:
            made_anew = folder.begin(shelf)
        except folder.OtherFilesError:
            text = f"{library}: holds other files; choose an empty folder for the demo with --data"
            raise Refusal(text) from None
        if not made_anew:
            click.echo(KEPT)

    def fill_anew(shelf: Library) -> None:
        if made_anew:
            fill(shelf, clips, today=date.today())

    def practise(shelf: Library, stopping: threading.Event) -> None:
        if made_anew:
            fill_weeks(shelf, stopping, today=date.today())
            desk.sit_down(shelf, stopping)

    clips = [
        DemoClip(
            file=take.file,
            name=take.name,
            recorded_at=take.recorded_at,
            brief=take.brief,
            setup=take.setup,
            focal_eq_mm=take.script.focal_eq_mm,
        )
        for take in DEMO_TAKES
    ]
    run_server(
        Start(
            library,
            port,
            demo=True,
            open_browser=open_browser,
            before=before,
            fill=fill_anew,
            goes_on=practise if weeks else None,
            announce=click.echo,
        )
    )
