"""A sequence of 60 shots: `.venv/bin/python bench/sequence.py`.

An order is changed within a frame or two of the screen (the page shows it at once; the server has
so long), and a time line is written in under a second. Paths are made, each of eight seconds.
"""

from __future__ import annotations

import io
import tempfile
import time
from pathlib import Path

import numpy as np

from ridgewind.core.motion.turn_rates import LogMapping
from ridgewind.library.library import Library
from ridgewind.services import logs
from ridgewind.store import database, outings
from ridgewind.web.app import Config, create_app

SHOTS, SECONDS, HZ = 60, 8.0, 60.0
HEADERS = {"Host": "127.0.0.1:8421"}
MAPPING = LogMapping(
    time="t", pan="pan", tilt="tilt", roll="roll", time_unit="s", rate_unit="deg_s",
    pan_sign=1, tilt_sign=1, roll_sign=1,
)  # fmt: skip


def hand(seed: int) -> str:
    """Turning rates of a hand that pans, as a log."""
    rng = np.random.default_rng(seed)
    t_s = np.arange(round(SECONDS * HZ)) / HZ
    shake = np.cumsum(rng.normal(0, 0.4, (len(t_s), 3)), axis=0) * 0.2
    shake[:, 0] += 4.0 * np.sin(0.4 * t_s + seed)
    out = io.StringIO()
    out.write("t,pan,tilt,roll\n")
    for t, (pan, tilt, roll) in zip(t_s, shake, strict=True):
        out.write(f"{t:.4f},{pan:.4f},{tilt:.4f},{roll:.4f}\n")
    return out.getvalue()


def main() -> None:
    with tempfile.TemporaryDirectory() as folder:
        library = Library(Path(folder))
        library.prepare()
        client = create_app(Config(Path(folder))).test_client()
        made = client.post("/api/outings", json={"name": "Sixty"}, headers=HEADERS).get_json()
        for number in range(SHOTS):
            line = {"line": f"thing {number}, pan left 4 s"}
            reply = client.post(f"/api/outings/{made['id']}/lines", json=line, headers=HEADERS)
            made = reply.get_json()
        ids = [one["id"] for one in made["shots"]]
        with database.opened(library.database) as db:
            for number, shot_id in enumerate(ids):
                log = Path(folder) / "log.csv"
                log.write_text(hand(number))
                take_id = logs.add_alone(library, db, log, name=f"Take {number}", mapping=MAPPING)
                with database.atomic(db):
                    outings.meet(db, take_id, shot_id, how="hand")
        path = f"/api/outings/{made['id']}"
        for words, ask in (
            ("joined, the first time", lambda: client.get(f"{path}/joined", headers=HEADERS)),
            ("joined, again", lambda: client.get(f"{path}/joined", headers=HEADERS)),
            ("an order changed", lambda: client.put(
                f"{path}/order", json={"ids": ids[::-1], "base": ids}, headers=HEADERS)),
            ("the time line written", lambda: client.get(
                f"{path}/sequence.otio", headers=HEADERS)),
        ):  # fmt: skip
            since = time.perf_counter()
            answer = ask()
            took_ms = 1000 * (time.perf_counter() - since)
            assert answer.status_code == 200, answer.text
            print(f"{words}: {took_ms:.0f} ms")


if __name__ == "__main__":
    main()
