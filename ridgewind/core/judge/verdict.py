"""What is kept of a take's verdict, so that many takes are joined without judging each anew."""

from __future__ import annotations

from dataclasses import dataclass

from ridgewind.core.judge.assessment import Assessment
from ridgewind.core.judge.recipe import Recipe, recipe_of
from ridgewind.core.motion.path import Motion
from ridgewind.core.moves.move import MeasuredMove


@dataclass(frozen=True)
class Verdict:
    """first_s: the film's first frame, s in the file. recipe: of the remedy, None where it uses no
    part of the film. lee: calm stretch, s in the file. known: it is known how the camera moved;
    move: how, None where it was held."""

    first_s: float
    recipe: Recipe | None
    lee: tuple[float, float] | None
    known: bool
    move: MeasuredMove | None


def verdict_from(found: Assessment, motion: Motion) -> Verdict:
    """What is kept of an assessment. motion: of the whole film."""
    known = found.doubt is None and found.move is not None
    chosen = next(
        (one for one in found.decision.remedies if one.kind == found.decision.remedy), None
    )
    uses_film = chosen is not None and chosen.start_s is not None and chosen.end_s is not None
    return Verdict(
        first_s=float(motion.t_s[0]),
        recipe=recipe_of(chosen) if chosen is not None and uses_film else None,
        lee=None if found.lee is None else (found.lee.start_s, found.lee.end_s),
        known=known,
        move=found.move.move if known and found.move is not None else None,
    )
