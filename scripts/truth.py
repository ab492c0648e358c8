"""Film every hazard, measure it, and keep the table in docs/truth.md: `make truth`.

About twelve minutes. Clips are kept nowhere; everything is made again from its seed.
"""

from __future__ import annotations

import sys
import tempfile
from collections import Counter
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

from ridgewind.core.brief import Brief, usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.polish_warnings import LEAST_FOLLOWED, NOISY_GUST, wobbles
from ridgewind.core.judge.recipe import at_strength, predicted, recipe_of
from ridgewind.core.judge.shutter import readout_of
from ridgewind.core.motion import Motion
from ridgewind.films.measuring import Measured, measure_film
from ridgewind.films.rendering import Source, measured_again, render_preview
from ridgewind.media.errors import UnfitError
from ridgewind.standin.camera import film
from ridgewind.standin.faults import PAIRS, SINGLE, paired_takes, single_takes
from ridgewind.standin.hazards import HARD, ORDINARY, SUBJECTS, Hazard
from ridgewind.standin.truth import HEADER, Compared, compare, row_of

OUT = Path(__file__).parent.parent / "docs/truth.md"
LOW_TRUST = 0.65
TRUST_BINS = ((0.5, 0.65), (0.65, 0.8), (0.8, 0.9), (0.9, 0.97), (0.97, 1.01))
AGREEMENT = 0.4
WRONG = 0.5
"""Gust from which a clip that is trusted counts as a confident error."""

STRENGTH = 4
"""Of the curve: a polish that leaves something to be measured."""

BRIEF: Brief = usual_brief()
POLISH_HEADER = (
    "| clip | crop, % | crop from the true path, % | gust predicted | preview measured | off |\n"
    "| --- | --- | --- | --- | --- | --- |"
)
SINGLE_TAKES, PAIRED_TAKES = 10, 4

INTRODUCTION = """# Measured against the truth

Written by `make truth`: every clip is filmed by the stand-in camera, encoded, and measured like
any other; the true path is known from its pose. Gust is wanted within 0.1 of the truth on ordinary
clips and within 0.3 on spoilt ones; where it is further off, trust is under {low} and the take's
page says why. Polished clips are wanted within 0.4 of the prediction when they are measured again,
but where a part could not be followed, the picture is noisy, or a rolling shutter leans it, which
the polish then warns of.
Path error is the root mean square of pan and tilt, percent of the long side.

**Confident errors** (gust off by {wrong} or more with trust of {low} or more), over all
{clips} clips: **{errors}**. In doubt or not measurable: {doubtful}.
"""


def polished(name: str, path: Path, measured: Measured, truth: Motion) -> tuple[str, float]:
    """A row of a polish rendered and measured again, and how far that is from the prediction; 0
    where the polish warns that lines will wobble."""
    size = (measured.width, measured.height)
    clip = Clip(measured.fps, measured.duration_s, False, size, 26.0)
    analysis = Analysis(measured.motion)
    curve = analysis.polish(upright=clip.upright)
    true = Analysis(truth).polish(upright=clip.upright)
    assert curve is not None
    assert true is not None
    keep = recipe_of(assess(analysis, clip, BRIEF).decision.of("keep"))
    recipe = at_strength(keep, curve, curve.points[STRENGTH], BRIEF)
    recipe = predicted(recipe, analysis, clip, BRIEF)
    out = path.with_name("polished.mp4")
    source = Source(path, 0.0, size, measured.fps)
    render_preview(recipe, analysis, clip, source, out, on_progress=lambda _: None)
    again = measured_again(out)
    found = None if again.analysis is None else again.analysis.reading().gust()
    crop = f"{recipe.crop_pct:.2f} | {true.points[STRENGTH].crop_pct:.2f}"
    if found is None or recipe.gust is None:
        return f"| {name} | {crop} | – | {again.unmeasured} | – |", 0.0
    off = found - recipe.gust
    told = wobbles(curve, curve.points[STRENGTH], readout_of(clip, measured.motion))
    return f"| {name} | {crop} | {recipe.gust:.2f} | {found:.2f} | {off:+.2f} |", off * (not told)


@dataclass(frozen=True)
class Result:
    """A clip filmed and measured. line: its row. found: None where it is not measurable. steps:
    (n, 2) trust and error of its frames. film: row of it polished, None where it is not. faults:
    what of it is out of its tolerance."""

    line: str
    found: Compared | None
    steps: NDArray[np.float64]
    film: str | None
    faults: tuple[str, ...]

    @property
    def is_confident_error(self) -> bool:
        found = self.found
        if found is None or found.off is None:
            return False
        return abs(found.off) >= WRONG and found.trust >= LOW_TRUST


HAZARDS: tuple[Hazard, ...] = (*ORDINARY, *HARD, *SUBJECTS)


