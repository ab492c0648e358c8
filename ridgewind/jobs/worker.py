"""A worker process: takes tasks of one kind from its queue until its server is gone.

Started by the supervisor as `python -m ridgewind.jobs.worker LIBRARY KIND`, with an input that the
server holds open and never writes to. Where that ends the server is gone, on any system, and the
worker leaves, from its first moment on, so that a killed server leaves no orphan behind. What it
was doing is still marked as running in the store and is taken up again at the next start.
"""

from __future__ import annotations

import logging
import os
import sys
import threading
from pathlib import Path

POLL_S, SLOWEST_POLL_S = 0.05, 0.25


def main() -> None:
    root, asked = sys.argv[1:]
    threading.Thread(target=_leave_with_the_server, daemon=True).start()
    # Imported only now: that takes most of a second, in which the server may have gone.
    from ridgewind.jobs import running  # noqa: PLC0415
    from ridgewind.jobs.queue import TASKS, open_queue  # noqa: PLC0415
    from ridgewind.library.library import Library  # noqa: PLC0415

    logging.basicConfig(level=logging.WARNING, format="ridgewind worker: %(message)s")
    library = Library(Path(root))
    kind = next(one for one in TASKS if one == asked)
    running.waits_by(library.give_sign_of_life)
    with library.worked_on():
        queue = open_queue(library, kind)
        queue.create_consumer(
            workers=1,
            worker_type="thread",
            initial_delay=POLL_S,
            max_delay=SLOWEST_POLL_S,
            periodic=False,
            check_worker_health=False,
        ).run()


def _leave_with_the_server() -> None:
    # Past the buffer, whose lock would hold up the end of this process.
    while os.read(sys.stdin.fileno(), 1):
        pass
    os._exit(1)


if __name__ == "__main__":
    main()
