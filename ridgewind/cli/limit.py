"""The subcommand `ridgewind limit`: the longest lens of each way of holding."""

from __future__ import annotations

from pathlib import Path

import click

from ridgewind.cli import report
from ridgewind.cli.common import FILE, SETTINGS, writing
from ridgewind.cli.tables import read_rows
from ridgewind.core.trials.lens_limit import Overall, lens_limit, overall_of


@click.command(context_settings=SETTINGS)
@click.argument("table", type=FILE)
@click.option(
    "--target", type=click.FloatRange(0, 10), required=True, metavar="G", help="Gust allowed."
)
@click.option("--overall-mean", type=float, metavar="M", help="Of log2 of body speed, all takes.")
@click.option("--overall-sd", type=click.FloatRange(0, 10), metavar="S", help="Spread of the same.")
@click.option("--json", "json_file", type=FILE, help="Write the result here, not to the screen.")
def limit(
    table: Path,
    target: float,
    overall_mean: float | None,
    overall_sd: float | None,
    json_file: Path | None,
) -> None:
    """Tell the longest lens at which four takes in five pass, for each technique of TABLE, which
    has the columns technique and log2_body_speed (of degrees a second).

    Few takes of a technique lean on all of the table's, or on the mean and spread that are given.

    \b
    Examples:
      ridgewind limit holds.csv --target 4
      ridgewind limit holds.csv --target 1.5 --overall-mean 0.1 --overall-sd 0.5
    """
    rows = read_rows(table, ("technique", "log2_body_speed"), numbers=("log2_body_speed",))
    by_technique: dict[str, list[float]] = {}
    for row in rows:
        by_technique.setdefault(row["technique"], []).append(float(row["log2_body_speed"]))
    known = overall_of([one for speeds in by_technique.values() for one in speeds])
    overall = Overall(
        known.mean if overall_mean is None else overall_mean,
        known.spread if overall_sd is None else overall_sd,
    )
    longest = {
        name: lens_limit(speeds, overall=overall).longest_mm(target=target)
        for name, speeds in by_technique.items()
    }
    text = report.json_text({"target": target, "longest_mm": longest})
    if json_file is None:
        click.echo(text, nl=False)
        return
    with writing():
        report.write_text(json_file, text)
    for name, focal in longest.items():
        click.echo(f"{name}: up to {focal:.0f} mm")
