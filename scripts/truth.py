"""Film every hazard, measure it, and keep the table in docs/truth.md: `make truth`.

About twelve minutes. Clips are kept nowhere; everything is made again from its seed.
"""

from __future__ import annotations

import sys
import tempfile
from collections import Counter
from pathlib import Path

import numpy as np

from ridgewind.core.brief import Brief, usual_brief
from ridgewind.core.clip import Clip
from ridgewind.core.judge import Analysis, assess
from ridgewind.core.judge.polish import polish_curve
from ridgewind.core.judge.polish_warnings import LEAST_FOLLOWED, NOISY_GUST
from ridgewind.core.judge.recipe import at_strength, predicted, recipe_of
from ridgewind.core.motion import Motion
from ridgewind.core.shake import read_motion
from ridgewind.core.shake.causes import find_causes
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
but where a part could not be followed or the picture is noisy, which the polish then warns of.
Path error is the root mean square of pan and tilt, percent of the long side.

**Confident errors** (gust off by {wrong} or more with trust of {low} or more), over all
{clips} clips: **{errors}**. In doubt or not measurable: {doubtful}.
"""


def polished(name: str, path: Path, measured: Measured, truth: Motion) -> tuple[str, float]:
    """A row of a polish rendered and measured again, and how far that is from the prediction."""
    size = (measured.width, measured.height)
    clip = Clip(measured.fps, measured.duration_s, False, size, 26.0)
    analysis = Analysis(measured.motion)
    curve = analysis.polish(upright=clip.upright)
    true = polish_curve(read_motion(truth), aspect=truth.aspect, upright=clip.upright)
    assert curve is not None
    assert true is not None
    keep = recipe_of(assess(analysis, clip, BRIEF).decision.of("keep"))
    recipe = at_strength(keep, curve, curve.points[STRENGTH], BRIEF)
    recipe = predicted(recipe, analysis, clip, BRIEF)
    out = path.with_name("polished.mp4")
    source = Source(path, 0.0, size, measured.fps)
    render_preview(recipe, analysis, clip, source, out, on_progress=lambda _: None)
    again, why = measured_again(out)
    found = None if again is None else again.reading().gust()
    crop = f"{recipe.crop_pct:.2f} | {true.points[STRENGTH].crop_pct:.2f}"
    if found is None or recipe.gust is None:
        return f"| {name} | {crop} | – | {why} | – |", 0.0
    off = found - recipe.gust
    return f"| {name} | {crop} | {recipe.gust:.2f} | {found:.2f} | {off:+.2f} |", off


def rows(
    hazards: tuple[Hazard, ...],
    folder: Path,
    pairs: list[np.ndarray],
    films: list[str],
    compared: list[Compared | None],
) -> tuple[list[str], list[str]]:
    """Table rows, and what is out of its tolerance. pairs: gets (n, 2) trust and error of each
    clip's frames. films: gets a row of each clip polished. compared: gets each comparison."""
    lines, faults = [], []
    for hazard in hazards:
        path = folder / "take.mp4"
        truth = film(hazard.script, path, spoil=hazard.spoil)
        measured = measure_film(path)
        motion = measured.motion
        found = compare(truth, motion)
        compared.append(found)
        pairs.append(np.column_stack([motion.trust, found.frame_pct]))
        lines.append(row_of(hazard.name, found))
        print(lines[-1], flush=True)
        wide = found.off is None or abs(found.off) > hazard.gust
        away = hazard.path_pct is not None and (found.path_pct or 0) > hazard.path_pct
        if (wide or away) and found.trust > LOW_TRUST:
            faults.append(hazard.name)
        if Analysis(motion).doubt is not None:
            continue  # nothing is offered of it
        line, off = polished(hazard.name, path, measured, truth)
        films.append(line)
        told = found.trusted < LEAST_FOLLOWED or (found.floor or 0.0) > NOISY_GUST
        if abs(off) > AGREEMENT and not told:
            faults.append(f"{hazard.name}, polished")
    return lines, faults


def subject_rows(folder: Path, compared: list[Compared | None]) -> list[str]:
    """Rows of the clips in which something large moves by itself; they are not polished."""
    lines = []
    for hazard in SUBJECTS:
        path = folder / "take.mp4"
        truth = film(hazard.script, path, spoil=hazard.spoil)
        try:
            found = compare(truth, measure_film(path).motion)
        except UnfitError as refusal:
            compared.append(None)
            lines.append(f"| {hazard.name} | – | not measurable: {refusal.what} | | | | | |")
        else:
            compared.append(found)
            lines.append(row_of(hazard.name, found))
        print(lines[-1], flush=True)
    return lines


def is_confident_error(found: Compared | None) -> bool:
    return (
        found is not None
        and found.off is not None
        and abs(found.off) >= WRONG
        and found.trust >= LOW_TRUST
    )


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
        causes = find_causes(read_motion(take.motion), moves=False).causes
        named[take.causes[0], causes[0].key if causes else "none"] += 1
    keys = [*SINGLE, "none"]
    lines = [f"| true cause | {' | '.join(keys)} |", f"| --- |{' --- |' * len(keys)}"]
    for true in SINGLE:
        counts = " | ".join(str(named[true, key] or "") for key in keys)
        lines.append(f"| {true} | {counts} |")
    right = sum(count for (true, key), count in named.items() if true == key)
    both = [
        {cause.key for cause in find_causes(read_motion(take.motion), moves=False).causes[:2]}
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
    with tempfile.TemporaryDirectory() as name:
        pairs: list[np.ndarray] = []
        films: list[str] = []
        compared: list[Compared | None] = []
        ordinary, one = rows(ORDINARY, Path(name), pairs, films, compared)
        hard, two = rows(HARD, Path(name), pairs, films, compared)
        subjects = subject_rows(Path(name), compared)
    errors = sum(map(is_confident_error, compared))
    doubtful = sum(1 for found in compared if found is None or found.trust < LOW_TRUST)
    parts = [
        INTRODUCTION.format(
            low=LOW_TRUST, wrong=WRONG, clips=len(compared), errors=errors, doubtful=doubtful
        ),
        "## Ordinary clips", "", HEADER, *ordinary, "",
        "## Spoilt clips", "", HEADER, *hard, "",
        "## Something large moves by itself, from first to last", "", HEADER, *subjects,
        "", "## Polished, rendered and measured again", "",
        POLISH_HEADER, *films, "", "## Error by trust", "",
        *by_trust(pairs), "", "## Causes", "", *confusion(), "",
    ]  # fmt: skip
    OUT.write_text("\n".join(parts))
    for fault in one + two:
        print(f"out of tolerance: {fault}", file=sys.stderr)
    return 1 if one or two or errors else 0


if __name__ == "__main__":
    sys.exit(main())
