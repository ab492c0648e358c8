"""Starts servers from a process that has imported the application already: each is a process of its
own, started by the command's own words, without the second that importing takes.

Run as `python -m tests.e2e.warm`. For each line of JSON on its input, with the command's words and
a file for what it prints, it answers with the number of the process.
"""

from __future__ import annotations

import json
import os
import signal
import sys
from typing import NoReturn

import ridgewind.cli.demo
import ridgewind.cli.serve  # noqa: F401
from ridgewind.cli.main import main
from ridgewind.web import addresses


def serve(words: list[str], log: str) -> NoReturn:
    signal.signal(signal.SIGCHLD, signal.SIG_DFL)
    target = os.open(log, os.O_WRONLY | os.O_CREAT | os.O_TRUNC)
    for stream in (1, 2):
        os.dup2(target, stream)
    os.dup2(os.open(os.devnull, os.O_RDONLY), 0)
    sys.stdout, sys.stderr = (os.fdopen(stream, "w", buffering=1) for stream in (1, 2))
    code: object = 1
    try:
        main(words, prog_name="ridgewind")
    except SystemExit as end:
        code = end.code
    sys.stdout.flush()
    sys.stderr.flush()
    os._exit(code if isinstance(code, int) else 1)


def listen() -> None:
    addresses.blueprints()  # every place, which a server imports as it is asked for
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)  # nothing of a server that ended is left
    for line in sys.stdin:
        ask = json.loads(line)
        if (pid := os.fork()) == 0:
            serve(ask["words"], ask["log"])
        print(pid, flush=True)


if __name__ == "__main__":
    listen()
