"""The command `ridgewind`. Each subcommand imports only what it needs, so that it starts fast."""

from __future__ import annotations

import sys
from pathlib import Path

import click

from ridgewind import __version__

EXAMPLES = {"max_content_width": 92, "help_option_names": ["-h", "--help"]}


class Refusal(click.ClickException):
    """Ends the command with status 1 and one line on standard error."""

    def show(self, file: object = None) -> None:
        click.echo(f"ridgewind: {self.message}", err=True)


@click.group(context_settings=EXAMPLES)
@click.version_option(__version__, prog_name="ridgewind")
def main() -> None:
    """Measure camera shake on hand-held takes, and judge whether they are smooth enough."""


FEEL_NAMES = ("locked", "smooth", "alive", "raw")


@main.command(context_settings=EXAMPLES)
@click.argument("clip", type=click.Path(path_type=Path))
@click.option("--csv", "csv_file", type=click.Path(path_type=Path), help="Write the path here.")
@click.option("--json", "json_file", type=click.Path(path_type=Path), help="Write readings here.")
@click.option("--focal-eq", type=float, metavar="MM", help="Equivalent focal length, mm.")
@click.option("--feel", type=click.Choice(FEEL_NAMES), default="smooth", show_default=True)
@click.option("--delivery-fps", type=float, metavar="N", help="Frames a second of the film.")
def measure(
    clip: Path,
    csv_file: Path | None,
    json_file: Path | None,
    focal_eq: float | None,
    feel: str,
    delivery_fps: float | None,
) -> None:
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

    for name, value in (("--focal-eq", focal_eq), ("--delivery-fps", delivery_fps)):
        if value is not None and not 0 < value < 10_000:
            raise click.BadParameter("it must be above zero", param_hint=name)
    try:
        measured = measure_film(clip)
    except MediaError as error:
        raise Refusal(f"{clip.name or clip}: {error.what}; {error.next_step}") from None
    brief = report.brief_from(feel=feel, focal_eq_mm=focal_eq, delivery_fps=delivery_fps)
    assessment = report.assess_measured(measured, brief)
    try:
        if csv_file is not None:
            report.write_csv(csv_file, measured.motion)
        if json_file is not None:
            report.write_json(json_file, measured, assessment, brief)
    except OSError as error:
        name = error.filename or "the output"
        raise Refusal(f"{name}: cannot be written ({error.strerror}); choose another place")
    click.echo(report.summary(clip.name, measured, assessment, brief))


if __name__ == "__main__":
    sys.exit(main())
