"""The process in which a worker on another machine does its work: a decoder that dies on a bad film
takes nothing else down.

Started as `python -m ridgewind.jobs.remote.child`. Its worker writes it lines, each a JSON list of
a folder and a film: the folder holds the order, and what comes of it is written there. How far it
is, and how it ended, goes to the output, line by line. Where its input ends it leaves, whatever it
does.
"""

from __future__ import annotations

import json
import os
import queue
import sys
import threading
import time
import traceback
from pathlib import Path

TELL_EVERY_S = 0.25
ORDER, RESULT = "order.json", "result.json"
COPY, STILL, FILM = "copy.mp4", "still.jpg", "film.mp4"
ENDED = "ended"
"""Begins the line that says how it ended: done, no_room (of this machine), or unforeseen."""


def main() -> None:
    lines: queue.Queue[str] = queue.Queue()
    threading.Thread(target=_read, args=(lines,), daemon=True).start()
    # Imported only now: that takes most of a second, in which the worker may have gone.
    from ridgewind.media.errors import MediaError  # noqa: PLC0415

    while True:
        folder, film = (Path(one) for one in json.loads(lines.get()))
        try:
            _do(folder, film)
            how = "done"
        except MediaError:
            how = "no_room"
        except Exception:
            traceback.print_exc()
            how = "unforeseen"
        print(ENDED, how, flush=True)


def _do(folder: Path, film: Path) -> None:
    """Raises MediaError where this machine's disk is full, which is no fault of the film."""
    from ridgewind.films import orders  # noqa: PLC0415
    from ridgewind.jobs.remote import wire  # noqa: PLC0415
    from ridgewind.media.errors import DISK_FULL, MediaError  # noqa: PLC0415
    from ridgewind.store.jobs import Fault  # noqa: PLC0415

    order = wire.order_read((folder / ORDER).read_text(encoding="utf-8"))
    told = _Told()
    try:
        result: wire.Result
        if isinstance(order, orders.MeasureOrder):
            result = orders.measure(
                film, order, copy=folder / COPY, still=folder / STILL, on_progress=told.feed
            )
        else:
            result = orders.render(film, order, folder / FILM, on_progress=told.feed)
    except MediaError as error:
        if error.code == DISK_FULL[0]:
            raise
        result = Fault(error.code, error.what, error.next_step)
        for half_made in (COPY, STILL, FILM):
            (folder / half_made).unlink(missing_ok=True)
    (folder / RESULT).write_text(wire.result_text(result), encoding="utf-8")


class _Told:
    """Says how far it is, now and then."""

    def __init__(self) -> None:
        self._next_s = 0.0

    def feed(self, done: float | None) -> None:
        """done: the share that is done, None where unknown."""
        now_s = time.monotonic()
        if now_s >= self._next_s:
            self._next_s = now_s + TELL_EVERY_S
            print("" if done is None else f"{done:.4f}", flush=True)


def _read(lines: queue.Queue[str]) -> None:
    # Past the buffer, whose lock would hold up the end of this process.
    kept = b""
    while piece := os.read(sys.stdin.fileno(), 4096):
        *whole, kept = (kept + piece).split(b"\n")
        for line in whole:
            lines.put(line.decode())
    os._exit(1)


if __name__ == "__main__":
    main()
