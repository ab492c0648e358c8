"""What Findings answers over 5,000 takes of 250 sessions: `.venv/bin/python bench/findings.py`.

The bar is half a second an answer, in one process, the second time that it is asked.
"""

from __future__ import annotations

import random
import tempfile
import time
from datetime import UTC, datetime, timedelta
from pathlib import Path

import numpy as np

from ridgewind.core.practice.session import Ask, Block, Session
from ridgewind.core.trials.survival import LEVELS, Lasting
from ridgewind.library.library import Library
from ridgewind.store import briefs, clips, database, drills, jobs, sessions, summaries, takes
from ridgewind.store.database import Connection
from ridgewind.web.app import Config, create_app

SESSIONS, DRILLS, TAKES = 250, 40, 10
"""Sessions of two drills each, so many takes of each."""

BEGUN = datetime(2025, 1, 6, 9, 0, tzinfo=UTC)
HEADERS = {"Host": "127.0.0.1:8421"}
ASKED = (
    "/api/trials",
    "/api/trials/{drill}",
    "/api/limits",
    "/api/limits/endurance",
    "/api/progress",
    "/api/progress?drill={drill}",
    "/api/noted",
    "/api/hand",
    "/api/hand/profile",
    "/api/shot?focal_eq_mm=50",
    "/api/shot?focal_eq_mm=85&keep_sound=true",
)
ROUNDS = 3


def fill(db: Connection) -> str:
    """Sessions in which every take has a line; gives the key of a drill that was filmed."""
    rng, numbers = random.Random(1), np.random.default_rng(1)
    shelf = list(drills.shipped().values())[:DRILLS]
    brief_id, number = briefs.usual(db).id, 0
    for day in range(SESSIONS):
        blocks = []
        for drill in (shelf[day % DRILLS], shelf[(7 * day + 3) % DRILLS]):
            keys = [one.key for one in drill.variations]
            order = tuple(keys[k % len(keys)] for k in range(TAKES))
            blocks.append(Block(drill.key, order, drill.take_s, drill.rest_s, ("x",)))
        session_id = sessions.add(
            db, name=f"Day {day}", ask=Ask(30.0, (), "path", (), (), 1, ()),
            plan=Session(0.0, tuple(blocks), 300.0, 0.0, ()), setup_id=None,
        )  # fmt: skip
        for position in range(2 * TAKES):
            number += 1
            sha256 = f"{number:064d}"
            clip_id = clips.add(db, sha256=sha256, file=f"{sha256}.mp4", size_bytes=1)
            take_id = takes.add(
                db, clip_id=clip_id, name=f"T{number}", brief_id=brief_id, setup_id=None
            )
            jobs.enqueue(db, "measure", clip_id)
            jobs.finish(db, "measure", clip_id)
            gust = rng.gauss(4.5, 0.5)
            summaries.put(
                db, take_id, gust=gust, peak_gust=gust, remedy="keep", ridge=b"\0" * 240,
                speed_pct_s=0.1 * 2 ** (gust / 1.25), top_band="sway", cause=None,
                trusted_share=1.0, staleness=0, turning=numbers.random((56, 4)) * 0.01,
                figures={"gust": gust, "body": gust, "sway": gust - 1, "jitter": gust - 2},
                lasting=Lasting(8.0, tuple(3.0 if level < gust else None for level in LEVELS)),
            )  # fmt: skip
            at = BEGUN + timedelta(days=2 * day, minutes=position * rng.uniform(1.0, 1.5))
            sessions.set_state(db, session_id, position, "filmed", filmed_at=at)
            sessions.file_take(db, session_id, position, take_id)
            notes: dict[str, str | int | None] = {
                "tension": rng.randint(1, 5), "fatigue": min(5, 1 + position // 4),
                "felt": rng.choice(["good", "bad"]),
            }  # fmt: skip
            sessions.set_notes(db, session_id, position, notes)
    return shelf[0].key


def main() -> None:
    with tempfile.TemporaryDirectory() as folder:
        library = Library(Path(folder))
        library.prepare()
        with database.opened(library.database) as db, database.atomic(db):
            drill = fill(db)
        client = create_app(Config(library.root)).test_client()
        for address in ASKED:
            took = []
            for _ in range(ROUNDS):
                begun = time.perf_counter()
                answer = client.get(address.format(drill=drill), headers=HEADERS)
                took.append(time.perf_counter() - begun)
                assert answer.status_code == 200, answer.text
            print(f"{address.format(drill=drill):45} {1000 * min(took):5.0f} ms")


if __name__ == "__main__":
    main()
