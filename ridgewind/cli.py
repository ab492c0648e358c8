"""The command `ridgewind`. Each subcommand imports only what it needs, so that it starts fast."""
# ruff: noqa: PLC0415

from __future__ import annotations

import signal
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import IO, TYPE_CHECKING, Any

import click

from ridgewind import __version__

if TYPE_CHECKING:
    from ridgewind.web.server import Start

SETTINGS = {"max_content_width": 92, "help_option_names": ["-h", "--help"]}
FEEL_NAMES = ("locked", "smooth", "alive", "raw")
FILE = click.Path(path_type=Path)
FOLDER = click.Path(path_type=Path, file_okay=False)
PORT = click.IntRange(0, 65535)


class Refusal(click.ClickException):
    """Ends the command with status 1 and one line on standard error."""

    def show(self, file: IO[Any] | None = None) -> None:
        click.echo(f"ridgewind: {self.message}", err=True)


class LazyGroup(click.Group):
    """Imports the stand-in camera's commands only when they are asked for."""

    def list_commands(self, ctx: click.Context) -> list[str]:
        return sorted([*super().list_commands(ctx), "standin", "card"])

    def get_command(self, ctx: click.Context, cmd_name: str) -> click.Command | None:
        if cmd_name == "standin":
            from ridgewind.cli_standin import standin

            return standin
        if cmd_name == "card":
            from ridgewind.cli_card import card

            return card
        return super().get_command(ctx, cmd_name)


@click.group(cls=LazyGroup, context_settings=SETTINGS)
@click.version_option(__version__, prog_name="ridgewind")
def main() -> None:
    """Measure camera shake on hand-held takes, and judge whether they are smooth enough."""


@main.command(context_settings=SETTINGS)
@click.argument("clip", type=FILE)
@click.option("--csv", "csv_file", type=FILE, help="Write the path here, a row a frame.")
@click.option("--json", "json_file", type=FILE, help="Write the readings here.")
@click.option(
    "--focal-eq", type=click.FloatRange(1, 3000), metavar="MM", help="Equivalent focal length, mm."
)
@click.option("--feel", type=click.Choice(FEEL_NAMES), default="smooth", show_default=True)
@click.option(
    "--delivery-fps",
    type=click.FloatRange(1, 1000),
    metavar="N",
    help="Frames a second of the film.",
)
def measure(clip: Path, csv_file: Path | None, json_file: Path | None, **asked: Any) -> None:
    """Measure how much CLIP shakes and say whether it is smooth enough.

    \b
    Examples:
      ridgewind measure door.mp4
      ridgewind measure door.mp4 --feel locked --focal-eq 35
      ridgewind measure door.mp4 --csv path.csv --json readings.json --delivery-fps 24
    """
    from ridgewind import report
    from ridgewind.media.errors import MediaError
    from ridgewind.work.measuring import measure_film

    try:
        measured = measure_film(clip)
    except MediaError as error:
        raise Refusal(f"{clip.name or clip}: {error.what}; {error.next_step}") from None
    brief = report.brief_from(feel=asked["feel"], delivery_fps=asked["delivery_fps"])
    focal = report.focal_of(measured, asked["focal_eq"])
    assessment = report.assess_measured(measured, brief, focal_eq_mm=focal)
    with writing():
        if csv_file is not None:
            report.write_csv(csv_file, measured.motion)
        if json_file is not None:
            report.write_json(json_file, measured, assessment, brief, focal_eq_mm=focal)
    click.echo(report.summary(clip.name, measured, assessment, brief))


@main.command(context_settings=SETTINGS)
@click.option("--data", type=FOLDER, help="Folder of the library.")
@click.option("--port", type=PORT, default=8421, show_default=True, help="0 takes a free one.")
@click.option("--open/--no-open", "open_browser", default=False, help="Open the browser.")
def serve(data: Path | None, port: int, open_browser: bool) -> None:
    """Start Ridgewind on this computer, with your own library.

    \b
    Examples:
      ridgewind serve --open
      ridgewind serve --data ~/films/ridgewind --port 9000
    """
    from platformdirs import user_data_path

    from ridgewind.web.server import Start

    library = data or user_data_path("ridgewind", appauthor=False)
    _run(Start(library, port, open_browser=open_browser, announce=click.echo))


@main.command(context_settings=SETTINGS)
@click.option("--data", type=FOLDER, help="Folder of the demo's library; it is emptied first.")
@click.option("--port", type=PORT, default=8421, show_default=True, help="0 takes a free one.")
@click.option("--open/--no-open", "open_browser", default=False, help="Open the browser.")
def demo(data: Path | None, port: int, open_browser: bool) -> None:
    """Start Ridgewind with made clips of Harrow Top, measured as they arrive.

    \b
    Examples:
      ridgewind demo --open
      ridgewind demo --port 9000
    """
    from platformdirs import user_cache_path

    from ridgewind.standin.demo import DEMO_TAKES
    from ridgewind.web.server import Start
    from ridgewind.work.demo import DemoClip, fill

    library = data or user_cache_path("ridgewind", appauthor=False) / "demo"
    if data is not None and data.exists() and any(data.iterdir()) and not _is_demo(data):
        raise Refusal(f"{data}: holds other files; choose an empty folder for the demo")
    clips = [
        DemoClip(
            file=take.file,
            name=take.name,
            brief=take.brief,
            setup=take.setup,
            focal_eq_mm=take.recipe.focal_eq_mm,
        )
        for take in DEMO_TAKES
    ]
    library.mkdir(parents=True, exist_ok=True)
    (library / DEMO_MARK).touch()
    _run(
        Start(
            library,
            port,
            demo=True,
            open_browser=open_browser,
            fill=lambda shelf: fill(shelf, clips),
            announce=click.echo,
        )
    )


DEMO_MARK = "made-clips-only"


def _is_demo(folder: Path) -> bool:
    return (folder / DEMO_MARK).exists()


@contextmanager
def writing() -> Iterator[None]:
    try:
        yield
    except OSError as error:
        name = error.filename or "the output"
        why = error.strerror or error
        raise Refusal(f"{name}: cannot be written ({why}); choose another place") from None


def _run(start: Start) -> None:
    from ridgewind.store.errors import NewerSchemaError
    from ridgewind.web.server import PortInUseError, run
    from ridgewind.work.library import LibraryBusyError

    signal.signal(signal.SIGTERM, signal.default_int_handler)  # a service manager's way to stop
    try:
        run(start)
    except LibraryBusyError as error:
        text = f"{error}: another Ridgewind is using this library; stop it, or choose --data"
        raise Refusal(text) from None
    except PortInUseError as error:
        text = f"port {error}: something else listens there; choose another with --port"
        raise Refusal(text) from None
    except NewerSchemaError as error:
        raise Refusal(f"{start.library}: {error}") from None
    except OSError as error:
        text = f"{start.library}: cannot be used ({error.strerror}); choose another with --data"
        raise Refusal(text) from None


if __name__ == "__main__":
    main()
