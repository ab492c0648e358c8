"""How like its example a take shakes and moves, beside how much."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ridgewind.core.brief import Likeness
from ridgewind.core.moves.move import MoveReading
from ridgewind.core.shake.bands import Band
from ridgewind.core.shake.causes import LEAST_SPEED_PCT_S

ALIKE = 0.3
"""Share of the shake that lies in other bands than the example's, up to which the two are of one
kind (chosen here: two halves of one take differ by 0.05 to 0.25)."""


@dataclass(frozen=True)
class Compared:
    """example, here: shares by band, of the bands that both show, each summing to 1. apart: share
    of the shake that lies in other bands than the example's, 0 to 1. more, less: the bands that
    have most too much and most too little, "" where the kinds are alike. move: the take's, None
    where it was held. same_move: it is the example's kind of move."""

    example: dict[str, float]
    here: dict[str, float]
    apart: float
    more: str
    less: str
    move: str | None
    same_move: bool

    @property
    def alike(self) -> bool:
        return self.apart <= ALIKE


def shakes(speed_pct_s: float | None) -> bool:
    """Whether a picture of some speed S moves enough for its kinds of shake to be told; of less the
    bands are those of the measurement's own error."""
    return speed_pct_s is not None and speed_pct_s >= LEAST_SPEED_PCT_S


def compare(example: Likeness, bands: Sequence[Band], move: MoveReading | None) -> Compared | None:
    """A take against an example; None where either shows no shake in a band that both know."""
    own = {one.name: one.share for one in bands if one.share is not None}
    shared = [name for name in own if name in example.shares]
    wanted = _whole({name: example.shares[name] for name in shared})
    here = _whole({name: own[name] for name in shared})
    if wanted is None or here is None:
        return None
    over = {name: here[name] - wanted[name] for name in shared}
    apart = sum(max(0.0, one) for one in over.values())
    alike = apart <= ALIKE
    kind = None if move is None or move.move is None else move.move.kind
    return Compared(
        example=wanted,
        here=here,
        apart=apart,
        more="" if alike else max(over, key=lambda name: over[name]),
        less="" if alike else min(over, key=lambda name: over[name]),
        move=kind,
        same_move=kind == example.move,
    )


def _whole(shares: dict[str, float]) -> dict[str, float] | None:
    total = sum(shares.values())
    return None if total <= 0.0 else {name: share / total for name, share in shares.items()}
