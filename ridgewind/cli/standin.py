"""The subcommand `ridgewind standin`: film a made scene with the stand-in camera."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import fields
from pathlib import Path
from typing import Any

import click

from ridgewind.cli.common import FILE, SETTINGS, Refusal, writing
from ridgewind.core.motion.table import to_csv
from ridgewind.media.errors import MediaError
from ridgewind.standin.body import Technique
from ridgewind.standin.camera import Script, film, plan
from ridgewind.standin.choices import CHOICES, HELP
from ridgewind.standin.moves import MOVES
from ridgewind.standin.scenes import SCENES
from ridgewind.standin.turning import turning_log


def _technique_options(command: Callable[..., None]) -> Callable[..., None]:
    """An option for every setting of the body model."""
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


@click.command(context_settings=SETTINGS)
@click.argument("out", type=FILE)
@click.option("--scene", type=click.Choice(list(SCENES)), default="ridge")
@click.option("--move", type=click.Choice(list(MOVES)), default="hold")
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
@click.option("--log", type=FILE, help="Write the camera's turning rates here as CSV.")
@_technique_options
def standin(out: Path, truth: Path | None, log: Path | None, **asked: Any) -> None:
    """Film a made scene with the stand-in camera into OUT, an mp4 file.

    \b
    Examples:
      ridgewind standin hold.mp4
      ridgewind standin walk.mp4 --scene door --move walk --cadence-hz 1.9 --landing 1.5
      ridgewind standin long.mp4 --focal-eq 85 --fps 60 --fatigue 1 --contacts 1
      ridgewind standin steady.mp4 --support monopod --stabiliser 0.6 --truth path.csv
      ridgewind standin jelly.mp4 --read-out-s 0.02 --size 1920 1080
    """
    width, height = asked["size"]
    if width % 2 or height % 2:
        raise click.BadParameter("both sides must be even", param_hint="--size")
    technique = Technique(**{field.name: asked.pop(field.name) for field in fields(Technique)})
    script = Script(technique=technique, focal_eq_mm=asked.pop("focal_eq"), **asked)
    count = max(1, round(script.seconds * script.fps))
    with writing(), click.progressbar(length=count, label=f"Filming {out.name}") as bar:
        try:
            motion = film(script, out, on_frame=lambda *_: bar.update(1))
        except MediaError as error:
            raise Refusal(f"{out}: {error.what}; {error.next_step}") from None
        if log is not None:
            log.write_text(turning_log(plan(script), starts_before_s=1.0, ends_after_s=0.5))
        if truth is not None:
            truth.write_text(to_csv(motion), encoding="utf-8")
