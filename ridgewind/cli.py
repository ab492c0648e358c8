"""The command `ridgewind`. Each subcommand imports only what it needs, so that it starts fast."""
# ruff: noqa: PLC0415

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import fields
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


@click.group(context_settings=SETTINGS)
@click.version_option(__version__, prog_name="ridgewind")
def main() -> None:
    """Measure camera shake on hand-held takes, and judge whether they are smooth enough."""


@main.command(context_settings=SETTINGS)
@click.argument("clip", type=FILE)
@click.option("--csv", "csv_file", type=FILE, help="Write the path here, a row a frame.")
@click.option("--json", "json_file", type=FILE, help="Write the readings here.")
@click.option("--focal-eq", type=float, metavar="MM", help="Equivalent focal length, mm.")
@click.option("--feel", type=click.Choice(FEEL_NAMES), default="smooth", show_default=True)
@click.option("--delivery-fps", type=float, metavar="N", help="Frames a second of the film.")
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

    for name in ("focal_eq", "delivery_fps"):
        if asked[name] is not None and not 0 < asked[name] < 10_000:
            option = "--" + name.replace("_", "-")
            raise click.BadParameter("it must be above zero", param_hint=option)
    try:
        measured = measure_film(clip)
    except MediaError as error:
        raise Refusal(f"{clip.name or clip}: {error.what}; {error.next_step}") from None
    brief = report.brief_from(
        feel=asked["feel"], focal_eq_mm=asked["focal_eq"], delivery_fps=asked["delivery_fps"]
    )
    assessment = report.assess_measured(measured, brief)
    with _writing():
        if csv_file is not None:
            report.write_csv(csv_file, measured.motion)
        if json_file is not None:
            report.write_json(json_file, measured, assessment, brief)
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
            feel=take.feel,
            wanted_s=take.wanted_s,
            delivery_fps=take.delivery_fps,
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


def _technique_options(command: Callable[..., None]) -> Callable[..., None]:
    """An option for every setting of the body model."""
    from ridgewind.standin.body import Technique
    from ridgewind.standin.choices import CHOICES, HELP

    for field in reversed(fields(Technique)):
        kind: Any = type(field.default)
        if field.name in CHOICES:
            kind = click.Choice(CHOICES[field.name])
        name = f"--{field.name.replace('_', '-')}"
        if kind is bool:
            name = f"{name}/--no-{field.name.replace('_', '-')}"
        command = click.option(
            name, type=None if kind is bool else kind, default=field.default,
            show_default=True, help=HELP[field.name],
        )(command)  # fmt: skip
    return command


@main.command(context_settings=SETTINGS)
@click.argument("out", type=FILE)
@click.option("--scene", type=click.Choice(("ridge", "door", "stones")), default="ridge")
@click.option(
    "--move", type=click.Choice(("hold", "pan", "tilt", "slide", "rise", "walk")), default="hold"
)
@click.option("--focal-eq", type=click.FloatRange(10, 400), default=26.0, show_default=True)
@click.option("--size", nargs=2, type=click.IntRange(64, 4096), default=(960, 540))
@click.option("--fps", type=click.FloatRange(1, 480), default=30.0, show_default=True)
@click.option("--seconds", type=click.FloatRange(0.1, 3600), default=6.0, show_default=True)
@click.option("--shutter", type=click.FloatRange(0, 1), default=0.5, show_default=True,
              help="Share of the frame interval.")  # fmt: skip
@click.option("--read-out-s", type=click.FloatRange(0, 0.1), default=0.0, show_default=True,
              help="Rolling shutter, first line to last.")  # fmt: skip
@click.option("--noise", type=click.FloatRange(0, 40), default=1.5, show_default=True,
              help="Sensor noise, grey levels.")  # fmt: skip
@click.option("--crf", type=click.IntRange(0, 51), default=18, show_default=True,
              help="Compression of the H.264 file.")  # fmt: skip
@click.option("--seed", type=click.IntRange(0), default=1, show_default=True)
@click.option("--still/--shaking", default=False, help="Leave the shake out.")
@click.option("--truth", type=FILE, help="Write the true path here as CSV.")
@_technique_options
def standin(out: Path, truth: Path | None, **asked: Any) -> None:
    """Film a made scene with the stand-in camera into OUT, an mp4 file.

    \b
    Examples:
      ridgewind standin hold.mp4
      ridgewind standin walk.mp4 --scene door --move walk --cadence-hz 1.9 --landing 1.5
      ridgewind standin long.mp4 --focal-eq 85 --fps 60 --fatigue 1 --contacts 1
      ridgewind standin steady.mp4 --support monopod --stabiliser 0.6 --truth path.csv
      ridgewind standin jelly.mp4 --read-out-s 0.02 --size 1920 1080
    """
    from ridgewind.core.motion.table import to_csv
    from ridgewind.media.errors import MediaError
    from ridgewind.standin.body import Technique
    from ridgewind.standin.camera import Recipe, film

    width, height = asked["size"]
    if width % 2 or height % 2:
        raise click.BadParameter("both sides must be even", param_hint="--size")
    technique = Technique(**{field.name: asked.pop(field.name) for field in fields(Technique)})
    recipe = Recipe(technique=technique, focal_eq_mm=asked.pop("focal_eq"), **asked)
    count = max(1, round(recipe.seconds * recipe.fps))
    with _writing(), click.progressbar(length=count, label=f"Filming {out.name}") as bar:
        try:
            motion = film(recipe, out, on_frame=lambda *_: bar.update(1))
        except MediaError as error:
            raise Refusal(f"{out}: {error.what}; {error.next_step}") from None
        if truth is not None:
            truth.write_text(to_csv(motion), encoding="utf-8")


@contextmanager
def _writing() -> Iterator[None]:
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
