"""The subcommand `ridgewind measure`: how much one clip shakes, and whether it is smooth enough."""

from __future__ import annotations

from pathlib import Path
from typing import Any

import click

from ridgewind.cli import report
from ridgewind.cli.common import FILE, SETTINGS, Refusal, writing
from ridgewind.core.brief import FEELS
from ridgewind.films.measuring import measure_film
from ridgewind.media.errors import MediaError


@click.command(context_settings=SETTINGS)
@click.argument("clip", type=FILE)
@click.option("--csv", "csv_file", type=FILE, help="Write the path here, a row a frame.")
@click.option("--json", "json_file", type=FILE, help="Write the readings here.")
@click.option(
    "--focal-eq", type=click.FloatRange(1, 3000), metavar="MM", help="Equivalent focal length, mm."
)
@click.option("--feel", type=click.Choice(list(FEELS)), default="smooth", show_default=True)
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
    try:
        measured = measure_film(clip)
    except MediaError as error:
        raise Refusal(f"{clip.name or clip}: {error.what}; {error.next_step}") from None
    brief = report.brief_from(feel=asked["feel"], delivery_fps=asked["delivery_fps"])
    focal = report.focal_of(measured, asked["focal_eq"])
    # Where no delivery was named, nothing is known of frames that it leaves out.
    as_filmed = asked["delivery_fps"] is None
    assessment = report.assess_measured(measured, brief, focal_eq_mm=focal, as_filmed=as_filmed)
    with writing():
        if csv_file is not None:
            report.write_csv(csv_file, measured.motion)
        if json_file is not None:
            report.write_json(json_file, measured, assessment, brief, focal_eq_mm=focal)
    click.echo(report.summary(clip.name, measured, assessment, brief))
