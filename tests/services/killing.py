"""What is killed at many moments, each time in a process of its own."""

from __future__ import annotations

import contextlib
import os
import signal
import time

MOMENTS = 20


def killed(deed, after_s: float) -> None:
    """A process of its own does it, and is killed after a while."""
    pid = os.fork()
    if pid == 0:
        with contextlib.suppress(BaseException):
            deed()
        os._exit(0)
    time.sleep(after_s)
    os.kill(pid, signal.SIGKILL)
    os.waitpid(pid, 0)


def seconds_of(deed) -> float:
    begun_s = time.monotonic()
    deed()
    return time.monotonic() - begun_s
