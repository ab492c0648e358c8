"""Sessions that are planned in one step: of a drill, of a trial's next takes, the first look."""

from __future__ import annotations

import random
from collections.abc import Sequence

from ridgewind.core.practice.assessment import build_assessment
from ridgewind.core.practice.drill import Drill
from ridgewind.core.practice.session import (
    LEAST_ROUNDS,
    MOST_VARIATIONS,
    Ask,
    Block,
    Session,
    balanced_order,
)
from ridgewind.services import practising
from ridgewind.store import drills
from ridgewind.store.database import Connection
from ridgewind.store.errors import NotFoundError

LONGEST_NAME = 120
LEAST_MINUTES, MOST_MINUTES = 3.0, 240.0


def first_look(db: Connection) -> int:
    """Keep the first look at a hand; returns its id. Raises InvalidArgumentError."""
    plan = build_assessment(drills.library(db))
    ask = Ask(round(plan.total_s / 60.0, 1), (), "path", (), (), 1, ())
    return practising.keep_session(
        db, name="First look at your hand", ask=ask, plan=plan, setup_id=None
    )


def practise(db: Connection, drill_key: str, *, variation: str | None, seed: int) -> int:
    """Keep a session of one drill, its control beside the variations; returns its id. variation:
    the one that is wanted, None for the first ones. Raises NotFoundError."""
    drill = drills.library(db, archived=True).get(drill_key)
    if drill is None:
        raise NotFoundError("drill", drill_key)
    others = [one.key for one in drill.variations if not one.control]
    if variation is not None and variation != drill.control.key:
        if variation not in others:
            raise NotFoundError("variation", variation)
        others = [variation]
    keys = [drill.control.key, *others[: MOST_VARIATIONS - 1]]
    return keep_block(
        db, drill, keys, rounds=LEAST_ROUNDS, name=f"Practise: {drill.name}", why="practise this",
        seed=seed,
    )  # fmt: skip


def keep_block(
    db: Connection,
    drill: Drill,
    keys: Sequence[str],
    *,
    rounds: int,
    name: str,
    why: str,
    seed: int,
) -> int:
    """Keep a session of one drill's variations in an order that favours none; returns its id."""
    order = balanced_order(keys, rounds, random.Random(seed))
    block = Block(drill.key, order, drill.take_s, drill.rest_s, (why,))
    plan = Session(0.0, (block,), block.seconds, 0.0, drill.cautions)
    minutes = min(MOST_MINUTES, max(LEAST_MINUTES, block.seconds / 60.0))
    ask = Ask(round(minutes, 1), (), drill.space, drill.needs, (), seed, ())
    return practising.keep_session(db, name=name[:LONGEST_NAME], ask=ask, plan=plan, setup_id=None)
