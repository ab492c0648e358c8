"""Starts servers and workers from a process that has imported all of the application: each is a
process of its own, begun with the command's own words, without the one to three seconds that
importing takes.

`warm().start` asks that process, which is one for each test process and ends with it; it listens on
a socket, because the servers that it has started ask it for their workers. What a start from cold
does is proven where workers are killed, and wherever a supervisor or a command is tested by itself.
"""

from __future__ import annotations

import gc
import json
import os
import select
import signal
import socket
import subprocess
import sys
import tempfile
import threading
import time
from contextlib import suppress
from pathlib import Path
from typing import BinaryIO

MOST_BYTES = 1 << 16
KILLED = -signal.SIGKILL


class WarmProcess:
    """As much of a `subprocess.Popen` as is asked of one.

    Its end is heard on a pipe, into which it writes its status before it leaves: it is no child of
    whoever waits for it.
    """

    def __init__(self, pid: int, status: int, stdin: BinaryIO | None) -> None:
        self.pid, self.stdin = pid, stdin
        self.returncode: int | None = None
        self._status = status
        self._lock = threading.Lock()

    def poll(self) -> int | None:
        with self._lock:
            if self.returncode is None and select.select([self._status], [], [], 0)[0]:
                told = os.read(self._status, 4)
                self.returncode = int(told) if told else KILLED
                os.close(self._status)
            return self.returncode

    def wait(self, timeout: float | None = None) -> int:
        end = time.monotonic() + (3600.0 if timeout is None else timeout)
        while self.poll() is None:
            if time.monotonic() > end:
                raise subprocess.TimeoutExpired("a warm process", timeout or 0.0)
            time.sleep(0.01)
        assert self.returncode is not None
        return self.returncode

    def send_signal(self, number: signal.Signals) -> None:
        if self.poll() is None:
            with suppress(ProcessLookupError):
                os.kill(self.pid, number)

    def terminate(self) -> None:
        self.send_signal(signal.SIGTERM)

    def kill(self) -> None:
        self.send_signal(signal.SIGKILL)


class Warm:
    """The process that starts others, as seen by those who ask it."""

    def __init__(self, place: str) -> None:
        self._place = place

    def start(
        self, what: str, words: list[str], *, out: int, stdin: bool = False, workers: bool = True
    ) -> WarmProcess:
        """what: "ridgewind" or "worker". out: where it prints, a file's descriptor. stdin: whether
        its input is held open. workers: whether those of a server are started warm too."""
        heard, told = os.pipe()
        reads, writes = os.pipe() if stdin else (os.open(os.devnull, os.O_RDONLY), -1)
        with socket.socket(socket.AF_UNIX, socket.SOCK_SEQPACKET) as line:
            line.connect(self._place)
            ask = {"what": what, "words": words, "workers": workers}
            socket.send_fds(line, [json.dumps(ask).encode()], [reads, out, told])
            pid = int(line.recv(20))
        os.close(told)
        os.close(reads)
        return WarmProcess(pid, heard, os.fdopen(writes, "wb", buffering=0) if stdin else None)


class Nursery:
    """That process, as seen by the one that began it."""

    def __init__(self) -> None:
        self._folder = tempfile.TemporaryDirectory(prefix="warm")
        place = Path(self._folder.name) / "line"
        self._process = subprocess.Popen(
            [sys.executable, "-m", __name__, str(place)], stdin=subprocess.PIPE
        )
        while not place.exists():
            assert self._process.poll() is None, "it did not start"
            time.sleep(0.02)
        self.warm = Warm(str(place))

    def end(self) -> None:
        self._process.communicate()
        self._folder.cleanup()


_begun: list[Nursery] = []


def warm() -> Warm:
    """What starts processes for this one."""
    if not _begun:
        _begun.append(Nursery())
    return _begun[0].warm


def end() -> None:
    """Nothing more is to be started."""
    while _begun:
        _begun.pop().end()


def listen(place: str) -> None:
    import_all()
    ask_all()
    gc.collect()
    gc.freeze()  # what is shared is not looked through, and so copied, by each that begins
    signal.signal(signal.SIGCHLD, signal.SIG_IGN)  # nothing of what ended is left
    with socket.socket(socket.AF_UNIX, socket.SOCK_SEQPACKET) as door:
        door.bind(f"{place}-soon")
        door.listen(32)
        os.rename(f"{place}-soon", place)
        while True:
            ready, _, _ = select.select([door, sys.stdin], [], [])
            if sys.stdin in ready:  # whoever began it is gone
                return
            line = door.accept()[0]
            with line:
                told, files, _, _ = socket.recv_fds(line, MOST_BYTES, 3)
                if not told:
                    continue
                if (pid := os.fork()) == 0:
                    door.close()
                    line.close()
                    live(json.loads(told), place, files)
                line.send(str(pid).encode())
                for one in files:
                    os.close(one)


def import_all() -> None:
    """What a server and any worker imports, at the latest when it is first asked for."""
    import huey  # noqa: F401

    import ridgewind.cli.demo
    import ridgewind.cli.serve  # noqa: F401
    from ridgewind.jobs.queue import TASKS
    from ridgewind.web import addresses

    addresses.blueprints()
    for module, _ in TASKS.values():
        __import__(module)


def ask_all() -> None:
    """What a server makes at the first request to each address."""
    from ridgewind.library.library import Library
    from ridgewind.web.addresses import TABLE, Address
    from ridgewind.web.app import Config, create_app

    with tempfile.TemporaryDirectory(prefix="warm") as folder:
        library = Library(Path(folder))
        library.prepare()
        client = create_app(Config(library.root)).test_client()
        rows = [Address(*row) for row in json.loads(TABLE.read_text(encoding="utf-8"))]
        for rule in ["/", *(row.rule for row in rows if "GET" in row.methods)]:
            if "<" not in rule:
                client.get(rule, headers={"Host": "127.0.0.1"})


def live(ask: dict[str, object], place: str, files: list[int]) -> None:
    """Be the process that was asked for; never returns."""
    signal.signal(signal.SIGCHLD, signal.SIG_DFL)
    os.setsid()
    stdin, out, status = files
    for target, source in enumerate((stdin, out, out)):
        os.dup2(source, target)
    os.close(stdin)
    os.close(out)
    sys.stdin = os.fdopen(0, closefd=False)
    sys.stdout, sys.stderr = (os.fdopen(k, "w", buffering=1, closefd=False) for k in (1, 2))
    code: object = 1
    try:
        if ask["what"] == "worker":
            be_worker(ask["words"])
            code = 0
        else:
            be_command(ask["words"], Warm(place) if ask["workers"] else None)
    except SystemExit as end:
        code = end.code
    except BaseException:
        import traceback

        traceback.print_exc()
    sys.stdout.flush()
    sys.stderr.flush()
    os.write(status, str(code if isinstance(code, int) else int(code is not None)).encode())
    os._exit(0)


def be_worker(words: list[str]) -> None:
    from ridgewind.jobs import worker

    sys.argv = ["worker", *words]
    worker.main()


def be_command(words: list[str], warm: Warm | None) -> None:
    from ridgewind.cli.main import main
    from ridgewind.jobs import supervisor

    if warm is not None:
        supervisor.start_worker = lambda root, kind: warm.start(
            "worker", [str(root), kind], out=2, stdin=True
        )
    main(words, prog_name="ridgewind")


if __name__ == "__main__":
    listen(sys.argv[1])
