"""The subcommand `ridgewind trial`: ways of holding compared over many takes."""

from __future__ import annotations

from collections import Counter
from pathlib import Path

import click

from ridgewind.cli import report
from ridgewind.cli.common import FILE, SETTINGS, Refusal, writing
from ridgewind.cli.tables import read_rows
from ridgewind.core.errors import InvalidArgumentError
from ridgewind.core.trials.trial import Difference, Filmed, Trial, compare_variations


@click.command(context_settings=SETTINGS)
@click.argument("table", type=FILE)
@click.option("--control", required=True, metavar="NAME", help="The plain control.")
@click.option("--fatigue", is_flag=True, help="Tell the take's place in its session apart.")
@click.option("--json", "json_file", type=FILE, help="Write the result here, not to the screen.")
def trial(table: Path, control: str, fatigue: bool, json_file: Path | None) -> None:
    """Compare the variations of TABLE, which has the columns session, variation and gust.

    Rows are takes in the order in which they were filmed. Sessions in which only one variation was
    filmed are left out.

    \b
    Examples:
      ridgewind trial strap.csv --control slack
      ridgewind trial strap.csv --control slack --fatigue --json trial.json
    """
    rows = read_rows(table, ("session", "variation", "gust"), numbers=("gust",))
    places: Counter[str] = Counter()
    takes = []
    for row in rows:
        places[row["session"]] += 1
        place = float(places[row["session"]])
        takes.append(Filmed(row["session"], row["variation"], place, float(row["gust"])))
    try:
        found = compare_variations(takes, control=control, with_place=fatigue)
    except InvalidArgumentError as error:
        raise Refusal(f"{table}: {error}") from None
    text = report.json_text(_told(found))
    if json_file is None:
        click.echo(text, nl=False)
        return
    with writing():
        report.write_text(json_file, text)
    for name, one in found.against_control.items():
        click.echo(f"{name} against {control}: {_summary(one)}")


def _told(found: Trial) -> dict[str, object]:
    told: dict[str, object] = {
        "control": found.control,
        "dof": found.dof,
        "spread": found.spread,
        "best": found.best,
        "against_control": {
            name: {
                "difference": one.value,
                "low": one.low,
                "high": one.high,
                "p": one.p,
                "takes": one.takes,
                "more_takes": one.more_takes,
                "hint": one.hint,
            }
            for name, one in found.against_control.items()
        },
        "hint": found.hint,
        "left_out": len(found.left_out),
    }
    if found.place is not None:
        told["fatigue"] = {
            "gust_a_take": found.place.value,
            "low": found.place.low,
            "high": found.place.high,
        }
    return told


def _summary(one: Difference) -> str:
    within = "" if one.low is None else f" ({one.low:+.2f} to {one.high:+.2f})"
    hint = ", a hint" if one.hint else ""
    return f"{one.value:+.2f} gust{within}, p = {one.p or 0.0:.3g}{hint}"