def result_of(number: int) -> Result:
    """Film a hazard of HAZARDS and measure it; ordinary and spoilt clips are polished too."""
    hazard = HAZARDS[number]
    with tempfile.TemporaryDirectory() as name:
        path = Path(name) / "take.mp4"
        truth = film(hazard.script, path, spoil=hazard.spoil)
        try:
            measured = measure_film(path)
        except UnfitError as refusal:
            line = f"| {hazard.name} | – | not measurable: {refusal.what} | | | | | |"
            return Result(line, None, np.zeros((0, 2)), None, ())
        motion = measured.motion
        found = compare(truth, motion)
        steps = np.column_stack([motion.trust, found.frame_pct])
        line, faults = row_of(hazard.name, found), []
        if hazard in SUBJECTS:
            return Result(line, found, steps, None, ())
        wide = found.off is None or abs(found.off) > hazard.gust
        away = hazard.path_pct is not None and (found.path_pct or 0) > hazard.path_pct
        if (wide or away) and found.trust > LOW_TRUST:
            faults.append(hazard.name)
        if Analysis(motion).doubt is not None:  # nothing is offered of it
            return Result(line, found, steps, None, tuple(faults))
        again, off = polished(hazard.name, path, measured, truth)
        told = found.trusted < LEAST_FOLLOWED or (found.floor or 0.0) > NOISY_GUST
        if abs(off) > AGREEMENT and not told:
            faults.append(f"{hazard.name}, polished")
        return Result(line, found, steps, again, tuple(faults))


def by_trust(pairs: list[np.ndarray]) -> list[str]:
    """Error of a frame's step by its trust, over all clips."""
    every = np.concatenate(pairs)
    every = every[np.isfinite(every).all(axis=1)]
    lines = [
        "| trust of a frame | frames | middle error of its step, % | nine in ten under |",
        "| --- | --- | --- | --- |",
    ]
    for low, high in TRUST_BINS:
        errors = every[(every[:, 0] >= low) & (every[:, 0] < high), 1]
        if len(errors):
            middle, most = np.percentile(errors, [50, 90])
            name = f"{low:g} to {min(high, 1):g}"
            lines.append(f"| {name} | {len(errors)} | {middle:.4f} | {most:.4f} |")
    return lines


def confusion() -> list[str]:
    """How often each true cause was named as which."""
    named: Counter[tuple[str, str]] = Counter()
    for take in single_takes(SINGLE_TAKES, seed=1):
        causes = Analysis(take.motion).causes(moves=False).causes
        named[take.causes[0], causes[0].key if causes else "none"] += 1
    keys = [*SINGLE, "none"]
    lines = [f"| true cause | {' | '.join(keys)} |", f"| --- |{' --- |' * len(keys)}"]
    for true in SINGLE:
        counts = " | ".join(str(named[true, key] or "") for key in keys)
        lines.append(f"| {true} | {counts} |")
    right = sum(count for (true, key), count in named.items() if true == key)
    both = [
        {cause.key for cause in Analysis(take.motion).causes(moves=False).causes[:2]}
        == set(take.causes)
        for take in paired_takes(PAIRED_TAKES, seed=1)
    ]
    lines += [
        "",
        f"The first cause is right in {right} of {sum(named.values())} takes with one that rules "
        f"(each makes at least half of S²), and both are named in {sum(both)} of {len(both)} takes "
        f"with two ({len(PAIRS)} pairs).",
    ]
    return lines


def main() -> int:
    results = []
    with ProcessPoolExecutor() as pool:
        for result in pool.map(result_of, range(len(HAZARDS))):
            print(result.line, flush=True)
            results.append(result)
    ordinary, rest = results[: len(ORDINARY)], results[len(ORDINARY) :]
    hard, subjects = rest[: len(HARD)], rest[len(HARD) :]
    errors = sum(one.is_confident_error for one in results)
    doubtful = sum(one.found is None or one.found.trust < LOW_TRUST for one in results)
    table = {
        "Ordinary clips": ordinary,
        "Spoilt clips": hard,
        "Something large moves by itself, from first to last": subjects,
    }
    parts = [
        INTRODUCTION.format(
            low=LOW_TRUST, wrong=WRONG, clips=len(results), errors=errors, doubtful=doubtful
        )
    ]
    for heading, clips in table.items():
        parts += [f"## {heading}", "", HEADER, *(one.line for one in clips), ""]
    parts += [
        "## Polished, rendered and measured again", "", POLISH_HEADER,
        *(one.film for one in results if one.film is not None), "", "## Error by trust", "",
        *by_trust([one.steps for one in ordinary + hard]), "", "## Causes", "", *confusion(), "",
    ]  # fmt: skip
    OUT.write_text("\n".join(parts))
    faults = [fault for one in results for fault in one.faults]
    for fault in faults:
        print(f"out of tolerance: {fault}", file=sys.stderr)
    return 1 if faults or errors else 0


if __name__ == "__main__":
    sys.exit(main())
